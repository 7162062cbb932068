import { compareSetups, readSwitchingPoints } from '@barys/core/setup';
import { convertPressure } from '@barys/core/units';
import type { Configuration } from '@barys/store/registers';
import { wantedSetup } from '@barys/store/shapes';
import { describe, expect, it } from 'vitest';
import { fieldsOfConfiguration } from '../fields';
import { TEST_CONFIGURATION as CONFIGURATION } from '../../../test/configuration';
import { csvOfSetup } from './csv';
import {
  asItMustBe,
  checksOfFields,
  configurationAsRead,
  SETUP_FIELDS,
  setupOfFields,
  type SetupFields,
} from './fields';
import { partOf } from './partOf';

const configuration: Configuration = {
  ...CONFIGURATION,
  displayDampingS: 4,
  application: 'flow',
  startView: 'display scale',
  drivenBy: 'pressure',
  switchingPoints: [{ name: 'high', on: -5, off: 4.5 }],
  transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 },
};
const wanted = wantedSetup(configuration, 0.25);
const read = (more: Partial<SetupFields> = {}) => ({ ...SETUP_FIELDS, ...more });

describe('a set-up as it is typed', () => {
  it('is the same setting by setting where it is taken over as it has to be', () => {
    const compared = compareSetups(wanted, setupOfFields(read(asItMustBe(configuration))));
    expect(compared).toMatchObject({ differences: [], unread: [], unregistered: [] });
    expect(compared.same).toHaveLength(13);
  });

  it('says nothing of what is not typed, and knows “none” from nothing', () => {
    expect(Object.values(setupOfFields(read())).every((value) => value === null)).toBe(true);
    expect(setupOfFields(read({ switchingPoints: 'none' })).switchingPoints).toEqual([]);
    expect(asItMustBe({ ...configuration, switchingPoints: [] }).switchingPoints).toBe('none');
    expect(setupOfFields(read({ lrv: '0,5' })).lrv).toBe(0.5);
  });

  it('names what is wrong at its field', () => {
    const fault = (more: Partial<SetupFields>) => partOf(() => setupOfFields(read(more))).fault;
    expect(fault({ urv: '1.2.3' })).toMatchObject({ field: 'urv' });
    expect(fault({ dampingS: '-1' })).toMatchObject({
      field: 'dampingS',
      message: 'The damping must not be negative.',
    });
    expect(fault({ switchingPoints: 'high' })).toMatchObject({ field: 'switchingPoints' });
    expect(fault({ switchingPoints: 'a: 1 / 1' })).toMatchObject({ field: 'switchingPoints' });
    expect(fault({ transfer: 'square-root-cut-off', knee: 'x' })?.message).toContain('x');
    expect(fault({})).toBeNull();
    expect(partOf(() => checksOfFields(read({ loopOhm: '-1' }))).fault).toMatchObject({ field: 'loopOhm' });
    expect(partOf(() => checksOfFields(read({ saturationMilliamp: '' }))).fault).toMatchObject({
      field: 'saturationMilliamp',
    });
  });

  it('is handed over as it was read, what was not read in the unit that was', () => {
    const asRead = (more: Partial<SetupFields>) =>
      configurationAsRead(configuration, setupOfFields(read(more)));
    expect(asRead({})).toEqual({
      ...fieldsOfConfiguration(configuration),
      reason: 'As it was read on a set-up walk',
    });
    const { lrv, urv, inputUnit, switchingPoints, dampingS } = asRead({ inputUnit: 'kPa', dampingS: '7' });
    const inKpa = (value: number) => convertPressure(value, configuration.inputUnit, 'kPa');
    expect([lrv, urv, dampingS].map(Number)).toEqual([
      expect.closeTo(inKpa(configuration.lrv), 9),
      expect.closeTo(inKpa(configuration.urv), 9),
      7,
    ]);
    expect(inputUnit).toBe('kPa');
    expect(readSwitchingPoints(switchingPoints ?? '')[0]?.on).toBeCloseTo(inKpa(-5), 8);
    expect(asRead({ switchingPoints: 'none' })).toMatchObject({ switchingPoints: '' });
    expect(asRead({ transfer: 'linear', urv: '12' })).toMatchObject({ transfer: 'linear', urv: '12' });
  });

  it('goes into a CSV with what each difference does', () => {
    const found = setupOfFields(read({ startView: 'output', lrv: String(configuration.lrv) }));
    const csv = csvOfSetup(wanted, found, compareSetups(wanted, found)).split('\r\n');
    expect(csv).toHaveLength(14);
    expect(csv.find((line) => line.startsWith('Start view'))).toMatch(
      /^Start view,display scale,output,.*,no$/,
    );
    expect(csv.find((line) => line.startsWith('Lower range'))).toMatch(/as it has to be$/);
    expect(csvOfSetup(wanted, null, null).split('\r\n')[1]).toMatch(/,,,$/);
  });
});
