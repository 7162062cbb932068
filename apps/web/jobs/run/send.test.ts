import { afterEach, expect, it, vi } from 'vitest';
import { sendReading } from './send';

const WAITING = {
  position: 3,
  clientKey: '7b1f1c2e-6a52-4a83-9a4e-0d5b3f6f2a11',
  appliedText: '3.000',
  appliedAs: 'set' as const,
  outputText: '12,019',
};

afterEach(() => vi.unstubAllGlobals());

function serverAnswers(status: number, body: unknown): ReturnType<typeof vi.fn> {
  const fetched = vi.fn(() => Promise.resolve(new Response(JSON.stringify(body), { status })));
  vi.stubGlobal('fetch', fetched);
  return fetched;
}

it('a reading goes to its run with what it corrects, and comes back saved by the server’s clock', async () => {
  const fetched = serverAnswers(201, { id: 17, savedClock: '14:22:07' });
  expect(await sendReading(5, WAITING, 16)).toEqual({ kind: 'saved', id: 17, savedClock: '14:22:07' });
  const [address, request] = fetched.mock.calls[0] as unknown as [string, { body: string }];
  expect(address).toBe('/api/v1/runs/5/readings');
  expect(JSON.parse(request.body)).toEqual({ ...WAITING, supersedes: 16 });
});

it.each([
  [409, 'refused'],
  [422, 'refused'],
  [404, 'refused'],
  [401, 'later'],
  [403, 'later'],
  [429, 'later'],
  [500, 'later'],
  [503, 'later'],
])('an answer of %d is %s, in the server’s words', async (status, kind) => {
  serverAnswers(status, { detail: 'why it was not kept' });
  expect(await sendReading(5, WAITING, null)).toEqual({ kind, why: 'why it was not kept' });
});

it('no answer, or one that is not the server’s own, is tried again later', async () => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('network')));
  expect(await sendReading(5, WAITING, null)).toEqual({ kind: 'later', why: 'The server does not answer.' });
  vi.stubGlobal('fetch', () => Promise.resolve(new Response('<html>Bad gateway</html>', { status: 502 })));
  expect(await sendReading(5, WAITING, null)).toEqual({ kind: 'later', why: 'The server does not answer.' });
});
