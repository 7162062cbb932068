'use server';
/** What an administrator does to the people. */
import { addPerson, changePerson, personSchema, setPassword, setSafetyAuthority } from '@barys/store/people';
import { z } from 'zod';
import { act, thenGo } from '@/server/act';
import type { Answer } from '@/server/answer';

import { newPassword } from '@/places/account/password';

const key = z.number().int().positive();

export interface PersonFields {
  readonly name: string;
  readonly role: string;
  readonly login: string;
  readonly state: string;
  readonly safety: string;
  readonly password: string;
}

/** Adds a person or changes one; a password that is typed is set. */
export async function keepPersonAction(entry: { id: number | null; fields: PersonFields }): Promise<Answer> {
  return thenGo(async () => {
    const { name, role, login, state, safety, password } = entry.fields;
    const person = personSchema.parse({
      name,
      role,
      login: login.trim() === '' ? null : login,
      isActive: state === 'works here',
    });
    const chosen = password === '' ? null : newPassword(password);
    await act(async (tx, actor) => {
      const id = entry.id === null ? await addPerson(tx, actor, person) : key.parse(entry.id);
      if (entry.id !== null) await changePerson(tx, actor, id, person);
      await setSafetyAuthority(tx, actor, id, safety === 'is entrusted with them');
      if (chosen !== null) await setPassword(tx, actor, id, { password: chosen, current: null });
    });
    return '/office/people';
  });
}
