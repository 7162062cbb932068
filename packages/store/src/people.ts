/** Who acts. Until people sign in, the acting person is chosen from the list; the role is checked here all the same. */
import type { Queryable } from './database';
import { StoreError } from './errors';

export type Role = 'technician' | 'reviewer' | 'planner' | 'administrator' | 'auditor';

export interface Person {
  readonly id: number;
  readonly name: string;
  readonly role: Role;
}

/** Who does something and when, by the server's clock. */
export interface Actor {
  readonly personId: number;
  readonly at: Date;
  /** The calendar day of `at` where the works is, ISO date: due dates are days, not instants. */
  readonly today: string;
}

const WORKING_ROLES: readonly Role[] = ['technician', 'administrator'];

export function listPeople(db: Queryable): Promise<Person[]> {
  return db.query<Person>('select id, name, role from person where is_active order by id');
}

export async function findPerson(db: Queryable, id: number): Promise<Person | null> {
  const [person] = await db.query<Person>('select id, name, role from person where id = $1 and is_active', [
    id,
  ]);
  return person ?? null;
}

export async function addPerson(tx: Queryable, name: string, role: Role): Promise<number> {
  const [row] = await tx.query<{ id: number }>(
    'insert into person (name, role) values ($1, $2) returning id',
    [name, role],
  );
  if (row === undefined) throw new Error('PostgreSQL returned no row for an inserted person');
  return row.id;
}

/**
 * The acting person, if allowed to work on instruments.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function requireWorker(db: Queryable, actor: Actor): Promise<Person> {
  const person = await findPerson(db, actor.personId);
  if (person === null) throw new StoreError({ code: 'unknown-person' });
  if (!WORKING_ROLES.includes(person.role))
    throw new StoreError({ code: 'not-allowed', person: person.name, role: person.role });
  return person;
}
