/**
 * What all calibrations together say, from what was kept of each: nothing is judged again. A period is so many months, of which that of
 * `today` is the last, up to that day.
 */
import type { Queryable } from '../db/database';

/** The first day of the month `back` months before today's, ISO date. */
export function monthBefore(today: string, back: number): string {
  const [year = 0, month = 1] = today.split('-').map(Number);
  const count = year * 12 + (month - 1) - back;
  return `${Math.floor(count / 12)}-${String((count % 12) + 1).padStart(2, '0')}-01`;
}

export interface MonthRate {
  /** First day of the month, ISO date. */
  readonly month: string;
  /** Found, and judged inside or outside. */
  readonly calibrations: number;
  readonly out: number;
  /** Found past the adjust limit, and inside. */
  readonly adjust: number;
}

/** How calibrations were found, month by month; months without any are there as well. */
export const foundByMonth = (db: Queryable, today: string, months: number): Promise<MonthRate[]> =>
  db.query<MonthRate>(
    `with found as (
       select date_trunc('month', done_on)::date as month, count(*) as calibrations,
         count(*) filter (where verdict = 'outside') as out, count(*) filter (where verdict = 'within-adjust') as adjust
       from result where done_on between $1 and $3 and kind = 'as-found' and verdict in ('within', 'within-adjust', 'outside') group by 1
     )
     select to_char(at, 'YYYY-MM-DD') as month, coalesce(calibrations, 0)::integer as calibrations,
       coalesce(out, 0)::integer as out, coalesce(adjust, 0)::integer as adjust
     from generate_series($1::date, $2::date, interval '1 month') at left join found on found.month = at::date order by at`,
    [monthBefore(today, months - 1), monthBefore(today, 0), today],
  );

export interface Named {
  readonly name: string;
  readonly count: number;
}

const MOST_LINES = 12;

/** What was adjusted most often in signed jobs, by the number of jobs. */
export const adjustmentsByKind = (db: Queryable, today: string, months: number): Promise<Named[]> =>
  db.query<Named>(
    `select adjustment.kind as name, count(distinct job_id)::integer as count
     from adjustment join job on job.id = job_id
     where signed_at >= $1::date and signed_at < $2::date + 1 group by 1 order by 2 desc, 1 limit ${MOST_LINES}`,
    [monthBefore(today, months - 1), today],
  );

/** What was found to be behind readings most often, as it stands: what was taken back is not counted. */
export const causesByName = (db: Queryable, today: string, months: number): Promise<Named[]> =>
  db.query<Named>(
    `select suspicion as name, count(distinct job_id)::integer as count from (
       select distinct on (run_id, suspicion) job_id, suspicion, is_taken_back, chosen_at
       from cause where chosen_at >= $1::date and chosen_at < $2::date + 1 order by run_id, suspicion, id desc
     ) last where not is_taken_back group by 1 order by 2 desc, 1 limit ${MOST_LINES}`,
    [monthBefore(today, months - 1), today],
  );

export interface ReferenceUse extends Named {
  /** How much of it was found outside. */
  readonly out: number;
  /** Day up to which it is in date; null where the register has it no more, or no certificate of it. */
  readonly dueOn: string | null;
}

/** How often each reference was used, runs as found and as left alike. */
export const referencesUsed = (db: Queryable, today: string, months: number): Promise<ReferenceUse[]> =>
  db.query<ReferenceUse>(
    `select used.name, used.count, used.out,
       (select max(due_on) from reference_certificate join reference_standard on reference_standard.id = reference_id
        where tag = used.name) as "dueOn"
     from (
       select standard as name, count(*)::integer as count,
         (count(*) filter (where kind = 'as-found' and verdict = 'outside'))::integer as out
       from result where done_on between $1 and $2 and standard <> '' group by 1
     ) used order by used.count desc, used.name limit ${MOST_LINES}`,
    [monthBefore(today, months - 1), today],
  );

export interface MonthCount {
  readonly month: string;
  readonly count: number;
}

/**
 * How many instruments were overdue at the end of each month, and are today in the last: each due date that a signature set counts from
 * the day after it until the next signature that set one: an instrument left outside keeps its due date. What was due before the first signature is not known.
 */
