/** The plant's catalogue of bodies: what a model can be ranged to, which trims it has, how it is exchanged. */
import { CoreError } from '@barys/core/errors';
import { evaluateFormula, parseFormula } from '@barys/core/formula';
import { SIGNALS, type SignalName } from '@barys/core/signal';
import { convertPressure, PRESSURE_KINDS, PRESSURE_UNITS, type PressureUnit } from '@barys/core/units';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';

export const TECHNOLOGIES = ['analog', 'smart', 'pneumatic', 'dial gauge', 'digital gauge'] as const;

/** What can be turned, trimmed or set on a body. */
export const TRIMS = [
  'zero screw',
  'span screw',
  'range wheel',
  'linkage',
  'zero trim',
  'sensor trim',
  'output trim',
  'full scale',
  'mid-scale',
  'near vacuum',
] as const;

const keysOf = <K extends string>(table: Readonly<Record<K, unknown>>): K[] => Object.keys(table) as K[];

export const pressureUnitSchema = z.enum(keysOf<PressureUnit>(PRESSURE_UNITS), {
  error: 'A pressure unit with its reference is needed, such as kPa or inH2O at 4 °C.',
});
export const signalSchema = z.enum(keysOf<SignalName>(SIGNALS), { error: 'Choose a signal from the list.' });

const number = (name: string) => z.number({ error: `${name} is a number.` });
const positive = (name: string) => number(name).positive(`${name} must be greater than zero.`);

const isAccuracy = (text: string): boolean => {
  if (text === '') return true;
  try {
    const value = evaluateFormula(parseFormula(text), { span: 1, URL: 2 });
    return Number.isFinite(value);
  } catch (error) {
    if (error instanceof CoreError) return false;
    throw error;
  }
};

export const bodySchema = z
  .object({
    model: z.string().trim().min(1, 'A body needs the name of its model.').max(80),
    kind: z.enum(PRESSURE_KINDS),
    technology: z.enum(TECHNOLOGIES),
    unit: pressureUnitSchema,
    lowerRangeLimit: number('The lower range limit'),
    upperRangeLimit: number('The upper range limit'),
    leastSpan: positive('The least span'),
    /** Null is as wide as the limits allow. */
    greatestSpan: positive('The greatest span').nullable(),
    outputs: z.array(signalSchema).min(1, 'Choose at least one output.'),
    trims: z.array(z.enum(TRIMS)),
    /** Classes of span that the linkage is set for; empty where there are none. */
    spanClasses: z.array(
      z.object({
        name: z.string().trim().min(1, 'A span class needs a name.'),
        leastSpan: positive('The least span of a class'),
        greatestSpan: positive('The greatest span of a class'),
      }),
    ),
    /** Per cent of span as a formula in `span` and `URL`, both in the body's unit; empty where it is not known. */
    accuracy: z
      .string()
      .trim()
      .max(200)
      .refine(isAccuracy, 'The accuracy is a formula in span and URL, such as 0.05 + 0.005 * URL / span.'),
    swapChecklist: z.array(
      z.object({
        step: z.string().trim().min(1, 'A step of the checklist says what to do.').max(200),
        torqueNm: positive('A torque').nullable(),
      }),
    ),
  })
  .superRefine(({ lowerRangeLimit, upperRangeLimit, leastSpan, greatestSpan, spanClasses }, context) => {
    const refuse = (path: string, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message });
    const whole = upperRangeLimit - lowerRangeLimit;
    if (whole <= 0) refuse('upperRangeLimit', 'The upper range limit must be above the lower one.');
    else if (leastSpan > whole) refuse('leastSpan', 'The least span is wider than the limits.');
    if (greatestSpan !== null && (greatestSpan < leastSpan || greatestSpan > whole))
      refuse('greatestSpan', 'The greatest span lies between the least span and the width of the limits.');
    if (spanClasses.some((one) => one.leastSpan > one.greatestSpan))
      refuse('spanClasses', 'A span class runs from its least span up to its greatest.');
  });

export type NewBody = z.infer<typeof bodySchema>;
export type Body = Readonly<NewBody> & { readonly id: number; readonly revision: number };

/** What a range is checked against. */
export type BodyLimits = Pick<
  Body,
  'model' | 'unit' | 'lowerRangeLimit' | 'upperRangeLimit' | 'leastSpan' | 'greatestSpan'
>;

/** A body as JSON of PostgreSQL, for the queries that join it. */
export const BODY_JSON = `json_build_object('id', body.id, 'model', model, 'kind', pressure_kind,
  'technology', technology, 'unit', body.unit, 'lowerRangeLimit', lower_range_limit,
  'upperRangeLimit', upper_range_limit, 'leastSpan', least_span, 'greatestSpan', greatest_span,
  'outputs', outputs, 'trims', trims, 'spanClasses', span_classes, 'accuracy', accuracy,
  'swapChecklist', swap_checklist, 'revision', body.revision)`;

