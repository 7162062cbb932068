import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectAll, loadCases, type Case } from '../../test/fixtures';
import {
  dateOfDay,
  dayNumber,
  daysLeft,
  daysToLimit,
  driftLine,
  driftRates,
  driftSteps,
  isBeyond,
  outsideProbability,
  predictAt,
  studentOf,
  unadjusted,
  YEAR_DAYS,
  type Sides,
} from './index';

interface Given {
  readonly history: readonly {
    readonly date: string;
    readonly as_found_error: number;
    readonly as_left_error: number;
  }[];
  readonly tolerance_plus_minus: number;
  readonly predict_at: string;
}
const cases = (kind: string) =>
  loadCases<Case<Given>>('intervals.json', new RegExp(`^${kind}$`)).map((one) => [one.id, one] as const);

describe('the line through errors over time (topic L)', () => {
  it.each(cases('drift'))('%s', (_id, { given, expect: wanted }) => {
    const first = dayNumber(given.history[0]?.date ?? '');
    const line = driftLine(
      given.history.map(({ date, as_found_error }) => ({ day: dayNumber(date), error: as_found_error })),
    );
    const band = { low: -given.tolerance_plus_minus, high: given.tolerance_plus_minus };
    const until = (sides: Sides) => {
      const days = daysToLimit(line, band, sides);
      return { days, date: days === null ? null : dateOfDay(first + days) };
    };
    const predicted = predictAt(line, dayNumber(given.predict_at));
    expectAll(wanted, {
      slope_per_year: line.slopePerYear,
      intercept_at_first_date: line.atFirstDay,
      residual_sd: line.residual,
      slope_standard_error_per_year: line.slopeStandardErrorPerYear,
      t_two_sided_95: studentOf('two-sided', line.degreesOfFreedom),
      predicted: predicted.error,
      prediction_low_95: predicted.low,
      prediction_high_95: predicted.high,
      days_to_limit_two_sided_95: until('two-sided').days,
      date_limit_two_sided_95: until('two-sided').date,
      days_to_limit_one_sided_95: until('one-sided').days,
      date_limit_one_sided_95: until('one-sided').date,
    });
  });

  it.each(cases('drift_adjusted'))('%s, adjustments taken out', (_id, { given, expect: wanted }) => {
    const history = given.history.map(({ date, as_found_error, as_left_error }) => ({
      day: dayNumber(date),
      found: as_found_error,
      left: as_left_error,
    }));
    const steps = driftSteps(history);
    const rates = driftRates(steps);
    const left = daysLeft(history, given.tolerance_plus_minus);
    expectAll(wanted, {
      drift_per_interval: steps.map(({ drift }) => drift),
      days_per_interval: steps.map(({ days }) => days),
      drift_per_year_total_over_time: rates.totalOverTime,
      drift_per_year_regression_through_origin: rates.throughOrigin,
      days_from_last_until_limit: left,
      date_limit: left === null ? null : dateOfDay((history.at(-1)?.day ?? 0) + left),
    });
  });
});

const errors = fc
  .array(
    fc.record({ gap: fc.integer({ min: 1, max: 800 }), error: fc.double({ min: -1, max: 1, noNaN: true }) }),
    { minLength: 3, maxLength: 12 },
  )
  .map((rows) => {
    let day = 18_000;
    return rows.map(({ gap, error }) => ({ day: (day += gap), error }));
  });

describe('properties of the line', () => {
  it('the bound is on the limit on the day that is given, inside before it, and never within 60 years where none is', () => {
    fc.assert(
      fc.property(errors, fc.double({ min: 0.05, max: 3, noNaN: true }), (history, limit) => {
        const line = driftLine(history);
        const band = { low: -limit, high: limit };
        const days = daysToLimit(line, band);
        const reaches = (day: number) => {
          const { low, high } = predictAt(line, day);
          return Math.max(high - limit, -limit - low);
        };
        if (isBeyond(line, band)) return days === null;
        if (days === null) return reaches(line.firstDay + 60 * YEAR_DAYS) < 1e-6;
        const at = line.firstDay + days;
        expect(Math.abs(reaches(at))).toBeLessThan(1e-6 * Math.max(1, line.residual * 10));
        for (let part = 0; part < 1; part += 0.1)
          expect(reaches(line.lastDay + part * (at - line.lastDay))).toBeLessThan(1e-9);
        return true;
      }),
    );
  });

  it('with the bounds of 95 % as the band, one in twenty lies outside', () => {
    fc.assert(
      fc.property(errors, fc.integer({ min: 1, max: 900 }), (history, ahead) => {
        const line = driftLine(history);
        fc.pre(line.residual > 1e-6);
        const day = line.lastDay + ahead;
        expect(outsideProbability(line, day, predictAt(line, day))).toBeCloseTo(0.05, 8);
      }),
    );
  });

  it('what was adjusted does not change the drift, and is taken out again at the end', () => {
    fc.assert(
      fc.property(
        errors,
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { maxLength: 12 }),
        (bare, by) => {
          let taken = 0;
          const adjusted = bare.map(({ day, error }, index) => {
            const found = error - taken;
            taken += by[index] ?? 0;
            return { day, found, left: found - (by[index] ?? 0) };
          });
          const joined = unadjusted(adjusted);
          expect(joined.taken).toBeCloseTo(taken, 9);
          joined.history.forEach(({ error }, index) =>
            expect(error).toBeCloseTo(bare[index]?.error ?? NaN, 9),
          );
        },
      ),
    );
  });

  it('a line without scatter reaches its limit where the line does; a level one never', () => {
    const rising = driftLine([0, 100, 200, 300].map((day) => ({ day, error: day / 1000 })));
    // What rounding leaves of the scatter counts by its root here.
    expect(daysToLimit(rising, { low: -0.5, high: 0.5 })).toBeCloseTo(500, 4);
    const level = driftLine([0, 100, 200].map((day) => ({ day, error: 0.1 })));
    expect(daysToLimit(level, { low: -0.5, high: 0.5 })).toBeNull();
    expect(outsideProbability(level, 1000, { low: -0.5, high: 0.5 })).toBeCloseTo(0, 12);
  });
});

it('says what is wrong with a history', () => {
  expect(() => driftLine([{ day: 1, error: 0 }])).toThrow('At least 3');
  expect(() => driftLine([1, 1, 1].map((day) => ({ day, error: 0 })))).toThrow('on one day');
  expect(() => driftSteps([{ day: 5, found: 0, left: 0 }])).toThrow('At least 2');
  const twice = { day: 5, found: 0, left: 0 };
  expect(() => driftSteps([twice, twice])).toThrow('must rise');
  expect(() => dayNumber('2026-02-30')).toThrow('"2026-02-30" is none');
});
