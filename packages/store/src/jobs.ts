/** A job is one visit to one instrument, walked through its stages to a signature. */
import type { Verdict } from '@barys/core';
import { adjustmentsOfJob, currentPass, type Adjustment } from './adjustments';
import { appendToTrail } from './audit';
import { connectionOfJob, type Connection } from './connections';
import type { Queryable } from './database';
import { StoreError } from './errors';
import { evaluateStoredRun, missingPoints } from './evaluation';
import { findInstrument, type Instrument } from './instruments';
import { lockJobAt, moveJob, type Passage, type Stage } from './job-stages';
import { requirePlanner, requireWorker, type Actor } from './people';
import { runsOfJob, startRun, type Run, type RunKind } from './runs';

export const JOB_REASONS = ['due', 'fault', 'check'] as const;
export type JobReason = (typeof JOB_REASONS)[number];

export interface JobLine {
  readonly id: number;
  readonly instrumentId: number;
  readonly tag: string;
  readonly service: string;
  readonly area: string;
  readonly reason: JobReason;
  readonly stage: Stage | 'closed';
  readonly openedBy: string;
  readonly openedAt: Date;
  readonly signedBy: string | null;
  readonly signedAt: Date | null;
  readonly remark: string;
  readonly asFoundVerdict: Verdict | null;
  readonly asLeftVerdict: Verdict | null;
}

export interface StageRecord {
  readonly stage: Stage;
  readonly note: string;
  readonly isSkip: boolean;
  readonly doneBy: string;
  readonly doneAt: Date;
}

/** All that is known of a job. */
export interface JobFile extends JobLine {
  readonly instrument: Instrument;
  readonly connection: Connection | null;
  readonly runs: readonly Run[];
  readonly adjustments: readonly Adjustment[];
  readonly passed: readonly StageRecord[];
}

const JOB_SQL = `
  select job.id, instrument_id as "instrumentId", tag, service, area, reason, stage, opener.name as "openedBy", opened_at as "openedAt",
    signer.name as "signedBy", signed_at as "signedAt", remark, as_found_verdict as "asFoundVerdict",
    as_left_verdict as "asLeftVerdict"
  from job
    join instrument on instrument.id = instrument_id
    join person opener on opener.id = opened_by
    left join person signer on signer.id = signed_by`;

/** Jobs not signed yet, the newest first. */
export function openJobs(db: Queryable, limit: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where signed_at is null order by opened_at desc limit $1`, [limit]);
}

/** Signed jobs, the newest first. */
export function closedJobs(db: Queryable, limit: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where signed_at is not null order by signed_at desc limit $1`, [
    limit,
  ]);
}

