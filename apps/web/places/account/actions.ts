'use server';
/** Signing in and out, one's own password, and tokens. */
import {
  addFirstPerson,
  addSite,
  findSite,
  makeToken,
  personSchema,
  revokeToken,
  setPassword,
  signIn,
  signInToDemo,
  signOut,
  tokenSchema,
} from '@barys/store/people';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { z } from 'zod';
import { act, actWithPassword, answer, thenGo, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { database } from '@/server/database';
import {} from '@/server/person';
import { moment } from '@/server/moment';
import { SESSION_COOKIE } from '@/server/asked';
import { senderAddress } from '@/server/address';
import { forgetSession, rememberBrowser, rememberedBrowser, rememberSession } from '@/server/session';
import { newPassword } from './password';
import { typedNumber } from '@/ui/readNumber';

const key = z.number().int().positive();
const text = z.string().max(1000);

/** Only a path of Barys itself is gone to after signing in. */
function ownPath(next: unknown): string {
  // A browser drops tabs and line ends before it reads an address, and takes what follows two slashes for a host.
  if (typeof next !== 'string' || !next.startsWith('/') || /[\u0000-\u0020\\]/.test(next)) return '/';
  const own = 'http://barys.invalid';
  try {
    const { origin, pathname, search, hash } = new URL(next, own);
    return origin === own ? `${pathname}${search}${hash}` : '/';
  } catch {
    return '/';
  }
}

async function signInHere(
  typed: { readonly login: string; readonly password: string },
  endsOthers = false,
): Promise<void> {
  const from = { address: await senderAddress(), browser: await rememberedBrowser(), endsOthers };
  const { session, browser } = await signIn(database(), moment(), typed, from);
  await rememberSession(session);
  await rememberBrowser(browser);
}

export async function signInAction(entry: {
  endsOthers?: boolean;
  login: string;
  password: string;
  next: string;
}): Promise<Answer> {
  return thenGo(async () => {
    const typed = { login: text.parse(entry.login), password: text.parse(entry.password) };
    await signInHere(typed, entry.endsOthers === true);
    return ownPath(entry.next);
  });
}

export async function signInToDemoAction(entry: { person: number; next: string }): Promise<Answer> {
  return thenGo(async () => {
    const token = await database().transaction((tx) => signInToDemo(tx, moment(), key.parse(entry.person)));
    await rememberSession(token);
    return ownPath(entry.next);
  });
}

export async function signOutAction(): Promise<void> {
  const token = (await cookies()).get(SESSION_COOKIE)?.value;
  if (token !== undefined) await database().transaction((tx) => signOut(tx, moment(), token));
  await forgetSession();
  redirect('/sign-in');
}

const repeated = ({ password, again }: { password: string; again: string }): string => {
  const chosen = newPassword(password);
  if (chosen !== again)
    throw new z.ZodError([
      { code: 'custom', path: ['again'], message: 'The two passwords are not the same.', input: '' },
    ]);
  return chosen;
};

/** Names the site and enters its first administrator, who is signed in at once. */
export async function firstStartAction(entry: {
  site: string;
  name: string;
  login: string;
  password: string;
  again: string;
}): Promise<Answer> {
  return thenGo(async () => {
    const { site: siteName } = z
      .object({ site: z.string().trim().min(1, 'The site needs a name.').max(80) })
      .parse({ site: entry.site });
    const password = repeated(entry);
    const person = personSchema.parse({
      name: entry.name,
      login: entry.login,
      role: 'administrator',
      isActive: true,
    });
    await database().transaction(async (tx) => {
      const actor = await addFirstPerson(tx, moment(), person);
      if ((await findSite(tx)) === null) await addSite(tx, { siteName, isDemo: false });
      await setPassword(tx, actor, actor.personId, { password, current: null });
    });
    await signInHere({ login: person.login ?? '', password });
    return '/office/people';
  });
}

/** Changes one's own password; the browser goes on with a new session. */
export async function changePasswordAction(entry: {
  current: string;
  password: string;
  again: string;
}): Promise<Answer> {
  return thenGo(async () => {
    const password = repeated(entry);
    await actWithPassword((tx, actor) =>
      setPassword(tx, actor, actor.personId, { password, current: text.parse(entry.current) }),
    );
    await forgetSession();
    return '/sign-in';
  });
}

export async function makeTokenAction(entry: {
  name: string;
  scope: string;
  days: string;
}): Promise<Answer & { token?: string }> {
  const made: string[] = [];
  const result = await answer(async () => {
    const wanted = tokenSchema.parse({ ...entry, days: typedNumber(text.parse(entry.days)) });
    made.push(await act((tx, actor) => makeToken(tx, actor, wanted)));
  });
  const [token] = made;
  return token === undefined ? result : { ...result, token };
}

export async function revokeTokenAction(id: number): Promise<Answer> {
  return thenStay(() => act((tx, actor) => revokeToken(tx, actor, key.parse(id))));
}
