import type { Instrument, VesselVersion } from '@barys/store/registers';
import { describe, expect, it } from 'vitest';
import { TEST_CONFIGURATION as CONFIGURATION } from '../../test/configuration';
import { vesselAgainstRange } from './vesselRange';

/** An open tank of 4.8 m: 1042 kg/m3 x 9.80665 x 4.8 = 490.49 mbar. */
const VESSEL: VesselVersion = {
  version: 1,
  tool: 'level',
  fields: { arrangement: 'open', liquid: '1042', zero: '0', full: '4.8', drop: '0' },
  lrvPa: 0,
  urvPa: 49049,
  reason: 'drawing',
  madeBy: 'x',
  madeAt: new Date(0),
};
const instrument = (urv: number) =>
  ({
    configuration: { ...CONFIGURATION, inputUnit: 'mbar', lrv: 0, urv },
    tolerance: {
      percentOfSpan: 0.25,
      middlePercentOfSpan: null,
      percentOfReading: 0,
      adjustAbovePercentOfLimit: 70,
    },
    procedure: { content: { tolerancePercentOfSpan: null, adjustAbovePercentOfLimit: null } },
  }) as unknown as Instrument;
const SYRUP = {
  id: 7,
  name: 'Syrup',
  source: 'x',
  revision: 1,
  points: [
    { temperatureC: 20, densityKgPerM3: 1042 },
    { temperatureC: 60, densityKgPerM3: 1030 },
  ],
};

describe('a vessel against the range that is set', () => {
  it('asks for a change beyond the tolerance and not within it', () => {
    expect(vesselAgainstRange(VESSEL, instrument(490.5), [])).toMatchObject({
      asksForChange: false,
      density: null,
    });
    expect(vesselAgainstRange(VESSEL, instrument(491.5), [])?.asksForChange).toBe(false);
    const off = vesselAgainstRange(VESSEL, instrument(500), []);
    expect(off?.asksForChange).toBe(true);
    expect(off?.urv).toBeCloseTo(490.49, 2);
    expect(off?.offPercent).toBeCloseTo(1.902, 3);
  });

  it('says where the plant’s table has another density by now', () => {
    const of = (temperature: string, liquidId = '7') => {
      const vessel = { ...VESSEL, fields: { ...VESSEL.fields, liquidId, temperature } };
      return vesselAgainstRange(vessel, instrument(490.5), [SYRUP])?.density;
    };
    expect(of('20')).toBeNull();
    expect(of('40')).toEqual({ kept: 1042, now: 1036 });
    expect(of('20', '8')).toBeNull();
  });

  it('says that what is kept comes to no range', () => {
    expect(
      vesselAgainstRange({ ...VESSEL, fields: { ...VESSEL.fields, full: '' } }, instrument(490), []),
    ).toBeNull();
    // A temperature that the table has no longer is no reason to fall over.
    const gone = { ...VESSEL, fields: { ...VESSEL.fields, liquidId: '7', temperature: '90' } };
    expect(vesselAgainstRange(gone, instrument(490.5), [SYRUP])).toMatchObject({ density: null });
  });
});
