/** Configurations: what is set in an instrument, as versions that are never edited, only superseded. */
import { CoreError } from '@barys/core/errors';
import { checkRange, SIGNALS, unitsOfSignal } from '@barys/core/signal';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import { findBody, pressureUnitSchema, rangeMisfit, signalSchema } from './bodies';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';

const number = (name: string) => z.number({ error: `${name} is a number.` });
const percent = z.number({ error: 'A number is needed here.' });

export const transferSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('linear') }),
  z.strictObject({ kind: z.literal('square-root') }),
  z.strictObject({ kind: z.literal('square-root-cut-off'), cutOffPercentOfFlow: percent }),
  z.strictObject({ kind: z.literal('square-root-linear-start'), linearToPercentOfFlow: percent }),
  z.strictObject({ kind: z.literal('square-root-slope-one'), linearToPercentOfInput: percent }),
  z.strictObject({
    kind: z.literal('table'),
    points: z.array(z.strictObject({ inputPercent: percent, outputPercent: percent })).max(1000),
  }),
]);

const shape = z.object({
  inputUnit: pressureUnitSchema,
  lrv: number('The lower range value'),
  urv: number('The upper range value'),
  signal: signalSchema,
  outputUnit: z.string().trim().min(1, 'The output needs a unit.').max(20),
  outputLow: number('The output at 0 %'),
  outputHigh: number('The output at 100 %'),
  transferFunction: transferSchema,
  dampingS: number('The damping').nonnegative('The damping must not be negative.'),
  displayUnit: z.string().trim().max(20),
  displayLow: number('The display at 0 %'),
  displayHigh: number('The display at 100 %'),
  /** Between two marks of a scale that is read by eye, in the output unit; null where it is read by a meter. */
  scaleDivision: number('The scale division')
    .positive('The scale division must be greater than zero.')
    .nullable()
    .default(null),
});

export const configurationSchema = shape
  .extend({ reason: z.string().trim().min(1, 'Say why: the reason stays with this version.').max(500) })
  .superRefine((range, context) => {
    const units = unitsOfSignal(range.signal);
    if (units !== null && !units.includes(range.outputUnit))
      context.addIssue({
        code: 'custom',
        path: ['outputUnit'],
        message: `A signal of ${SIGNALS[range.signal].label} is in ${units.length > 2 ? 'a unit of pressure' : units.join(' or ')}.`,
      });
    try {
      checkRange(range);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      context.addIssue({ code: 'custom', path: (error.field ?? 'urv').split('.'), message: error.message });
    }
  });

/** A run's own copy of a version. Copies made before other signals were known say nothing of signal and transfer. */
export const configurationCopySchema = shape.extend({
  version: z.number().int(),
  signal: signalSchema.default('mA-4-20'),
  transferFunction: transferSchema.default({ kind: 'linear' }),
});

export type NewConfiguration = z.infer<typeof configurationSchema>;

/** The range with its units, and what else is set in the instrument. */
export type Configuration = Readonly<z.output<typeof configurationCopySchema>>;

/** What standards are chosen for and points are planned on; damping and display can change without them. */
const RANGE = ['inputUnit', 'lrv', 'urv', 'signal', 'outputUnit', 'outputLow', 'outputHigh'] as const;

const transferText = ({ transferFunction }: Configuration): string =>
  JSON.stringify(transferSchema.parse(transferFunction));

/** Whether two versions have the same range, output and transfer function. */
export const isSameRange = (a: Configuration, b: Configuration): boolean =>
  RANGE.every((part) => a[part] === b[part]) && transferText(a) === transferText(b);

/** A version with who made it, when and why. */
export type ConfigurationVersion = Configuration & {
  readonly madeBy: string;
  readonly madeAt: Date;
  readonly reason: string;
};

/** A version as JSON of PostgreSQL, for queries that join `configuration` and `person`. */
export const CONFIGURATION_JSON = `json_build_object('version', version, 'inputUnit', input_unit, 'lrv', lrv,
  'urv', urv, 'signal', signal, 'outputUnit', output_unit, 'outputLow', output_low, 'outputHigh', output_high,
  'transferFunction', transfer_function, 'dampingS', damping_s, 'displayUnit', display_unit,
  'displayLow', display_low, 'displayHigh', display_high, 'scaleDivision', scale_division, 'madeBy', name_at(made_by, made_at), 'madeAt', made_at,
  'reason', reason)`;

export const toVersion = (row: ConfigurationVersion): ConfigurationVersion => ({
  ...row,
  madeAt: new Date(row.madeAt),
});

