/** What a browser says of an attempt. The score is worked out from it and is not believed. */
import { CAUSES, LESSONS, LONGEST_S, type Act } from '@barys/rig/practice';
import { z } from 'zod';

const figure = z.number().min(-1e6).max(1e6);
const turns = z.number().min(-50).max(50);

const transfer = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('linear') }),
  z.object({ kind: z.literal('square-root') }),
  z.object({ kind: z.literal('square-root-cut-off'), cutOffPercentOfFlow: z.number().min(0).max(100) }),
]);

const command = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('zero trim') }),
  z.object({ kind: z.literal('sensor trim'), end: z.enum(['lower', 'upper']), applied: figure }),
  z.object({ kind: z.literal('output trim'), at: z.union([z.literal(4), z.literal(20)]), measured: figure }),
  z.object({ kind: z.literal('hold'), milliamp: figure.nullable() }),
  z.object({
    kind: z.literal('set'),
    settings: z
      .object({
        lrv: figure,
        urv: figure,
        transfer,
        scaledTransfer: transfer,
        drivenBy: z.enum(['pressure', 'scaled variable']),
      })
      .partial(),
  }),
]);

const act: z.ZodType<Act> = z.discriminatedUnion('do', [
  z.object({ do: z.literal('stroke') }),
  z.object({ do: z.literal('fine'), turns }),
  z.object({ do: z.literal('vent'), open: z.number().min(0).max(1) }),
  z.object({ do: z.literal('pressure'), to: figure }),
  z.object({ do: z.literal('turn'), screw: z.enum(['zero', 'span']), turns }),
  z.object({ do: z.literal('take'), point: z.enum(['near vacuum', 'zero', 'middle', 'full']), said: figure }),
  z.object({ do: z.literal('restore'), set: z.enum(['factory', 'last field']) }),
  z.object({ do: z.literal('tell'), command }),
  z.object({
    do: z.literal('read'),
    percent: z.number().min(0).max(100),
    way: z.enum(['up', 'down']),
    pass: z.enum(['as found', 'as left']),
  }),
  z.object({
    do: z.literal('name'),
    causes: z.array(z.enum(Object.keys(CAUSES) as (keyof typeof CAUSES)[])).max(10),
  }),
  z.object({ do: z.literal('hint') }),
]);

export const attemptSchema = z.object({
  clientKey: z.uuid(),
  lesson: z.enum(LESSONS.map(({ id }) => id)),
  seed: z.number().int().min(1).max(1_000_000),
  record: z
    .array(
      z.object({
        atS: z
          .number()
          .min(0)
          .max(LONGEST_S + 1),
        act,
      }),
    )
    .max(5000, 'This attempt is too long to be kept.')
    .refine(
      (record) => record.every(({ atS }, i) => atS >= (record[i - 1]?.atS ?? 0)),
      'What was done is out of order.',
    ),
});
