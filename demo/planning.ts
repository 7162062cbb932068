/** The week of the demo: who is away, what stands still, and a plan as a planner had it made. */
import { makePlan } from '@barys/plan';
import type { Database, Queryable } from '@barys/store/db';
import { listPeople, type Actor } from '@barys/store/people';
import { addAbsence, addShutdown, askPlan, setHours, setPlanSite, workPlan } from '@barys/store/planning';
import type { Dayjs } from 'dayjs';

const ISO_DATE = 'YYYY-MM-DD';
const plannerOf = async (db: Queryable, now: Dayjs): Promise<Actor> => ({
  personId: (await listPeople(db)).find(({ role }) => role === 'planner')?.id ?? 0,
  at: now.toDate(),
  today: now.format(ISO_DATE),
});

/** From Monday, 0, to Sunday. */
const weekdayOf = (day: Dayjs): number => (day.day() + 6) % 7;
const mondayOf = (day: Dayjs): Dayjs => day.subtract(weekdayOf(day), 'day');

/** Hours, an absence, and two shutdowns of the boiler house. */
async function plantSettings(tx: Queryable, planner: Actor, now: Dayjs): Promise<void> {
  const people = await listPeople(tx);
  const idOf = (wanted: string) => people.find(({ name }) => name === wanted)?.id ?? 0;
  await setPlanSite(tx, planner, { walkMinutes: 6, permitMinutes: 15, dayBegins: '07:00', graceDays: 7 });
  await setHours(tx, planner, idOf('Technician A'), [450, 450, 450, 450, 360, 0, 0]);
  await setHours(tx, planner, idOf('Technician B'), [450, 450, 450, 450, 360, 0, 0]);
  const monday = mondayOf(now);
  const on = (days: number): string => monday.add(days, 'day').format(ISO_DATE);
  await addAbsence(tx, planner, {
    personId: idOf('Technician B'),
    firstDay: on(3),
    lastDay: on(3),
    reason: 'course',
  });
  for (const [days, what] of [
    [1, 'boiler 1 inspection'],
    [8, 'boiler 2 inspection'],
  ] as const)
    await addShutdown(tx, planner, { area: 'Boiler house', firstDay: on(days), lastDay: on(days + 1), what });
}

const [THURSDAY, FRIDAY] = [3, 4];

/** What is planned: the rest of this week while somebody works in it, and the week to come where this one is nearly over. */
export const spansOf = (now: Dayjs): { readonly firstDay: string; readonly days: number }[] => [
  ...(weekdayOf(now) <= FRIDAY ? [{ firstDay: now.format(ISO_DATE), days: 7 - weekdayOf(now) }] : []),
  ...(weekdayOf(now) >= THURSDAY
    ? [{ firstDay: mondayOf(now).add(7, 'day').format(ISO_DATE), days: 7 }]
    : []),
];

/** A plan as a planner had it made. */
export async function plantPlan(db: Database, now: Dayjs): Promise<void> {
  const planner = await plannerOf(db, now);
  await db.transaction((tx) => plantSettings(tx, planner, now));
  for (const span of spansOf(now)) {
    const id = await db.transaction((tx) => askPlan(tx, planner, span));
    await workPlan(db, { id, day: planner.today }, (problem, watch) =>
      makePlan(problem, { seconds: 5, watch }),
    );
  }
}
