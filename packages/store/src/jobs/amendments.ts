/** Amendments of closed records as they are kept, and runs as they read with them. */
import { parseTyped } from '@barys/core/text';
import type { Queryable } from '../db/database';
import type { Run } from '../runs/copy';

/** What of a record can be amended, besides its readings. */
export const AMENDABLE = {
  remark: 'Remark',
  serial: 'Serial number',
  service: 'Service',
  area: 'Area',
  place: 'Where the readings were taken',
  ambient: 'Ambient conditions',
  other: 'Something else',
} as const;
export type AmendableField = keyof typeof AMENDABLE;
export const AMENDABLE_FIELDS = Object.keys(AMENDABLE) as [AmendableField, ...AmendableField[]];

export interface Amendment {
  readonly id: number;
  /** The reading that was wrong, or null. */
  readonly readingId: number | null;
  readonly what: string;
  readonly beforeText: string;
  readonly afterText: string;
  readonly reason: string;
  readonly amendedBy: string;
  readonly amendedAt: Date;
  /** An amendment counts at once where the site has no review, else when a second person has agreed to it. */
  readonly state: 'in force' | 'waits' | 'refused';
  readonly reviewedBy: string | null;
  readonly reviewedAt: Date | null;
  readonly reviewRemark: string;
}

/** The amendments of a job, in their order, those that wait or were refused among them. */
export function amendmentsOfJob(db: Queryable, jobId: number): Promise<Amendment[]> {
  return db.query<Amendment>(
    `select amendment.id, reading_id as "readingId", what, before_text as "beforeText", after_text as "afterText",
       reason, name_at(amended_by, amended_at) as "amendedBy", amended_at as "amendedAt",
       case when not needs_review or is_accepted then 'in force' when is_accepted is null then 'waits'
         else 'refused' end as state,
       name_at(reviewed_by, reviewed_at) as "reviewedBy", reviewed_at as "reviewedAt",
       coalesce(remark, '') as "reviewRemark"
     from amendment left join amendment_review on amendment_id = amendment.id
     where job_id = $1 order by amendment.id`,
    [jobId],
  );
}

/** A run with its readings as amended, to be judged beside the run as signed; null where nothing of it was amended. */
export function amendedRun(run: Run, amendments: readonly Amendment[]): Run | null {
  const last = new Map(
    amendments
      .filter(({ state }) => state === 'in force')
      .map(({ readingId, afterText }) => [readingId, afterText]),
  );
  if (!run.readings.some(({ id }) => last.has(id))) return null;
  return {
    ...run,
    readings: run.readings.map((reading) => {
      const text = last.get(reading.id);
      return text === undefined ? reading : { ...reading, outputText: text, output: parseTyped(text).value };
    }),
  };
}
