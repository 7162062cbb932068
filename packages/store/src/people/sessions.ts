/**
 * Signing in: passwords, sessions of browsers, tokens of programs. Passwords are kept as Argon2id (RFC 9106; the
 * library's default cost, 19 MiB and two passes, is the least that OWASP's password storage sheet names, from memory).
 */
import { hash, verify } from '@node-rs/argon2';
import dayjs from 'dayjs';
import { createHash, randomBytes } from 'node:crypto';
import { zxcvbn, zxcvbnOptions } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { countTry, forgetTries, type TryKey } from './password-tries';
import { findPerson, PERSON_SQL, requireAdministrator, type Person } from './people';
import type { Actor } from './actor';
import { findSite } from './site';

const SESSION_DAYS = 14;
/** Longer than a shift: whoever comes back the next day signs in anew. */
const IDLE_HOURS = 12;

export const passwordSchema = z
  .string()
  .min(10, 'A password has at least 10 characters; a few words in a row are easy to remember.')
  .max(200, 'A password has at most 200 characters.');

zxcvbnOptions.setOptions({ dictionary: dictionary, graphs: adjacencyGraphs });

/** Of 0 to 4: guessed within 10^10 tries is 3 and less. */
const LEAST_SCORE = 3;

/** What makes a password weak, by the estimator's own names. */
const WEAKNESS: Readonly<Record<string, string>> = {
  straightRow: 'it is a row of keys. Take a few unusual words instead.',
  keyPattern: 'it is a pattern on the keyboard. Take a few unusual words instead.',
  simpleRepeat: 'it repeats itself. Take a few unusual words instead.',
  extendedRepeat: 'it repeats itself. Take a few unusual words instead.',
  sequences: 'it is a sequence. Take a few unusual words instead.',
  recentYears: 'years are tried first. Take a few unusual words instead.',
  dates: 'dates are tried first. Take a few unusual words instead.',
  topTen: 'it is among the ten that are tried first.',
  topHundred: 'it is among the hundred that are tried first.',
  common: 'it is a common password.',
  similarToCommon: 'it is like a common password.',
  userInputs: 'it is made of your own name or login.',
};

/** @throws StoreError `password-weak` for one that is guessed soon, also by who knows the person */
function requireStrong(password: string, known: readonly string[]): void {
  // Beyond that length the estimate takes long and is high enough.
  const { score, feedback } = zxcvbn(password.slice(0, 72), [...known, 'barys', 'calibration']);
  if (score < LEAST_SCORE)
    throw new StoreError({
      code: 'password-weak',
      why: WEAKNESS[feedback.warning ?? ''] ?? 'take a few unusual words in a row.',
    });
}

export const hashOfToken = (token: string): Buffer => createHash('sha256').update(token).digest();
const newToken = (): string => randomBytes(32).toString('base64url');

/** Compared with where there is no such login, so that the time taken does not tell. */
let standIn: Promise<string> | undefined;

const HOUR_MS = 3_600_000;
export const idleSince = (at: Date): Date => new Date(at.getTime() - IDLE_HOURS * HOUR_MS);

async function beginSession(tx: Queryable, personId: number, at: Date): Promise<string> {
  const token = newToken();
  await tx.query('delete from session where expires_at < $1 or seen_at < $2', [at, idleSince(at)]);
  await tx.query(
    'insert into session (token_hash, person_id, created_at, expires_at, seen_at) values ($1, $2, $3, $4, $3)',
    [hashOfToken(token), personId, at, dayjs(at).add(SESSION_DAYS, 'day').toDate()],
  );
  return token;
}

type Moment = Pick<Actor, 'at' | 'today'>;

const signedIn = async (tx: Queryable, moment: Moment, personId: number): Promise<string> => {
  const token = await beginSession(tx, personId, moment.at);
  await appendToTrail(
    tx,
    { ...moment, personId },
    { act: 'sign in', subject: { kind: 'person', id: personId } },
  );
  return token;
};

/**
 * Counts a try at one's own password, typed again to sign or to change it; the right one begins the count anew.
 * @param db not a transaction: a failed try has to stay counted
 * @throws StoreError `too-many-tries`
 */
