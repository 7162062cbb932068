import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  adviseInterval,
  chanceOfShort,
  exponentialAt,
  familyOf,
  intervalShown,
  INTERVALS,
  probabilityOfSoMany,
  reliabilityBounds,
  stepRule,
  type IntervalCase,
} from './index';

const SCATTER = [0.004, -0.006, 0.003, 0.005, -0.004, -0.002, 0.006, -0.005, 0.002];

/** Yearly calibrations at one point, with nothing adjusted. */
const point = (count: number, error: (index: number) => number, limit = 0.25) => ({
  at: 100,
  limit,
  adjustLimit: 0.7 * limit,
  history: Array.from({ length: count }, (_, index) => {
    const found = error(index) + (SCATTER[index % 9] ?? 0);
    return { day: 18_000 + 365 * index, found, left: found };
  }),
});

const one = (more: Partial<IntervalCase> = {}): IntervalCase => ({
  months: 12,
  cap: 60,
  target: 0.95,
  points: [],
  results: [],
  family: familyOf([]),
  ...more,
});

const codes = (given: IntervalCase) => {
  const { kind, months, reasons } = adviseInterval(given);
  return [kind, months, ...reasons.map(({ code }) => code)];
};

describe('the advised interval', () => {
  it('advises nothing from too little, and says what there is too little of', () => {
    const few = one({
      points: [point(4, (i) => 0.06 * i)],
      family: familyOf([{ interval: 12, calibrations: 19, out: 9 }]),
    });
    expect(adviseInterval(few)).toMatchObject({
      kind: 'none',
      months: 12,
      reasons: [
        { code: 'few-calibrations', count: 4, least: 5 },
        { code: 'few-of-family', count: 19, least: 20 },
      ],
      drift: null,
      family: null,
      now: { insideAtEnd: null, outsidePart: null },
    });
  });

  it('shortens where its own drift leads out before the next calibration, to where it is inside', () => {
    const { kind, months, reasons, drift, now, then } = adviseInterval(
      one({ points: [point(6, (i) => 0.04 * i)] }),
    );
    expect([kind, reasons[0]?.code]).toEqual(['shorter', 'drift-short']);
    expect(months).toBeLessThan(12);
    expect(then.insideAtEnd).toBeGreaterThanOrEqual(0.95);
    expect(now.insideAtEnd).toBeLessThan(0.95);
    expect(then.outsidePart ?? 1).toBeLessThan(now.outsidePart ?? 0);
    expect(drift?.lastDayInside).toBeGreaterThan(drift?.lastDay ?? Infinity);
    // It was left past its adjust limit already.
    expect(drift?.lastDayBelowAdjust).toBeNull();
    expect(then.jobsPerYear).toBeCloseTo(12 / months);
  });

  it('an adjustment at the last calibration buys time, and the drift is the same', () => {
    const drifting = point(6, (i) => 0.04 * i);
    const last = drifting.history.at(-1);
    const adjusted = {
      ...drifting,
      history: [...drifting.history.slice(0, -1), { day: last?.day ?? 0, found: last?.found ?? 0, left: 0 }],
    };
    const found = adviseInterval(one({ points: [adjusted] }));
    expect(found.kind).not.toBe('shorter');
    const { lastDay = 0, lastDayBelowAdjust, lastDayInside } = found.drift ?? {};
    expect(lastDayBelowAdjust).toBeGreaterThan(lastDay);
    expect(lastDayInside).toBeGreaterThan(lastDayBelowAdjust ?? Infinity);
    expect(found.drift?.slopePerYear).toBeCloseTo(0.04, 2);
  });

  it('names no day ahead where one point is beyond its limit already, whatever the others promise', () => {
    const drifting = point(6, (i) => 0.02 * i);
    const beyond = point(6, () => 0.3);
    expect(adviseInterval(one({ points: [drifting] })).drift?.lastDayInside).toBeGreaterThan(0);
    expect(adviseInterval(one({ points: [drifting, beyond] })).drift?.lastDayInside).toBeNull();
  });

  it('lengthens by half at most, and only where drift and family both allow it', () => {
    const steady = [point(8, () => 0.01)];
    expect(codes(one({ points: steady }))).toEqual(['longer', 18, 'drift-allows', 'few-of-family']);
    const many = familyOf([{ interval: 12, calibrations: 400, out: 2 }]);
    expect(codes(one({ points: steady, family: many }))).toEqual([
      'longer',
      18,
      'drift-allows',
      'family-allows',
    ]);
    const some = familyOf([{ interval: 12, calibrations: 30, out: 1 }]);
    expect(codes(one({ points: steady, family: some }))).toEqual([
      'keep',
      12,
      'drift-allows',
      'family-holds',
    ]);
    const bad = familyOf([{ interval: 12, calibrations: 40, out: 12 }]);
    expect(codes(one({ points: steady, family: bad }))).toEqual(['keep', 12, 'drift-allows', 'family-short']);
  });

  it('without a drift of its own the family decides, beyond chance only', () => {
    const bad = familyOf([{ interval: 12, calibrations: 40, out: 8 }]);
    expect(codes(one({ family: bad }))).toEqual(['shorter', 2, 'family-short', 'few-calibrations']);
    const chance = familyOf([{ interval: 12, calibrations: 40, out: 4 }]);
    expect(codes(one({ family: chance }))[0]).toBe('keep');
    const good = familyOf([{ interval: 12, calibrations: 400, out: 2 }]);
    expect(codes(one({ family: good }))[0]).toBe('longer');
    expect(codes(one({ family: good, results: ['inside', 'outside', 'inside'] }))).toEqual([
      'keep',
      12,
      'own-out',
      'family-allows',
      'few-calibrations',
    ]);
  });

  it('the cap of its criticality holds, above it and up to it', () => {
    const steady = [point(8, () => 0.01)];
    expect(codes(one({ points: steady, cap: 12 }))).toEqual([
      'keep',
      12,
      'drift-allows',
      'cap',
      'few-of-family',
    ]);
    expect(codes(one({ points: steady, months: 24, cap: 12 }))).toEqual([
      'shorter',
      12,
      'cap',
      'few-of-family',
    ]);
    expect(codes(one({ months: 24, cap: 12 }))).toEqual([
      'shorter',
      12,
      'cap',
      'few-calibrations',
      'few-of-family',
    ]);
  });

  it('where no interval is short enough it says to look, not to shorten', () => {
    const wild = point(7, (i) => (i % 2 === 0 ? 0.3 : -0.3));
    expect(codes(one({ points: [wild] })).slice(0, 4)).toEqual(['look', 12, 'drift-short', 'scatter']);
    const near = point(7, (i) => 0.249 - 0.001 * i);
    expect(codes(one({ points: [near] })).slice(0, 4)).toEqual(['look', 12, 'drift-short', 'near-limit']);
  });

  it('is a usual interval, under the cap, shorter or longer as it says, and inside at its end by the target', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...INTERVALS),
        fc.constantFrom(6, 12, 24, 60),
        fc.integer({ min: 0, max: 9 }),
        fc.double({ min: -0.08, max: 0.08, noNaN: true }),
        fc.record({
          calibrations: fc.integer({ min: 1, max: 300 }),
          part: fc.double({ min: 0, max: 1, noNaN: true }),
        }),
        (months, cap, count, slope, { calibrations, part }) => {
          const given = one({
            months,
            cap,
            points: [point(count, (i) => slope * i)],
            family: familyOf([{ interval: months, calibrations, out: Math.round(calibrations * part ** 4) }]),
          });
          const found = adviseInterval(given);
          expect(found.months).toBeLessThanOrEqual(Math.max(cap, found.kind === 'none' ? months : 0));
          if (found.kind === 'shorter') expect(found.months).toBeLessThanOrEqual(months);
          if (found.kind === 'longer') expect(found.months).toBeGreaterThan(months);
          if (found.drift !== null && (found.kind === 'longer' || found.reasons[0]?.code === 'drift-short'))
            if (found.kind !== 'look') expect(found.then.insideAtEnd).toBeGreaterThanOrEqual(0.95);
          for (const { insideAtEnd, outsidePart } of [found.now, found.then]) {
            expect(insideAtEnd === null || (insideAtEnd >= 0 && insideAtEnd <= 1)).toBe(true);
            expect(outsidePart === null || (outsidePart >= 0 && outsidePart <= 1)).toBe(true);
          }
        },
      ),
    );
  });
});

