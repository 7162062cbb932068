/** People and what their roles allow. The role is checked here, at every act, whatever a page has shown. */
import type { Actor } from './actor';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';

export const ROLES = ['technician', 'reviewer', 'planner', 'administrator', 'auditor'] as const;
export type Role = (typeof ROLES)[number];

/** Scripts whose letters can be taken for each other's (Unicode Technical Standard 39, mixed-script confusables; from memory). */
const SCRIPTS = [/\p{Script=Latin}/u, /\p{Script=Cyrillic}/u, /\p{Script=Greek}/u, /\p{Script=Armenian}/u];

export const personSchema = z.object({
  name: z
    .string()
    .transform((text) => text.normalize('NFC').replace(/\s+/gu, ' ').trim())
    .pipe(
      z
        .string()
        .min(1, 'A person needs a name.')
        .max(60, 'At most 60 characters, please.')
        .refine(
          (name) => !/[\p{C}\p{Zl}\p{Zp}]/u.test(name),
          'The name holds a character that cannot be seen. Type it again.',
        )
        .refine(
          (name) => SCRIPTS.filter((script) => script.test(name)).length <= 1,
          'The name mixes letters of two scripts that look alike. Type it in one.',
        ),
    ),
  role: z.enum(ROLES),
  /** What the person types to sign in; null where they do not. */
  login: z
    .string()
    .trim()
    .toLowerCase()
    .regex(
      /^[a-z0-9][a-z0-9._-]{1,39}$/,
      'A login is 2 to 40 small letters, digits, dots, hyphens or underscores.',
    )
    .nullable(),
  isActive: z.boolean(),
});
export type NewPerson = z.infer<typeof personSchema>;
export type Person = Readonly<NewPerson> & {
  readonly id: number;
  readonly hasPassword: boolean;
  /** Whether somebody else has set the password, so that nothing is done before it is changed. */
  readonly mustChangePassword: boolean;
  /** Whether entrusted with the intervals of safety functions. */
  readonly decidesSafety: boolean;
};

/** Who works on instruments, who plans that work, who keeps the registers, and who keeps the people. */
const WORKING_ROLES: readonly Role[] = ['technician', 'administrator'];
const PLANNING_ROLES: readonly Role[] = ['technician', 'planner', 'administrator'];
const REVIEWING_ROLES: readonly Role[] = ['reviewer', 'technician', 'administrator'];
const KEEPING_ROLES: readonly Role[] = ['technician', 'planner', 'administrator'];
const ADMINISTERING_ROLES: readonly Role[] = ['administrator'];
/** Who decides how often an instrument is calibrated, and when. */
export const SCHEDULING_ROLES: readonly Role[] = ['planner', 'administrator'];
/** Who sees how others practise. */
export const TRAINING_ROLES: readonly Role[] = ['planner', 'administrator'];

/** A person as everybody may know them. */
export const PERSON_SQL = `select id, name, role, login, is_active as "isActive",
  password_hash is not null as "hasPassword", must_change_password as "mustChangePassword",
  decides_safety as "decidesSafety" from person`;

/** People who work here now. */
export function listPeople(db: Queryable): Promise<Person[]> {
  return db.query<Person>(`${PERSON_SQL} where is_active order by id`);
}

/** All there ever were: who has left keeps a name in the records. */
export function listEverybody(db: Queryable): Promise<Person[]> {
  return db.query<Person>(`${PERSON_SQL} order by is_active desc, id`);
}

export async function findPerson(db: Queryable, id: number): Promise<Person | null> {
  const [person] = await db.query<Person>(`${PERSON_SQL} where id = $1 and is_active`, [id]);
  return person ?? null;
}

/** Two people whose names differ in nothing but capitals would be one on paper. */
async function refuseNamesake(tx: Queryable, name: string, id: number | null): Promise<void> {
  const same = await tx.query('select from person where lower(name) = lower($1) and id is distinct from $2', [
    name,
    id,
  ]);
  if (same.length > 0) throw new StoreError({ code: 'taken', what: 'person', name });
}

async function insertPerson(tx: Queryable, { name, role, login, isActive }: NewPerson): Promise<number> {
  await refuseNamesake(tx, name, null);
  const [row] = await refuseTaken(
    { what: 'person', name: login === null ? name : `${name} or login ${login}` },
    () =>
      tx.query<{ id: number }>(
        'insert into person (name, role, login, is_active) values ($1, $2, $3, $4) returning id',
        [name, role, login, isActive],
      ),
  );
  if (row === undefined) throw new Error('PostgreSQL returned no row for an inserted person');
  return row.id;
}

/**
 * Enters the first person of an installation, who is its administrator and acts for themselves.
 * @throws StoreError `not-first`
 */
export async function addFirstPerson(
  tx: Queryable,
  at: Pick<Actor, 'at' | 'today'>,
  entry: NewPerson,
): Promise<Actor> {
  await tx.query("select pg_advisory_xact_lock(hashtext('first person'))");
  if ((await tx.query('select from person limit 1')).length > 0) throw new StoreError({ code: 'not-first' });
  const actor: Actor = { ...at, personId: await insertPerson(tx, entry) };
  await appendToTrail(tx, actor, {
    act: 'add person',
    subject: { kind: 'person', id: actor.personId },
    detail: { ...entry },
  });
  return actor;
}

/** @throws StoreError `taken`, `unknown-person`, `not-allowed` */
export async function addPerson(tx: Queryable, actor: Actor, entry: NewPerson): Promise<number> {
  await requireAdministrator(tx, actor);
  const id = await insertPerson(tx, entry);
  await appendToTrail(tx, actor, {
    act: 'add person',
    subject: { kind: 'person', id },
    detail: { ...entry },
  });
  return id;
}

