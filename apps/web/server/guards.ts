/**
 * Guards in front of every page and route, in one place: who is there, a limit on the rate of entries, same-origin writes.
 * What cannot be looked up is refused, never let through.
 */
import { benchOfToken } from '@barys/store/benches';
import { personOfSession, type Person } from '@barys/store/people';
import { isOfApi, isSafe, programToken, type Asked } from './asked';
import { database } from './database';
import { logOf } from './log';
import { COME_AGAIN_S, notNow, problemDetails } from './problem-details';
import { tooFast } from './rate';

const log = logOf('barys-guard');

/** Entries are taken from Barys' own pages, and from programs, which send neither header. */
function isFromElsewhere(asked: Asked): boolean {
  const site = asked.header('sec-fetch-site');
  if (site !== null) return site !== 'same-origin';
  const origin = asked.header('origin');
  if (origin === null) return false;
  try {
    return new URL(origin).host !== asked.header('host');
  } catch {
    return true;
  }
}

/** What anybody may see: how to sign in, and what keeps nothing and tells nothing of the works. */
const OPEN = /^\/(sign-in|first-start|icon\.svg|api\/v1\/(health(\/live)?|openapi\.json|compute\/[^/]+))$/;
/** What of it needs no database. */
const WITHOUT_DATABASE = /^\/(icon\.svg|api\/v1\/(health(\/live)?|openapi\.json|compute\/[^/]+))$/;

const seeOther = (location: string): Response => new Response(null, { status: 303, headers: { location } });

function away(asked: Asked): Response {
  const words = `Barys cannot reach its database. What was saved is kept, and what you typed stays in this browser.`;
  if (isOfApi(asked) || !isSafe(asked)) return notNow(words);
  const page = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Not now · Barys</title><meta name="viewport" content="width=device-width"><meta http-equiv="refresh" content="${COME_AGAIN_S}"></head><body style="font:18px sans-serif;max-width:34em;margin:4em auto;padding:0 1em"><h1>Not now</h1><p>${words}</p><p>This page asks again by itself every ${COME_AGAIN_S} seconds.</p></body></html>`;
  return new Response(page, {
    status: 503,
    headers: {
      'retry-after': String(COME_AGAIN_S),
      'cache-control': 'no-store',
      'content-type': 'text/html; charset=utf-8',
    },
  });
}

/** Everything that is not open is for people who are signed in; a program brings a token, which its route looks at. */
function signInFirst(asked: Asked, person: Person | null): Response | null {
  const { pathname, search } = asked;
  if (person !== null || OPEN.test(pathname)) return null;
  const isApi = isOfApi(asked);
  if (isApi && asked.header('authorization') !== null) return null;
  // Calendar programs can send nothing but an address; the route looks at the token in it.
  if (pathname === '/calendar.ics' && new URLSearchParams(search).has('token')) return null;
  if (isApi)
    return problemDetails({
      status: 401,
      title: 'Not signed in',
      detail: 'Sign in first: every act is kept with a name.',
    });
  const next = isSafe(asked) ? `?${new URLSearchParams({ next: `${pathname}${search}` }).toString()}` : '';
  return seeOther(`/sign-in${next}`);
}

/** A password that somebody else has set is changed before anything else. */
function passwordFirst(asked: Asked, person: Person | null): Response | null {
  const { pathname } = asked;
  if (person?.mustChangePassword !== true || pathname === '/account' || OPEN.test(pathname)) return null;
  if (isOfApi(asked) || !isSafe(asked))
    return problemDetails({
      status: 403,
      title: 'Change your password',
      detail: 'Somebody else has set your password. Change it first, at /account.',
    });
  return seeOther('/account');
}

/** The links of a works may all come from one address: each is counted by itself. */
async function benchOf(asked: Asked): Promise<string | null> {
  const token = asked.pathname === '/api/v1/link/beat' ? programToken(asked) : null;
  const bench = token === null ? null : await benchOfToken(database(), token, new Date());
  return bench === null ? null : `bench ${bench.id}`;
}

/** Who asks, and as whom their entries are counted, null where they are strangers; or why nobody is let through. */
export type Seen =
  | { readonly refused: Response }
  | { readonly refused: null; readonly person: Person | null; readonly countedAs: string | null };

const countedAs = (person: Person): string => `person ${person.id}`;

/** Who is there, and whether they may come in. */
export async function lookUp(asked: Asked): Promise<Seen> {
  let person: Person | null = null;
  let bench: string | null = null;
  if (!WITHOUT_DATABASE.test(asked.pathname))
    try {
      if (asked.session === undefined) await database().query('select 1');
      else person = await personOfSession(database(), asked.session, new Date());
      if (person === null) bench = await benchOf(asked);
    } catch (error) {
      log.error({ err: error }, 'who is there could not be looked up');
      return { refused: away(asked) };
    }
  const refused = signInFirst(asked, person) ?? passwordFirst(asked, person);
  if (refused !== null) return { refused };
  return { refused, person, countedAs: person === null ? bench : countedAs(person) };
}

/**
 * Looks at a request before anything is done for it.
 * @param known who asks, where what is done makes sure of them by itself
 */
export async function guard(asked: Asked, known: Person | null = null): Promise<Seen> {
  const isEntry = !isSafe(asked);
  if (isEntry && isFromElsewhere(asked))
    return {
      refused: problemDetails({
        status: 403,
        title: 'Refused',
        detail: 'Barys only takes entries made on its own pages.',
      }),
    };
  const seen: Seen =
    known === null ? await lookUp(asked) : { refused: null, person: known, countedAs: countedAs(known) };
  if (seen.refused !== null || !isEntry) return seen;
  const refused = await tooFast(asked, seen.countedAs);
  return refused === null ? seen : { refused };
}

/** Headers of every answer. */
export const secureHeaders = (): Readonly<Record<string, string>> => ({
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'x-frame-options': 'DENY',
  'permissions-policy': 'camera=(), microphone=(), geolocation=()',
  'cross-origin-opener-policy': 'same-origin',
  ...(process.env['BARYS_TLS'] === '1'
    ? { 'strict-transport-security': 'max-age=31536000; includeSubDomains' }
    : {}),
});

export function secure(headers: Headers): void {
  for (const [name, value] of Object.entries(secureHeaders())) headers.set(name, value);
}

/** Data holds no script that a nonce would be for, and is not to be taken for a page. */
export const DATA_POLICY = "default-src 'none'; frame-ancestors 'none'";
