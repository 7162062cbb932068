import type { ReadSetup } from '@barys/core/port';
import { compareSetups } from '@barys/core/setup';
import type { Configuration } from '@barys/store/registers';
import { wantedSetup } from '@barys/store/shapes';
import { describe, expect, it } from 'vitest';
import { TEST_CONFIGURATION as CONFIGURATION } from '../../../test/configuration';
import { SETUP_FIELDS, setupOfFields } from './fields';
import { readOverLink } from './overLink';

const READ: ReadSetup = {
  tag: 'PT-1',
  serial: '000007',
  value: 0,
  isFixed: false,
  unit: CONFIGURATION.inputUnit,
  lrv: CONFIGURATION.lrv,
  urv: CONFIGURATION.urv,
  dampingS: CONFIGURATION.dampingS,
  transfer: 'linear',
  isProtected: false,
  milliamp: 4.001,
  temperaturesC: [21.5],
  volts: null,
};
const wanted: { readonly tag: string; readonly configuration: Configuration } = {
  tag: 'PT-1',
  configuration: { ...CONFIGURATION, transferFunction: { kind: 'linear' } },
};
const read = (more: Partial<ReadSetup>, of = wanted) =>
  readOverLink({ ...READ, ...more }, of, 'Bench A, HM-01');

describe('settings that were read over a link', () => {
  it('are typed as they were said, and compared as if somebody had', () => {
    const { fields, words } = read({ urv: CONFIGURATION.urv * 2 });
    expect(words).toEqual(['It says that it is PT-1.']);
    expect(fields).toMatchObject({ sensorC: '21.5', remark: 'Read over the link: Bench A, HM-01.' });
    expect(fields.electronicsC).toBeUndefined();
    expect(fields.terminalV).toBeUndefined();
    const { differences } = compareSetups(
      wantedSetup(wanted.configuration, 0.5),
      setupOfFields({ ...SETUP_FIELDS, ...fields }),
    );
    expect(differences.map(({ key }) => key)).toEqual(['urv']);
    expect(read({ volts: 18.2 }).fields).toMatchObject({ terminalV: '18.2', terminalMilliamp: '4.001' });
  });

  it('of another instrument, or one without a tag, are said to be so', () => {
    expect(read({ tag: 'PT-2' }).words[0]).toContain('It says that it is PT-2, and this is PT-1.');
    expect(read({ tag: '' }).words[0]).toContain('it has no tag');
    // A tag of HART ends after eight characters.
    expect(read({ tag: 'LONG-TAG' }, { ...wanted, tag: 'long-tag-12' }).words).toEqual([
      'It says that it is LONG-TAG.',
    ]);
  });

  it('leave to the eye what HART does not say', () => {
    const root = (kind: 'square-root' | 'square-root-cut-off'): typeof wanted => ({
      ...wanted,
      configuration: {
        ...wanted.configuration,
        transferFunction: kind === 'square-root' ? { kind } : { kind, cutOffPercentOfFlow: 8 },
      },
    });
    expect(read({ transfer: 'square-root' }, root('square-root')).fields.transfer).toBe('square-root');
    const inPart = read({ transfer: 'square-root' }, root('square-root-cut-off'));
    expect(inPart.fields.transfer).toBeUndefined();
    expect(inPart.words[1]).toContain('where the root begins');
    expect(read({ transfer: 'linear' }, root('square-root-cut-off')).fields.transfer).toBe('linear');
    const curve = read({ transfer: null, isProtected: true });
    expect(curve.fields.transfer).toBeUndefined();
    expect(curve.words.slice(1)).toEqual([
      'Its transfer function is a curve of its own: read it at the instrument.',
      'It is write protected.',
    ]);
  });
});
