/** What comes due when, and how it stands: in time, in grace, late. Of instruments in service alone. */
import type { Queryable } from '../db/database';
import { GRACE_SQL } from '../registers/instrument-list';

export interface DueStanding {
  /** Past its due date and its grace. */
  readonly late: number;
  /** Past its due date. */
  readonly inGrace: number;
  /** Due today or in the seven days after it. */
  readonly week: number;
  /** The same of thirty days. */
  readonly month: number;
  /** Of those four, how many stand in a plan of today or later. */
  readonly planned: number;
}

/** @param today ISO date */
export async function dueStanding(db: Queryable, today: string): Promise<DueStanding> {
  const [row] = await db.query<DueStanding>(
    `select count(*) filter (where due_on < $1::date - ${GRACE_SQL})::integer as late,
       count(*) filter (where due_on < $1 and due_on >= $1::date - ${GRACE_SQL})::integer as "inGrace",
       count(*) filter (where due_on between $1 and $1::date + 7)::integer as week,
       count(*) filter (where due_on between $1 and $1::date + 30)::integer as month,
       count(planned.id)::integer as planned
     from instrument left join planned on instrument_id = instrument.id and done_by_job is null and day >= $1
     where state = 'in service' and due_on <= $1::date + 30`,
    [today],
  );
  return row ?? { late: 0, inGrace: 0, week: 0, month: 0, planned: 0 };
}

export interface DayCount {
  /** ISO date. */
  readonly day: string;
  readonly due: number;
  /** Of those, how many stand in a plan. */
  readonly planned: number;
}

/** How many come due on each of some days; days without any are left out. */
export const dueByDay = (db: Queryable, firstDay: string, lastDay: string): Promise<DayCount[]> =>
  db.query<DayCount>(
    `select due_on as day, count(*)::integer as due, count(planned.id)::integer as planned
     from instrument left join planned on instrument_id = instrument.id and done_by_job is null
     where state = 'in service' and due_on between $1 and $2 group by 1 order by 1`,
    [firstDay, lastDay],
  );

export interface DueOn {
  readonly tag: string;
  readonly service: string;
  readonly area: string;
  readonly criticality: string;
  /** ISO date. */
  readonly dueOn: string;
  /** Where it stands in a plan; null where it stands in none. */
  readonly plannedFor: string | null;
  readonly plannedWith: string | null;
  /** Its open job. */
  readonly jobId: number | null;
}

/** What comes due from one day to another, with what is planned of it. */
export const dueOn = (db: Queryable, firstDay: string, lastDay: string, limit: number): Promise<DueOn[]> =>
  db.query<DueOn>(
    `select tag, service, area, criticality, due_on as "dueOn", planned.day as "plannedFor", person.name as "plannedWith",
       (select max(id) from job where instrument_id = instrument.id and signed_at is null and cancelled_at is null) as "jobId"
     from instrument left join planned on instrument_id = instrument.id and done_by_job is null
       left join person on person.id = person_id
     where state = 'in service' and due_on between $1 and $2 order by due_on, tag limit $3`,
    [firstDay, lastDay, limit],
  );

/** How many come due by the end of some days, and how many of them stand on them; what is planned for later is not counted. */
export async function dueWithin(
  db: Queryable,
  firstDay: string,
  lastDay: string,
): Promise<{ readonly due: number; readonly placed: number }> {
  const [row] = await db.query<{ due: number; placed: number }>(
    `select count(*)::integer as due, count(*) filter (where day between $1 and $2)::integer as placed
     from instrument left join planned on instrument_id = instrument.id and done_by_job is null
     where state = 'in service' and due_on <= $2 and (day is null or day <= $2)`,
    [firstDay, lastDay],
  );
  return row ?? { due: 0, placed: 0 };
}
