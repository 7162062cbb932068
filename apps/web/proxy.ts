/** Guards in front of every page and route: content security policy, same-origin writes, a limit on their rate. */
import { personOfSession } from '@barys/store';
import { NextResponse, type NextRequest } from 'next/server';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { database } from './server/database';
import { SESSION_COOKIE } from './server/session';

/** Far above what fingers do (a pasted run is nine writes), far below what a runaway script does. */
const writes = new RateLimiterMemory({ points: 300, duration: 10 });

const SAFE_METHODS = ['GET', 'HEAD', 'OPTIONS'];

const problem = (status: number, title: string, detail: string) =>
  NextResponse.json(
    { type: 'about:blank', title, status, detail },
    { status, headers: { 'content-type': 'application/problem+json' } },
  );

async function refusal(request: NextRequest): Promise<NextResponse | null> {
  if (SAFE_METHODS.includes(request.method)) return null;
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin')
    return problem(403, 'Refused', 'Barys only takes entries made on its own pages.');
  const who = `${request.headers.get('x-forwarded-for') ?? ''} ${request.cookies.get(SESSION_COOKIE)?.value ?? ''}`;
  const isWithin = await writes.consume(who).then(
    () => true,
    () => false,
  );
  return isWithin
    ? null
    : problem(429, 'Too fast', 'Too many entries at once. Wait a few seconds; nothing typed is lost.');
}

/** What anybody may see: how to sign in, and what keeps nothing and tells nothing of the works. */
const OPEN = /^\/(sign-in|first-start|icon\.svg|api\/v1\/(health|openapi\.json|compute\/[^/]+))$/;

/** Everything else is for people who are signed in; a program brings a token, which its route looks at. */
async function signInFirst(request: NextRequest): Promise<NextResponse | null> {
  const { pathname, search } = request.nextUrl;
  if (OPEN.test(pathname)) return null;
  const isApi = pathname.startsWith('/api/');
  if (isApi && request.headers.has('authorization')) return null;
  // Calendar programs can send nothing but an address; the route looks at the token in it.
  if (pathname === '/calendar.ics' && request.nextUrl.searchParams.has('token')) return null;
  const token = request.cookies.get(SESSION_COOKIE)?.value;
  try {
    if (token !== undefined && (await personOfSession(database(), token, new Date())) !== null) return null;
  } catch {
    // Without its database the page itself says best what is wrong, and shows nothing of the works.
    return null;
  }
  if (isApi) return problem(401, 'Not signed in', 'Sign in first: every act is kept with a name.');
  const signIn = new URL('/sign-in', request.url);
  if (SAFE_METHODS.includes(request.method)) signIn.searchParams.set('next', `${pathname}${search}`);
  return NextResponse.redirect(signIn, 303);
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

export async function proxy(request: NextRequest): Promise<NextResponse> {
  const refused = (await refusal(request)) ?? (await signInFirst(request));
  if (refused !== null) return refused;
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const csp = policy(nonce);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', csp);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', csp);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('x-frame-options', 'DENY');
  response.headers.set('permissions-policy', 'camera=(), microphone=(), geolocation=()');
  response.headers.set('cross-origin-opener-policy', 'same-origin');
  return response;
}

export const config = { matcher: '/((?!_next/static|_next/image).*)' };
