import { findPerson, StoreError, type Actor, type Person } from '@barys/store';
import { cookies } from 'next/headers';
import { database } from './database';
import { localDate } from './dates';

const COOKIE = 'barys-person';

/** Who was chosen to work in this browser, or null. */
export async function actingPerson(): Promise<Person | null> {
  const id = Number((await cookies()).get(COOKIE)?.value);
  return Number.isSafeInteger(id) && id > 0 ? findPerson(database(), id) : null;
}

export async function rememberPerson(id: number): Promise<void> {
  (await cookies()).set(COOKIE, String(id), {
    httpOnly: true,
    sameSite: 'strict',
    path: '/',
    maxAge: 60 * 60 * 24 * 30,
  });
}

/**
 * The acting person at this moment, for an act.
 * @throws StoreError `unknown-person`
 */
export async function currentActor(): Promise<Actor> {
  const person = await actingPerson();
  if (person === null) throw new StoreError({ code: 'unknown-person' });
  const at = new Date();
  return { personId: person.id, at, today: localDate(at) };
}
