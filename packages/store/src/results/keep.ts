/** Results of signed jobs, as their records have them. */
import type { Queryable } from '../db/database';
import { amendedRun, amendmentsOfJob } from '../jobs/amendments';
import { lastDay } from '../jobs/file';
import type { Run } from '../runs/copy';
import { evaluateStoredRun } from '../runs/evaluation';
import { runsById } from '../runs/load';
import { figuresOf, followSteps, insertResults, type KeptFigures, type ResultKind } from './figures';

interface RunToKeep {
  readonly runId: number;
  readonly jobId: number;
  readonly instrumentId: number;
  readonly kind: ResultKind;
  readonly isLeft: boolean;
  readonly personId: number;
}

/** The runs that count of signed jobs: the last as-found one, and the last as-left one where there is any. */
const runsToKeep = (db: Queryable, jobIds: readonly number[]): Promise<RunToKeep[]> =>
  db.query<RunToKeep>(
    `select distinct on (run.job_id, run.kind) run.id as "runId", run.job_id as "jobId",
       job.instrument_id as "instrumentId", run.kind, run.started_by as "personId",
       run.kind = 'as-left' or not exists (
         select from run later where later.job_id = run.job_id and later.kind = 'as-left'
           and not exists (select from run_thrown_away where run_id = later.id)) as "isLeft"
     from run join job on job.id = run.job_id
     where job.id = any($1) and job.signed_at is not null and job.reason <> 'hot check'
       and not exists (select from run_thrown_away where run_id = run.id)
     order by run.job_id, run.kind, run.pass desc`,
    [jobIds],
  );

async function keptOf(db: Queryable, one: RunToKeep, run: Run): Promise<KeptFigures> {
  const amended = amendedRun(run, await amendmentsOfJob(db, one.jobId));
  const { configuration, tolerance, pressureReference, meter } = run.madeWith;
  return {
    ...one,
    ...figuresOf(evaluateStoredRun(amended ?? run), configuration, tolerance),
    doneOn: lastDay(run),
    isAmended: amended !== null,
    standard: pressureReference.tag,
    meter: meter?.tag ?? '',
    doneBy: run.startedBy,
    record: '',
  };
}

/** Takes the results of a job away, which is not signed any more. */
export async function dropResults(tx: Queryable, jobId: number): Promise<void> {
  const gone = await tx.query<{ instrumentId: number }>(
    'delete from result where job_id = $1 returning instrument_id as "instrumentId"',
    [jobId],
  );
  await followSteps(
    tx,
    gone.map(({ instrumentId }) => instrumentId),
  );
}

/** Keeps the results of signed jobs, with the amendments that are in force; those kept before make way. */
export async function keepResultsOf(tx: Queryable, jobIds: readonly number[]): Promise<void> {
  const runs = await runsToKeep(tx, jobIds);
  const loaded = await runsById(
    tx,
    runs.map(({ runId }) => runId),
  );
  const rows: KeptFigures[] = [];
  for (const one of runs) {
    const run = loaded.get(one.runId);
    if (run !== undefined) rows.push(await keptOf(tx, one, run));
  }
  await tx.query('delete from result where job_id = any($1)', [jobIds]);
  await insertResults(tx, rows);
  await followSteps(tx, [...new Set(rows.map(({ instrumentId }) => instrumentId))]);
}

export const keepResults = (tx: Queryable, jobId: number): Promise<void> => keepResultsOf(tx, [jobId]);
