/**
 * A plan in the making: asked for by a planner, solved in the background, watched and stopped from any page. It is kept in one
 * transaction, which looks whether it was stopped.
 */
import { clashesOf, firstCome, planWorth, type Placed, type PlanProblem } from '@barys/core/plan';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Database, Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { CUT_OFF_S, type CalculationState } from '../intervals/calculation';
import type { Actor } from '../people/actor';
import { requireScheduler } from '../people/people';
import { keepPlan } from './change';
import { planGround, withFixed } from './problem';
import { checkPlanDay } from './site';

export const askPlanSchema = z.object({
  firstDay: z.iso.date('The first day is a date, such as 2026-05-31.'),
  days: z
    .number({ error: 'The days are a whole number.' })
    .int('The days are a whole number.')
    .min(1, 'A plan has 1 to 14 days.')
    .max(14, 'A plan has 1 to 14 days.'),
});

export interface Making extends z.output<typeof askPlanSchema> {
  readonly id: number;
  readonly askedBy: string;
  readonly askedAt: Date;
  readonly state: CalculationState;
  /** From 0 to 1. */
  readonly part: number;
  readonly endedAt: Date | null;
  readonly placed: number | null;
  readonly worth: number | null;
  readonly bound: number | null;
  readonly asItComes: number | null;
}

/** Makes a plan; told how far it is, and ends where it is answered false. */
export type MakePlan = (
  problem: PlanProblem,
  watch: (part: number) => Promise<boolean>,
) => Promise<{ readonly plan: readonly Placed[]; readonly worth: number; readonly bound: number }>;

/** The newest making, or null before the first. */
export async function lastMaking(db: Queryable): Promise<Making | null> {
  const [row] = await db.query<Making>(
    `select id, name_at(asked_by, asked_at) as "askedBy", asked_at as "askedAt", first_day as "firstDay", days, part,
       ended_at as "endedAt", placed, worth, bound, as_it_comes as "asItComes",
       case when state = 'runs' and beat_at < now() - interval '${CUT_OFF_S} seconds' then 'cut off' else state end as state
     from plan_making order by id desc limit 1`,
  );
  return row ?? null;
}

/**
 * Asks for a plan; whoever asked has it worked through (`workPlan`).
 * @throws StoreError `calculates-already`, `no-plan-day`, `unknown-person`, `not-allowed`
 */
export async function askPlan(
  tx: Queryable,
  actor: Actor,
  { firstDay, days }: z.output<typeof askPlanSchema>,
): Promise<number> {
  await requireScheduler(tx, actor);
  checkPlanDay(firstDay, actor.today);
  await tx.query("select pg_advisory_xact_lock(hashtext('plan making'))");
  const last = await lastMaking(tx);
  if (last?.state === 'runs') throw new StoreError({ code: 'calculates-already', by: last.askedBy });
  await tx.query(`update plan_making set state = 'failed', ended_at = now() where state = 'runs'`);
  const [row] = await tx.query<{ id: number }>(
    `insert into plan_making (asked_by, asked_at, beat_at, first_day, days) values ($1, $2, now(), $3, $4) returning id`,
    [actor.personId, actor.at, firstDay, days],
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, {
    act: 'ask for a plan',
    subject: { kind: 'site', id: 1 },
    detail: { making: id, firstDay, days },
  });
  return id;
}

/**
 * Stops a plan in the making; the plan stays as it is.
 * @returns whether there was one
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function stopPlan(tx: Queryable, actor: Actor, id: number): Promise<boolean> {
  await requireScheduler(tx, actor);
  const stopped = await tx.query(
    `update plan_making set state = 'cancelled', ended_at = now() where id = $1 and state = 'runs' returning id`,
    [id],
  );
  return stopped.length > 0;
}

/** Which making, and the day of the site, ISO date. */
export interface Work {
  readonly id: number;
  readonly day: string;
}

/** Keeps what was made, unless it was stopped meanwhile. */
async function keepMade(
  tx: Queryable,
  { id, day }: Work,
  ground: Parameters<typeof keepPlan>[2],
  problem: PlanProblem,
  made: Awaited<ReturnType<MakePlan>>,
): Promise<void> {
  const [asked] = await tx.query<{ personId: number; at: Date }>(
    `select asked_by as "personId", now() as at from plan_making
     where id = $1 and state = 'runs' for no key update`,
    [id],
  );
  if (asked === undefined) return;
  const placed = await keepPlan(tx, { ...asked, today: day }, ground, made.plan);
  await tx.query(
    `update plan_making set state = 'done', part = 1, ended_at = now(), placed = $2, worth = $3, bound = $4, as_it_comes = $5
     where id = $1`,
    [id, placed, made.worth, made.bound, planWorth(problem, firstCome(problem))],
  );
}

/**
 * Works a plan through, to its end or until it is stopped. What cannot be done is never kept, whoever made it.
 * @param make the solver
 */
export async function workPlan(db: Database, work: Work, make: MakePlan): Promise<void> {
  const { id } = work;
  try {
    const [asked] = await db.query<{ firstDay: string; days: number }>(
      `select first_day as "firstDay", days from plan_making where id = $1 and state = 'runs'`,
      [id],
    );
    if (asked === undefined) return;
    const ground = await planGround(db, asked.firstDay, asked.days);
    const problem = withFixed(ground, work.day);
    const made = await make(problem, async (part) => {
      const beaten = await db.query(
        `update plan_making set part = greatest(part, $2), beat_at = now() where id = $1 and state = 'runs' returning id`,
        [id, part],
      );
      return beaten.length > 0;
    });
    const [clash] = clashesOf(problem, made.plan);
    if (clash !== undefined) throw new Error(`a plan that cannot be done: ${JSON.stringify(clash)}`);
    await db.transaction((tx) => keepMade(tx, work, ground, problem, made));
  } catch (error) {
    await db
      .query(`update plan_making set state = 'failed', ended_at = now() where id = $1 and state = 'runs'`, [
        id,
      ])
      .catch(() => undefined);
    throw error;
  }
}
