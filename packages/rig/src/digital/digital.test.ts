import { describe, expect, it } from 'vitest';
import {
  calibrate,
  digitalAtRest,
  readDigital,
  restore,
  wait,
  type DigitalGauge,
  type DigitalState,
} from './index';

const SOUND: DigitalGauge = { offset: 0, gain: 0, bow: 0, full: 10, resolution: 0.001, waitS: 30 };
const WRONG: DigitalGauge = { ...SOUND, offset: 0.03, gain: 0.002, bow: 0.004 };
const done = (found: DigitalState | string): DigitalState => {
  if (typeof found === 'string') throw new Error(found);
  return found;
};
const at = (
  gauge: DigitalGauge,
  state: DigitalState,
  point: 'zero' | 'middle' | 'full' | 'near vacuum',
  applied: number,
) => done(calibrate(gauge, wait(state, 30), point, { applied, said: applied }));

describe('a digital gauge', () => {
  it('without a fault reads what is applied, to its resolution, beyond its ends too', () => {
    for (const applied of [-0.9, 0, 3.3333, 10, 11])
      expect(readDigital(SOUND, digitalAtRest(SOUND), applied)).toBeCloseTo(
        Math.round(applied * 1000) / 1000,
        9,
      );
  });

  it('is right at the points that were calibrated, and the middle one cures the bow', () => {
    const ends = at(WRONG, at(WRONG, digitalAtRest(WRONG), 'zero', 0), 'full', 10);
    expect(readDigital(WRONG, ends, 0)).toBeCloseTo(0, 9);
    expect(readDigital(WRONG, ends, 10)).toBeCloseTo(10, 9);
    // The bow is left: 0.4 % of 10 in the middle.
    expect(readDigital(WRONG, ends, 5) - 5).toBeCloseTo(0.04, 2);
    const cured = at(WRONG, ends, 'middle', 5);
    expect(readDigital(WRONG, cured, 5)).toBeCloseTo(5, 9);
    expect(Math.abs(readDigital(WRONG, cured, 2.5) - 2.5)).toBeLessThan(0.012);
    const low = at(WRONG, cured, 'near vacuum', -0.9);
    expect(readDigital(WRONG, low, -0.9)).toBeCloseTo(-0.9, 9);
    expect(low.fieldCalibrations).toBe(4);
  });

  it('waits until it stood still, and goes back to the factory’s or the last set', () => {
    const start = digitalAtRest(WRONG);
    expect(calibrate(WRONG, wait(start, 29), 'zero', { applied: 0, said: 0 })).toBe('not steady yet');
    const zeroed = at(WRONG, start, 'zero', 0);
    expect(calibrate(WRONG, zeroed, 'full', { applied: 10, said: 10 })).toBe('not steady yet');
    expect(readDigital(WRONG, restore(WRONG, zeroed, 'factory'), 0)).toBeCloseTo(0.03, 9);
    expect(restore(WRONG, zeroed, 'last field').table).toEqual(start.table);
    expect(restore(WRONG, start, 'last field')).toEqual(start);
  });
});
