import {
  anomaliesOf,
  dateOfDay,
  dayNumber,
  daysToLimit,
  driftLine,
  driftRates,
  driftSteps,
  predictAt,
  unadjusted,
  type Calibration,
} from '@barys/core/drift';
import {
  adviseInterval,
  exponentialAt,
  familyOf,
  intervalFor,
  mostLikelyRate,
  probabilityOfSoMany,
  reliabilityAt,
  reliabilityBounds,
} from '@barys/core/interval';
import { z } from 'zod';
import { calculation } from './calculation';
import { maybe, number } from './schemas';

const date = z.iso.date('Write the date as 2026-05-31.');
const calibration = z.strictObject({
  date,
  found: number,
  left: number.optional().meta({ description: 'As left; the same as found where nothing was adjusted.' }),
});
const history = z
  .array(calibration)
  .max(200)
  .meta({ description: 'Errors in one unit, such as per cent of span, in order of their days.' });
const limit = number.positive().meta({ description: 'Either way, in the unit of the errors.' });
const counted = {
  calibrations: z.number().int().min(1).max(1_000_000),
  out: z.number().int().min(0).meta({ description: 'Of them, found out of tolerance.' }),
};
const share = number.gt(0).lt(1);
const interval = number.positive().meta({ description: 'In whatever unit the answer is wanted.' });
const bounds = z.object({ low: number, high: number });

const calibrationsOf = (given: z.output<typeof history>): Calibration[] =>
  given.map(({ date: on, found, left = found }) => ({ day: dayNumber(on), found, left }));

const drift = z.strictObject({ history: history.min(3), limit, predictAt: date.optional() });

const family = z
  .array(z.strictObject({ interval, ...counted }))
  .max(200)
  .default([])
  .meta({ description: 'Calibrations of its family by the months since the one before.' });