export async function listBodies(db: Queryable): Promise<Body[]> {
  const rows = await db.query<{ body: Body }>(`select ${BODY_JSON} as body from body order by model`);
  return rows.map(({ body }) => body);
}

/** @throws StoreError `no-such` */
export async function findBody(db: Queryable, id: number): Promise<Body> {
  const [row] = await db.query<{ body: Body }>(`select ${BODY_JSON} as body from body where id = $1`, [id]);
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'body', name: id });
  return row.body;
}

const BODY_COLUMNS = `model, pressure_kind, technology, unit, lower_range_limit, upper_range_limit, least_span,
  greatest_span, outputs, trims, span_classes, accuracy, swap_checklist`;

const valuesOf = (body: NewBody): unknown[] => [
  body.model,
  body.kind,
  body.technology,
  body.unit,
  body.lowerRangeLimit,
  body.upperRangeLimit,
  body.leastSpan,
  body.greatestSpan,
  body.outputs,
  body.trims,
  JSON.stringify(body.spanClasses),
  body.accuracy,
  JSON.stringify(body.swapChecklist),
];

/** @throws StoreError `taken`, `unknown-person`, `not-allowed` */
export async function addBody(tx: Queryable, actor: Actor, entry: NewBody): Promise<number> {
  await requireKeeper(tx, actor);
  const [row] = await refuseTaken({ what: 'body', name: entry.model }, () =>
    tx.query<{ id: number }>(
      `insert into body (${BODY_COLUMNS}) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) returning id`,
      valuesOf(entry),
    ),
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, { act: 'add body', subject: { kind: 'body', id }, detail: { ...entry } });
  return id;
}

/**
 * Changes a body. Ranges in force are not touched; one that no longer fits shows so on its instrument.
 * @param revision the one that was being edited
 * @throws StoreError `no-such`, `changed-meanwhile`, `taken`, `unknown-person`, `not-allowed`
 */
export async function changeBody(
  tx: Queryable,
  actor: Actor,
  id: number,
  revision: number,
  entry: NewBody,
): Promise<void> {
  await requireKeeper(tx, actor);
  const before = await findBody(tx, id);
  const changed = await refuseTaken({ what: 'body', name: entry.model }, () =>
    tx.query(
      `update body set (${BODY_COLUMNS}, revision) =
         ($3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, revision + 1)
       where id = $1 and revision = $2 returning id`,
      [id, revision, ...valuesOf(entry)],
    ),
  );
  if (changed.length === 0) throw new StoreError({ code: 'changed-meanwhile', what: before.model });
  await appendToTrail(tx, actor, {
    act: 'change body',
    subject: { kind: 'body', id },
    detail: { before, after: entry },
  });
}

/** How far the span can be turned down: the greatest span over the least. */
export const turndownOf = ({
  lowerRangeLimit,
  upperRangeLimit,
  leastSpan,
  greatestSpan,
}: BodyLimits): number => (greatestSpan ?? upperRangeLimit - lowerRangeLimit) / leastSpan;

/**
 * Accuracy of a body at a span, per cent of span, by its maker's formula; null where none is entered.
 * @param span in the body's unit
 */
export function accuracyOfBody(
  body: Pick<Body, 'accuracy' | 'upperRangeLimit'>,
  span: number,
): number | null {
  if (body.accuracy === '') return null;
  return evaluateFormula(parseFormula(body.accuracy), { span, URL: body.upperRangeLimit });
}

/** Why a range does not fit a body, in words, or null. */
export function rangeMisfit(body: BodyLimits, unit: PressureUnit, lrv: number, urv: number): string | null {
  const [low, high] = [
    convertPressure(Math.min(lrv, urv), unit, body.unit),
    convertPressure(Math.max(lrv, urv), unit, body.unit),
  ];
  const unitWord = PRESSURE_UNITS[body.unit].label;
  const limits = `${body.lowerRangeLimit} to ${body.upperRangeLimit} ${unitWord}`;
  if (low < body.lowerRangeLimit || high > body.upperRangeLimit)
    return `The range reaches outside the limits of the body ${body.model}, ${limits}.`;
  if (high - low < body.leastSpan)
    return `The span is smaller than the least span of the body ${body.model}, ${body.leastSpan} ${unitWord}.`;
  if (body.greatestSpan !== null && high - low > body.greatestSpan)
    return `The span is wider than the greatest span of the body ${body.model}, ${body.greatestSpan} ${unitWord}.`;
  return null;
}
