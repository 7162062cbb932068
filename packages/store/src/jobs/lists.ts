/**
 * Lists of a job: what must follow a changed range, how a body is exchanged, and the walks at a boiler drum. Each line is
 * ticked by somebody and stays on the record.
 */
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireWorker } from '../people/people';
import { COLD_SET_UP, FOLLOWS, HOT_CHECK } from './checklists';
import { lockJob } from './move';
import type { JobReason } from './stages';

export const JOB_LISTS = ['what must follow', 'exchange of the body', 'cold set-up', 'hot check'] as const;
export type JobList = (typeof JOB_LISTS)[number];

const LISTS_OF: Partial<Record<JobReason, readonly (readonly [JobList, readonly string[]])[]>> = {
  'range change': [['what must follow', FOLLOWS]],
  'cold set-up': [['cold set-up', COLD_SET_UP]],
  'hot check': [['hot check', HOT_CHECK]],
};

/** The lists that a kind of job begins with. */
export const listsFor = (reason: JobReason): readonly (readonly [JobList, readonly string[]])[] =>
  LISTS_OF[reason] ?? [];

export interface JobListLine {
  readonly id: number;
  readonly list: JobList;
  readonly text: string;
  readonly isDone: boolean;
  readonly doneBy: string | null;
  readonly doneAt: Date | null;
}

/** The lines of a job's lists, in order, each as its last tick left it. */
export const linesOfJob = (db: Queryable, jobId: number): Promise<JobListLine[]> =>
  db.query<JobListLine>(
    `select line.id, list, text, coalesce(is_done, false) as "isDone",
       name_at(done_by, done_at) as "doneBy", done_at as "doneAt"
     from job_line line left join lateral (
       select is_done, done_by, done_at from job_line_tick where line_id = line.id order by id desc limit 1
     ) tick on true
     where job_id = $1 order by line.id`,
    [jobId],
  );

/** Adds lists to jobs; a list that a job has already is left as it is. The caller may do so, and holds the jobs. */
export async function addLists(
  tx: Queryable,
  actor: Actor,
  jobIds: readonly number[],
  lists: readonly (readonly [JobList, readonly string[]])[],
): Promise<void> {
  const lines = lists.flatMap(([list, texts]) =>
    texts.map((text, index) => ({ list, position: index + 1, text })),
  );
  if (lines.length === 0 || jobIds.length === 0) return;
  await tx.query(
    `insert into job_line (job_id, list, position, text, made_by, made_at)
     select job_id, list, position, text, $3::bigint, $4::timestamptz
     from unnest($1::bigint[]) as job_id, jsonb_to_recordset($2::jsonb) as line (list text, position integer, text text)
     where not exists (select from job_line had where had.job_id = job_id.job_id and had.list = line.list)
     order by job_id, list, position`,
    [jobIds, JSON.stringify(lines), actor.personId, actor.at],
  );
}

/**
 * Ticks a line, or takes the tick back.
 * @throws StoreError `no-such`, `wrong-stage` of a signed or cancelled job, `unknown-person`, `not-allowed`
 */
export async function tickLine(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { lineId, isDone }: { readonly lineId: number; readonly isDone: boolean },
): Promise<void> {
  await requireWorker(tx, actor);
  const { stage } = await lockJob(tx, jobId);
  if (stage === 'review' || stage === 'closed' || stage === 'cancelled')
    throw new StoreError({ code: 'wrong-stage', stage, wanted: 'an open job' });
  const [line] = await tx.query<{ list: JobList; text: string }>(
    'select list, text from job_line where id = $1 and job_id = $2',
    [lineId, jobId],
  );
  if (line === undefined) throw new StoreError({ code: 'no-such', what: 'line', name: lineId });
  await tx.query('insert into job_line_tick (line_id, is_done, done_by, done_at) values ($1, $2, $3, $4)', [
    lineId,
    isDone,
    actor.personId,
    actor.at,
  ]);
  await appendToTrail(tx, actor, {
    act: isDone ? 'tick line' : 'take tick back',
    subject: { kind: 'job', id: jobId },
    detail: { ...line },
  });
}
