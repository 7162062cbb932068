/**
 * Results from before Barys, judged once when they come in: with the range that was in force then, and the tolerance of that day,
 * since the file says none.
 */
import { evaluateRun, type RunReading } from '@barys/core/run';
import type { Queryable } from '../db/database';
import type { ConfigurationVersion } from '../registers/configuration';
import { configurationsOfAll } from '../registers/configurations';
import type { Instrument } from '../registers/instrument';
import { instrumentsOf } from '../registers/instruments';
import { limitsOf } from '../runs/evaluation';
import { figuresOf, followSteps, insertResults, type KeptFigures, type ResultKind } from './figures';

/** Instruments that are worked out at once. */
const BATCH = 500;

interface PastRun {
  readonly instrumentId: number;
  readonly doneOn: string;
  readonly kind: ResultKind;
  readonly isLeft: boolean;
  readonly doneBy: string;
  readonly standard: string;
  readonly record: string;
  readonly readings: Omit<RunReading, 'cycle'>[];
}

/** What was brought in and is not kept, or not as it stands now that another file said more of the same day. */
const pastRuns = (tx: Queryable, instrumentIds: readonly number[]): Promise<PastRun[]> =>
  tx.query<PastRun>(
    `with run as (
       select instrument_id, done_on, kind, max(done_by) as done_by, max(standard) as standard,
         max(certificate) as record, count(*) as readings,
         kind = 'as-left' or count(*) filter (where kind = 'as-left') over (partition by instrument_id, done_on) = 0
           as is_left,
         json_agg(json_build_object('direction', direction, 'nominalPercent', nominal_percent, 'applied', applied,
           'output', output) order by direction desc,
             case direction when 'up' then nominal_percent else -nominal_percent end) as rows
       from past_result where instrument_id = any($1) group by instrument_id, done_on, kind
     )
     select instrument_id as "instrumentId", done_on as "doneOn", kind, is_left as "isLeft", done_by as "doneBy",
       standard, record, rows as readings
     from run where not exists (
       select from result where result.instrument_id = run.instrument_id and job_id is null
         and result.done_on = run.done_on and result.kind = run.kind and result.is_left = run.is_left
         and cardinality(at_percent) = run.readings)`,
    [instrumentIds],
  );

function keptOf(
  { readings, ...run }: PastRun,
  { tolerance, configuration }: Instrument,
  versions: readonly ConfigurationVersion[],
): KeptFigures {
  // Versions begin with Barys; what is older was measured with the first one, as far as anybody knows.
  const range =
    versions.find(({ madeAt }) => madeAt.toISOString().slice(0, 10) <= run.doneOn) ??
    versions.at(-1) ??
    configuration;
  const evaluation = evaluateRun(
    range,
    limitsOf(tolerance),
    readings.map((reading) => ({ cycle: 1, ...reading })),
  );
  return {
    ...run,
    jobId: null,
    runId: null,
    personId: null,
    meter: '',
    isAmended: false,
    ...figuresOf(evaluation, range, tolerance),
  };
}

/** Keeps the results from before Barys that some instruments have; what is kept of them already stays as it was judged. */
export async function keepPastResults(tx: Queryable, instrumentIds: readonly number[]): Promise<void> {
  for (let from = 0; from < instrumentIds.length; from += BATCH) {
    const ids = instrumentIds.slice(from, from + BATCH);
    const [runs, instruments, versions] = [
      await pastRuns(tx, ids),
      new Map((await instrumentsOf(tx, ids)).map((instrument) => [instrument.id, instrument])),
      await configurationsOfAll(tx, ids),
    ];
    const rows = runs.flatMap((run) => {
      const instrument = instruments.get(run.instrumentId);
      return instrument === undefined ? [] : [keptOf(run, instrument, versions.get(run.instrumentId) ?? [])];
    });
    await tx.query(
      `delete from result using jsonb_to_recordset($1::jsonb) as run ("instrumentId" bigint, "doneOn" date, kind text)
       where instrument_id = "instrumentId" and job_id is null and done_on = "doneOn" and result.kind = run.kind`,
      [JSON.stringify(rows.map(({ instrumentId, doneOn, kind }) => ({ instrumentId, doneOn, kind })))],
    );
    await insertResults(tx, rows);
    await followSteps(tx, ids);
  }
}
