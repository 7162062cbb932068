/** The log of what was done to an instrument between as found and as left. */
import {
  adviseScrews,
  guardsAt,
  hasScrews,
  isAtAtmosphere,
  outputOfDeviation,
  type NullAt,
  type NullUnit,
  type Screw,
} from '@barys/core/adjust';
import type { InstrumentAct } from '@barys/core/port';
import { formatSigned, parseTyped } from '@barys/core/text';
import { convertPressure, type PressureUnit } from '@barys/core/units';
import { guardedAct, type AdjustmentKind } from './adjustment-kinds';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { connectionOfJob } from './connection';
import { StoreError } from '../db/errors';
import type { Instrument } from '../registers/instrument';
import { findInstrument } from '../registers/instruments';
import { guardedJob } from './guards';
import { lockJobAt } from './move';
import { requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { receiverTrims, type ReceiverTrim } from '../runs/loop-check';
import { adviceOnRun, bodyOfRun, screwsAfter } from '../runs/advice';
import { currentPass, runsOfJob } from '../runs/load';

/** Kinds that say little without a word about what was done. */
const NEED_WORDS: ReadonlySet<AdjustmentKind> = new Set(['re-range', 'cleaning', 'part', 'other']);

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
  /** Output before and after, as typed, in the output unit; deviations where a null meter was read. */
  readonly beforeText: string;
  readonly afterText: string;
  /** The same as numbers: what was applied, and the output itself. */
  readonly atApplied: number;
  readonly before: number;
  readonly after: number;
  /** Where the null meter stood at nothing, and what it reads in; null where the output itself was read. */
  readonly nullAt: NullAt | null;
  readonly nullUnit: NullUnit | null;
  /** The setting that was advised, and whether it was followed; null where none was. */
  readonly advised: AdvisedSetting | null;
  /** What spoke against it; empty where nothing did. */
  readonly against: string;
  /** The receiver of its loop that it was trimmed to; empty where it was trimmed to the standard, as usual. */
  readonly toReceiver: string;
  readonly madeBy: string;
  readonly madeAt: Date;
}

export interface AdvisedSetting {
  readonly screw: Screw;
  /** Output unit. */
  readonly setTo: number;
  readonly isFollowed: boolean;
}

export function adjustmentsOfJob(db: Queryable, jobId: number): Promise<Adjustment[]> {
  return db.query<Adjustment>(
    `select adjustment.id, pass, kind, description, input_unit as "inputUnit", output_unit as "outputUnit",
       at_applied_text as "atAppliedText", before_text as "beforeText", after_text as "afterText",
       at_applied as "atApplied", before_output as before, after_output as after, null_at as "nullAt",
       null_unit as "nullUnit", advised, against, to_receiver as "toReceiver", name_at(made_by, made_at) as "madeBy", made_at as "madeAt"
     from adjustment where job_id = $1 order by adjustment.id`,
    [jobId],
  );
}

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
  if (what !== 'span' && what !== 'zero') return;
  const hpa = (await connectionOfJob(tx, jobId))?.ambient.barometerHpa ?? 1013;
  const barometer = convertPressure(hpa, 'hPa', configuration.inputUnit);
  if (!isAtAtmosphere(what, { kind, applied, barometer })) return;
  const isSpanOfVacuum = what === 'span';
  throw new StoreError({
    code: 'at-atmosphere',
    what: isSpanOfVacuum ? 'The span of a vacuum gauge' : 'The zero of an absolute transmitter',
  });
}

export type NewAdjustment = Pick<
  Adjustment,
  'kind' | 'description' | 'atAppliedText' | 'beforeText' | 'afterText'
> &
  Partial<Pick<Adjustment, 'nullAt' | 'nullUnit' | 'toReceiver'>>;

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

/** Two texts as outputs: as they are, or as deviations from the end that a null meter is set to. */
function outputsOf(
  { beforeText, afterText }: NewAdjustment,
  meter: NullMeter | null,
  range: Instrument['configuration'],
): readonly { readonly text: string; readonly output: number }[] {
  return [beforeText, afterText].map((typed) => {
    const { text, value } = parseTyped(typed);
    return { text, output: meter === null ? value : outputOfDeviation(range, meter.at, meter.unit, value) };
  });
}

/** A null meter, by the end that it is set to and its unit. */
interface NullMeter {
  readonly at: NullAt;
  readonly unit: NullUnit;
}

/** The setting that the passes so far ask for, and whether an entry followed it; null where none is advised. */
async function advisedFor(
  tx: Queryable,
  jobId: number,
  instrument: Instrument,
  entry: {
    readonly kind: AdjustmentKind;
    readonly before: number;
    readonly after: number;
    readonly pass: number;
  },
): Promise<AdvisedSetting | null> {
  if (entry.kind !== 'zero' && entry.kind !== 'span') return null;
  const run = (await runsOfJob(tx, jobId)).filter(({ thrownAway }) => thrownAway === null).at(-1);
  const advice = run === undefined ? null : adviceOnRun(run, instrument.body, false);
  if (run === undefined || advice === null || !hasScrews(bodyOfRun(run, instrument.body))) return null;
  const made = (await adjustmentsOfJob(tx, jobId)).filter(({ pass }) => pass === entry.pass);
  const situation = screwsAfter(run, advice, made);
  if (situation === null) return null;
  const { next } = adviseScrews({ ...situation, now: { at: entry.kind, reading: entry.before } });
  if (next === null) return null;
  const isThere = Math.abs(entry.after - next.setTo) <= situation.tolerance * (1 + 1e-9);
  return { screw: next.screw, setTo: next.setTo, isFollowed: next.screw === entry.kind && isThere };
}

