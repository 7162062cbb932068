/** The cookies of a browser: its session, and what it is known by. Neither means anything outside the database. */
import { cookies } from 'next/headers';
import { SESSION_COOKIE } from './asked';

/** What a browser that was signed in before is known by: guesses of others do not shut it out. */
const BROWSER_COOKIE = 'barys-browser';

const DAY_S = 60 * 60 * 24;

async function remember(name: string, token: string, days: number): Promise<void> {
  (await cookies()).set(name, token, {
    httpOnly: true,
    sameSite: 'strict',
    // A works that serves over TLS says so; on loopback the cookie would not come back.
    secure: process.env['BARYS_TLS'] === '1',
    path: '/',
    maxAge: DAY_S * days,
  });
}

export const rememberSession = (token: string): Promise<void> => remember(SESSION_COOKIE, token, 14);
export const rememberBrowser = (token: string): Promise<void> => remember(BROWSER_COOKIE, token, 365);

export const rememberedBrowser = async (): Promise<string | null> =>
  (await cookies()).get(BROWSER_COOKIE)?.value ?? null;

export async function forgetSession(): Promise<void> {
  (await cookies()).delete(SESSION_COOKIE);
}
