/** What of a plan was done: it stays where it stood, and is planned no more. */
import type { Queryable } from '../db/database';

/** At the signature of a job with readings. */
export const markDone = (tx: Queryable, instrumentId: number, jobId: number) =>
  tx.query('update planned set done_by_job = $2 where instrument_id = $1 and done_by_job is null', [
    instrumentId,
    jobId,
  ]);

/** Where a job is sent back: it stands planned as before, unless it was planned anew since. */
export const markUndone = (tx: Queryable, jobId: number) =>
  tx.query(
    `update planned set done_by_job = null where done_by_job = $1 and not exists (
       select from planned other where other.instrument_id = planned.instrument_id and other.done_by_job is null)`,
    [jobId],
  );
