/** Changes to the plan: made by a solver, or put somewhere by hand. */
import type { Placed } from '@barys/core/plan';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireScheduler } from '../people/people';
import type { PlanGround } from './problem';
import { checkPlanDay } from './site';

export const putSchema = z.object({
  personId: z.number().int().positive('Choose who does it.'),
  day: z.iso.date('The day is a date, such as 2026-05-31.'),
  minutes: z
    .number({ error: 'The minutes are a whole number.' })
    .int('The minutes are a whole number.')
    .min(1, 'The minutes are from 1 to 1440.')
    .max(1440, 'The minutes are from 1 to 1440.'),
  references: z.array(z.string().max(32)).max(9),
});
export type Put = z.infer<typeof putSchema>;

/** One change of a plan at a time, so that nothing is planned twice. */
const lockPlan = (tx: Queryable) => tx.query("select pg_advisory_xact_lock(hashtext('plan'))");

interface Row extends Put {
  readonly instrumentId: number;
}

async function insertRows(
  tx: Queryable,
  actor: Actor,
  rows: readonly Row[],
  isFixed: boolean,
): Promise<number[]> {
  const kept = await tx.query<{ id: number; instrumentId: number }>(
    `insert into planned (instrument_id, person_id, day, minutes, is_fixed, planned_by, planned_at)
     select "instrumentId", "personId", day, minutes, $2, $3, $4
     from jsonb_to_recordset($1::jsonb) as entry ("instrumentId" bigint, "personId" bigint, day date, minutes integer)
     returning id, instrument_id as "instrumentId"`,
    [JSON.stringify(rows), isFixed, actor.personId, actor.at],
  );
  const idOf = new Map(kept.map(({ id, instrumentId }) => [instrumentId, id]));
  const carried = rows.flatMap(({ instrumentId, references }) =>
    references.map((tag, index) => ({ plannedId: idOf.get(instrumentId), place: index + 1, tag })),
  );
  const written = await tx.query(
    `insert into planned_reference (planned_id, place, reference_id)
     select "plannedId", place, standard.id from jsonb_to_recordset($1::jsonb) as entry ("plannedId" bigint, place integer, tag text)
       join reference_standard standard using (tag) returning id`,
    [JSON.stringify(carried)],
  );
  if (written.length !== carried.length)
    throw new StoreError({
      code: 'no-such',
      what: 'reference',
      name: carried.map(({ tag }) => tag).join(', '),
    });
  return kept.map(({ id }) => id);
}

/**
 * Keeps a plan that was made: what is neither fixed nor done gives way to it on its days. What stands elsewhere stays, unless its day is
 * past: it was not done.
 * @returns how many were kept
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function keepPlan(
  tx: Queryable,
  actor: Actor,
  { days, problem }: Pick<PlanGround, 'days' | 'problem'>,
  plan: readonly Placed[],
): Promise<number> {
  await requireScheduler(tx, actor);
  await lockPlan(tx);
  const ids = plan.map(({ job }) => Number(job));
  await tx.query(
    `delete from planned where done_by_job is null
       and (not is_fixed and day between $1 and $2 or day < $4 and instrument_id = any($3))`,
    [days[0], days.at(-1), ids, actor.today],
  );
  const standing = await tx.query<{ id: number }>(
    `select instrument_id as id from planned where done_by_job is null and instrument_id = any($1)
     union select id from instrument where id = any($1) and state <> 'in service'`,
    [ids],
  );
  const stands = new Set(standing.map(({ id }) => id));
  const minutes = new Map(problem.jobs.map((job) => [job.id, job.minutes]));
  const rows = plan
    .filter(({ job }) => !stands.has(Number(job)))
    .map(({ job, person, day, references }) => ({
      instrumentId: Number(job),
      personId: Number(person),
      day: days[day] ?? '',
      minutes: minutes.get(job) ?? 1,
      references: [...references],
    }));
  await insertRows(tx, actor, rows, false);
  await appendToTrail(tx, actor, {
    act: 'plan',
    subject: { kind: 'site', id: 1 },
    detail: { from: days[0], to: days.at(-1), placed: rows.length },
  });
  return rows.length;
}

interface Standing {
  readonly tag: string;
  /** Of what is planned; null where nothing is. */
  readonly id: number | null;
  readonly revision: number | null;
}

/**
 * An instrument and what is planned of it, as the acting planner saw it.
 * @param seen revision of what was looked at; null where it was not planned
 * @throws StoreError `no-such`, `changed-meanwhile`, `unknown-person`, `not-allowed`
 */
async function standing(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
  seen: number | null,
): Promise<Standing> {
  await requireScheduler(tx, actor);
  await lockPlan(tx);
  const [row] = await tx.query<Standing>(
    `select tag, planned.id, planned.revision
     from instrument left join planned on instrument_id = instrument.id and done_by_job is null
     where instrument.id = $1 and state = 'in service'`,
    [instrumentId],
  );
  if (row === undefined)
    throw new StoreError({ code: 'no-such', what: 'instrument in service', name: instrumentId });
  if (row.revision !== seen)
    throw new StoreError({ code: 'changed-meanwhile', what: `the plan of ${row.tag}` });
  return row;
}

/**
 * Puts an instrument somewhere by hand, where planning anew leaves it. What clashes is kept and shown: a planner knows why.
 * @param seen revision of what was looked at; null where it was not planned
 * @throws StoreError `no-such`, `no-plan-day`, `changed-meanwhile`, `unknown-person`, `not-allowed`
 */
export async function putPlanned(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
  seen: number | null,
  entry: Put,
): Promise<void> {
  const { tag, id: before } = await standing(tx, actor, instrumentId, seen);
  checkPlanDay(entry.day, actor.today);
  const [worker] = await tx.query(`select from person where id = $1 and is_active and role = 'technician'`, [
    entry.personId,
  ]);
  if (worker === undefined)
    throw new StoreError({ code: 'no-such', what: 'technician', name: entry.personId });
  if (before !== null) await tx.query('delete from planned where id = $1', [before]);
  const [id = 0] = await insertRows(tx, actor, [{ ...entry, instrumentId }], true);
  await tx.query('update planned set revision = $2 where id = $1', [id, (seen ?? 0) + 1]);
  await appendToTrail(tx, actor, {
    act: 'put in plan',
    subject: { kind: 'instrument', id: instrumentId },
    detail: { tag, ...entry },
  });
}

/**
 * Fixes what is planned where it stands, or leaves it to the next plan.
 * @throws StoreError `no-such`, `changed-meanwhile`, `unknown-person`, `not-allowed`
 */
export async function fixPlanned(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
  seen: number,
  isFixed: boolean,
): Promise<void> {
  const { tag, id } = await standing(tx, actor, instrumentId, seen);
  await tx.query('update planned set is_fixed = $2, revision = revision + 1 where id = $1', [id, isFixed]);
  await appendToTrail(tx, actor, {
    act: isFixed ? 'fix in plan' : 'free in plan',
    subject: { kind: 'instrument', id: instrumentId },
    detail: { tag },
  });
}

/**
 * Takes an instrument out of the plan.
 * @throws StoreError `no-such`, `changed-meanwhile`, `unknown-person`, `not-allowed`
 */
export async function takeOutOfPlan(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
  seen: number,
): Promise<void> {
  const { tag, id } = await standing(tx, actor, instrumentId, seen);
  await tx.query('delete from planned where id = $1', [id]);
  await appendToTrail(tx, actor, {
    act: 'take out of plan',
    subject: { kind: 'instrument', id: instrumentId },
    detail: { tag },
  });
}
