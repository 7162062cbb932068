/** How fast entries may come while the database that counts them for all servers is away: each process counts by itself. */
import type { IncomingMessage } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { ADDRESS_HEADER, askedOfNode } from './asked';
import { tooFast } from './rate';

const before = process.env['DATABASE_URL'];
// A port at which nobody listens.
beforeAll(() => (process.env['DATABASE_URL'] = 'postgresql://nobody@127.0.0.1:1/none'));
afterAll(() => {
  if (before === undefined) delete process.env['DATABASE_URL'];
  else process.env['DATABASE_URL'] = before;
});

const from = (address: string, url: string, more: Readonly<Record<string, string>> = {}) =>
  askedOfNode({
    method: 'POST',
    url,
    headers: { [ADDRESS_HEADER]: address, ...more },
  } as unknown as IncomingMessage);

/** How many of so many entries are let by. */
async function letBy(count: number, enter: () => Promise<Response | null>): Promise<number> {
  let passed = 0;
  for (let sent = 0; sent < count; sent += 1) if ((await enter()) === null) passed += 1;
  return passed;
}

it('a stranger has sixty in ten seconds, by the address; the next is told when to come again', async () => {
  const enter = () => tooFast(from('10.0.0.1', '/sign-in'), null);
  expect(await letBy(70, enter)).toBe(60);
  const refused = await enter();
  expect(refused?.status).toBe(429);
  expect(refused?.headers.get('retry-after')).toBe('10');
  expect(await refused?.text()).toContain('nothing typed is lost');
  expect(await tooFast(from('10.0.0.2', '/sign-in'), null)).toBeNull();
});

it('what strangers may ask to be computed is counted apart', async () => {
  const compute = () => tooFast(from('10.0.0.3', '/api/v1/compute/convert'), null);
  expect(await letBy(310, compute)).toBe(300);
  expect(await tooFast(from('10.0.0.3', '/sign-in'), null)).toBeNull();
});

it('a token buys a larger bucket of the API only, and of no page', async () => {
  const bearer = { authorization: 'Bearer x' };
  expect(await letBy(70, () => tooFast(from('10.0.0.4', '/api/v1/link/beat', bearer), null))).toBe(70);
  expect(await letBy(70, () => tooFast(from('10.0.0.5', '/sign-in', bearer), null))).toBe(60);
});

it('somebody known has three hundred, wherever they come from, and takes none from anybody else', async () => {
  const address = (sent: number) => `10.0.1.${sent % 250}`;
  let sent = 0;
  const enter = () => tooFast(from(address((sent += 1)), '/jobs/1'), 'person 7');
  expect(await letBy(320, enter)).toBe(300);
  expect(await tooFast(from('10.0.1.1', '/jobs/1'), 'person 8')).toBeNull();
});

it('no more of somebody known are let by where all come at once, or while what was let by is being counted', async () => {
  const enter = () => tooFast(from('10.0.2.1', '/jobs/1'), 'person 9');
  const letByAtOnce = async (count: number) =>
    (await Promise.all(Array.from({ length: count }, enter))).filter((refused) => refused === null).length;
  expect(await letByAtOnce(200)).toBe(200);
  await sleep(300);
  expect(await letByAtOnce(200)).toBe(100);
  expect(await letByAtOnce(50)).toBe(0);
});
