/** The calibrations behind a figure: filtered and paged in the database. */
import type { Verdict } from '@barys/core/run';
import { z } from 'zod';
import type { Queryable } from '../db/database';
import type { ResultKind } from '../results/figures';

export const CALIBRATIONS_PAGE = 50;

const day = z.union([z.literal(''), z.iso.date()]).catch('');

export const calibrationQuerySchema = z.object({
  /** Days of the last readings, ISO dates; both ends are in. */
  from: day,
  to: day,
  kind: z.enum(['', 'as-found', 'as-left']).catch(''),
  verdict: z.enum(['', 'within', 'within-adjust', 'undecided', 'not-judged', 'outside']).catch(''),
  standard: z.string().max(60).catch(''),
  model: z.string().max(120).catch(''),
  /** Kind of adjustment that was made in the job. */
  adjusted: z.string().max(40).catch(''),
  /** Suspicion that was found to be behind its readings. */
  cause: z.string().max(80).catch(''),
  page: z.coerce.number().int().min(0).max(100_000).catch(0),
});
export type CalibrationQuery = z.infer<typeof calibrationQuerySchema>;

export interface CalibrationLine {
  readonly id: number;
  readonly tag: string;
  readonly service: string;
  readonly model: string;
  /** Null of results from before Barys. */
  readonly jobId: number | null;
  readonly doneOn: string;
  readonly kind: ResultKind;
  readonly verdict: Verdict | null;
  readonly worstOfLimit: number | null;
  readonly standard: string;
  readonly doneBy: string;
}

function conditionsOf(query: CalibrationQuery): { readonly where: string; readonly values: unknown[] } {
  const conditions: string[] = [];
  const values: unknown[] = [];
  const add = (value: unknown, condition: (place: string) => string) => {
    if (value !== '') conditions.push(condition(`$${values.push(value)}`));
  };
  add(query.from, (place) => `done_on >= ${place}`);
  add(query.to, (place) => `done_on <= ${place}`);
  add(query.kind, (place) => `result.kind = ${place}`);
  add(query.verdict, (place) => `verdict = ${place}`);
  add(query.standard, (place) => `standard = ${place}`);
  add(
    query.model,
    (place) =>
      `instrument_id in (select id from instrument where body_id = (select id from body where model = ${place}))`,
  );
  add(query.adjusted, (place) => `job_id in (select job_id from adjustment where kind = ${place})`);
  add(
    query.cause,
    (place) => `job_id in (select job_id from (
      select distinct on (run_id, suspicion) job_id, suspicion, is_taken_back from cause
      where suspicion = ${place} order by run_id, suspicion, id desc) last where not is_taken_back)`,
  );
  return { where: conditions.length === 0 ? '' : `where ${conditions.join(' and ')}`, values };
}

/** One page of calibrations, the newest first. */
export async function listCalibrations(
  db: Queryable,
  query: CalibrationQuery,
): Promise<{ readonly lines: CalibrationLine[]; readonly count: number }> {
  const { where, values } = conditionsOf(query);
  const [lines, [counted]] = await Promise.all([
    db.query<CalibrationLine>(
      `with page as (
         select * from result ${where} order by done_on desc, id desc
         limit ${CALIBRATIONS_PAGE} offset $${values.length + 1}
       )
       select page.id, tag, service, model, job_id as "jobId", done_on as "doneOn", page.kind, verdict,
         worst_of_limit as "worstOfLimit", standard, done_by as "doneBy"
       from page join instrument on instrument.id = instrument_id join body on body.id = body_id
       order by done_on desc, page.id desc`,
      [...values, query.page * CALIBRATIONS_PAGE],
    ),
    db.query<{ count: number }>(`select count(*)::integer as count from result ${where}`, values),
  ]);
  return { lines, count: counted?.count ?? 0 };
}
