/** What a calibration comes to: the figures that are kept of it, and how they are written. */
import { transferWords } from '@barys/core/setup';
import { outputSpan } from '@barys/core/signal';
import type { RunEvaluation, Verdict } from '@barys/core/run';
import type { Queryable } from '../db/database';
import type { Configuration } from '../registers/configuration';
import type { SpanTolerance } from '../registers/instrument';

export type ResultKind = 'as-found' | 'as-left';

/** A row of `result`, without what follows from the row before it. */
export interface KeptFigures {
  readonly instrumentId: number;
  readonly jobId: number | null;
  readonly runId: number | null;
  /** ISO date. */
  readonly doneOn: string;
  readonly kind: ResultKind;
  readonly isLeft: boolean;
  readonly verdict: Verdict | null;
  readonly isAmended: boolean;
  readonly rangeKey: string;
  readonly rangeVersion: number;
  readonly atPercent: readonly number[];
  readonly isDown: readonly boolean[];
  readonly errorPercent: readonly number[];
  readonly limitPercent: readonly number[];
  readonly adjustAbovePercent: number;
  readonly worstOfLimit: number | null;
  readonly zeroPercent: number | null;
  readonly spanPercent: number | null;
  readonly hysteresisPercent: number | null;
  readonly standard: string;
  readonly meter: string;
  readonly personId: number | null;
  readonly doneBy: string;
  /** Certificate or record that a result from before Barys names; empty of a job. */
  readonly record: string;
}

/** A range in words; two have the same words where `isSameRange` says that they are the same. */
export function rangeKeyOf(configuration: Configuration): string {
  const { inputUnit, lrv, urv, outputUnit, outputLow, outputHigh, transferFunction, signal } = configuration;
  return [
    `${lrv} … ${urv} ${inputUnit} → ${outputLow} … ${outputHigh} ${outputUnit}`,
    ...(transferFunction.kind === 'linear' ? [] : [transferWords(transferFunction)]),
    ...(transferFunction.kind === 'table' ? [JSON.stringify(transferFunction.points)] : []),
    ...(signal.startsWith(outputUnit) ? [] : [signal]),
  ].join(', ');
}

/** The figures of an evaluation, per cent of output span. */
export function figuresOf(
  { readings, verdict, leastSquares, hysteresisPercentSpan }: RunEvaluation,
  configuration: Configuration,
  tolerance: SpanTolerance,
) {
  const span = outputSpan(configuration);
  const parts = readings.flatMap(({ errorOfLimit }) => errorOfLimit ?? []);
  return {
    verdict,
    rangeKey: rangeKeyOf(configuration),
    rangeVersion: configuration.version,
    atPercent: readings.map(({ nominalPercent }) => nominalPercent),
    isDown: readings.map(({ direction }) => direction === 'down'),
    errorPercent: readings.map(({ errorPercentSpan }) => errorPercentSpan),
    limitPercent: readings.map(({ limit }) => (limit / span) * 100),
    adjustAbovePercent: tolerance.adjustAbovePercentOfLimit,
    worstOfLimit: parts.reduce<number | null>(
      (worst, part) => (worst === null || Math.abs(part) > Math.abs(worst) ? part : worst),
      null,
    ),
    zeroPercent: leastSquares?.zeroErrorPercentSpan ?? null,
    spanPercent: leastSquares?.spanErrorPercentSpan ?? null,
    hysteresisPercent: hysteresisPercentSpan,
  };
}

const COLUMNS = {
  instrumentId: 'bigint',
  jobId: 'bigint',
  runId: 'bigint',
  doneOn: 'date',
  kind: 'text',
  isLeft: 'boolean',
  verdict: 'text',
  isAmended: 'boolean',
  rangeKey: 'text',
  rangeVersion: 'integer',
  atPercent: 'double precision[]',
  isDown: 'boolean[]',
  errorPercent: 'double precision[]',
  limitPercent: 'double precision[]',
  adjustAbovePercent: 'double precision',
  worstOfLimit: 'double precision',
  zeroPercent: 'double precision',
  spanPercent: 'double precision',
  hysteresisPercent: 'double precision',
  standard: 'text',
  meter: 'text',
  personId: 'bigint',
  doneBy: 'text',
  record: 'text',
} as const satisfies Record<keyof KeptFigures, string>;

const names = Object.keys(COLUMNS) as (keyof KeptFigures)[];
const columnOf = (name: string): string => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

export async function insertResults(tx: Queryable, rows: readonly KeptFigures[]): Promise<void> {
  if (rows.length === 0) return;
  await tx.query(
    `insert into result (${names.map(columnOf).join(', ')})
     select ${names.map((name) => `"${name}"`).join(', ')}
     from jsonb_to_recordset($1::jsonb) as entry (${names.map((name) => `"${name}" ${COLUMNS[name]}`).join(', ')})`,
    [JSON.stringify(rows)],
  );
}

/**
 * Says anew of each as-found result how long the instrument had been left, and what it drifted by: the row before it in its history
 * is the one that it was left with.
 */
export async function followSteps(tx: Queryable, instrumentIds: readonly number[]): Promise<void> {
  await tx.query(
    `update result set since_days = step.since, drift_zero_percent = step.zero, drift_span_percent = step.span
     from (
       select id, kind,
         case when kind = 'as-found' then done_on - lag(done_on) over history end as since,
         case when kind = 'as-found' and range_key = lag(range_key) over history
           then zero_percent - lag(zero_percent) over history end as zero,
         case when kind = 'as-found' and range_key = lag(range_key) over history
           then span_percent - lag(span_percent) over history end as span
       from result where instrument_id = any($1)
       window history as (partition by instrument_id order by done_on, job_id nulls first, kind, id)
     ) step
     where result.id = step.id and (since_days, drift_zero_percent, drift_span_percent)
       is distinct from (step.since, step.zero, step.span)`,
    [instrumentIds],
  );
}
