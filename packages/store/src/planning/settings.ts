/** What a planner sets: the ways and hours of the site, who is away, and when an area stands still. */
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireScheduler } from '../people/people';
import { planSite, type PlanSite } from './site';

const whole = (what: string, most: number) => {
  const error = `${what} a whole number from 0 to ${most}.`;
  return z.number({ error }).int(error).min(0, error).max(most, error);
};

export const planSiteSchema = z.object({
  walkMinutes: whole('The minutes of a way are', 240),
  permitMinutes: whole('The minutes for a permit are', 480),
  dayBegins: z
    .string()
    .trim()
    .regex(/^([01]?\d|2[0-3]):[0-5]\d$/, 'The start of work is a time, such as 07:00.'),
  graceDays: whole('The days of grace are', 366),
});

/**
 * Sets how the site plans.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function setPlanSite(
  tx: Queryable,
  actor: Actor,
  entry: z.infer<typeof planSiteSchema>,
): Promise<void> {
  await requireScheduler(tx, actor);
  const before: PlanSite = await planSite(tx);
  await tx.query(
    'update installation set walk_minutes = $1, permit_minutes = $2, day_begins = $3, grace_days = $4',
    [entry.walkMinutes, entry.permitMinutes, entry.dayBegins, entry.graceDays],
  );
  await appendToTrail(tx, actor, {
    act: 'set planning',
    subject: { kind: 'site', id: 1 },
    detail: { before, after: entry },
  });
}

/**
 * Sets the hours of somebody who does jobs.
 * @param weekMinutes minutes at work from Monday to Sunday
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function setHours(
  tx: Queryable,
  actor: Actor,
  personId: number,
  weekMinutes: readonly number[],
): Promise<void> {
  await requireScheduler(tx, actor);
  const [before] = await tx.query<{ name: string; week: number[] }>(
    `select name, week_minutes as week from person where id = $1 and is_active and role = 'technician' for no key update`,
    [personId],
  );
  if (before === undefined) throw new StoreError({ code: 'no-such', what: 'technician', name: personId });
  await tx.query('update person set week_minutes = $2 where id = $1', [personId, weekMinutes]);
  await appendToTrail(tx, actor, {
    act: 'set hours',
    subject: { kind: 'person', id: personId },
    detail: { name: before.name, before: before.week, after: weekMinutes },
  });
}

const MOST_DAYS_AWAY = 366;

const spanShape = {
  firstDay: z.iso.date('The first day is a date, such as 2026-05-31.'),
  lastDay: z.iso.date('The last day is a date, such as 2026-05-31.'),
};
const inOrder = ({ firstDay, lastDay }: { firstDay: string; lastDay: string }): boolean =>
  firstDay <= lastDay && Date.parse(lastDay) - Date.parse(firstDay) < MOST_DAYS_AWAY * 86_400_000;
const ORDER = {
  message: `The last day is the first or one of the ${MOST_DAYS_AWAY} after it.`,
  path: ['lastDay'],
};

export const absenceSchema = z
  .object({
    personId: z.number({ error: 'Choose who is away.' }).int().positive('Choose who is away.'),
    ...spanShape,
    reason: z.string().trim().max(120, 'At most 120 characters, please.'),
  })
  .refine(inOrder, ORDER);

export const shutdownSchema = z
  .object({
    area: z.string().trim().min(1, 'Say which area stands still.').max(60, 'At most 60 characters, please.'),
    ...spanShape,
    what: z.string().trim().max(120, 'At most 120 characters, please.'),
  })
  .refine(inOrder, ORDER);

/**
 * Enters days on which somebody is away. What is planned there stays and is shown to clash.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function addAbsence(
  tx: Queryable,
  actor: Actor,
  entry: z.infer<typeof absenceSchema>,
): Promise<void> {
  await requireScheduler(tx, actor);
  const [person] = await tx.query<{ name: string }>(
    `select name from person where id = $1 and is_active and role = 'technician'`,
    [entry.personId],
  );
  if (person === undefined)
    throw new StoreError({ code: 'no-such', what: 'technician', name: entry.personId });
  await tx.query('insert into absence (person_id, first_day, last_day, reason) values ($1, $2, $3, $4)', [
    entry.personId,
    entry.firstDay,
    entry.lastDay,
    entry.reason,
  ]);
  await appendToTrail(tx, actor, {
    act: 'enter absence',
    subject: { kind: 'person', id: entry.personId },
    detail: { name: person.name, ...entry },
  });
}

/** @throws StoreError `no-such`, `unknown-person`, `not-allowed` */
export async function removeAbsence(tx: Queryable, actor: Actor, id: number): Promise<void> {
  await requireScheduler(tx, actor);
  const [gone] = await tx.query<{ personId: number; firstDay: string; lastDay: string; reason: string }>(
    `delete from absence where id = $1
     returning person_id as "personId", first_day as "firstDay", last_day as "lastDay", reason`,
    [id],
  );
  if (gone === undefined) throw new StoreError({ code: 'no-such', what: 'absence', name: id });
  await appendToTrail(tx, actor, {
    act: 'take back absence',
    subject: { kind: 'person', id: gone.personId },
    detail: gone,
  });
}

/**
 * Enters days on which an area stands still.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function addShutdown(
  tx: Queryable,
  actor: Actor,
  entry: z.infer<typeof shutdownSchema>,
): Promise<void> {
  await requireScheduler(tx, actor);
  await tx.query('insert into shutdown (area, first_day, last_day, what) values ($1, $2, $3, $4)', [
    entry.area,
    entry.firstDay,
    entry.lastDay,
    entry.what,
  ]);
  await appendToTrail(tx, actor, {
    act: 'enter shutdown',
    subject: { kind: 'site', id: 1 },
    detail: entry,
  });
}

/** @throws StoreError `no-such`, `unknown-person`, `not-allowed` */
export async function removeShutdown(tx: Queryable, actor: Actor, id: number): Promise<void> {
  await requireScheduler(tx, actor);
  const [gone] = await tx.query<Record<string, string>>(
    `delete from shutdown where id = $1 returning area, first_day as "firstDay", last_day as "lastDay", what`,
    [id],
  );
  if (gone === undefined) throw new StoreError({ code: 'no-such', what: 'shutdown', name: id });
  await appendToTrail(tx, actor, {
    act: 'take back shutdown',
    subject: { kind: 'site', id: 1 },
    detail: gone,
  });
}