/** All jobs of one instrument, the newest first. */
export function jobsOfInstrument(db: Queryable, instrumentId: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where instrument_id = $1 order by opened_at desc`, [instrumentId]);
}

/** @throws StoreError `no-such` */
export async function loadJob(db: Queryable, jobId: number): Promise<JobFile> {
  const [job] = await db.query<JobLine>(`${JOB_SQL} where job.id = $1`, [jobId]);
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  return {
    ...job,
    instrument: await findInstrument(db, { id: job.instrumentId }),
    connection: await connectionOfJob(db, jobId),
    runs: await runsOfJob(db, jobId),
    adjustments: await adjustmentsOfJob(db, jobId),
    passed: await db.query<StageRecord>(
      `select stage, note, is_skip as "isSkip", person.name as "doneBy", done_at as "doneAt"
       from stage_passed join person on person.id = done_by where job_id = $1 order by stage_passed.id`,
      [jobId],
    ),
  };
}

/** The as-found run of a job, or null before it begins. */
export function asFoundRun(job: Pick<JobFile, 'runs'>): Run | null {
  return job.runs.find((run) => run.kind === 'as-found') ?? null;
}

/** The last as-left run of a job, or null where nothing was adjusted. */
export function asLeftRun(job: Pick<JobFile, 'runs'>): Run | null {
  return job.runs.filter((run) => run.kind === 'as-left').at(-1) ?? null;
}

/** Why the stages of a job cannot be walked for an instrument yet, in words; null where they can. */
export function whyNotWalkable({ configuration, kind, state }: Instrument): string | null {
  if (state === 'retired') return 'The instrument is retired.';
  if (configuration.outputUnit !== 'mA')
    return 'Jobs on instruments without a current output are not built yet; the register entry is complete.';
  if (kind === 'absolute' || kind === 'vacuum')
    return `Jobs on ${kind === 'absolute' ? 'absolute' : 'vacuum'} instruments are not built yet; the register entry is complete.`;
  return null;
}

/**
 * Opens a visit to an instrument.
 * @throws StoreError `not-walkable`, `no-such`, `job-already-open`, `unknown-person`, `not-allowed`
 */
export async function openJob(tx: Queryable, actor: Actor, tag: string, reason: JobReason): Promise<number> {
  await requirePlanner(tx, actor);
  const instrument = await findInstrument(tx, { tag });
  const why = whyNotWalkable(instrument);
  if (why !== null) throw new StoreError({ code: 'not-walkable', why });
  const [opened] = await tx.query<{ id: number }>(
    `insert into job (instrument_id, reason, opened_by, opened_at) values ($1, $2, $3, $4)
     on conflict (instrument_id) where signed_at is null do nothing returning id`,
    [instrument.id, reason, actor.personId, actor.at],
  );
  if (opened === undefined) {
    const [standing] = await tx.query<{ id: number }>(
      'select id from job where instrument_id = $1 and signed_at is null',
      [instrument.id],
    );
    throw new StoreError({ code: 'job-already-open', tag, jobId: standing?.id ?? 0 });
  }
  await appendToTrail(tx, actor, {
    act: 'open job',
    subject: { kind: 'job', id: opened.id },
    detail: { tag, reason },
  });
  return opened.id;
}

/**
 * Opens a visit to each of several instruments; those that cannot be opened are told with their reason.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function openJobsFor(
  tx: Queryable,
  actor: Actor,
  instrumentIds: readonly number[],
  reason: JobReason,
): Promise<{ opened: number; refused: readonly string[] }> {
  await requirePlanner(tx, actor);
  const instruments = await tx.query<{ tag: string }>(
    'select tag from instrument where id = any($1) order by area, walk, tag',
    [instrumentIds],
  );
  const refused: string[] = [];
  for (const { tag } of instruments)
    try {
      await openJob(tx, actor, tag, reason);
    } catch (error) {
      if (!(error instanceof StoreError)) throw error;
      refused.push(error.refusal.code === 'not-walkable' ? `${tag}: ${error.message}` : error.message);
    }
  return { opened: instruments.length - refused.length, refused };
}

async function passStage(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  passage: Passage,
  act: string,
): Promise<void> {
  await moveJob(tx, actor, jobId, passage);
  await appendToTrail(tx, actor, { act, subject: { kind: 'job', id: jobId }, detail: { ...passage } });
}

/** The brief was read: on to the connection. */
export async function passBrief(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'brief');
  await passStage(tx, actor, jobId, { from: 'brief', to: 'connect' }, 'read brief');
}

async function lastRun(tx: Queryable, jobId: number, kind: RunKind): Promise<Run> {
  const run = (await runsOfJob(tx, jobId)).filter((one) => one.kind === kind).at(-1);
  if (run === undefined) throw new StoreError({ code: 'no-such', what: `${kind} run of job`, name: jobId });
  return run;
}

/**
 * Ends a run that has a reading at every point: as found goes on to be judged, as left to be signed.
 * @throws StoreError `run-incomplete`, `wrong-stage`
 */
export async function finishRun(tx: Queryable, actor: Actor, jobId: number, kind: RunKind): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, kind);
  const missing = missingPoints(await lastRun(tx, jobId, kind));
  if (missing > 0) throw new StoreError({ code: 'run-incomplete', missing });
  await passStage(tx, actor, jobId, { from: kind, to: kind === 'as-found' ? 'judge' : 'sign' }, 'finish run');
}

/**
 * Back to the as-found readings to correct one; not once something was adjusted.
 * @throws StoreError `already-adjusted`, `wrong-stage`
 */
export async function reopenAsFound(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'judge');
  if ((await adjustmentsOfJob(tx, jobId)).length > 0) throw new StoreError({ code: 'already-adjusted' });
  await passStage(tx, actor, jobId, { from: 'judge', to: 'as-found' }, 'reopen run');
}

/** Decides to adjust. */
export async function decideToAdjust(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  note: string,
): Promise<void> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'judge');
  const { procedure } = await findInstrument(tx, { id: instrumentId });
  if (procedure.content.isAsFoundOnly)
    throw new StoreError({ code: 'as-found-only', procedure: procedure.name });
  await passStage(tx, actor, jobId, { from: 'judge', to: 'adjust', note: note.trim() }, 'decide to adjust');
}

/**
 * Decides to leave the instrument as found; past the adjust limit that needs a reason.
 * @throws StoreError `reason-needed`, `wrong-stage`
 */
export async function decideToLeave(tx: Queryable, actor: Actor, jobId: number, note: string): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'judge');
  const { verdict } = evaluateStoredRun(await lastRun(tx, jobId, 'as-found'));
  if (verdict !== 'within' && note.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: 'the readings ask for an adjustment' });
  await passStage(tx, actor, jobId, { from: 'judge', to: 'sign', note: note.trim() }, 'leave as found');
}

/**
 * Back from Adjust to Judge, where nothing was touched after all.
 * @throws StoreError `already-adjusted`, `wrong-stage`
 */
export async function backToJudge(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'adjust');
  if ((await adjustmentsOfJob(tx, jobId)).length > 0) throw new StoreError({ code: 'already-adjusted' });
  await passStage(tx, actor, jobId, { from: 'adjust', to: 'judge' }, 'return to judge');
}

/**
 * Begins the as-left run after the adjustments of this pass.
 * @throws StoreError `nothing-adjusted`, `wrong-stage`
 */
export async function beginAsLeft(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'adjust');
  const pass = await currentPass(tx, jobId);
  const made = (await adjustmentsOfJob(tx, jobId)).filter((adjustment) => adjustment.pass === pass);
  if (made.length === 0) throw new StoreError({ code: 'nothing-adjusted' });
  const connection = await connectionOfJob(tx, jobId);
  if (connection === null) throw new StoreError({ code: 'no-such', what: 'connection of job', name: jobId });
  await moveJob(tx, actor, jobId, { from: 'adjust', to: 'as-left' });
  await startRun(
    tx,
    actor,
    jobId,
    { kind: 'as-left', pass },
    await findInstrument(tx, { id: instrumentId }),
    connection,
  );
}

/** From the signature back to another adjustment, where the as-left run is not good enough. */
export async function adjustAgain(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'sign');
  await passStage(tx, actor, jobId, { from: 'sign', to: 'adjust' }, 'adjust again');
}

/**
 * Signs and closes the job, and sets the instrument's next due date: the interval counted from the day of signing.
 * An instrument left outside its tolerance keeps its due date, since it was not brought into order.
 * @throws StoreError `reason-needed`, `run-incomplete`, `wrong-stage`
 */
export async function signJob(tx: Queryable, actor: Actor, jobId: number, remark: string): Promise<void> {
  const signer = await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'sign');
  const runs = await runsOfJob(tx, jobId);
  const asFound = asFoundRun({ runs });
  if (asFound === null) throw new StoreError({ code: 'no-such', what: 'as-found run of job', name: jobId });
  const asLeft = asLeftRun({ runs }) ?? asFound;
  for (const run of [asFound, asLeft])
    if (missingPoints(run) > 0) throw new StoreError({ code: 'run-incomplete', missing: missingPoints(run) });
  const found = evaluateStoredRun(asFound).verdict;
  const left = evaluateStoredRun(asLeft).verdict;
  if (left === 'outside' && remark.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: 'the instrument is left outside its tolerance' });
  await tx.query(
    `insert into stage_passed (job_id, stage, note, done_by, done_at) values ($1, 'sign', $2, $3, $4)`,
    [jobId, remark.trim(), actor.personId, actor.at],
  );
  await tx.query(
    `update job set stage = 'closed', signed_by = $2, signed_at = $3, remark = $4, as_found_verdict = $5,
       as_left_verdict = $6 where id = $1`,
    [jobId, actor.personId, actor.at, remark.trim(), found, left],
  );
  if (left !== 'outside')
    await tx.query(
      `update instrument set due_on = ($2::date + make_interval(months => interval_months))::date,
         revision = revision + 1
       where id = $1`,
      [instrumentId, actor.today],
    );
  await appendToTrail(tx, actor, {
    act: 'sign job',
    subject: { kind: 'job', id: jobId },
    detail: { as: signer.name, asFound: found, asLeft: left, remark: remark.trim() },
  });
}
