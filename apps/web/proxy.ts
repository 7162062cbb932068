/**
 * Guards in front of every page and route, in one place: who is there, a limit on the rate of entries, same-origin writes,
 * content security policy. What cannot be looked up is refused, never let through.
 */
import { personOfSession, type Person } from '@barys/store/people';
import { NextResponse, type NextRequest } from 'next/server';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { ADDRESS_HEADER } from './server/address';
import { database } from './server/database';
import { logOf } from './server/log';
import { COME_AGAIN_S, notNow, problemDetails } from './server/problem-details';
import { SESSION_COOKIE } from './server/session';

const log = logOf('barys-proxy');

const WINDOW_S = 10;
/** Far above what fingers do (a pasted run is nine writes), far below what a runaway script does. */
const writes = new RateLimiterMemory({ points: 300, duration: WINDOW_S, keyPrefix: 'writes' });
/** Strangers have a bucket of their own for what they may ask to be computed, and a small one for the rest. */
const strangersComputing = new RateLimiterMemory({ points: 300, duration: WINDOW_S, keyPrefix: 'compute' });
const strangers = new RateLimiterMemory({ points: 60, duration: WINDOW_S, keyPrefix: 'stranger' });

const SAFE_METHODS = ['GET', 'HEAD', 'OPTIONS'];
const COMPUTE = /^\/api\/v1\/compute\/[^/]+$/;

/** Entries are taken from Barys' own pages, and from programs, which send neither header. */
function isFromElsewhere(request: NextRequest): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null) return site !== 'same-origin';
  const origin = request.headers.get('origin');
  if (origin === null) return false;
  try {
    return new URL(origin).host !== request.headers.get('host');
  } catch {
    return true;
  }
}

/** Who sends an entry too fast: a person is counted as such, anybody else by the address that the server saw. */
async function tooFast(request: NextRequest, person: Person | null): Promise<Response | null> {
  const address = request.headers.get(ADDRESS_HEADER) ?? 'unknown';
  const isComputing = COMPUTE.test(request.nextUrl.pathname);
  // Only a route of the API looks at a token; elsewhere the header buys nobody a larger bucket.
  const hasToken = request.nextUrl.pathname.startsWith('/api/') && request.headers.has('authorization');
  const [limiter, key] =
    person !== null
      ? [writes, `person ${person.id}`]
      : isComputing
        ? [strangersComputing, address]
        : [hasToken ? writes : strangers, address];
  const isWithin = await limiter.consume(key).then(
    () => true,
    () => false,
  );
  if (isWithin) return null;
  return problemDetails({
    status: 429,
    title: 'Too fast',
    detail: 'Too many entries at once. Wait a few seconds; nothing typed is lost.',
    headers: { 'retry-after': String(WINDOW_S) },
  });
}

/** What anybody may see: how to sign in, and what keeps nothing and tells nothing of the works. */
const OPEN = /^\/(sign-in|first-start|icon\.svg|api\/v1\/(health(\/live)?|openapi\.json|compute\/[^/]+))$/;
/** What of it needs no database. */
const WITHOUT_DATABASE = /^\/(icon\.svg|api\/v1\/(health(\/live)?|openapi\.json|compute\/[^/]+))$/;

