import {
  acceptedOutput,
  errorTerms,
  evaluateRun,
  judgeReading,
  workAcceptedOutput,
  workAccuracyRatio,
  workErrorTerms,
  workErrorUncertainty,
  workFigures,
  workReading,
} from '@barys/core/run';
import { z } from 'zod';
import { calculation } from './calculation';
import {
  decisionRule,
  maybe,
  number,
  range,
  rangeUnits,
  reading,
  tolerance,
  verdict,
  worked,
  working,
} from './schemas';

const zeroAndSpan = z.strictObject({ zeroErrorPercentSpan: number, spanErrorPercentSpan: number }).nullable();

const judged = reading.extend({
  cycle: number,
  expected: number,
  share: number,
  errorOutput: number,
  errorPercentSpan: number,
  errorInput: number,
  limit: number,
  errorOfLimit: maybe,
  verdict,
});

export const RUN_CALCULATIONS = [
  calculation(
    'evaluate-run',
    'Errors, verdicts and figures of a run, complete or not',
    z.strictObject({ range, tolerance, readings: z.array(reading).max(10000), rule: decisionRule }),
    z.strictObject({
      readings: z.array(judged).readonly(),
      points: z
        .array(
          z.strictObject({ nominalPercent: number, share: number, up: maybe, down: maybe, mean: number }),
        )
        .readonly(),
      worst: judged.nullable(),
      largestErrorPercentSpan: maybe,
      smallestErrorPercentSpan: maybe,
      maximumOfMeansPercentSpan: maybe,
      zeroErrorPercentSpan: maybe,
      spanErrorPercentSpan: maybe,
      leastSquares: zeroAndSpan,
      leastSquaresOfMeans: zeroAndSpan,
      hysteresisPercentSpan: maybe,
      hysteresisOfMeansPercentSpan: maybe,
      nonRepeatabilityPercentSpan: maybe,
      linearityPercentSpan: z
        .strictObject({ terminal: maybe, zeroBased: maybe, independent: number })
        .nullable(),
      verdict: verdict.nullable(),
      rule: decisionRule,
      domain: z.enum(['output', 'input']),
      missing: z.array(z.strictObject({ figure: z.string(), why: z.string() })).readonly(),
      working,
    }),
    ({ range: of, tolerance: by, readings, rule }) => {
      const evaluation = evaluateRun(of, by, readings, rule);
      return { ...evaluation, working: workFigures(of, evaluation) };
    },
  ),
  calculation(
    'judge-reading',
    'Error, limit and verdict of one reading, with its working',
    z.strictObject({ range, tolerance, reading, rule: decisionRule, units: rangeUnits }),
    judged.extend({ working }),
    ({ range: of, tolerance: by, reading: one, rule, units }) => {
      const found = judgeReading(of, by, one, rule);
      return { ...found, working: workReading(of, by, found, units) };
    },
  ),
  calculation(
    'error-terms',
    'One error in output units, per cent of span, input units, per cent of reading and of upper range limit, divisions',
    z.strictObject({
      range,
      applied: number,
      output: number,
      upperRangeLimit: number.optional(),
      division: number.optional(),
      units: rangeUnits,
    }),
    z.strictObject({
      output: number,
      percentOfSpan: number,
      input: number,
      percentOfReading: maybe,
      percentOfUpperRangeLimit: maybe,
      scaleDivisions: maybe,
      working,
    }),
    ({ range: of, applied, output, units, ...sizes }) => ({
      ...errorTerms(of, applied, output, sizes),
      working: workErrorTerms(of, applied, output, sizes, units),
    }),
  ),
  calculation(
    'error-uncertainty',
    'Expanded uncertainty (k = 2) of the error of one reading: standard, meter, and what can be read of each',
    z.strictObject({
      range,
      applied: number,
      standardInput: number,
      standardStepInput: number.default(0),
      meterOutput: number.default(0),
      readingStepOutput: number.default(0),
      units: rangeUnits,
    }),
    worked,
    ({ range: of, applied, units, ...sources }) => workErrorUncertainty(of, applied, sources, units),
  ),
  calculation(
    'accepted-output',
    'Lowest and highest output inside the tolerance at an applied value',
    z.strictObject({ range, tolerance, applied: number, units: rangeUnits }),
    z.strictObject({ lowest: number, highest: number, working }),
    ({ range: of, tolerance: by, applied, units }) => ({
      ...acceptedOutput(of, by, applied),
      working: workAcceptedOutput(of, by, applied, units),
    }),
  ),
  calculation(
    'accuracy-ratio',
    'Tolerance over the accuracy of the standard at the point where it is least, along the real curve',
    z.strictObject({
      range,
      tolerance,
      standardAccuracyInput: number,
      /** Applied values at which it is tested; five over the range, even in flow where a root is taken, unless given. */
      points: z.array(number).min(1).max(1000).optional(),
      units: rangeUnits,
    }),
    worked.extend({ applied: number }),
    ({ range: of, tolerance: by, standardAccuracyInput, points, units }) =>
      workAccuracyRatio(of, by, standardAccuracyInput, units, points),
  ),
];