export const INTERVAL_CALCULATIONS = [
  calculation(
    'drift',
    'What errors did over the years, adjustments taken out, and until when the bounds of 95 % for one new calibration stay inside',
    drift,
    z.object({
      slopePerYear: number,
      slopeStandardErrorPerYear: number,
      residual: number,
      fromLeftToFound: z.object({ totalOverTime: number, throughOrigin: number }),
      insideUntil: z.object({ twoSided: date.nullable(), oneSided: date.nullable() }),
      predicted: z.object({ error: number, low: number, high: number }).nullable(),
    }),
    ({ history: given, limit: most, predictAt: on }) => {
      const calibrations = calibrationsOf(given);
      const { history: joined, taken } = unadjusted(calibrations);
      const line = driftLine(joined);
      const band = { low: taken - most, high: taken + most };
      const until = (sides: 'two-sided' | 'one-sided') => {
        const days = daysToLimit(line, band, sides);
        return days === null ? null : dateOfDay(line.firstDay + days);
      };
      const there = on === undefined ? null : predictAt(line, dayNumber(on));
      return {
        slopePerYear: line.slopePerYear,
        slopeStandardErrorPerYear: line.slopeStandardErrorPerYear,
        residual: line.residual,
        fromLeftToFound: driftRates(driftSteps(calibrations)),
        insideUntil: { twoSided: until('two-sided'), oneSided: until('one-sided') },
        predicted: there && { error: there.error - taken, low: there.low - taken, high: there.high - taken },
      };
    },
  ),
  calculation(
    'anomalies',
    'What in a history is worth a look: a step, a hysteresis that grows, a drift that changed with a reference',
    z.strictObject({
      history: z
        .array(
          calibration.extend({
            hysteresis: maybe.default(null),
            standard: z.string().max(60).default(''),
          }),
        )
        .min(2)
        .max(200),
      limit,
    }),
    z.object({ anomalies: z.array(z.record(z.string(), z.unknown())) }),
    ({ history: given, limit: most }) => {
      const all = calibrationsOf(given);
      const visits = given.map(({ hysteresis, standard }, index) => ({
        ...(all[index] as Calibration),
        hysteresis,
        standard,
      }));
      const dated = anomaliesOf(visits, most).map((one) =>
        'day' in one ? { ...one, day: dateOfDay(one.day) } : { ...one },
      );
      return { anomalies: dated };
    },
  ),
  calculation(
    'reliability',
    'The part found inside with its exact binomial bounds, and how probable so many outside are were a target met',
    z.strictObject({ ...counted, confidence: share.default(0.95), target: share.optional() }),
    z.object({ observed: number, twoSided: bounds, oneSided: bounds, probabilityOfSoMany: maybe }),
    ({ calibrations, out, confidence, target }) => ({
      ...reliabilityBounds({ calibrations, out }, confidence),
      probabilityOfSoMany: target === undefined ? null : probabilityOfSoMany({ calibrations, out }, target),
    }),
  ),
  calculation(
    'reliability-model',
    'The exponential model from calibrations after one or several intervals, and the interval that meets a target',
    z.strictObject({
      rows: z
        .array(z.strictObject({ interval, ...counted }))
        .min(1)
        .max(200),
      target: share,
      confidence: share.default(0.95),
    }),
    z.object({
      rate: maybe,
      interval: maybe,
      intervalFromBound: maybe,
      fitted: z.array(maybe),
    }),
    ({ rows, target, confidence }) => {
      const rate = mostLikelyRate(rows);
      const isBetween = rate > 0 && Number.isFinite(rate);
      const [one] = rows;
      return {
        // All found outside has no rate, and none no interval.
        rate: Number.isFinite(rate) ? rate : null,
        interval: isBetween ? intervalFor(rate, target) : null,
        intervalFromBound:
          rows.length === 1 && one !== undefined
            ? exponentialAt(one, { target, confidence }).intervalFromBound
            : null,
        fitted: rows.map((row) => (Number.isFinite(rate) ? reliabilityAt(rate, row.interval) : null)),
      };
    },
  ),
  calculation(
    'interval-advice',
    'The interval that an instrument is advised, with its reasons and what it costs',
    z.strictObject({
      months: number.positive(),
      cap: number.positive().meta({ description: 'The longest that its criticality allows, months.' }),
      target: share,
      points: z
        .array(
          z.strictObject({
            at: number,
            limit,
            adjustLimit: limit
              .optional()
              .meta({ description: 'Past it the instrument is adjusted; the limit where left out.' }),
            history,
          }),
        )
        .max(50)
        .default([]),
      results: z
        .array(z.enum(['inside', 'outside', 'far outside']))
        .max(200)
        .default([]),
      family,
    }),
    z.object({
      kind: z.enum(['shorter', 'longer', 'keep', 'look', 'none']),
      months: number,
      reasons: z.array(z.record(z.string(), z.unknown())),
      stepRule: number,
      insideUntil: date.nullable(),
      belowAdjustUntil: date.nullable(),
      now: z.record(z.string(), maybe),
      then: z.record(z.string(), maybe),
    }),
    ({ family: rows, points, ...given }) => {
      const {
        drift: found,
        now,
        then,
        kind,
        months,
        reasons,
        stepRule,
      } = adviseInterval({
        ...given,
        family: familyOf(rows),
        points: points.map(({ at, limit: most, adjustLimit = most, history: own }) => ({
          at,
          limit: most,
          adjustLimit,
          history: calibrationsOf(own),
        })),
      });
      return {
        kind,
        months,
        reasons: reasons.map((reason) => ({ ...reason })),
        stepRule,
        insideUntil: found?.lastDayInside == null ? null : dateOfDay(found.lastDayInside),
        belowAdjustUntil: found?.lastDayBelowAdjust == null ? null : dateOfDay(found.lastDayBelowAdjust),
        now: { ...now },
        then: { ...then },
      };
    },
  ),
];
