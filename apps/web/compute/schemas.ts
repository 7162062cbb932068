/** Parts that several calculations take or give. Limits that need arithmetic are the core's; these check shape and size. */
import { VERDICTS } from '@barys/core/run';
import {
  PRESSURE_KINDS,
  PRESSURE_UNITS,
  QUANTITIES,
  unitsOf,
  type PressureUnit,
  type Quantity,
  type Unit,
} from '@barys/core/units';
import { transferSchema } from '@barys/store/shapes';
import { z } from 'zod';

export const number = z.number({ error: 'A number is needed here.' });
export const maybe = number.nullable();
export const text = z.string().max(2000);

const keysOf = <K extends string>(table: Readonly<Record<K, unknown>>): K[] => Object.keys(table) as K[];

export const pressureUnit = z.enum(keysOf<PressureUnit>(PRESSURE_UNITS), {
  error: 'A pressure unit with its reference is needed, such as kPa or inH2OAt4C.',
});
export const anyUnit = z.enum(
  keysOf<Quantity>(QUANTITIES).flatMap((quantity): readonly Unit[] => unitsOf(quantity)),
  {
    error: 'This is not the key of a unit; parse-unit finds it.',
  },
);
export const pressureKind = z.enum(PRESSURE_KINDS);

/** Units as they are to be shown in the working. */
export const shownUnit = z.string().max(40).default('');

export const step = z
  .strictObject({
    what: z.string(),
    symbol: z.string(),
    formula: z.string(),
    notation: z.string().optional(),
    given: z.record(z.string(), z.strictObject({ value: number, unit: z.string() })),
    value: number,
    unit: z.string(),
    source: z.string(),
  })
  .meta({ id: 'Step', description: 'One step of the working: symbol = formula, at the given values.' });
export const working = z.array(step).readonly();
export const worked = z.strictObject({ value: number, working });

export const transfer = transferSchema.meta({ id: 'TransferFunction' });

export const range = z
  .strictObject({
    lrv: number,
    urv: number,
    outputLow: number,
    outputHigh: number,
    transferFunction: transfer.default({ kind: 'linear' }),
  })
  .meta({ id: 'Range', description: 'Input and output each in one unit of their own throughout.' });

export const rangeUnits = z
  .strictObject({ input: shownUnit, output: shownUnit })
  .default({ input: '', output: '' });

export const tolerance = z
  .strictObject({
    terms: z
      .array(
        z.discriminatedUnion('kind', [
          z.strictObject({ kind: z.literal('percent-of-span'), percent: number }),
          z.strictObject({
            kind: z.literal('percent-of-span-in-zones'),
            middlePercent: number,
            outerPercent: number,
          }),
          z.strictObject({
            kind: z.literal('percent-of-reading'),
            percent: number,
            of: z.enum(['applied', 'ideal-output']),
          }),
          z.strictObject({
            kind: z.literal('percent-of-upper-range-limit'),
            percent: number,
            upperRangeLimit: number,
          }),
          z.strictObject({ kind: z.literal('absolute'), value: number, in: z.enum(['output', 'input']) }),
          z.strictObject({ kind: z.literal('scale-divisions'), divisions: number, division: number }),
        ]),
      )
      .max(20),
    combine: z.enum(['sum', 'maximum', 'root-sum-square']).default('sum'),
    domain: z.enum(['output', 'input']).default('output'),
    adjustAbovePercentOfLimit: number.default(100),
  })
  .meta({ id: 'Tolerance' });

export const reading = z.strictObject({
  cycle: z.int().min(1).default(1),
  direction: z.enum(['up', 'down']),
  nominalPercent: number,
  applied: number,
  output: number,
  uncertainty: number.optional(),
});

export const decisionRule = z
  .discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('simple') }),
    z.strictObject({ kind: z.literal('guard-band'), r: number, isUndecidedAllowed: z.boolean() }),
    z.strictObject({ kind: z.literal('method-6') }),
  ])
  .default({ kind: 'simple' });

export const verdict = z.enum(VERDICTS);

/** Two limits of which one may be left out or null. */
export const limits = z.strictObject({ lower: maybe.default(null), upper: maybe.default(null) });
export const normal = z.strictObject({ mean: number, sd: number });
