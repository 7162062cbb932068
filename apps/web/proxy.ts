/** In front of every page and route of Next: the guards, and the content security policy. */
import { NextResponse, type NextRequest } from 'next/server';
import { askedOfNext, isOfApi } from './server/asked';
import { DATA_POLICY, guard, secure } from './server/guards';

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

/** Next takes no way to another page that does not say where from. */
function whole(refused: Response, request: NextRequest): Response {
  const location = refused.headers.get('location');
  return location === null ? refused : NextResponse.redirect(new URL(location, request.url), refused.status);
}

export async function proxy(request: NextRequest): Promise<Response> {
  const asked = askedOfNext(request);
  const { refused } = await guard(asked);
  if (refused !== null) {
    const answer = whole(refused, request);
    secure(answer.headers);
    return answer;
  }
  if (isOfApi(asked)) {
    const response = NextResponse.next();
    secure(response.headers);
    response.headers.set('content-security-policy', DATA_POLICY);
    return response;
  }
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const csp = policy(nonce);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', csp);
  const response = NextResponse.next({ request: { headers } });
  secure(response.headers);
  response.headers.set('content-security-policy', csp);
  return response;
}

export const config = { matcher: '/((?!_next/static|_next/image).*)' };
