/** Runs as they are kept. */
import { madeWithSchema, type Reading, type Run, type RunKind } from './copy';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { marksOfRuns } from './marks';

/** Of the readings of a run, with the site's day of each. */
export const READING_SQL = `
  select reading.id, run_id as "runId", position, applied_text as "appliedText", applied, applied_as as "appliedAs",
    output_text as "outputText", output, more, taken_at as "takenAt", source,
    to_char(least(coalesce(taken_at, read_at), read_at) at time zone coalesce((select time_zone from installation), 'UTC'),
      'YYYY-MM-DD') as day, name_at(read_by, read_at) as "readBy", read_at as "readAt",
    exists (select from reading later where later.supersedes = reading.id) as "isSuperseded"
  from reading`;

type ReadingRow = Reading & { runId: number; isSuperseded: boolean };

async function runsWhere(db: Queryable, condition: string, value: unknown): Promise<Run[]> {
  const runs = await db.query<Omit<Run, 'readings' | 'superseded' | 'marks'>>(
    `select run.id, kind, pass, made_with as "madeWith", connection_id as "connectionId", name_at(started_by, started_at) as "startedBy", started_at as "startedAt",
       (select json_build_object('reason', reason, 'by', name_at(thrown_by, thrown_at), 'at', thrown_at)
        from run_thrown_away where run_id = run.id) as "thrownAway"
     from run where ${condition} order by kind, pass`,
    [value],
  );
  const rows = await db.query<ReadingRow>(
    `${READING_SQL} where run_id = any($1) order by position, reading.id`,
    [runs.map(({ id }) => id)],
  );
  const marks = await marksOfRuns(
    db,
    runs.map(({ id }) => id),
  );
  const byRun = new Map<number, ReadingRow[]>(runs.map(({ id }) => [id, []]));
  for (const row of rows) byRun.get(row.runId)?.push(row);
  return runs.map((run) => {
    const own = byRun.get(run.id) ?? [];
    const pick = (isSuperseded: boolean): Reading[] =>
      own
        .filter((row) => row.isSuperseded === isSuperseded)
        .map(({ runId: _run, isSuperseded: _was, ...row }) => row);
    return {
      ...run,
      madeWith: madeWithSchema.parse(run.madeWith),
      readings: pick(false),
      superseded: pick(true),
      marks: marks.filter(({ runId }) => runId === run.id),
    };
  });
}

/** The runs of a job, as found first, then as left by pass. */
export const runsOfJob = (db: Queryable, jobId: number): Promise<Run[]> =>
  runsWhere(db, 'job_id = $1', jobId);

/**
 * The last run of a kind, whether it counts or not.
 * @throws StoreError `no-such`
 */
export async function lastRunOf(tx: Queryable, jobId: number, kind: RunKind): Promise<Run> {
  const run = (await runsOfJob(tx, jobId)).filter((one) => one.kind === kind).at(-1);
  if (run === undefined) throw new StoreError({ code: 'no-such', what: `${kind} run of job`, name: jobId });
  return run;
}

/** Several runs, by their numbers. */
export async function runsById(db: Queryable, ids: readonly number[]): Promise<ReadonlyMap<number, Run>> {
  const runs = await runsWhere(db, 'run.id = any($1)', ids);
  return new Map(runs.map((run) => [run.id, run]));
}

/** The pass that comes next: one after the last as-left run. */
export async function currentPass(db: Queryable, jobId: number): Promise<number> {
  const [row] = await db.query<{ pass: number }>(
    `select coalesce(max(pass), 0) + 1 as pass from run where job_id = $1 and kind = 'as-left'`,
    [jobId],
  );
  return row?.pass ?? 1;
}
