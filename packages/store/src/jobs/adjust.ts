/** The log of what was done to an instrument between as found and as left. */
import type { InstrumentAct } from '@barys/core/port';
import { parseTyped } from '@barys/core/text';
import { convertPressure, type PressureUnit } from '@barys/core/units';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { connectionOfJob } from './connection';
import { StoreError } from '../db/errors';
import type { Instrument } from '../registers/instrument';
import { findInstrument } from '../registers/instruments';
import { lockJobAt } from './move';
import { requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { currentPass } from '../runs/load';

export const ADJUSTMENT_KINDS = [
  'zero',
  'span',
  'sensor trim',
  'output trim',
  'mid-scale',
  'near vacuum',
  'linkage',
  'cleaning',
  'part',
  'other',
] as const;
export type AdjustmentKind = (typeof ADJUSTMENT_KINDS)[number];

/** Kinds that say little without a word about what was done. */
const NEED_WORDS: ReadonlySet<AdjustmentKind> = new Set(['cleaning', 'part', 'other']);

export interface Adjustment {
  readonly id: number;
  /** The as-left pass that it comes before. */
  readonly pass: number;
  readonly kind: AdjustmentKind;
  readonly description: string;
  /** The units of the configuration that was in force. */
  readonly inputUnit: PressureUnit;
  readonly outputUnit: string;
  /** Input at which before and after were read, as typed, in the input unit. */
  readonly atAppliedText: string;
  /** Output before and after, as typed, in the output unit. */
  readonly beforeText: string;
  readonly afterText: string;
  readonly madeBy: string;
  readonly madeAt: Date;
}

export function adjustmentsOfJob(db: Queryable, jobId: number): Promise<Adjustment[]> {
  return db.query<Adjustment>(
    `select adjustment.id, pass, kind, description, input_unit as "inputUnit", output_unit as "outputUnit",
       at_applied_text as "atAppliedText", before_text as "beforeText",
       after_text as "afterText", name_at(made_by, made_at) as "madeBy", made_at as "madeAt"
     from adjustment where job_id = $1 order by adjustment.id`,
    [jobId],
  );
}

/** Above this share of the barometer a pressure counts as atmosphere. */
const NEAR_ATMOSPHERE = 0.8;

/**
 * The barometer moves, so neither the span of a vacuum gauge nor the zero of an absolute transmitter is set at it: usual
 * practice.
 */
export async function refuseAtAtmosphere(
  tx: Queryable,
  jobId: number,
  { kind, configuration }: Pick<Instrument, 'kind' | 'configuration'>,
  what: AdjustmentKind,
  applied: number,
): Promise<void> {
  const isSpanOfVacuum = kind === 'vacuum' && what === 'span';
  const isZeroOfAbsolute = kind === 'absolute' && what === 'zero';
  if (!isSpanOfVacuum && !isZeroOfAbsolute) return;
  const barometerHpa = (await connectionOfJob(tx, jobId))?.ambient.barometerHpa ?? 1013;
  if (convertPressure(applied, configuration.inputUnit, 'hPa') < NEAR_ATMOSPHERE * barometerHpa) return;
  throw new StoreError({
    code: 'at-atmosphere',
    what: isSpanOfVacuum ? 'The span of a vacuum gauge' : 'The zero of an absolute transmitter',
  });
}

export type NewAdjustment = Omit<
  Adjustment,
  'id' | 'pass' | 'inputUnit' | 'outputUnit' | 'madeBy' | 'madeAt'
>;

/** What was changed at the instrument itself, and where. */
export interface OverLink {
  readonly link: string;
  readonly device: string;
  /** Number of the instrument. */
  readonly serial: string;
  readonly act: InstrumentAct;
}

/**
 * A loop that was fixed over a link follows no pressure until it is let go, over the link or, in words, by hand.
 * @throws StoreError `loop-fixed`
 */
export async function refuseFixedLoop(tx: Queryable, jobId: number): Promise<void> {
  const [last] = await tx.query<{ milliamp: number | null }>(
    `select (over_link -> 'act' ->> 'milliamp')::double precision as milliamp from adjustment
     where job_id = $1 and (over_link -> 'act' ->> 'kind' = 'fixed current' or (over_link is null and kind = 'other'))
     order by id desc limit 1`,
    [jobId],
  );
  if (last !== undefined && last.milliamp !== null)
    throw new StoreError({ code: 'loop-fixed', milliamp: last.milliamp });
}

/**
 * Logs one adjustment with what the output was before and after.
 * @param overLink what was changed at the instrument itself; null where hands did it
 * @throws StoreError `wrong-stage`, `reason-needed`, `at-atmosphere`, `unknown-person`, `not-allowed`; CoreError for text that is no number
 */
export async function logAdjustment(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  entry: NewAdjustment,
  overLink: OverLink | null = null,
): Promise<void> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'adjust');
  const description = entry.description.trim();
  if (NEED_WORDS.has(entry.kind) && description === '')
    throw new StoreError({ code: 'reason-needed', why: 'what was done: the record keeps it in words' });
  const [at, before, after] = [entry.atAppliedText, entry.beforeText, entry.afterText].map(parseTyped);
  if (at === undefined || before === undefined || after === undefined)
    throw new Error('three texts give three numbers');
  const instrument = await findInstrument(tx, { id: instrumentId });
  const { inputUnit, outputUnit } = instrument.configuration;
  await refuseAtAtmosphere(tx, jobId, instrument, entry.kind, at.value);
  const pass = await currentPass(tx, jobId);
  await tx.query(
    `insert into adjustment (job_id, pass, kind, description, at_applied_text, at_applied, before_text, before_output,
       after_text, after_output, made_by, made_at, input_unit, output_unit, over_link)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)`,
    [
      jobId,
      pass,
      entry.kind,
      description,
      at.text,
      at.value,
      before.text,
      before.value,
      after.text,
      after.value,
      actor.personId,
      actor.at,
      inputUnit,
      outputUnit,
      overLink === null ? null : JSON.stringify(overLink),
    ],
  );
  await appendToTrail(tx, actor, {
    act: 'log adjustment',
    subject: { kind: 'job', id: jobId },
    detail: { pass, kind: entry.kind, at: at.text, before: before.text, after: after.text, description },
  });
}
