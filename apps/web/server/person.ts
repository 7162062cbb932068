/** Who acts: the person whose session the browser's cookie is, or whose token a program brings. */
import { StoreError } from '@barys/store/db';
import { personOfSession, personOfToken, type Actor, type Person, type Scope } from '@barys/store/people';
import { cookies, headers } from 'next/headers';
import { cache } from 'react';
import { database } from './database';
import { moment } from './moment';
import { programToken, SESSION_COOKIE } from './asked';

/** Whose token a program brought, or undefined where it brought none. */
async function personOfProgram(scope: Scope): Promise<Person | null | undefined> {
  const given = await headers();
  const token = programToken({ header: (name) => given.get(name) });
  return token === null ? undefined : personOfToken(database(), token, scope, new Date());
}

/** Who is asking, by session or by token, or null. Asked once a request. */
export const actingPerson = cache(async (): Promise<Person | null> => {
  const program = await personOfProgram('read');
  if (program !== undefined) return program;
  const token = (await cookies()).get(SESSION_COOKIE)?.value;
  return token === undefined ? null : personOfSession(database(), token, new Date());
});

/**
 * The acting person at this moment, for an act.
 * @throws StoreError `unknown-person`
 */
export async function currentActor(): Promise<Actor> {
  const program = await personOfProgram('write');
  const person = program === undefined ? await actingPerson() : program;
  if (person === null) throw new StoreError({ code: 'unknown-person' });
  return { personId: person.id, ...moment(), via: program === undefined ? 'session' : 'program' };
}

/**
 * For a route that only reads: whoever is signed in, or a program with a token.
 * @throws StoreError `unknown-person`
 */
export async function requireReader(): Promise<Person> {
  const person = await actingPerson();
  if (person === null) throw new StoreError({ code: 'unknown-person' });
  return person;
}
