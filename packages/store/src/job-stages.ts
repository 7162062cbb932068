/** Where a job stands, and the one way to move it. */
import type { Queryable } from './database';
import { StoreError } from './errors';
import type { Actor } from './people';

/** The stages in their order. A signed job is closed. */
export const STAGES = ['brief', 'connect', 'as-found', 'judge', 'adjust', 'as-left', 'sign'] as const;
export type Stage = (typeof STAGES)[number];

/**
 * Where a job stands.
 * @throws StoreError `no-such`
 */
export async function stageOfJob(db: Queryable, jobId: number): Promise<Stage | 'closed'> {
  const [job] = await db.query<{ stage: Stage | 'closed' }>('select stage from job where id = $1', [jobId]);
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  return job.stage;
}

/**
 * Takes the job for this transaction and checks that it stands where the act belongs.
 * @throws StoreError `no-such`, `wrong-stage`
 */
export async function lockJobAt(
  tx: Queryable,
  jobId: number,
  wanted: Stage,
): Promise<{ instrumentId: number }> {
  const [job] = await tx.query<{ instrumentId: number; stage: string }>(
    'select instrument_id as "instrumentId", stage from job where id = $1 for update',
    [jobId],
  );
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  if (job.stage !== wanted) throw new StoreError({ code: 'wrong-stage', stage: job.stage, wanted });
  return job;
}

export interface Passage {
  readonly from: Stage;
  readonly to: Stage;
  readonly note?: string;
  /** Whether `from` was passed over; the note then says why. */
  readonly isSkip?: boolean;
}

/** Moves a locked job on (or back) and keeps who passed the stage and when. */
export async function moveJob(tx: Queryable, actor: Actor, jobId: number, passage: Passage): Promise<void> {
  await tx.query(
    'insert into stage_passed (job_id, stage, note, is_skip, done_by, done_at) values ($1, $2, $3, $4, $5, $6)',
    [jobId, passage.from, passage.note ?? '', passage.isSkip ?? false, actor.personId, actor.at],
  );
  await tx.query('update job set stage = $2 where id = $1', [jobId, passage.to]);
}