export async function countPasswordTry(db: Queryable, { personId, at }: Actor): Promise<void> {
  if (await hasPassword(db, personId)) await countTry(db, { kind: 'own', personId }, at);
}

/** From where somebody signs in. */
export interface SignInFrom {
  readonly address: string;
  /** What the browser remembers of an earlier sign-in; null where it remembers nothing. */
  readonly browser: string | null;
  /** Whether the person's sessions in other browsers end. */
  readonly endsOthers?: boolean;
}

/** Whether a browser was signed in before by whoever has a login. */
async function isKnownBrowser(db: Queryable, login: string, browser: string | null): Promise<boolean> {
  if (browser === null) return false;
  const rows = await db.query(
    `select from known_browser join person on person.id = person_id where token_hash = $1 and login = $2`,
    [hashOfToken(browser), login],
  );
  return rows.length > 0;
}

interface FailedTry {
  readonly login: string;
  readonly address: string;
}

/** A try that came to nothing is in the trail under nobody's name, since nobody knows whose it was. */
async function noteFailed(db: Queryable, at: Date, act: string, tried: FailedTry): Promise<void> {
  const [person] = await db.query<{ id: number }>('select id from person where login = $1', [tried.login]);
  await appendToTrail(
    db,
    { at, personId: null },
    { act, subject: { kind: 'person', id: person?.id ?? 0 }, detail: { ...tried } },
  );
}

/** The same for one that has to wait; a minute's worth of them is one entry, so that guessing cannot fill the disk. */
async function noteLocked(db: Queryable, at: Date, tried: FailedTry): Promise<void> {
  const recent = await db.query(
    `select from audit_entry where act = 'refuse sign-in' and at > $1 and detail = $2 limit 1`,
    [dayjs(at).subtract(1, 'minute').toDate(), JSON.stringify(tried)],
  );
  if (recent.length === 0) await noteFailed(db, at, 'refuse sign-in', tried);
}

/**
 * Signs somebody in by login and password.
 * @param db not a transaction: a failed try has to stay counted
 * @returns the token of the session, and what the browser is known by from now on
 * @throws StoreError `wrong-password`, `too-many-tries`
 */
export async function signIn(
  db: Queryable & { transaction<T>(act: (tx: Queryable) => Promise<T>): Promise<T> },
  moment: Moment,
  typed: { readonly login: string; readonly password: string },
  from: SignInFrom,
): Promise<{ readonly session: string; readonly browser: string }> {
  const login = typed.login.trim().toLowerCase().slice(0, 100);
  const keys: readonly TryKey[] = (await isKnownBrowser(db, login, from.browser))
    ? [{ kind: 'known', browser: hashOfToken(from.browser ?? '').toString('base64url'), login }]
    : [
        { kind: 'address', address: from.address },
        { kind: 'login', login },
      ];
  try {
    for (const key of keys) await countTry(db, key, moment.at);
  } catch (error) {
    await noteLocked(db, moment.at, { login, address: from.address });
    throw error;
  }
  const [person] = await db.query<{ id: number; passwordHash: string }>(
    `select id, password_hash as "passwordHash" from person
     where login = $1 and is_active and password_hash is not null`,
    [login],
  );
  standIn ??= hash(newToken());
  const isRight = await verify(person?.passwordHash ?? (await standIn), typed.password.slice(0, 500));
  if (person === undefined || !isRight) {
    await noteFailed(db, moment.at, 'fail sign-in', { login, address: from.address });
    throw new StoreError({ code: 'wrong-password' });
  }
  for (const key of keys) if (key.kind !== 'address') await forgetTries(db, key);
  return db.transaction(async (tx) => {
    if (from.endsOthers === true) await tx.query('delete from session where person_id = $1', [person.id]);
    const browser = newToken();
    if (from.browser !== null)
      await tx.query('delete from known_browser where token_hash = $1 and person_id = $2', [
        hashOfToken(from.browser),
        person.id,
      ]);
    await tx.query('insert into known_browser (token_hash, person_id, seen_at) values ($1, $2, $3)', [
      hashOfToken(browser),
      person.id,
      moment.at,
    ]);
    return { session: await signedIn(tx, moment, person.id), browser };
  });
}