export const overdueByMonth = (db: Queryable, today: string, months: number): Promise<MonthCount[]> =>
  db.query<MonthCount>(
    `with late as (
       select next_due + 1 as since,
         lead(signed_at::date) over (partition by instrument_id order by signed_at, id) as until
       from job where signed_at is not null and next_due is not null
     ),
     change as (
       select since as at, 1 as step from late where since < coalesce(until, $2::date + 1)
       union all select until, -1 from late where until is not null and since < until
     ),
     month as (
       select to_char(at, 'YYYY-MM-DD') as month, least((at + interval '1 month')::date - 1, $2::date) as at
       from generate_series($1::date, date_trunc('month', $2::date), interval '1 month') at
     ),
     daily as (select at, sum(step) as step from change where at <= $2::date group by at)
     select month.month, coalesce((select sum(step) from daily where daily.at <= month.at), 0)::integer as count
     from month order by 1`,
    [monthBefore(today, months - 1), today],
  );

export interface Workload {
  /** First day of the month, ISO date; 'overdue' of what was due before today. */
  readonly month: string;
  readonly count: number;
  /** Expected hours, from what like jobs took. */
  readonly hours: number;
}

/** Where no job of a model says how long one takes, minutes. Common practice. */
export const USUAL_MINUTES = 60;
/** What took longer was left lying between. */
const LONGEST_HOURS = 12;

/**
 * Minutes that a job takes, by the model of its instrument: the middle of what jobs took from the first stage to the signature, where
 * that was one sitting.
 */
export const minutesByModel = async (db: Queryable): Promise<ReadonlyMap<string, number>> => {
  const rows = await db.query<{ model: string; minutes: number }>(
    `select model, percentile_cont(0.5) within group (order by minutes) as minutes from (
       select body.model, extract(epoch from signed_at - min(done_at)) / 60 as minutes
       from job join stage_passed on job_id = job.id join instrument on instrument.id = instrument_id
         join body on body.id = body_id
       where signed_at > now() - interval '3 years' and reason <> 'hot check' and stage_passed.stage = 'brief'
       group by job.id, body.model
     ) took where minutes between 5 and ${LONGEST_HOURS * 60} group by model`,
  );
  return new Map(rows.map(({ model, minutes }) => [model, minutes]));
};

/** What is overdue, and what comes due in each month from today on. */
export async function workloadAhead(db: Queryable, today: string, months: number): Promise<Workload[]> {
  const minutes = await minutesByModel(db);
  const rows = await db.query<{ month: string; model: string; count: number }>(
    `select case when due_on < $1::date then 'overdue' else to_char(due_on, 'YYYY-MM-01') end as month, model,
       count(*)::integer as count
     from instrument join body on body.id = body_id
     where state = 'in service' and due_on < $2::date group by 1, 2`,
    [today, monthBefore(today, -months)],
  );
  const ahead = Array.from({ length: months }, (_, later) => monthBefore(today, -later));
  return ['overdue', ...ahead].map((month) => {
    const due = rows.filter((row) => row.month === month);
    return {
      month,
      count: due.reduce((sum, { count }) => sum + count, 0),
      hours: due.reduce(
        (sum, { model, count }) => sum + (count * (minutes.get(model) ?? USUAL_MINUTES)) / 60,
        0,
      ),
    };
  });
}

export interface Costs {
  /** Jobs a year that longer intervals would spare. */
  readonly spared: number;
  readonly longer: number;
  /** Jobs a year that shorter ones would cost. */
  readonly added: number;
  readonly shorter: number;
  /** Days a year that instruments are expected outside, unseen: as intervals are, and as they are advised. */
  readonly daysOutside: number;
  readonly daysOutsideAdvised: number;
}

/** What calibrating too often costs, and being out of tolerance unseen, as the last calculation of intervals has it. */
export async function costsOfIntervals(db: Queryable): Promise<Costs> {
  const [row] = await db.query<Costs>(
    `select
       coalesce(sum(12.0 / months_now - 12.0 / months) filter (where interval_advice.kind = 'longer'), 0)::float8 as spared,
       (count(*) filter (where interval_advice.kind = 'longer'))::integer as longer,
       coalesce(sum(12.0 / months - 12.0 / months_now) filter (where interval_advice.kind = 'shorter'), 0)::float8 as added,
       (count(*) filter (where interval_advice.kind = 'shorter'))::integer as shorter,
       coalesce(sum(outside_part) * 365.25, 0) as "daysOutside",
       coalesce(sum((advice -> 'advice' -> 'then' ->> 'outsidePart')::float8) * 365.25, 0) as "daysOutsideAdvised"
     from interval_advice join instrument on instrument.id = instrument_id
     where interval_months = months_now`,
  );
  return row ?? { spared: 0, longer: 0, added: 0, shorter: 0, daysOutside: 0, daysOutsideAdvised: 0 };
}
