/** The cookie of a session. Its token means nothing outside the database that knows its hash. */
import { cookies } from 'next/headers';

export const SESSION_COOKIE = 'barys-session';

export async function rememberSession(token: string): Promise<void> {
  (await cookies()).set(SESSION_COOKIE, token, {
    httpOnly: true,
    sameSite: 'strict',
    // A works that serves over TLS says so; on loopback the cookie would not come back.
    secure: process.env['BARYS_TLS'] === '1',
    path: '/',
    maxAge: 60 * 60 * 24 * 14,
  });
}

/** What a browser that was signed in before is known by: guesses of others do not shut it out. */
const BROWSER_COOKIE = 'barys-browser';

export const rememberedBrowser = async (): Promise<string | null> =>
  (await cookies()).get(BROWSER_COOKIE)?.value ?? null;

export async function rememberBrowser(token: string): Promise<void> {
  (await cookies()).set(BROWSER_COOKIE, token, {
    httpOnly: true,
    sameSite: 'strict',
    secure: process.env['BARYS_TLS'] === '1',
    path: '/',
    maxAge: 60 * 60 * 24 * 365,
  });
}

export async function forgetSession(): Promise<void> {
  (await cookies()).delete(SESSION_COOKIE);
}
