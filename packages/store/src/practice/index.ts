/** Attempts at the practice bench: apart from all real work. */
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requirePerson, requireTrainer } from '../people/people';

export interface NewAttempt {
  /** A UUID made by the browser; the same one twice is the same attempt sent twice. */
  readonly clientKey: string;
  readonly lesson: string;
  readonly seed: number;
  readonly record: readonly unknown[];
  readonly points: number;
  readonly timeS: number;
}

export interface Attempt extends Omit<NewAttempt, 'clientKey'> {
  readonly id: number;
  readonly personId: number;
  readonly by: string;
  readonly finishedAt: Date;
}

/**
 * Keeps an attempt that was scored.
 * @throws StoreError `unknown-person`, `key-used` where the key is another person's
 */
export async function keepAttempt(
  tx: Queryable,
  actor: Actor,
  { clientKey, lesson, seed, record, points, timeS }: NewAttempt,
): Promise<number> {
  await requirePerson(tx, actor);
  await tx.query(
    `insert into practice_attempt (client_key, person_id, lesson, seed, record, points, time_s, finished_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8) on conflict (client_key) do nothing`,
    [clientKey, actor.personId, lesson, seed, JSON.stringify(record), points, timeS, actor.at],
  );
  const [kept] = await tx.query<{ id: number; personId: number }>(
    'select id, person_id as "personId" from practice_attempt where client_key = $1',
    [clientKey],
  );
  if (kept?.personId !== actor.personId) throw new StoreError({ code: 'key-used' });
  return kept.id;
}

/** How somebody stands at a lesson. */
export interface Progress {
  readonly by: string;
  readonly lesson: string;
  readonly attempts: number;
  readonly best: number;
  readonly last: number;
  readonly lastId: number;
  readonly lastAt: Date;
}

const PROGRESS_SQL = `
  select person.name as by, lesson, count(*)::int as attempts, max(points) as best,
    (array_agg(points order by practice_attempt.id desc))[1] as last,
    (array_agg(practice_attempt.id order by practice_attempt.id desc))[1] as "lastId", max(finished_at) as "lastAt"
  from practice_attempt join person on person.id = person_id`;

/** One's own best and last of each lesson. */
export const ownProgress = (db: Queryable, personId: number): Promise<Progress[]> =>
  db.query<Progress>(`${PROGRESS_SQL} where person_id = $1 group by person.name, lesson order by lesson`, [
    personId,
  ]);

/**
 * Everybody's progress, for whoever trains them.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function everybodysProgress(db: Queryable, actor: Actor): Promise<Progress[]> {
  await requireTrainer(db, actor);
  return db.query<Progress>(
    `${PROGRESS_SQL} group by person.id, person.name, lesson order by person.name, lesson limit 2000`,
  );
}

/**
 * An attempt, for who made it or who trains them.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function findAttempt(db: Queryable, actor: Actor, id: number): Promise<Attempt> {
  const [attempt] = await db.query<Attempt>(
    `select practice_attempt.id, person_id as "personId", person.name as by, lesson, seed, record, points,
       time_s as "timeS", finished_at as "finishedAt"
     from practice_attempt join person on person.id = person_id where practice_attempt.id = $1`,
    [id],
  );
  if (attempt === undefined) throw new StoreError({ code: 'no-such', what: 'attempt', name: id });
  if (attempt.personId !== actor.personId) await requireTrainer(db, actor);
  else await requirePerson(db, actor);
  return attempt;
}
