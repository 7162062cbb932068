import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectAll, loadCases, type Case } from '../../test/fixtures';
import {
  balancedDecrease,
  exponentialAt,
  intervalFor,
  intervalsByFactor,
  intervalsByStaircase,
  mostLikelyRate,
  outsidePart,
  probabilityOfSoMany,
  reliabilityAt,
  reliabilityBounds,
  staircaseResult,
} from './index';

interface Given {
  readonly [name: string]: never;
}
const cases = (kind: string) =>
  loadCases<Case<Given>>('intervals.json', new RegExp(`^${kind}$`)).map((one) => [one.id, one] as const);
const num = (given: Given, name: string): number => given[name] as unknown as number;
const list = (given: Given, name: string): readonly never[] => given[name] as unknown as readonly never[];
const numbers = (given: Given, name: string): readonly number[] => list(given, name);
const counted = (given: Given) => ({
  calibrations: num(given, 'calibrations'),
  out: num(given, 'out_of_tolerance'),
});

describe('reliability (topic L)', () => {
  it.each(cases('reliability_bounds'))('%s: Clopper and Pearson', (_id, { given, expect: wanted }) => {
    const { observed, twoSided, oneSided } = reliabilityBounds(counted(given), num(given, 'confidence'));
    expectAll(wanted, {
      observed_reliability: observed,
      two_sided_low: twoSided.low,
      two_sided_high: twoSided.high,
      one_sided_low: oneSided.low,
      one_sided_high: oneSided.high,
      p_value_at_least_r_out_at_target: probabilityOfSoMany(counted(given), num(given, 'target_reliability')),
    });
  });

  it.each(cases('exponential'))('%s: one interval', (_id, { given, expect: wanted }) => {
    const fit = exponentialAt(
      { ...counted(given), interval: num(given, 'interval') },
      { target: num(given, 'target_reliability'), confidence: num(given, 'confidence') },
    );
    expectAll(wanted, {
      observed_reliability: fit.observed,
      failure_rate: fit.rate,
      interval_for_target: fit.interval,
      mean_time_to_out_of_tolerance: fit.meanTime,
      interval_for_target_from_one_sided_low_bound: fit.intervalFromBound,
    });
  });

  it.each(cases('exponential_mle'))('%s: several intervals', (_id, { given, expect: wanted }) => {
    const rows = list(given, 'rows').map(
      ({
        interval,
        calibrations,
        out_of_tolerance: out,
      }: {
        interval: number;
        calibrations: number;
        out_of_tolerance: number;
      }) => ({ interval, calibrations, out }),
    );
    const rate = mostLikelyRate(rows);
    expectAll(wanted, {
      failure_rate: rate,
      interval_for_target: intervalFor(rate, num(given, 'target_reliability')),
      fitted_reliability: rows.map(({ interval }) => reliabilityAt(rate, interval)),
    });
  });

  it('one interval is the simplest of several', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 400 }),
        fc.double({ min: 0.01, max: 0.99, noNaN: true }),
        fc.double({ min: 0.1, max: 1000, noNaN: true }),
        (calibrations, part, interval) => {
          const out = Math.min(calibrations - 1, Math.max(1, Math.round(calibrations * part)));
          const one = { interval, calibrations, out };
          const rate = exponentialAt(one, { target: 0.95 }).rate;
          expect(mostLikelyRate([one]) / rate).toBeCloseTo(1, 9);
          expect(mostLikelyRate([one, one]) / rate).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  it('none found out leaves the rate at zero, all found out without bound', () => {
    expect(mostLikelyRate([{ interval: 12, calibrations: 9, out: 0 }])).toBe(0);
    expect(mostLikelyRate([{ interval: 12, calibrations: 9, out: 9 }])).toBe(Infinity);
  });

  it('the part of the time outside is the mean of what is outside, summed another way', () => {
    for (const [rate, interval] of [
      [0.05, 12],
      [0.001, 6],
      [2, 30],
      [1e-7, 12],
    ] as const) {
      const parts = 20_000;
      let sum = 0;
      for (let i = 0; i < parts; i += 1) sum += 1 - reliabilityAt(rate, ((i + 0.5) / parts) * interval);
      expect(outsidePart(rate, interval) / (sum / parts)).toBeCloseTo(1, 5);
    }
    expect(outsidePart(0, 12)).toBe(0);
  });
});

describe('rules that follow each result (topic L)', () => {
  it.each(cases('rule_factor'))('%s', (_id, { given, expect: wanted }) => {
    expectAll(wanted, {
      intervals: intervalsByFactor(
        num(given, 'start_interval'),
        list(given, 'results').map((result: string) => result === 'in'),
        {
          increase: num(given, 'increase_fraction'),
          decrease: num(given, 'decrease_fraction'),
          least: num(given, 'min'),
          most: num(given, 'max'),
        },
      ),
    });
  });

  it.each(cases('rule_equilibrium'))('%s', (_id, { given, expect: wanted }) => {
    const decrease = balancedDecrease(num(given, 'increase_fraction'), num(given, 'target_reliability'));
    expectAll(wanted, { decrease_fraction: decrease });
  });

  it.each(cases('rule_staircase'))('%s', (_id, { given, expect: wanted }) => {
    const limit = num(given, 'tolerance_plus_minus');
    expectAll(wanted, {
      intervals: intervalsByStaircase(
        {
          steps: numbers(given, 'steps'),
          start: num(given, 'start'),
          needed: num(given, 'consecutive_needed'),
        },
        numbers(given, 'as_found_errors').map((error) => staircaseResult(error, limit)),
      ),
    });
  });

  it('on the limit is inside, on twice the limit one step, beyond it two', () => {
    expect([0.25, 0.2500001, 0.5, 0.5000001].map((error) => staircaseResult(-error, 0.25))).toEqual([
      'inside',
      'outside',
      'outside',
      'far outside',
    ]);
  });
});

it('says what is wrong', () => {
  expect(() => reliabilityBounds({ calibrations: 0, out: 0 })).toThrow('Calibrations must be a whole number');
  expect(() => reliabilityBounds({ calibrations: 3, out: 4 })).toThrow('from 0 to 3');
  expect(() => reliabilityBounds({ calibrations: 3, out: 1 }, 1)).toThrow('Confidence');
  expect(() => intervalsByStaircase({ steps: [3, 6], start: 4, needed: 2 }, [])).toThrow('none of the steps');
  expect(() => mostLikelyRate([])).toThrow('At least 1');
});
