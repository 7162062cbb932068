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

export async function forgetSession(): Promise<void> {
  (await cookies()).delete(SESSION_COOKIE);
}
