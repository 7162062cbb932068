import type { IncomingMessage } from 'node:http';
import { expect, it } from 'vitest';
import { refusalOf } from './bodies.mjs';

const MB = 1024 * 1024;
const ask = (url: string, length: number | undefined, headers: Record<string, string> = {}) =>
  refusalOf({
    url,
    headers: { ...(length === undefined ? {} : { 'content-length': String(length) }), ...headers },
  } as unknown as IncomingMessage)?.status ?? null;
const cookie = { cookie: 'theme=dark; barys-session=abc' };

it('a stranger sends little, but for calculations', () => {
  expect(ask('/sign-in', 10_000)).toBeNull();
  expect(ask('/sign-in', MB)).toBe(413);
  expect(ask('/office/import?x=1', MB)).toBe(413);
  expect(ask('/api/v1/compute/evaluate-run', 3 * MB)).toBeNull();
  expect(ask('/api/v1/compute/evaluate-run', 5 * MB)).toBe(413);
  expect(ask('/office/import', MB, { cookie: 'not-barys-session=1' })).toBe(413);
});

it('files go where files are taken', () => {
  expect(ask('/office/import', 60 * MB, cookie)).toBeNull();
  expect(ask('/office/import', 70 * MB, cookie)).toBe(413);
  expect(ask('/jobs/2101/as-found', 10 * MB, cookie)).toBeNull();
  expect(ask('/jobs/2101/as-found', 20 * MB, cookie)).toBe(413);
  expect(ask('/instruments', 3 * MB, cookie)).toBe(413);
  expect(ask('/api/v1/runs/1/readings', MB, { authorization: 'Bearer x' })).toBeNull();
});

it('what does not say its length is not read', () => {
  expect(ask('/', undefined)).toBeNull();
  expect(ask('/office/import', undefined, { ...cookie, 'transfer-encoding': 'chunked' })).toBe(411);
});

it('an address that is cut off within a character is none', () => {
  expect(ask('/instruments/%E0%A4', undefined)).toBe(400);
  expect(ask('/instruments/%', 10)).toBe(400);
  expect(ask('/instruments/PT%2F1?x=%', undefined)).toBeNull();
  expect(ask('/instruments/%C3%BC', undefined)).toBeNull();
});