describe('a family', () => {
  it('of one interval has the bounds of Clopper and Pearson and of the exponential model', () => {
    const row = { interval: 12, calibrations: 40, out: 4 };
    const family = familyOf([row]).figures;
    if (family === null) throw new Error('no figures');
    const fit = exponentialAt(row, { target: 0.95 });
    expect(family.rate).toBeCloseTo(fit.rate, 10);
    expect(intervalShown(family, 0.95)).toBeCloseTo(fit.intervalFromBound, 8);
    expect(Math.exp(-12 * family.rateBound)).toBeCloseTo(reliabilityBounds(row).oneSided.low, 9);
    expect(chanceOfShort([row], { interval: 12, target: 0.95 })).toBeCloseTo(
      probabilityOfSoMany(row, 0.95),
      12,
    );
  });

  it('all found inside is shown by the bound alone: fifty-nine show 95 % with 95 % confidence, as handbooks say', () => {
    const shown = (calibrations: number) => {
      const family = familyOf([{ interval: 12, calibrations, out: 0 }]).figures;
      return family === null ? NaN : intervalShown(family, 0.95);
    };
    expect(shown(59)).toBeGreaterThan(12);
    expect(shown(58)).toBeLessThan(12);
    expect(familyOf([{ interval: 12, calibrations: 59, out: 0 }]).figures?.rate).toBe(0);
  });

  it('is not built from fewer than twenty, and stands all found out', () => {
    expect(familyOf([{ interval: 12, calibrations: 19, out: 1 }]).figures).toBeNull();
    expect(familyOf([]).figures).toBeNull();
    const lost = familyOf([{ interval: 12, calibrations: 20, out: 20 }]).figures;
    expect(lost).toMatchObject({ rate: Infinity, rateBound: Infinity });
    expect(
      adviseInterval(one({ family: familyOf([{ interval: 12, calibrations: 20, out: 20 }]) })).months,
    ).toBe(1);
  });
});

it('the plain staircase steps after three inside, one outside and two far outside', () => {
  expect(stepRule(12, ['inside', 'inside'])).toBe(12);
  expect(stepRule(12, ['outside', 'inside', 'inside', 'inside'])).toBe(15);
  expect(stepRule(12, ['inside', 'inside', 'inside', 'outside'])).toBe(9);
  expect(stepRule(12, ['far outside'])).toBe(8);
  expect(stepRule(12, [])).toBe(12);
  expect(stepRule(60, ['inside', 'inside', 'inside'])).toBe(60);
});