/**
 * Signs in without a password, which only the demo does.
 * @throws StoreError `not-a-demo`, `unknown-person`
 */
export async function signInToDemo(tx: Queryable, moment: Moment, personId: number): Promise<string> {
  if (!(await findSite(tx))?.isDemo) throw new StoreError({ code: 'not-a-demo' });
  if ((await findPerson(tx, personId)) === null) throw new StoreError({ code: 'unknown-person' });
  return signedIn(tx, moment, personId);
}

/** How often a session is noted as in use; whoever remembers one has to look again as often. */
export const SEEN_EVERY_MS = 60_000;

/** Whether a row of `session` stands, by the names of three parameters: its hash, the moment, and `idleSince` of it. */
export const sessionStands = (hash: string, at: string, idle: string): string =>
  `token_hash = ${hash} and expires_at > ${at} and seen_at > ${idle}`;

/** Whose session a token is, or null; one that was not used for a shift is over. */
export async function personOfSession(db: Queryable, token: string, at: Date): Promise<Person | null> {
  const [row] = await db.query<Person & { seenAt: Date }>(
    `select person.*, seen_at as "seenAt" from session join (${PERSON_SQL} where is_active) person on person.id = person_id
     where ${sessionStands('$1', '$2', '$3')}`,
    [hashOfToken(token), at, idleSince(at)],
    'person-of-session',
  );
  // Written now and then, not at every request.
  if (row !== undefined && at.getTime() - row.seenAt.getTime() >= SEEN_EVERY_MS)
    await db.query('update session set seen_at = $2 where token_hash = $1 and seen_at < $2', [
      hashOfToken(token),
      at,
    ]);
  if (row === undefined) return null;
  const { seenAt: _seenAt, ...person } = row;
  return person;
}

/** Ends a session; one that is over already is left alone. */
export async function signOut(tx: Queryable, moment: Moment, token: string): Promise<void> {
  const [ended] = await tx.query<{ personId: number }>(
    'delete from session where token_hash = $1 returning person_id as "personId"',
    [hashOfToken(token)],
  );
  if (ended !== undefined)
    await appendToTrail(
      tx,
      { ...moment, personId: ended.personId },
      { act: 'sign out', subject: { kind: 'person', id: ended.personId } },
    );
}

/** Whether a person has a password; those of the demo have none. */
export async function hasPassword(db: Queryable, personId: number): Promise<boolean> {
  const [row] = await db.query<{ has: boolean }>(
    'select password_hash is not null as has from person where id = $1',
    [personId],
  );
  return row?.has ?? false;
}

/** Whether a password is the person's own, for signing a job and for changing it. */
export async function isPasswordOf(db: Queryable, personId: number, password: string): Promise<boolean> {
  const [row] = await db.query<{ passwordHash: string | null }>(
    'select password_hash as "passwordHash" from person where id = $1',
    [personId],
  );
  if (row?.passwordHash == null || !(await verify(row.passwordHash, password.slice(0, 500)))) return false;
  await forgetTries(db, { kind: 'own', personId });
  return true;
}