/**
 * Logs one adjustment with what the output was before and after.
 * @param overLink what was changed at the instrument itself; null where hands did it
 * @throws StoreError `wrong-stage`, `reason-needed`, `guarded` where something speaks against it and no reason is given,
 *   `at-atmosphere`, `unknown-person`, `not-allowed`; CoreError for text that is no number
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
  const instrument = await findInstrument(tx, { id: instrumentId });
  const { inputUnit, outputUnit } = instrument.configuration;
  const at = parseTyped(entry.atAppliedText);
  const { nullAt = null, nullUnit = null } = entry;
  const meter = nullAt === null ? null : { at: nullAt, unit: nullUnit ?? 'output unit' };
  const [before, after] = outputsOf(entry, meter, instrument.configuration);
  if (before === undefined || after === undefined) throw new Error('two texts give two outputs');
  await refuseAtAtmosphere(tx, jobId, instrument, entry.kind, at.value);
  const pass = await currentPass(tx, jobId);
  const against =
    overLink === null
      ? await againstIt(tx, jobId, instrument, { kind: entry.kind, applied: at.value, before: before.output })
      : '';
  const trim = await receiverTrimOf(tx, jobId, entry.toReceiver?.trim() ?? '', description);
  if (against !== '' && description === '') throw new StoreError({ code: 'guarded', why: against });
  const advised = await advisedFor(tx, jobId, instrument, {
    kind: entry.kind,
    before: before.output,
    after: after.output,
    pass,
  });
  await tx.query(
    `insert into adjustment (job_id, pass, kind, description, at_applied_text, at_applied, before_text, before_output,
       after_text, after_output, made_by, made_at, input_unit, output_unit, over_link, null_at, null_unit, advised, against,
       to_receiver)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20)`,
    [
      jobId,
      pass,
      entry.kind,
      description,
      at.text,
      at.value,
      before.text,
      before.output,
      after.text,
      after.output,
      actor.personId,
      actor.at,
      inputUnit,
      outputUnit,
      overLink === null ? null : JSON.stringify(overLink),
      meter?.at ?? null,
      meter?.unit ?? null,
      advised === null ? null : JSON.stringify(advised),
      [against, trim === null ? '' : trimInWords(trim)].filter((one) => one !== '').join(' '),
      trim?.receiver ?? '',
    ],
  );
  await appendToTrail(tx, actor, {
    act: 'log adjustment',
    subject: { kind: 'job', id: jobId },
    detail: {
      pass,
      kind: entry.kind,
      at: at.text,
      before: before.text,
      after: after.text,
      description,
      toReceiver: trim?.receiver ?? '',
    },
  });
}

/** What a trim to a receiver does to the others, in words. */
const trimInWords = ({ receiver, percent, others }: ReceiverTrim): string =>
  `Trimmed to ${receiver} it is itself off by ${formatSigned(percent, 2)} % of its span${others.map((one) => `, ${one.name} by ${formatSigned(one.percent, 2)} %`).join('')}.`;

/**
 * The receiver that a transmitter is trimmed to, with what that does; null where it is trimmed to the standard.
 * @throws StoreError `no-such` of a receiver that was not read, `receiver-unproven`, `reason-needed`
 */
async function receiverTrimOf(
  tx: Queryable,
  jobId: number,
  receiver: string,
  reason: string,
): Promise<ReceiverTrim | null> {
  if (receiver === '') return null;
  const run = (await runsOfJob(tx, jobId)).filter(({ thrownAway }) => thrownAway === null).at(-1);
  const trim = run === undefined ? undefined : receiverTrims(run).find((one) => one.receiver === receiver);
  if (trim === undefined) throw new StoreError({ code: 'no-such', what: 'receiver', name: receiver });
  if (!trim.isProven) throw new StoreError({ code: 'receiver-unproven', receiver });
  if (reason === '')
    throw new StoreError({
      code: 'reason-needed',
      why: 'why it is trimmed to a receiver and not to the standard',
    });
  return trim;
}

/** What refuses an adjustment that hands have made: the log keeps it, with the reason that has to be given. */
async function againstIt(
  tx: Queryable,
  jobId: number,
  instrument: Instrument,
  {
    kind,
    applied,
    before,
  }: { readonly kind: AdjustmentKind; readonly applied: number; readonly before: number },
): Promise<string> {
  const act = guardedAct(kind);
  if (act === null) return '';
  const job = await guardedJob(tx, jobId, instrument);
  const refusals = guardsAt(job, act, instrument.configuration, { applied, before, isMoving: null }).filter(
    ({ level }) => level === 'refused',
  );
  return refusals.map(({ why }) => why).join(' ');
}
