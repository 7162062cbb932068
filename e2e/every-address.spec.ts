/** All addresses of the application, as its routes have them: none is open by mistake, and none ends in an error. */
import { readdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from './support/works';

const APP = fileURLToPath(new URL('../apps/web/app', import.meta.url));

/** Each route's address, with the names of its parts in brackets. */
const ADDRESSES = readdirSync(APP, { recursive: true, encoding: 'utf8' })
  .filter((file) => /(^|\/)(page|route)\.tsx?$/.test(file))
  .map((file) => `/${dirname(file)}`.replace('/.', '/'))
  .sort();

const filled = (address: string, part: string): string => address.replaceAll(/\[\w+\]/g, part);

/** What anybody may ask for; all else is for people who are signed in, and what is new here is meant to be open. */
const OPEN = [
  '/api/v1/compute/[name]',
  '/api/v1/health',
  '/api/v1/health/live',
  '/api/v1/openapi.json',
  '/first-start',
  '/sign-in',
];

const isApi = (address: string): boolean => address.startsWith('/api/');

for (const method of ['GET', 'POST', 'PUT', 'DELETE'])
  test(`a stranger gets nowhere by ${method} but where anybody may go`, async ({ works }) => {
    expect(ADDRESSES.length).toBeGreaterThan(90);
    const open: string[] = [];
    for (const address of ADDRESSES) {
      const answer = await fetch(`${works.url}${filled(address, '1')}`, { method, redirect: 'manual' });
      const body = await answer.text();
      const isRefused = isApi(address)
        ? answer.status === 401 && body.includes('Sign in first')
        : answer.status === 303 && (answer.headers.get('location') ?? '').includes('/sign-in');
      if (!isRefused) open.push(address);
      expect(answer.headers.get('x-frame-options'), address).toBe('DENY');
      expect(answer.headers.get('x-content-type-options'), address).toBe('nosniff');
    }
    expect(open).toEqual(OPEN);
  });

/** What nobody has, what no number can hold, and what is neither. */
const NOWHERE = ['0', '99999999999999999999', '-1', '%27%20or%201=1', '%00', '%E0%A4', 'x'.repeat(2000)];

test('an address of something that is not there says so, and never ends in an error', async ({ works }) => {
  const headers = { cookie: await works.cookieOf('Technician A') };
  const wrong: string[] = [];
  for (const address of ADDRESSES.filter((one) => one.includes('[')))
    for (const part of NOWHERE) {
      const answer = await fetch(`${works.url}${filled(address, part)}`, { headers, redirect: 'manual' });
      await answer.body?.cancel();
      if (answer.status < 300 || answer.status >= 500)
        wrong.push(`${answer.status} ${address} ${part.slice(0, 30)}`);
    }
  expect(wrong).toEqual([]);
  expect(works.said()).not.toMatch(/Error/);
});

/** What shows an auditor no page by its bare address: it leads on, asks for what is missing, or takes another method. */
const NO_PAGE = [
  '405 /api/v1/link/beat',
  '422 /api/v1/bench/changes',
  '307 /first-start',
  '422 /insight/report',
  '422 /instruments/labels',
  '307 /office',
  '405 /office/trail/verify',
  '422 /planning/ways',
];

test('whoever only reads sees every page, and none of them fails', async ({ works }) => {
  const headers = { cookie: await works.cookieOf('Auditor') };
  const none: string[] = [];
  for (const address of ADDRESSES.filter((one) => !one.includes('['))) {
    const answer = await fetch(`${works.url}${address}`, { headers, redirect: 'manual' });
    await answer.text();
    if (answer.status !== 200) none.push(`${answer.status} ${address}`);
  }
  expect(none.sort()).toEqual([...NO_PAGE].sort());
  expect(works.said()).not.toMatch(/Error/);
});