function away(request: NextRequest): Response {
  const words = `Barys cannot reach its database. What was saved is kept, and what you typed stays in this browser.`;
  if (request.nextUrl.pathname.startsWith('/api/') || !SAFE_METHODS.includes(request.method))
    return notNow(words);
  const page = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Not now · Barys</title><meta name="viewport" content="width=device-width"><meta http-equiv="refresh" content="${COME_AGAIN_S}"></head><body style="font:18px sans-serif;max-width:34em;margin:4em auto;padding:0 1em"><h1>Not now</h1><p>${words}</p><p>This page asks again by itself every ${COME_AGAIN_S} seconds.</p></body></html>`;
  return new NextResponse(page, {
    status: 503,
    headers: {
      'retry-after': String(COME_AGAIN_S),
      'cache-control': 'no-store',
      'content-type': 'text/html; charset=utf-8',
    },
  });
}

/** Everything that is not open is for people who are signed in; a program brings a token, which its route looks at. */
function signInFirst(request: NextRequest, person: Person | null): Response | null {
  const { pathname, search } = request.nextUrl;
  if (person !== null || OPEN.test(pathname)) return null;
  const isApi = pathname.startsWith('/api/');
  if (isApi && request.headers.has('authorization')) return null;
  // Calendar programs can send nothing but an address; the route looks at the token in it.
  if (pathname === '/calendar.ics' && request.nextUrl.searchParams.has('token')) return null;
  if (isApi)
    return problemDetails({
      status: 401,
      title: 'Not signed in',
      detail: 'Sign in first: every act is kept with a name.',
    });
  const signIn = new URL('/sign-in', request.url);
  if (SAFE_METHODS.includes(request.method)) signIn.searchParams.set('next', `${pathname}${search}`);
  return NextResponse.redirect(signIn, 303);
}

/** A password that somebody else has set is changed before anything else. */
function passwordFirst(request: NextRequest, person: Person | null): Response | null {
  const { pathname } = request.nextUrl;
  if (person?.mustChangePassword !== true || pathname === '/account' || OPEN.test(pathname)) return null;
  if (pathname.startsWith('/api/') || !SAFE_METHODS.includes(request.method))
    return problemDetails({
      status: 403,
      title: 'Change your password',
      detail: 'Somebody else has set your password. Change it first, at /account.',
    });
  return NextResponse.redirect(new URL('/account', request.url), 303);
}

async function refusal(request: NextRequest): Promise<Response | null> {
  const isEntry = !SAFE_METHODS.includes(request.method);
  if (isEntry && isFromElsewhere(request))
    return problemDetails({
      status: 403,
      title: 'Refused',
      detail: 'Barys only takes entries made on its own pages.',
    });
  const token = request.cookies.get(SESSION_COOKIE)?.value;
  let person: Person | null = null;
  if (!WITHOUT_DATABASE.test(request.nextUrl.pathname))
    try {
      if (token === undefined) await database().query('select 1');
      else person = await personOfSession(database(), token, new Date());
    } catch (error) {
      log.error({ err: error }, 'who is there could not be looked up');
      return away(request);
    }
  return (
    signInFirst(request, person) ??
    passwordFirst(request, person) ??
    (isEntry ? await tooFast(request, person) : null)
  );
}

function policy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // Emotion and React write style attributes, which no nonce covers.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

/** Headers of every answer. */
function secure(response: NextResponse): NextResponse {
  const { headers } = response;
  headers.set('x-content-type-options', 'nosniff');
  headers.set('referrer-policy', 'same-origin');
  headers.set('x-frame-options', 'DENY');
  headers.set('permissions-policy', 'camera=(), microphone=(), geolocation=()');
  headers.set('cross-origin-opener-policy', 'same-origin');
  if (process.env['BARYS_TLS'] === '1')
    headers.set('strict-transport-security', 'max-age=31536000; includeSubDomains');
  return response;
}

/** Data holds no script that a nonce would be for, and is not to be taken for a page. */
const DATA_POLICY = "default-src 'none'; frame-ancestors 'none'";

export async function proxy(request: NextRequest): Promise<Response> {
  const refused = await refusal(request);
  if (refused !== null) return refused;
  if (request.nextUrl.pathname.startsWith('/api/')) {
    const response = secure(NextResponse.next());
    response.headers.set('content-security-policy', DATA_POLICY);
    return response;
  }
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const csp = policy(nonce);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', csp);
  const response = secure(NextResponse.next({ request: { headers } }));
  response.headers.set('content-security-policy', csp);
  return response;
}

export const config = { matcher: '/((?!_next/static|_next/image).*)' };