/**
 * Sets a password: one's own with the old one, anybody's as administrator. All sessions of the person
 * end, all tokens are revoked, and tries counted before are forgotten.
 * A password that an administrator has set is to be changed at once.
 * @throws StoreError `wrong-password`, `password-weak`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function setPassword(
  tx: Queryable,
  actor: Actor,
  personId: number,
  { password, current }: { readonly password: string; readonly current: string | null },
): Promise<void> {
  if (personId === actor.personId && current !== null) {
    if (!(await isPasswordOf(tx, personId, current))) throw new StoreError({ code: 'wrong-password' });
    if (password === current)
      throw new StoreError({ code: 'password-weak', why: 'it is the one that you have. Choose another.' });
  } else await requireAdministrator(tx, actor);
  const [person] = await tx.query<{ name: string; login: string | null }>(
    'select name, login from person where id = $1',
    [personId],
  );
  if (person === undefined) throw new StoreError({ code: 'no-such', what: 'person', name: personId });
  requireStrong(passwordSchema.parse(password), [person.name, person.login ?? '']);
  const isOwn = personId === actor.personId;
  const changed = await tx.query<{ login: string | null }>(
    'update person set password_hash = $2, must_change_password = $3 where id = $1 returning login',
    [personId, await hash(password), !isOwn],
  );
  const [{ login } = { login: null }] = changed;
  if (login !== null) await forgetTries(tx, { kind: 'login', login });
  await forgetTries(tx, { kind: 'own', personId });
  await tx.query('delete from session where person_id = $1', [personId]);
  await tx.query('delete from known_browser where person_id = $1', [personId]);
  await tx.query('update api_token set revoked_at = $2 where person_id = $1 and revoked_at is null', [
    personId,
    actor.at,
  ]);
  await appendToTrail(tx, actor, { act: 'set password', subject: { kind: 'person', id: personId } });
}

export const SCOPES = ['read', 'write', 'link'] as const;
export type Scope = (typeof SCOPES)[number];

export const tokenSchema = z.object({
  name: z.string().trim().min(1, 'Say what the token is for.').max(60, 'At most 60 characters, please.'),
  scope: z.enum(SCOPES),
  days: z
    .number({ error: 'The days until it expires are a whole number.' })
    .int('The days until it expires are a whole number.')
    .min(1, 'A token lives at least a day.')
    .max(366, 'A token lives at most a year.'),
});

export interface ApiToken {
  readonly id: number;
  readonly name: string;
  readonly scope: Scope;
  readonly person: string;
  readonly createdAt: Date;
  readonly expiresAt: Date;
  readonly revokedAt: Date | null;
}

/** Tokens of one person, the newest first. */
export function tokensOf(db: Queryable, personId: number): Promise<ApiToken[]> {
  return db.query<ApiToken>(
    `select api_token.id, api_token.name, scope, person.name as person, created_at as "createdAt",
       expires_at as "expiresAt", revoked_at as "revokedAt"
     from api_token join person on person.id = person_id where person_id = $1 order by api_token.id desc`,
    [personId],
  );
}

/**
 * Makes a token that acts as its maker. That of a link reaches for its bench alone; an administrator makes it.
 * @returns the token itself, which cannot be shown again
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function makeToken(
  tx: Queryable,
  actor: Actor,
  { name, scope, days }: z.infer<typeof tokenSchema>,
): Promise<string> {
  const person = await findPerson(tx, actor.personId);
  if (person === null) throw new StoreError({ code: 'unknown-person' });
  if (person.mustChangePassword) throw new StoreError({ code: 'password-to-change' });
  if (scope === 'link') await requireAdministrator(tx, actor);
  const token = `barys_${newToken()}`;
  const expiresAt = dayjs(actor.at).add(days, 'day').toDate();
  const [row] = await tx.query<{ id: number }>(
    `insert into api_token (person_id, name, scope, token_hash, created_at, expires_at)
     values ($1, $2, $3, $4, $5, $6) returning id`,
    [actor.personId, name, scope, hashOfToken(token), actor.at, expiresAt],
  );
  await appendToTrail(tx, actor, {
    act: 'make token',
    subject: { kind: 'token', id: row?.id ?? 0 },
    detail: { name, scope, expiresAt },
  });
  return token;
}

/** @throws StoreError `no-such` where it is not one's own */
export async function revokeToken(tx: Queryable, actor: Actor, id: number): Promise<void> {
  const revoked = await tx.query(
    'update api_token set revoked_at = $3 where id = $1 and person_id = $2 and revoked_at is null returning id',
    [id, actor.personId, actor.at],
  );
  if (revoked.length === 0) throw new StoreError({ code: 'no-such', what: 'token', name: id });
  await appendToTrail(tx, actor, { act: 'revoke token', subject: { kind: 'token', id } });
}

/** Whom a token acts as, if it is valid and its scope reaches; null if not. */
export async function personOfToken(
  db: Queryable,
  token: string,
  wanted: Scope,
  at: Date,
): Promise<Person | null> {
  const [row] = await db.query<{ id: number }>(
    `select person_id as id from api_token
     where token_hash = $1 and revoked_at is null and expires_at > $2 and scope = any($3)`,
    [hashOfToken(token), at, wanted === 'read' ? ['read', 'write'] : [wanted]],
  );
  return row === undefined ? null : findPerson(db, row.id);
}
