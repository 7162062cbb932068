import { levelRange, shiftOfLostLeg, type LevelMeasurement } from '@barys/core/level';
import { expect, it } from 'vitest';
import { legAfter, legHead, type WetLeg } from './index';

const LEG: WetLeg = { heightM: 2.6, fillKgPerM3: 990, drainS: 20, condenseS: 1200 };

it('a leg drains through an open equaliser and comes back by condensation, in its time', () => {
  const after = (filled: number, isEqualised: boolean, isSteaming: boolean, stepS: number) =>
    legAfter(LEG, filled, { isEqualised, isSteaming, stepS });
  expect(after(1, true, true, 20)).toBeCloseTo(Math.exp(-1), 12);
  expect(after(0, false, true, 3600)).toBeGreaterThan(0.94);
  expect(after(0.4, false, false, 3600)).toBe(0.4);
});

it('a leg that is lost makes the level read high by what the core says', () => {
  const measurement: LevelMeasurement = {
    arrangement: 'wet-leg',
    liquidKgPerM3: 1060,
    aboveKgPerM3: 0,
    fillKgPerM3: 990,
    tapsM: 2.6,
    zeroM: 0,
    fullM: 2.6,
    dropM: 0,
    highSide: 'lower tap',
    gravityMPerS2: 9.80665,
  };
  const { spanPa } = levelRange(measurement);
  // The low side loses the head of half the leg, and what is shown rises by its share of the span.
  const lost = legHead(LEG, 1) - legHead(LEG, 0.5);
  expect((lost / spanPa) * 2.6).toBeCloseTo(shiftOfLostLeg(measurement, 1.3), 9);
});
