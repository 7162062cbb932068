/** The history of an instrument, as its results were kept. */
import type { Queryable } from '../db/database';
import { visitsOf, type KeptRun, type Visit } from './visits';

export const KEPT_RUN_SQL = `
  select result.id, instrument_id as "instrumentId", job_id as "jobId", run_id as "runId", done_on as "doneOn", kind,
    is_left as "isLeft", verdict, is_amended as "isAmended", range_key as "rangeKey", range_version as "rangeVersion",
    at_percent as at, is_down as "isDown", error_percent as error, limit_percent as limit,
    adjust_above_percent as "adjustAbovePercent", worst_of_limit as "worstOfLimit", zero_percent as "zeroPercent",
    span_percent as "spanPercent", hysteresis_percent as "hysteresisPercent", standard, meter, person_id as "personId",
    done_by as "doneBy", record, since_days as "sinceDays"
  from result`;
export const HISTORY_ORDER = 'instrument_id, done_on, job_id nulls first, kind, result.id';

/** All visits of an instrument, the oldest first. */
export async function historyOf(db: Queryable, instrumentId: number): Promise<Visit[]> {
  const runs = await db.query<KeptRun>(`${KEPT_RUN_SQL} where instrument_id = $1 order by ${HISTORY_ORDER}`, [
    instrumentId,
  ]);
  return visitsOf(runs);
}

/** What was adjusted in the jobs of an instrument. */
export interface AdjustmentMark {
  readonly jobId: number;
  readonly kind: string;
  readonly description: string;
  readonly beforeText: string;
  readonly afterText: string;
}

export const adjustmentsOf = (db: Queryable, instrumentId: number): Promise<AdjustmentMark[]> =>
  db.query<AdjustmentMark>(
    `select job_id as "jobId", adjustment.kind, description, before_text as "beforeText", after_text as "afterText"
     from adjustment join job on job.id = job_id
     where instrument_id = $1 and signed_at is not null order by adjustment.id`,
    [instrumentId],
  );
