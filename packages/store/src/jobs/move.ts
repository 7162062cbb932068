/** Where a job stands, and the one way to move it. */
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import type { Answer } from './questions';

import type { JobReason, Standing, Stage } from './stages';

/**
 * Where a job stands.
 * @throws StoreError `no-such`
 */
export async function stageOfJob(db: Queryable, jobId: number): Promise<Standing> {
  const [job] = await db.query<{ stage: Standing }>('select stage from job where id = $1', [jobId]);
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  return job.stage;
}

/**
 * Why a job was opened.
 * @throws StoreError `no-such`
 */
export async function reasonOfJob(db: Queryable, jobId: number): Promise<JobReason> {
  const [job] = await db.query<{ reason: JobReason }>('select reason from job where id = $1', [jobId]);
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  return job.reason;
}

/**
 * Takes the job for this transaction.
 * @throws StoreError `no-such`
 */
export async function lockJob(
  tx: Queryable,
  jobId: number,
): Promise<{ readonly instrumentId: number; readonly stage: Standing }> {
  const [job] = await tx.query<{ instrumentId: number; stage: Standing }>(
    'select instrument_id as "instrumentId", stage from job where id = $1 for update',
    [jobId],
  );
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  return job;
}

/**
 * Takes the job for this transaction and checks that it stands where the act belongs.
 * @throws StoreError `no-such`, `wrong-stage`
 */
export async function lockJobAt(
  tx: Queryable,
  jobId: number,
  wanted: Standing,
): Promise<{ instrumentId: number }> {
  const job = await lockJob(tx, jobId);
  if (job.stage !== wanted) throw new StoreError({ code: 'wrong-stage', stage: job.stage, wanted });
  return job;
}

export interface Passage {
  readonly from: Stage | 'review';
  readonly to: Standing;
  readonly note?: string;
  readonly answers?: readonly Answer[];
  /** Whether `from` was passed over; the note then says why. */
  readonly isSkip?: boolean;
}

/** Moves a locked job on (or back) and keeps who passed the stage and when. */
export async function moveJob(tx: Queryable, actor: Actor, jobId: number, passage: Passage): Promise<void> {
  await tx.query(
    `insert into stage_passed (job_id, stage, note, is_skip, answers, done_by, done_at)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [
      jobId,
      passage.from,
      passage.note ?? '',
      passage.isSkip ?? false,
      JSON.stringify(passage.answers ?? []),
      actor.personId,
      actor.at,
    ],
  );
  await tx.query('update job set stage = $2 where id = $1', [jobId, passage.to]);
}
