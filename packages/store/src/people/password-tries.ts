/**
 * How often passwords may be tried. Tries are counted by what is tried, each key by itself, so that a stranger's guesses
 * at a login shut out neither who is signed in nor a browser that was signed in before. After some free tries each
 * further one has to wait twice as long as the one before.
 */
import dayjs from 'dayjs';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';

/** What a try is counted for. */
export type TryKey =
  | { readonly kind: 'login'; readonly login: string }
  /** A browser that the person was signed in with before. */
  | { readonly kind: 'known'; readonly browser: string; readonly login: string }
  | { readonly kind: 'address'; readonly address: string }
  /** One's own password, typed again to sign or to change it. */
  | { readonly kind: 'own'; readonly personId: number };

/** Tries without a wait. An address may be a whole works, and one that tries many logins is still slowed. */
const FREE_TRIES: Readonly<Record<TryKey['kind'], number>> = { login: 5, known: 5, address: 20, own: 5 };
const WINDOW_MINUTES = 15;
const LONGEST_WAIT_S = 300;

const textOf = (key: TryKey): string => {
  switch (key.kind) {
    case 'login':
      return `login ${key.login}`;
    case 'known':
      return `known ${key.browser} ${key.login}`.slice(0, 160);
    case 'address':
      return `address ${key.address}`.slice(0, 160);
    case 'own':
      return `own ${key.personId}`;
  }
};

/**
 * Counts a try before the password is looked at, so that tries at once do not slip past together.
 * @param db not a transaction: a try has to stay counted
 * @throws StoreError `too-many-tries` with the seconds to wait; such a try is not counted, so that it makes nobody wait longer
 */
export async function countTry(db: Queryable, key: TryKey, at: Date): Promise<void> {
  const text = textOf(key);
  const since = dayjs(at).subtract(WINDOW_MINUTES, 'minute').toDate();
  await db.query('delete from password_try where at < $1', [since]);
  const [own] = await db.query<{ id: number }>(
    'insert into password_try (key, at) values ($1, $2) returning id',
    [text, at],
  );
  const id = own?.id ?? 0;
  const [before] = await db.query<{ count: number; last: Date | null }>(
    'select count(*)::int as count, max(at) as last from password_try where key = $1 and id < $2',
    [text, id],
  );
  const over = (before?.count ?? 0) - FREE_TRIES[key.kind];
  if (over < 0 || before?.last == null) return;
  const waitS = Math.min(2 ** (over + 1), LONGEST_WAIT_S);
  const leftMs = before.last.getTime() + waitS * 1000 - at.getTime();
  if (leftMs <= 0) return;
  await db.query('delete from password_try where id = $1', [id]);
  throw new StoreError({ code: 'too-many-tries', seconds: Math.ceil(leftMs / 1000) });
}

/** The right password ends the count of a key. */
export const forgetTries = (db: Queryable, key: TryKey): Promise<object[]> =>
  db.query('delete from password_try where key = $1', [textOf(key)]);
