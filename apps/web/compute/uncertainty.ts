import {
  coverageFactor,
  monteCarlo,
  pooledStandardDeviation,
  roundResult,
  standardUncertainty,
  uncertaintyBudget,
  workBudget,
  workPooled,
  workSpecification,
  workStandardUncertainty,
} from '@barys/core/uncertainty';
import { z } from 'zod';
import { calculation, longCalculation } from './calculation';
import { maybe, number, shownUnit, text, worked, working } from './schemas';

const specification = z.strictObject({
  reading: number,
  percentOfReading: number.optional(),
  percentOfRange: number.optional(),
  range: number.optional(),
  floor: number.optional(),
  driftPercentOfReadingPerYear: number.optional(),
  years: number.optional(),
  percentOfReadingPerK: number.optional(),
  temperatureDifferenceK: number.optional(),
});

export const uncertainInput = z
  .strictObject({
    name: z.string().regex(/^[A-Za-z][A-Za-z0-9_]*$/, 'A name is a letter, then letters, digits and _.'),
    estimate: number.optional(),
    unit: z.string().max(40),
    distribution: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('type-a'), readings: z.array(number).max(10000) }),
      z.strictObject({ kind: z.literal('pooled'), sd: number, count: number, degreesOfFreedom: number }),
      z.strictObject({ kind: z.literal('rectangular'), halfWidth: number }),
      z.strictObject({ kind: z.literal('triangular'), halfWidth: number }),
      z.strictObject({ kind: z.literal('u-shaped'), halfWidth: number }),
      z.strictObject({ kind: z.literal('resolution'), step: number }),
      z.strictObject({ kind: z.literal('normal'), expanded: number, k: number }),
      z.strictObject({ kind: z.literal('normal-95'), expanded: number }),
      z.strictObject({ kind: z.literal('standard'), uncertainty: number }),
      z.strictObject({ kind: z.literal('specification'), specification }),
    ]),
    degreesOfFreedom: maybe.optional(),
    relativeUncertaintyOfU: number.optional(),
  })
  .meta({ id: 'UncertainInput' });

export const budgetModel = z.strictObject({
  model: text,
  unit: z.string().max(40),
  inputs: z.array(uncertainInput).max(100),
  correlations: z
    .array(z.strictObject({ a: z.string(), b: z.string(), r: number }))
    .max(1000)
    .default([]),
});

const interval = z.strictObject({ low: number, high: number });
const MOST_TRIALS_HERE = 1_000_000;

export const UNCERTAINTY_CALCULATIONS = [
  calculation(
    'standard-uncertainty',
    'Standard uncertainty and degrees of freedom of one input; null is infinite',
    z.strictObject({ input: uncertainInput }),
    z.strictObject({ estimate: number, u: number, degreesOfFreedom: maybe, divisor: maybe, working }),
    ({ input }) => ({ ...standardUncertainty(input), working: workStandardUncertainty(input) }),
  ),
  calculation(
    'specification',
    'Half width of a specification at a reading',
    specification.extend({ unit: shownUnit }),
    worked,
    ({ unit, ...given }) => workSpecification(given, unit),
  ),
  calculation(
    'pooled-deviation',
    'Standard deviation pooled over groups of repeated readings',
    z.strictObject({ groups: z.array(z.array(number).max(1000)).max(1000), unit: shownUnit }),
    z.strictObject({ sd: number, degreesOfFreedom: number, working }),
    ({ groups, unit }) => ({ ...pooledStandardDeviation(groups), working: workPooled(groups, unit) }),
  ),
  calculation(
    'coverage-factor',
    'Coverage factor from Student’s t; null degrees of freedom are infinite',
    z.strictObject({ probability: number, degreesOfFreedom: number.positive().nullable() }),
    z.strictObject({ value: number }),
    ({ probability, degreesOfFreedom }) => ({ value: coverageFactor(probability, degreesOfFreedom) }),
  ),
  calculation(
    'round-result',
    'A result and its expanded uncertainty as they are reported',
    z.strictObject({ value: number, expandedUncertainty: number }),
    z.strictObject({ value: z.string(), uncertainty: z.string(), decimals: number }),
    ({ value, expandedUncertainty }) => roundResult(value, expandedUncertainty),
  ),
  calculation(
    'uncertainty-budget',
    'An uncertainty budget after JCGM 100',
    budgetModel.extend({
      probability: number.optional(),
      degreesOfFreedom: z.enum(['truncated', 'real']).optional(),
    }),
    z.strictObject({
      value: number,
      unit: z.string(),
      components: z
        .array(
          z.strictObject({
            name: z.string(),
            unit: z.string(),
            estimate: number,
            standardUncertainty: number,
            divisor: maybe,
            degreesOfFreedom: maybe,
            sensitivity: number,
            contribution: number,
            sharePercent: number,
          }),
        )
        .readonly(),
      combined: number,
      effectiveDegreesOfFreedom: z.union([number, z.enum(['infinite', 'not given'])]),
      degreesOfFreedomRule: z.enum(['truncated', 'real']),
      probability: number,
      coverageFactor: number,
      expanded: number,
      rounded: z.strictObject({ value: z.string(), uncertainty: z.string(), decimals: number }).nullable(),
      working,
    }),
    ({ probability, degreesOfFreedom, ...model }) => {
      const budget = uncertaintyBudget(model, { probability, degreesOfFreedom });
      return { ...budget, working: workBudget(model, budget) };
    },
  ),
  longCalculation(
    'monte-carlo',
    'Propagation of distributions after JCGM 101, seeded and repeatable',
    budgetModel.extend({
      seed: number.default(1),
      probability: number.optional(),
      trials: z.union([number.max(MOST_TRIALS_HERE), z.literal('adaptive')]).default('adaptive'),
    }),
    z.strictObject({
      trials: number,
      seed: number,
      probability: number,
      mean: number,
      sd: number,
      symmetric: interval,
      shortest: interval,
      isStable: z.boolean().nullable(),
      histogram: z.array(number).readonly(),
      histogramRange: interval,
    }),
    ({ seed, probability, trials, ...model }) =>
      monteCarlo(model, { seed, probability, trials, mostTrials: MOST_TRIALS_HERE }),
  ),
];