/**
 * Changes a person. A change of role or login, or leaving, ends the person's sessions and tokens.
 * @throws StoreError `no-such`, `taken`, `last-administrator`, `unknown-person`, `not-allowed`
 */
export async function changePerson(tx: Queryable, actor: Actor, id: number, entry: NewPerson): Promise<void> {
  await requireAdministrator(tx, actor);
  const [before] = await tx.query<NewPerson>(
    `select name, role, login, is_active as "isActive" from person where id = $1 for no key update`,
    [id],
  );
  if (before === undefined) throw new StoreError({ code: 'no-such', what: 'person', name: id });
  await refuseNamesake(tx, entry.name, id);
  const isLeaving = before.role === 'administrator' && (entry.role !== 'administrator' || !entry.isActive);
  if (isLeaving) {
    await tx.query("select pg_advisory_xact_lock(hashtext('last administrator'))");
    const others = await tx.query(
      `select from person where role = 'administrator' and is_active and id <> $1`,
      [id],
    );
    if (others.length === 0) throw new StoreError({ code: 'last-administrator' });
  }
  if (before.name !== entry.name)
    await tx.query('insert into person_former_name (person_id, name, until) values ($1, $2, $3)', [
      id,
      before.name,
      actor.at,
    ]);
  await refuseTaken({ what: 'person', name: `${entry.name} or login ${entry.login ?? ''}` }, () =>
    tx.query('update person set name = $2, role = $3, login = $4, is_active = $5 where id = $1', [
      id,
      entry.name,
      entry.role,
      entry.login,
      entry.isActive,
    ]),
  );
  if (before.role !== entry.role || before.login !== entry.login || !entry.isActive) {
    await tx.query('delete from session where person_id = $1', [id]);
    await tx.query('update api_token set revoked_at = $2 where person_id = $1 and revoked_at is null', [
      id,
      actor.at,
    ]);
  }
  await appendToTrail(tx, actor, {
    act: 'change person',
    subject: { kind: 'person', id },
    detail: { before, after: entry },
  });
}

/**
 * Entrusts a person with the intervals of safety functions, or no longer.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function setSafetyAuthority(
  tx: Queryable,
  actor: Actor,
  id: number,
  decidesSafety: boolean,
): Promise<void> {
  await requireAdministrator(tx, actor);
  const [before] = await tx.query<{ decidesSafety: boolean }>(
    'select decides_safety as "decidesSafety" from person where id = $1 for no key update',
    [id],
  );
  if (before === undefined) throw new StoreError({ code: 'no-such', what: 'person', name: id });
  if (before.decidesSafety === decidesSafety) return;
  await tx.query('update person set decides_safety = $2 where id = $1', [id, decidesSafety]);
  await appendToTrail(tx, actor, {
    act: 'change person',
    subject: { kind: 'person', id },
    detail: { before, after: { decidesSafety } },
  });
}

type Acting = Pick<Person, 'name' | 'role' | 'isActive' | 'mustChangePassword'>;

function checkRole<P extends Acting>(person: P | null, roles: readonly Role[]): P {
  if (person?.isActive !== true) throw new StoreError({ code: 'unknown-person' });
  if (person.mustChangePassword) throw new StoreError({ code: 'password-to-change' });
  if (!roles.includes(person.role))
    throw new StoreError({ code: 'not-allowed', person: person.name, role: person.role });
  return person;
}

const requireRole = async (db: Queryable, actor: Actor, roles: readonly Role[]): Promise<Person> =>
  checkRole(await findPerson(db, actor.personId), roles);

/**
 * The same of a person who was looked up with something else.
 * @throws StoreError `unknown-person`, `password-to-change`, `not-allowed`
 */
export const checkWorker = <P extends Acting>(person: P): P => checkRole(person, WORKING_ROLES);

/** What `checkWorker` checks, of a row of `person`: for a statement that looks and writes at once. */
export const WORKER_SQL = `person.is_active and not person.must_change_password
  and person.role in (${WORKING_ROLES.map((role) => `'${role}'`).join(', ')})`;

/**
 * The acting person, if allowed to work on instruments.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export const requireWorker = (db: Queryable, actor: Actor): Promise<Person> =>
  requireRole(db, actor, WORKING_ROLES);

/**
 * The acting person, whatever they may do: what is asked of them is only that they are who they say.
 * @throws StoreError `unknown-person`
 */
export const requirePerson = (db: Queryable, actor: Actor): Promise<Person> => requireRole(db, actor, ROLES);

/**
 * The acting person, if allowed to see how others practise.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export const requireTrainer = (db: Queryable, actor: Actor): Promise<Person> =>
  requireRole(db, actor, TRAINING_ROLES);

/**
 * The acting person, if allowed to open jobs.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export const requirePlanner = (db: Queryable, actor: Actor): Promise<Person> =>
  requireRole(db, actor, PLANNING_ROLES);

/**
 * The acting person, if allowed to review a signed job.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export const requireReviewer = (db: Queryable, actor: Actor): Promise<Person> =>
  requireRole(db, actor, REVIEWING_ROLES);

/**
 * The acting person, if allowed to keep the registers: instruments, bodies, references, procedures.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export const requireKeeper = (db: Queryable, actor: Actor): Promise<Person> =>
  requireRole(db, actor, KEEPING_ROLES);

/**
 * The acting person, if allowed to decide how often an instrument is calibrated, and when.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export const requireScheduler = (db: Queryable, actor: Actor): Promise<Person> =>
  requireRole(db, actor, SCHEDULING_ROLES);

/**
 * The acting person, if allowed to keep the people and to bring in files.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export const requireAdministrator = (db: Queryable, actor: Actor): Promise<Person> =>
  requireRole(db, actor, ADMINISTERING_ROLES);
