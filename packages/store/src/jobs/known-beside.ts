/** What is known besides a run when it is asked what is behind it: other ranges, drift, and who else was measured alike. */
import { limitAt } from '@barys/core/run';
import { outputSpan } from '@barys/core/signal';
import type { Queryable } from '../db/database';
import { isSameRange } from '../registers/configuration';
import { configurationsOf } from '../registers/configurations';
import type { Run } from '../runs/copy';
import { evaluateStoredRun, limitsOf } from '../runs/evaluation';
import { runsById } from '../runs/load';
import type { KnownBeside } from '../runs/suspects';

/** Jobs that are looked back over, and instruments that are looked at beside it. */
const JOBS_BACK = 8;
const OTHERS = 8;
/** Runs with the same reference that are looked through for them. */
const LATELY = 60;

interface Past {
  readonly runId: number;
  readonly jobId: number;
  readonly kind: Run['kind'];
}

/** Zero and gain of a run, per cent of span; null where they cannot be told. */
function zeroAndGain(run: Run): { readonly zeroPercent: number; readonly gainPercent: number } | null {
  const { leastSquares } = evaluateStoredRun(run);
  return leastSquares === null
    ? null
    : { zeroPercent: leastSquares.zeroErrorPercentSpan, gainPercent: leastSquares.spanErrorPercentSpan };
}

const rangeOf = ({ madeWith }: Run) => madeWith.configuration;

/** How far it drifted from the last run of each earlier job to the first of the next. */
async function driftsOf(db: Queryable, run: Run, jobId: number): Promise<NonNullable<KnownBeside['drifts']>> {
  const past = await db.query<Past>(
    `select run.id as "runId", run.job_id as "jobId", kind from run
       join (select id from job where instrument_id = (select instrument_id from job where id = $1) and id < $1
             and signed_at is not null order by id desc limit $2) earlier on earlier.id = run.job_id
     where not exists (select from run_thrown_away where run_id = run.id)
     order by run.job_id, kind, pass`,
    [jobId, JOBS_BACK],
  );
  const runs = await runsById(
    db,
    past.map(({ runId }) => runId),
  );
  const drifts: { zeroPercent: number; gainPercent: number }[] = [];
  let left: Run | null = null;
  let leftJob = 0;
  for (const { runId, jobId: own, kind } of past) {
    const next = runs.get(runId);
    if (next === undefined) continue;
    if (
      left !== null &&
      kind === 'as-found' &&
      own !== leftJob &&
      isSameRange(rangeOf(next), rangeOf(run)) &&
      isSameRange(rangeOf(left), rangeOf(run))
    ) {
      const [then, now] = [zeroAndGain(left), zeroAndGain(next)];
      if (then !== null && now !== null)
        drifts.push({
          zeroPercent: now.zeroPercent - then.zeroPercent,
          gainPercent: now.gainPercent - then.gainPercent,
        });
    }
    [left, leftJob] = [next, own];
  }
  return drifts;
}

/** How others were found with the same reference since it was calibrated. */
async function othersWith(
  db: Queryable,
  run: Run,
  jobId: number,
): Promise<NonNullable<KnownBeside['others']>> {
  const rows = await db.query<{ runId: number; tag: string }>(
    `select distinct on ("instrumentId") "runId", tag from (
       select run.id as "runId", job.instrument_id as "instrumentId", job.instrument_copy ->> 'tag' as tag,
         run.started_at as "startedAt"
       from connection own
         join connection on connection.pressure_module_id = own.pressure_module_id
         join run on run.connection_id = connection.id and run.kind = 'as-found'
         join job on job.id = run.job_id
       where own.id = $1 and job.id <> $2
         and job.instrument_id <> (select instrument_id from job where id = $2)
         and run.started_at <= $3 and ($4::date is null or run.started_at >= $4::date)
         and not exists (select from run_thrown_away where run_id = run.id)
       order by run.started_at desc limit $6
     ) lately order by "instrumentId", "startedAt" desc limit $5`,
    [run.connectionId, jobId, run.startedAt, run.madeWith.pressureReference.calibratedOn, OTHERS, LATELY],
  );
  const runs = await runsById(
    db,
    rows.map(({ runId }) => runId),
  );
  return rows.flatMap(({ runId, tag }) => {
    const other = runs.get(runId);
    if (other === undefined || other.madeWith.configuration.transferFunction.kind !== 'linear') return [];
    const found = zeroAndGain(other);
    if (found === null || other.madeWith.tolerance.percentOfSpan === 0) return [];
    const { configuration: range, tolerance } = other.madeWith;
    const limit = limitAt(range, limitsOf(tolerance), range.urv, range.outputHigh) / outputSpan(range);
    return [{ name: tag, gainPercent: found.gainPercent, usualPercent: limit * 50 }];
  });
}

/** What is known besides a run, as the registers and the records say it today. */
export async function knownBeside(
  db: Queryable,
  { id: jobId, instrumentId }: { readonly id: number; readonly instrumentId: number },
  run: Run,
): Promise<KnownBeside> {
  const { configuration: own } = run.madeWith;
  const versions = await configurationsOf(db, instrumentId);
  return {
    neighbours: versions
      .filter(
        ({ lrv, urv, inputUnit, version }) =>
          version !== own.version && inputUnit === own.inputUnit && (lrv !== own.lrv || urv !== own.urv),
      )
      .map((version) => ({ name: `version ${version.version}`, range: version })),
    drifts: await driftsOf(db, run, jobId),
    others: await othersWith(db, run, jobId),
  };
}
