/** What a request says, whoever received it: Next, or the plain server in front of it. */
import type { NextRequest } from 'next/server';
import type { IncomingMessage } from 'node:http';

export const SESSION_COOKIE = 'barys-session';
/** Set by the server for every request, over whatever the sender wrote there. */
export const ADDRESS_HEADER = 'x-barys-address';

export interface Asked {
  readonly method: string;
  readonly pathname: string;
  /** With its question mark; empty where there is none. */
  readonly search: string;
  /** The session's token, as the browser's cookie has it. */
  readonly session: string | undefined;
  readonly header: (this: void, name: string) => string | null;
}

export const askedOfNext = (request: NextRequest): Asked => ({
  method: request.method,
  pathname: request.nextUrl.pathname,
  search: request.nextUrl.search,
  session: request.cookies.get(SESSION_COOKIE)?.value,
  header: (name) => request.headers.get(name),
});

export function askedOfNode(request: IncomingMessage): Asked {
  const { pathname, search } = new URL(request.url ?? '/', 'http://localhost');
  const cookie = request.headers.cookie ?? '';
  const session = [...cookie.matchAll(/(?:^|;\s*)barys-session=([^;]*)/g)].at(-1)?.[1];
  return {
    method: request.method ?? 'GET',
    pathname,
    search,
    session,
    header: (name) => {
      const value = request.headers[name];
      return value === undefined ? null : [value].flat().join(', ');
    },
  };
}

export const isSafe = ({ method }: Asked): boolean => ['GET', 'HEAD', 'OPTIONS'].includes(method);
export const isOfApi = ({ pathname }: Asked): boolean => pathname.startsWith('/api/');

/** The token that a program brings; null where it brings none. */
export function programToken({ header }: Pick<Asked, 'header'>): string | null {
  const [kind, token] = (header('authorization') ?? '').split(' ');
  return kind?.toLowerCase() === 'bearer' && token !== undefined ? token : null;
}
