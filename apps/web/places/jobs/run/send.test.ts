import { afterEach, expect, it, vi } from 'vitest';
import { send } from './send';

const DESK = '0d5b3f6f-6a52-4a83-9a4e-7b1f1c2e2a11';
const WAITING = {
  kind: 'reading' as const,
  position: 3,
  clientKey: '7b1f1c2e-6a52-4a83-9a4e-0d5b3f6f2a11',
  appliedText: '3.000',
  appliedAs: 'set' as const,
  outputText: '12,019',
  more: {},
  takenAt: '2026-05-04T08:00:00.000Z',
};

afterEach(() => vi.unstubAllGlobals());

function serverAnswers(status: number, body: unknown): ReturnType<typeof vi.fn> {
  const fetched = vi.fn(() => Promise.resolve(new Response(JSON.stringify(body), { status })));
  vi.stubGlobal('fetch', fetched);
  return fetched;
}

it('a reading goes to its run with what it corrects, and comes back saved by the server’s clock', async () => {
  const fetched = serverAnswers(201, { id: 17, savedClock: '14:22:07' });
  expect(await send(5, WAITING, 16, DESK)).toEqual({ kind: 'saved', id: 17, savedClock: '14:22:07' });
  const { kind: _kind, ...entry } = WAITING;
  const [address, request] = fetched.mock.calls[0] as unknown as [string, { body: string }];
  expect(address).toBe('/api/v1/runs/5/readings');
  expect(JSON.parse(request.body)).toEqual({ ...entry, desk: DESK, supersedes: 16 });
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
  expect(await send(5, WAITING, null, DESK)).toEqual({ kind, why: 'why it was not kept' });
});

it('no answer, or one that is not the server’s own, is tried again later', async () => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('network')));
  expect(await send(5, WAITING, null, DESK)).toEqual({ kind: 'later', why: 'The server does not answer.' });
  vi.stubGlobal('fetch', () => Promise.resolve(new Response('<html>Bad gateway</html>', { status: 502 })));
  expect(await send(5, WAITING, null, DESK)).toEqual({ kind: 'later', why: 'The server does not answer.' });
});

it('a mark goes to its own address', async () => {
  const fetched = serverAnswers(201, { id: 3, savedClock: '14:22:07' });
  const mark = {
    kind: 'mark' as const,
    position: 3,
    clientKey: WAITING.clientKey,
    mark: 'overshot' as const,
    appliedText: '3.2',
    outputText: '',
    remark: '',
  };
  await send(5, mark, null, DESK);
  const [address, request] = fetched.mock.calls[0] as unknown as [string, { body: string }];
  expect(address).toBe('/api/v1/runs/5/marks');
  expect(JSON.parse(request.body)).toMatchObject({ mark: 'overshot', appliedText: '3.2' });
});
