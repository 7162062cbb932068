import {
  ACTS,
  actsOf,
  adviseOn,
  adviseScrews,
  doWords,
  headline,
  incurableWords,
  plainAlternation,
  remarkOf,
  SCHOOLS,
  turnsFor,
  workAdvice,
  workNextSetting,
} from '@barys/core/adjust';
import { TECHNOLOGIES, TRIMS } from '@barys/store/shapes';
import { z } from 'zod';
import { calculation } from './calculation';
import { decisionRule, maybe, number, range, reading, tolerance, verdict, working } from './schemas';

const ends = z.tuple([number, number]).readonly().meta({ description: 'At the low and at the high end.' });
const trimPoint = z.strictObject({ applied: number, digital: number });
const act = z.enum(ACTS);
const screw = z.enum(['zero', 'span']);
const estimate = z.strictObject({ value: number, uncertainty: maybe }).nullable();
const coupling = z.strictObject({ value: number, uncertainty: number });

const adviceRequest = z.strictObject({
  range,
  tolerance,
  readings: z
    .array(reading.extend({ digital: number.optional().meta({ description: 'Digital value, input unit.' }) }))
    .max(1000),
  rule: decisionRule,
  body: z
    .strictObject({ technology: z.enum(TECHNOLOGIES), trims: z.array(z.enum(TRIMS)).max(10).default([]) })
    .meta({ description: 'No trims are those that are usual of its kind.' }),
  school: z.enum(SCHOOLS).default('past the adjust limit'),
  readingStep: number.nonnegative().default(0),
  loopTest: z.strictObject({ atLow: number, atHigh: number }).optional(),
  trimmedAt: z.strictObject({ lower: trimPoint, upper: trimPoint }).optional(),
  hasFriction: z.boolean().default(false),
  isRangeWrong: z.boolean().default(false),
});

const outlook = z.strictObject({
  act,
  remark: z.string(),
  points: z
    .array(
      z.strictObject({
        errorPercentSpan: number,
        uncertaintyPercentSpan: maybe,
        spread: z.strictObject({ deviation: number, variance: number, factor: number }).nullable(),
        output: number,
        errorOfLimit: maybe,
        uncertaintyOfLimit: maybe,
        verdict,
      }),
    )
    .readonly()
    .nullable(),
  worst: maybe,
  suffices: z.enum(['surely', 'likely', 'no']).nullable(),
  sensorErrorsPercentSpan: z.array(number).readonly().nullable(),
  hides: z.boolean(),
});

const adviceAnswer = z.strictObject({
  verdict: verdict.nullable(),
  headline: z.string(),
  portrait: z.strictObject({
    zero: estimate,
    gain: estimate,
    bow: estimate,
    hysteresis: estimate,
    scatter: z
      .strictObject({
        deviation: number,
        degreesOfFreedom: number,
        from: z.enum(['repeats', 'smooth curve']),
      })
      .nullable(),
  }),
  lead: act.nullable(),
  toDo: z.string(),
  acts: z.array(outlook).readonly(),
  possible: z.array(act).readonly(),
  incurable: z
    .array(
      z.strictObject({
        what: z.enum(['hysteresis', 'bow', 'scatter', 'friction', 'best']),
        size: number,
        allowed: number,
        isDecisive: z.boolean(),
        words: z.string(),
      }),
    )
    .readonly(),
  stages: z
    .strictObject({
      sensor: z.array(number).readonly(),
      output: z.array(number).readonly(),
      isSensorOutside: z.boolean(),
      isOutputOutside: z.boolean(),
    })
    .nullable(),
  behavesLike: z.tuple([number, number]).readonly().nullable(),
  bestByZero: number,
  bestByZeroAndSpan: number,
  working,
});

const screwRequest = z.strictObject({
  targets: ends,
  found: ends,
  moves: z.array(z.strictObject({ screw, before: number, after: number })).max(100),
  now: z.strictObject({ at: screw, reading: number }).optional(),
  noise: number,
  tolerance: number,
  unit: z.string().max(20).default(''),
});

export const ADJUSTMENT_CALCULATIONS = [
  calculation(
    'adjustment-advice',
    'What a run says of zero, gain, bow, hysteresis and scatter; what each act would leave; the least that suffices',
    adviceRequest,
    adviceAnswer,
    (request) => {
      const advice = adviseOn(request);
      const { found, acts, incurable, lead, school: _school, ...rest } = advice;
      return {
        ...rest,
        lead,
        verdict: found.verdict,
        headline: headline(advice),
        toDo: lead === null ? 'The readings cannot be judged.' : doWords(lead, request.body),
        acts: acts.map((one) => ({ ...one, remark: remarkOf(one, advice) })),
        possible: actsOf(request.body),
        incurable: incurable.map((one) => ({ ...one, words: incurableWords(one) })),
        working: workAdvice(request.range, advice),
      };
    },
  ),
  calculation(
    'next-setting',
    'Where to set the next of two screws that pull on each other, from the passes so far',
    screwRequest,
    z.strictObject({
      next: z.strictObject({ screw, setTo: number, willStandAt: number }).nullable(),
      state: z.enum(['go on', 'done', 'useless']),
      spanOnZero: coupling,
      zeroOnSpan: coupling,
      pivot: maybe,
      phase: z.enum(['coarse', 'fine']),
      settingsLeft: number,
      settingsMade: number,
      off: ends,
      working,
    }),
    ({ unit, ...situation }) => {
      const advice = adviseScrews(situation);
      return { ...advice, working: workNextSetting(situation, advice, unit) };
    },
  ),
  calculation(
    'plain-alternation',
    'Passes that setting each end to its target in turn would take; null where they never end',
    z.strictObject({
      errors: ends,
      pivot: number,
      tolerance: number.positive(),
      count: z.number().int().min(1).max(100).default(6),
    }),
    z.strictObject({ ratio: number, passes: maybe, zeroAfter: z.array(number).readonly() }),
    ({ errors, pivot, tolerance: by, count }) => plainAlternation(errors, pivot, by, count),
  ),
  calculation(
    'screw-turns',
    'Turns of zero and span screw that take the errors at both ends away at once',
    z.strictObject({
      zeroPerTurn: number,
      spanPerTurnAtLow: number,
      spanPerTurnAtHigh: number,
      errors: ends,
    }),
    z.strictObject({ zero: number, span: number }),
    ({ errors, ...effects }) => turnsFor(effects, errors),
  ),
];
