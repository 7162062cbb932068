/** Guards in front of every page and route: content security policy, same-origin writes, a limit on their rate. */
import { NextResponse, type NextRequest } from 'next/server';
import { RateLimiterMemory } from 'rate-limiter-flexible';

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
  const who = `${request.headers.get('x-forwarded-for') ?? ''} ${request.cookies.get('barys-person')?.value ?? ''}`;
  const isWithin = await writes.consume(who).then(
    () => true,
    () => false,
  );
  return isWithin
    ? null
    : problem(429, 'Too fast', 'Too many entries at once. Wait a few seconds; nothing typed is lost.');
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
  const refused = await refusal(request);
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
