/** What stands in front of every page and route, while the database is away: nothing passes that has to be looked up. */
import type { IncomingMessage } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { askedOfNode, isOfApi, isSafe, programToken, type Asked } from './asked';
import { textWithin } from './body';
import { guard, secure } from './guards';

type Sent = Readonly<Record<string, string>>;

const asked = (method: string, address: string, headers: Sent = {}): Asked =>
  askedOfNode({ method, url: address, headers } as unknown as IncomingMessage);

const before = process.env['DATABASE_URL'];
// A port at which nobody listens.
beforeAll(() => (process.env['DATABASE_URL'] = 'postgresql://nobody@127.0.0.1:1/none'));
afterAll(() => {
  if (before === undefined) delete process.env['DATABASE_URL'];
  else process.env['DATABASE_URL'] = before;
});

async function refusalOf(of: Asked): Promise<{ status: number; type: string; words: string } | null> {
  const { refused } = await guard(of);
  if (refused === null) return null;
  return {
    status: refused.status,
    type: refused.headers.get('content-type') ?? '',
    words: await refused.text(),
  };
}

describe('while nobody can be looked up', () => {
  it.each([
    ['a page', 'GET', '/jobs'],
    ['a page that strangers may see', 'GET', '/sign-in'],
    ['the calendar with a token', 'GET', '/calendar.ics?token=x'],
  ])('%s says so and asks again by itself', async (_what, method, address) => {
    const refusal = await refusalOf(asked(method, address));
    expect(refusal).toMatchObject({ status: 503, type: 'text/html; charset=utf-8' });
    expect(refusal?.words).toContain('cannot reach its database');
    expect(refusal?.words).toContain('http-equiv="refresh"');
  });

  it.each([
    ['an entry', 'POST', '/api/v1/runs/1/readings'],
    ['a question of a program', 'GET', '/api/v1/bench'],
    ['a form of a page', 'POST', '/jobs/1'],
    ['a form of a stranger', 'POST', '/sign-in'],
  ])('%s is refused as problem details', async (_what, method, address) => {
    const senders: readonly Sent[] = [{}, { cookie: 'barys-session=x' }, { authorization: 'Bearer x' }];
    for (const headers of senders) {
      const refusal = await refusalOf(asked(method, address, headers));
      expect(refusal).toMatchObject({ status: 503, type: 'application/problem+json' });
    }
  });

  it.each(['/icon.svg', '/api/v1/health', '/api/v1/health/live', '/api/v1/openapi.json'])(
    '%s is answered all the same',
    async (address) => {
      expect(await refusalOf(asked('GET', address))).toBeNull();
    },
  );

  it('a calculation is answered too, and no address that only looks like one', async () => {
    expect(await refusalOf(asked('POST', '/api/v1/compute/convert'))).toBeNull();
    for (const address of [
      '/api/v1/compute/convert/more',
      '/api/v1/compute/',
      '/api/v1/healthy',
      '/icon.svg/x',
    ])
      expect(await refusalOf(asked('GET', address)), address).toMatchObject({ status: 503 });
  });
});

describe('an entry from elsewhere', () => {
  const from = (headers: Sent) =>
    refusalOf(asked('POST', '/api/v1/compute/convert', { host: 'barys.local', ...headers }));

  it.each<Sent>([
    { 'sec-fetch-site': 'cross-site' },
    { 'sec-fetch-site': 'same-site' },
    { 'sec-fetch-site': 'none' },
    { origin: 'http://elsewhere.local' },
    { origin: 'http://barys.local:8080' },
    { origin: 'null' },
    { origin: '' },
  ])('is refused: %o', async (headers) => {
    expect(await from(headers)).toMatchObject({ status: 403 });
  });

  it.each<Sent>([{ 'sec-fetch-site': 'same-origin' }, { origin: 'http://barys.local' }, {}])(
    'is none where it says %o',
    async (headers) => {
      expect(await from(headers)).toBeNull();
    },
  );

  it('may still be looked at from there', async () => {
    expect(
      await refusalOf(asked('GET', '/api/v1/openapi.json', { 'sec-fetch-site': 'cross-site' })),
    ).toBeNull();
  });
});

describe('what a request says', () => {
  it('has the session of the last cookie of that name, and of no other', () => {
    const sessionOf = (cookie: string) => asked('GET', '/', { cookie }).session;
    expect(sessionOf('a=1; barys-session=one; b=2')).toBe('one');
    expect(sessionOf('barys-session=one;barys-session=two')).toBe('two');
    expect(sessionOf('not-barys-session=one; xbarys-session=two')).toBeUndefined();
    expect(sessionOf('')).toBeUndefined();
  });

  it('has a token where it brings one by its kind', () => {
    const tokenOf = (authorization: string) => programToken(asked('GET', '/', { authorization }));
    expect(['Bearer abc', 'bearer abc', 'Basic abc', 'Bearer', ''].map(tokenOf)).toEqual([
      'abc',
      'abc',
      null,
      null,
      null,
    ]);
  });

  it('is told apart: of the API, and safe', () => {
    expect(['/api/v1/bench?x=1', '/apis', '/jobs'].map((one) => isOfApi(asked('GET', one)))).toEqual([
      true,
      false,
      false,
    ]);
    expect(['GET', 'HEAD', 'OPTIONS', 'POST', 'DELETE'].map((method) => isSafe(asked(method, '/')))).toEqual([
      true,
      true,
      true,
      false,
      false,
    ]);
  });

  it('is read no further than it may be long, whatever its header says', async () => {
    const post = (body: string, headers = {}) => new Request('http://a', { method: 'POST', body, headers });
    expect(await textWithin(post('12345'), 5)).toBe('12345');
    expect(await textWithin(post('123456'), 5)).toBeNull();
    expect(await textWithin(post('ä'), 1)).toBeNull();
    expect(await textWithin(new Request('http://a'), 0)).toBe('');
  });
});

it('every answer asks browsers to be careful, and for TLS only where there is some', () => {
  const headersOf = (tls: string | undefined) => {
    if (tls === undefined) delete process.env['BARYS_TLS'];
    else process.env['BARYS_TLS'] = tls;
    const headers = new Headers();
    secure(headers);
    delete process.env['BARYS_TLS'];
    return Object.fromEntries(headers);
  };
  expect(headersOf(undefined)).toMatchObject({
    'x-frame-options': 'DENY',
    'x-content-type-options': 'nosniff',
  });
  expect(headersOf(undefined)).not.toHaveProperty('strict-transport-security');
  expect(headersOf('1')['strict-transport-security']).toMatch(/^max-age=31536000/);
});
