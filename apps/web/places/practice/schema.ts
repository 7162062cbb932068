/** What a browser says of an attempt. The score is worked out from it and is not believed. */
import { HOOK_UPS } from '@barys/core/hookup';
import { START_VIEWS } from '@barys/core/setup';
import { CAUSES, findLesson, LEADS, LONGEST_S, type Act } from '@barys/rig/practice';
import { z } from 'zod';

/** What a desk of practice sends at most: it cuts what is longer, and takes no larger number. */
export const MOST = 1e6;
export const MOST_TEXT = 60;
export const MOST_REMARK = 500;

const figure = z.number().min(-MOST).max(MOST);
const turns = z.number().min(-50).max(50);

const VALVES = Object.values(HOOK_UPS).flatMap(({ valves }) => valves.map(({ id }) => id));

const transfer = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('linear') }),
  z.object({ kind: z.literal('square-root') }),
  z.object({ kind: z.literal('square-root-cut-off'), cutOffPercentOfFlow: figure }),
]);

const settings = z
  .object({
    lrv: figure,
    urv: figure,
    transfer,
    scaledTransfer: transfer,
    drivenBy: z.enum(['pressure', 'scaled variable']),
    dampingS: figure,
    displayDampingS: figure,
    displayLow: figure,
    displayHigh: figure,
  })
  .partial();

const command = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('zero trim') }),
  z.object({ kind: z.literal('sensor trim'), end: z.enum(['lower', 'upper']), applied: figure }),
  z.object({ kind: z.literal('output trim'), at: z.union([z.literal(4), z.literal(20)]), measured: figure }),
  z.object({ kind: z.literal('hold'), milliamp: figure.nullable() }),
  z.object({ kind: z.literal('set'), settings }),
  z.object({
    kind: z.literal('face'),
    face: z.object({ displayUnit: z.string().max(20), startView: z.enum(START_VIEWS) }).partial(),
  }),
]);

const text = z.string().max(MOST_TEXT);
const pass = z.enum(['as found', 'as left']);
const way = z.enum(['up', 'down']);
const percent = z.number().min(0).max(100);

const wrote = z.object({
  applied: figure,
  output: figure,
  typed: z
    .object({
      applied: text,
      output: text,
      more: z.object({ 'before-tap': text, digital: text, second: text }).partial(),
    })
    .optional(),
});

const act: z.ZodType<Act> = z.discriminatedUnion('do', [
  z.object({ do: z.literal('stroke') }),
  z.object({ do: z.literal('fine'), turns }),
  z.object({ do: z.literal('vent'), open: z.number().min(0).max(1) }),
  z.object({ do: z.literal('pressure'), to: figure }),
  z.object({ do: z.literal('turn'), screw: z.enum(['zero', 'span']), turns }),
  z.object({ do: z.literal('tap') }),
  z.object({ do: z.literal('take'), point: z.enum(['near vacuum', 'zero', 'middle', 'full']), said: figure }),
  z.object({ do: z.literal('restore'), set: z.enum(['factory', 'last field']) }),
  z.object({ do: z.literal('gauge zero') }),
  z.object({ do: z.literal('gauge span'), said: figure }),
  z.object({
    do: z.literal('manifold'),
    rotary: z.boolean().optional(),
    diffusion: z.boolean().optional(),
    valve: z.number().min(0).max(1).optional(),
    bleed: z.number().min(0).max(1).optional(),
  }),
  z.object({ do: z.literal('tell'), command }),
  z.object({ do: z.literal('wheel'), clicks: z.number().int().min(-1000).max(1000) }),
  z.object({ do: z.literal('key'), key: z.enum(['take', 'back']) }),
  z.object({ do: z.literal('lead'), to: z.enum(LEADS) }),
  z.object({ do: z.literal('jack'), to: z.enum(['current', 'voltage']) }),
  z.object({ do: z.literal('null'), at: z.union([z.literal(0), z.literal(100)]) }),
  z.object({
    do: z.literal('valve'),
    move: z.object({ valve: z.enum(VALVES), to: z.enum(['open', 'closed']) }),
  }),
  z.object({ do: z.literal('fill leg') }),
  z.object({ do: z.literal('swap'), step: z.number().int().min(0).max(50) }),
  z.object({ do: z.literal('pick body'), body: z.number().int().min(0).max(50) }),
  z.object({ do: z.literal('log'), screw: z.enum(['zero', 'span']), before: figure, after: figure }),
  z.object({ do: z.literal('read'), percent, way, pass, wrote: wrote.optional() }),
  z.object({
    do: z.literal('mark'),
    percent,
    way,
    pass,
    mark: z.enum(['overshot', 'no reading', 'note']),
    applied: text,
    output: text,
    remark: z.string().max(MOST_REMARK),
  }),
  z.object({
    do: z.literal('name'),
    causes: z.array(z.enum(Object.keys(CAUSES) as (keyof typeof CAUSES)[])).max(30),
  }),
  z.object({ do: z.literal('hint') }),
]);

export const attemptSchema = z.object({
  clientKey: z.uuid(),
  lesson: z
    .string()
    .max(60)
    .refine((id) => findLesson(id) !== undefined, 'There is no such lesson.'),
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
    .max(10_000, 'This attempt is too long to be kept.')
    .refine(
      (record) => record.every(({ atS }, i) => atS >= (record[i - 1]?.atS ?? 0)),
      'What was done is out of order.',
    ),
});