/** All versions of an instrument's configuration, the newest first. */
export async function configurationsOf(db: Queryable, instrumentId: number): Promise<ConfigurationVersion[]> {
  const rows = await db.query<{ configuration: ConfigurationVersion }>(
    `select ${CONFIGURATION_JSON} as configuration from configuration
     where instrument_id = $1 order by version desc`,
    [instrumentId],
  );
  return rows.map(({ configuration }) => toVersion(configuration));
}

/** What a changed range asks besides its figures: each in words, since the record keeps them. */
export const RANGE_QUESTIONS = {
  permit: 'Permit: its number, or why none is needed',
  controller: 'Controller that uses the measurement: in manual, set by whom',
  label: 'Label with the new range: fixed, or by whom and when',
  receivers: 'Receivers told of the new range: control system, recorder, flow computer',
} as const;
export type RangeQuestion = keyof typeof RANGE_QUESTIONS;

/**
 * Makes an instrument due at once, where it is not yet.
 * @returns before and after, or null where it was due already
 */
async function makeDue(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
): Promise<{ readonly before: string; readonly after: string } | null> {
  const [moved] = await tx.query<{ before: string }>(
    `update instrument set due_on = $2, revision = instrument.revision + 1
     from (select id, due_on from instrument where id = $1) old
     where instrument.id = old.id and old.due_on > $2 returning old.due_on as before`,
    [instrumentId, actor.today],
  );
  return moved === undefined ? null : { before: moved.before, after: actor.today };
}

/**
 * Puts a new version of the configuration in force. Another range was never calibrated: the instrument is due at once.
 * @param given answers to what a changed range asks; null where nobody is there to be asked, as in an import
 * @throws StoreError `range-unfit`, `range-questions`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function addConfiguration(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
  { reason, ...entry }: NewConfiguration,
  given: Readonly<Partial<Record<RangeQuestion, string>>> | null = null,
): Promise<void> {
  await requireKeeper(tx, actor);
  const [instrument] = await tx.query<{ bodyId: number }>(
    // One version after the other, also where two people configure at once.
    'select body_id as "bodyId" from instrument where id = $1 for no key update',
    [instrumentId],
  );
  if (instrument === undefined)
    throw new StoreError({ code: 'no-such', what: 'instrument', name: instrumentId });
  const body = await findBody(tx, instrument.bodyId);
  const why = rangeMisfit(body, entry.inputUnit, entry.lrv, entry.urv);
  if (why !== null) throw new StoreError({ code: 'range-unfit', why });
  if (!body.outputs.includes(entry.signal))
    throw new StoreError({ code: 'range-unfit', why: `The body ${body.model} does not have this output.` });
  const [before] = await configurationsOf(tx, instrumentId);
  const isMoved = before !== undefined && !isSameRange(before, { ...before, ...entry });
  const answers = Object.fromEntries(
    (Object.keys(RANGE_QUESTIONS) as RangeQuestion[]).map((key) => [key, given?.[key]?.trim() ?? '']),
  );
  const open = Object.entries(RANGE_QUESTIONS).filter(([key]) => answers[key] === '');
  if (isMoved && given !== null && open.length > 0)
    throw new StoreError({ code: 'range-questions', open: open.map(([, text]) => text) });
  const [row] = await tx.query<{ version: number }>(
    `insert into configuration (instrument_id, version, input_unit, lrv, urv, signal, output_unit, output_low,
       output_high, transfer_function, damping_s, display_unit, display_low, display_high, scale_division, made_by, made_at, reason)
     values ($1, (select coalesce(max(version), 0) + 1 from configuration where instrument_id = $1), $2, $3, $4, $5,
       $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17) returning version`,
    [
      instrumentId,
      entry.inputUnit,
      entry.lrv,
      entry.urv,
      entry.signal,
      entry.outputUnit,
      entry.outputLow,
      entry.outputHigh,
      JSON.stringify(entry.transferFunction),
      entry.dampingS,
      entry.displayUnit,
      entry.displayLow,
      entry.displayHigh,
      entry.scaleDivision,
      actor.personId,
      actor.at,
      reason,
    ],
  );
  const due = isMoved ? await makeDue(tx, actor, instrumentId) : null;
  await appendToTrail(tx, actor, {
    act: 'configure instrument',
    subject: { kind: 'instrument', id: instrumentId },
    detail: {
      version: row?.version,
      ...entry,
      reason,
      ...(isMoved && given !== null ? { answers } : {}),
      ...(due === null ? {} : { due }),
    },
  });
}
