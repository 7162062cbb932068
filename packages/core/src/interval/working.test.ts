/** Workings of intervals, against the code that decides: each figure that an advice shows is the last of its steps. */
import { describe, expect, it } from 'vitest';
import { lineAt, MONTH_DAYS, predictAt, scatterAt } from '../drift';
import { adviseInterval, familyOf, pointDrifts, workDrift, workFamily } from './index';

const errors = [0.02, 0.05, 0.05, 0.09, 0.1, 0.14, 0.15];
const point = {
  at: 100,
  limit: 0.25,
  adjustLimit: 0.175,
  history: errors.map((error, year) => ({ day: 20_000 + 365 * year, found: error, left: error })),
};
const family = familyOf([{ interval: 12, calibrations: 40, out: 4 }]);
const caseOf = (points: (typeof point)[]) => ({
  months: 12,
  cap: 36,
  target: 0.95,
  points,
  results: errors.map(() => 'inside' as const),
  family,
});

const valueOf = (steps: ReturnType<typeof workDrift>, symbol: string) =>
  steps.find((step) => step.symbol === symbol)?.value;

describe('the working of a drift', () => {
  const [drift] = pointDrifts([point]);
  if (drift === undefined) throw new Error('the point is followed');

  it.each([1, 6, 12, 24, 120])(
    'comes, at the end of %i months, to what the advice is taken from',
    (months) => {
      const steps = workDrift(drift, months);
      const day = drift.line.lastDay + months * MONTH_DAYS;
      const { low, high } = predictAt(drift.line, day);
      expect(valueOf(steps, 'e')).toBeCloseTo(lineAt(drift.line, day), 12);
      expect(valueOf(steps, 's_new')).toBeCloseTo(scatterAt(drift.line, day), 12);
      expect([valueOf(steps, 'e_low'), valueOf(steps, 'e_high')]).toEqual([
        expect.closeTo(low, 12),
        expect.closeTo(high, 12),
      ]);
      expect(valueOf(steps, 'b_year')).toBeCloseTo(drift.line.slopePerYear, 12);
    },
  );

  it('ends with the probability that the advice shows', () => {
    const { now } = adviseInterval(caseOf([point]));
    expect(valueOf(workDrift(drift, 12), 'R')).toBeCloseTo(now.insideAtEnd ?? NaN, 12);
  });
});

describe('the working of a family', () => {
  it('ends with what the advice shows where an instrument says nothing by itself', () => {
    const { now, family: figures } = adviseInterval(caseOf([]));
    if (figures === null) throw new Error('the family is large enough');
    const steps = workFamily(figures, 12);
    expect(valueOf(steps, 'R')).toBeCloseTo(now.insideAtEnd ?? NaN, 12);
    expect(valueOf(steps, 'u')).toBeCloseTo(now.outsidePart ?? NaN, 12);
    // 36 of 40 inside after twelve months: exp(-12 lambda) = 0.9 by hand.
    expect(valueOf(steps, 'R')).toBeCloseTo(0.9, 9);
  });

  it('has no steps where the model says nothing', () => {
    const of = (out: number) => familyOf([{ interval: 12, calibrations: 40, out }]).figures;
    for (const out of [0, 40]) {
      const figures = of(out);
      if (figures === null) throw new Error('the family is large enough');
      expect(workFamily(figures, 12)).toEqual([]);
    }
  });
});
