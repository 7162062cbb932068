/** How a site plans: its ways, its hours, who is away, and when which area stands still. */
import dayjs from 'dayjs';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';

export interface PlanSite {
  /** From the shop to an area, from one to the next, and back. */
  readonly walkMinutes: number;
  readonly permitMinutes: number;
  /** `07:00` */
  readonly dayBegins: string;
  /** Days after its due date on which an instrument is in grace. */
  readonly graceDays: number;
}

const LONGEST_AHEAD_DAYS = 731;

/**
 * Nothing is planned for a day that is past, nor for one that is years away.
 * @throws StoreError `no-plan-day`
 */
export function checkPlanDay(day: string, today: string): void {
  if (day < today || dayjs(day).diff(today, 'day') > LONGEST_AHEAD_DAYS)
    throw new StoreError({ code: 'no-plan-day', day });
}

export async function planSite(db: Queryable): Promise<PlanSite> {
  const [site] = await db.query<PlanSite>(
    `select walk_minutes as "walkMinutes", permit_minutes as "permitMinutes", to_char(day_begins, 'HH24:MI') as "dayBegins",
       grace_days as "graceDays" from installation`,
  );
  return site ?? { walkMinutes: 5, permitMinutes: 15, dayBegins: '07:00', graceDays: 0 };
}

export interface Away {
  readonly id: number;
  readonly personId: number;
  readonly firstDay: string;
  readonly lastDay: string;
  readonly reason: string;
}

export const absencesIn = (db: Queryable, firstDay: string, lastDay: string): Promise<Away[]> =>
  db.query<Away>(
    `select id, person_id as "personId", first_day as "firstDay", last_day as "lastDay", reason from absence
     where first_day <= $2 and last_day >= $1 order by first_day, id`,
    [firstDay, lastDay],
  );

export interface Shutdown {
  readonly id: number;
  readonly area: string;
  readonly firstDay: string;
  readonly lastDay: string;
  readonly what: string;
}

export const shutdownsIn = (db: Queryable, firstDay: string, lastDay: string): Promise<Shutdown[]> =>
  db.query<Shutdown>(
    `select id, area, first_day as "firstDay", last_day as "lastDay", what from shutdown
     where first_day <= $2 and last_day >= $1 order by first_day, area, id`,
    [firstDay, lastDay],
  );

export interface Worker {
  readonly id: number;
  readonly name: string;
  /** Minutes at work from Monday to Sunday. */
  readonly week: readonly number[];
  /** The same day by day of what is planned; none where away. */
  readonly minutes: readonly number[];
}

/** Who does jobs, with their hours on the days that are planned. */
export async function workersOn(db: Queryable, days: readonly string[]): Promise<Worker[]> {
  const [first = '', last = ''] = [days[0], days.at(-1)];
  const [people, away] = await Promise.all([
    db.query<{ id: number; name: string; week: number[] }>(
      `select id, name, week_minutes as week from person where is_active and role = 'technician' order by name, id`,
    ),
    absencesIn(db, first, last),
  ]);
  return people.map(({ id, name, week }) => ({
    id,
    name,
    week,
    minutes: days.map((day) => {
      const isAway = away.some((one) => one.personId === id && one.firstDay <= day && day <= one.lastDay);
      return isAway ? 0 : (week[(dayjs(day).day() + 6) % 7] ?? 0);
    }),
  }));
}
