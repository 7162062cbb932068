import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Kept, KeptStore, Waiting, WaitingMark, WaitingReading } from './keep';
import { leadingReadings, Sender, type SenderEvent } from './sender';

const DESK = '0d5b3f6f-6a52-4a83-9a4e-7b1f1c2e2a11';

const reading = (position: number, outputText = '12.000'): WaitingReading => ({
  kind: 'reading',
  position,
  clientKey: `7b1f1c2e-6a52-4a83-9a4e-0000000000${String(position).padStart(2, '0')}`,
  appliedText: '3.000',
  appliedAs: 'set',
  outputText,
  more: {},
  takenAt: '2026-05-04T08:00:00.000Z',
});
const mark: WaitingMark = {
  kind: 'mark',
  position: 9,
  clientKey: '7b1f1c2e-6a52-4a83-9a4e-000000000099',
  mark: 'overshot',
  appliedText: '',
  outputText: '',
  remark: '',
};

function keeping(waiting: readonly Waiting[]): KeptStore {
  let kept: Kept = { drafts: {}, waiting };
  return { get: () => kept, set: (next) => (kept = next), subscribe: () => () => undefined };
}

/** A server that answers each request by what was sent. */
function serverAnswers(answer: (body: unknown, path: string) => [status: number, body: unknown]) {
  const asked: unknown[] = [];
  vi.stubGlobal('fetch', (path: string, { body }: { body: string }) => {
    const sent: unknown = JSON.parse(body);
    asked.push(sent);
    const [status, answered] = answer(sent, path);
    return Promise.resolve(new Response(JSON.stringify(answered), { status }));
  });
  return asked;
}

const saved = (sent: unknown): unknown => {
  const line = ({ position }: { position: number }) => ({ id: 100 + position, savedClock: '14:00:00' });
  return Array.isArray(sent) ? sent.map(line) : line(sent as { position: number });
};

function senderOf(store: KeptStore, standing = new Map<number, number>()) {
  const events: SenderEvent[] = [];
  const sender = new Sender(
    5,
    store,
    standing,
    () => DESK,
    (event) => events.push(event),
  );
  return { sender, events, standing };
}

afterEach(() => vi.unstubAllGlobals());

describe('what waits', () => {
  it('goes in one request where readings follow each other, each with what it corrects', async () => {
    const asked = serverAnswers((body) => [201, saved(body)]);
    const store = keeping([reading(1), reading(2), reading(3)]);
    const { sender, events, standing } = senderOf(store, new Map([[2, 17]]));
    await sender.sendAll();
    expect(asked).toHaveLength(1);
    expect(asked[0]).toMatchObject([
      { position: 1, supersedes: null, desk: DESK },
      { position: 2, supersedes: 17 },
      { position: 3, supersedes: null },
    ]);
    expect(events.map(({ kind }) => kind)).toEqual(['saved', 'saved', 'saved']);
    expect([...standing]).toEqual([
      [2, 102],
      [1, 101],
      [3, 103],
    ]);
    expect(store.get().waiting).toEqual([]);
  });

  it('stops together at a mark, and at a second reading of a point, whose number is not known yet', () => {
    expect(leadingReadings([reading(1), mark, reading(2)])).toEqual([reading(1)]);
    expect(leadingReadings([reading(1), reading(1, '12.5')])).toEqual([reading(1)]);
    expect(leadingReadings([mark, reading(1)])).toEqual([]);
  });

  it('is tried one by one where one is refused: the others are kept, that one is a draft again', async () => {
    serverAnswers((body) =>
      Array.isArray(body) || (body as { position: number }).position === 2
        ? [409, { detail: 'another reading stands there' }]
        : [201, saved(body)],
    );
    const store = keeping([reading(1), reading(2, '12,5'), reading(3)]);
    const { sender, events } = senderOf(store);
    await sender.sendAll();
    expect(events.map(({ kind }) => kind)).toEqual(['saved', 'refused', 'saved']);
    expect(store.get()).toEqual({ waiting: [], drafts: { 2: { output: '12,5', applied: null, more: {} } } });
  });

  it('waits on while the server is away, in its order, and nothing is lost', async () => {
    serverAnswers(() => [503, { detail: 'not now' }]);
    const store = keeping([reading(1), reading(2)]);
    const { sender, events } = senderOf(store);
    await sender.sendAll();
    expect(events).toEqual([{ kind: 'later', why: 'not now' }]);
    expect(store.get().waiting).toHaveLength(2);
  });

  it('is sent once, also where two ask for it at once', async () => {
    const asked = serverAnswers((body) => [201, saved(body)]);
    const { sender } = senderOf(keeping([reading(1)]));
    await Promise.all([sender.sendAll(), sender.sendAll()]);
    expect(asked).toHaveLength(1);
  });
});

describe('what a link keeps meanwhile', () => {
  it('is corrected by what is typed after it, and not by what was typed before it was seen', async () => {
    const asked = serverAnswers((body) => [201, saved(body)]);
    const store = keeping([reading(2)]);
    const { sender, standing } = senderOf(store);
    sender.learn([
      { id: 31, position: 2 },
      { id: 32, position: 4 },
    ]);
    expect([...standing]).toEqual([[4, 32]]);
    await sender.sendAll();
    expect(asked[0]).toMatchObject({ position: 2, supersedes: null });
  });
});
