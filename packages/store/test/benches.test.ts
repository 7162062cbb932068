/** Benches and automatic runs: what links bring, what people order, and that neither gets in the way of the other. */
import { CONTROLLER_DRIVER, METER_DRIVER } from '@barys/core/port';
import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  assignmentOf,
  automaticOf,
  benchOfToken,
  endAutomatic,
  keepAddress,
  keepState,
  keepTaken,
  keepValues,
  listBenches,
  orderAutomatic,
  planOf,
  standingOf,
  startAutomatic,
  whyNotAutomatic,
  type Bench,
  type TakenReading,
} from '../src/benches';
import { findStandard } from '../src/registers';
import { throwRunAway } from '../src/jobs';
import { addSite, makeToken, personOfToken } from '../src/people';
import { saveReading, type MadeWith } from '../src/runs';
import { runsById } from '../src/runs/load';
import { jobAtAsFound, openWorks, reading, TODAY } from './works';

const { base, works } = await openWorks();
const now = works.technician.at;
const later = (seconds: number) => new Date(now.getTime() + seconds * 1000);
const DEVICES = { reference: 'PC-1', output: 'DM-1', digital: null };

let bench: Bench;
let other: Bench;
let token = '';
let runId = 0;
let jobId = 0;

async function newBench(name: string): Promise<[string, Bench]> {
  const made = await makeToken(base.app, works.administrator, { name, scope: 'link', days: 30 });
  const found = await benchOfToken(base.app, made, now);
  if (found === null) throw new Error('no bench');
  return [made, found];
}
const inTx = base.app.transaction.bind(base.app);
const value = (more: object = {}) => ({
  device: 'PC-1',
  channel: 'pressure' as const,
  model: 'a calibrator',
  serial: '1',
  value: 1.5,
  unit: 'bar',
  raw: '1.500e0 bar',
  isStable: true,
  state: 'controlling',
  trouble: '',
  at: now,
  ...more,
});
const automaticId = async () => (await automaticOf(base.app, runId))?.id ?? 0;
const taken = async (position: number, more: Partial<TakenReading> = {}): Promise<TakenReading> => ({
  automatic: await automaticId(),
  position,
  clientKey: randomUUID(),
  appliedText: '1.500',
  outputText: '8.001',
  digitalText: null,
  taps: [],
  raw: { applied: '1.500e0 bar', output: '8.001e0 mA', digital: '' },
  takenAt: now,
  isRepeat: false,
  ...more,
});
const keep = (one: TakenReading, of = bench) =>
  inTx((tx) => keepTaken(tx, of, one, { at: now, today: TODAY }));
const runNow = async () => {
  const run = (await runsById(base.app, [runId])).get(runId);
  if (run === undefined) throw new Error('no run');
  return run;
};
const restart = async () => {
  await inTx((tx) => endAutomatic(tx, works.technician, runId));
  await inTx((tx) => startAutomatic(tx, works.technician, runId, { bench: bench.id, ...DEVICES }));
};

beforeAll(async () => {
  [token, bench] = await newBench('Bench A');
  [, other] = await newBench('Bench B');
  ({ jobId, runId } = await jobAtAsFound(base.app, works.technician));
  for (const [tag, driver] of [
    ['PC-1', CONTROLLER_DRIVER],
    ['DM-1', METER_DRIVER],
  ] as const) {
    const { id } = await findStandard(base.app, tag);
    await inTx((tx) =>
      keepAddress(
        tx,
        works.administrator,
        { referenceId: id, revision: null },
        {
          bench: bench.id,
          wire: { speaks: 'text', at: { kind: 'tcp', host: '127.0.0.1', port: 1000 + id }, driver },
        },
      ),
    );
  }
});

describe('the token of a link', () => {
  it('is made by an administrator, is a bench, and reaches for nothing else', async () => {
    const wanted = { name: 'mine', scope: 'link' as const, days: 30 };
    await expect(makeToken(base.app, works.technician, wanted)).rejects.toThrow();
    expect(bench.name).toBe('Bench A');
    for (const scope of ['read', 'write'] as const)
      expect(await personOfToken(base.app, token, scope, now)).toBeNull();
    expect(await benchOfToken(base.app, token, later(40 * 86_400))).toBeNull();
    expect(await benchOfToken(base.app, 'barys_other', now)).toBeNull();
    const read = await makeToken(base.app, works.administrator, { name: 'r', scope: 'write', days: 3 });
    expect(await benchOfToken(base.app, read, now)).toBeNull();
  });
});

describe('values', () => {
  it('are those that were said last, and go when a link speaks of them no more or is away', async () => {
    await inTx((tx) => keepValues(tx, bench, [value(), value({ device: 'DM-1', channel: 'current' })], now));
    await inTx((tx) => keepValues(tx, other, [value({ device: 'Far away' })], now));
    const [a, b] = await listBenches(base.app, now);
    expect([a?.name, a?.isThere, a?.values.map(({ device }) => device)]).toEqual([
      'Bench A',
      true,
      ['DM-1', 'PC-1'],
    ]);
    expect(b?.values).toHaveLength(1);
    await inTx((tx) => keepValues(tx, bench, [value({ value: null, trouble: 'garbage' })], later(1)));
    const [again] = await listBenches(base.app, later(2));
    expect(again?.values).toMatchObject([{ device: 'PC-1', value: null, trouble: 'garbage' }]);
    expect((await listBenches(base.app, later(7)))[0]?.isThere).toBe(false);
  });
});

describe('an automatic run', () => {
  const CONTROLLER = value();
  const METER = value({ device: 'DM-1', channel: 'current' });
  const HEARD = [CONTROLLER, METER];
  let beats = 0;
  const heard = (values = HEARD, of = bench) =>
    inTx((tx) => keepValues(tx, of, values, later((beats += 1) / 1000)));
  beforeAll(() => heard());

  it.each([
    ['of which nothing is heard', [CONTROLLER], {}, 'Nothing is heard of DM-1.'],
    [
      'that say nothing of the quantity',
      [CONTROLLER, value({ device: 'DM-1' })],
      {},
      'Nothing is heard of DM-1.',
    ],
    ['that have not said what they are', [value({ model: '' }), METER], {}, 'PC-1 has not said what it is.'],
    [
      'with another serial number',
      [value({ serial: 'M-2' }), METER],
      {},
      'the serial number M-2; the register says 1',
    ],
    ['that the job does not name', HEARD, { reference: 'DM-1' }, 'Nothing is heard of DM-1.'],
    [
      'that the job does not name, though entered',
      [...HEARD, value({ device: 'DM-1' })],
      { reference: 'DM-1' },
      'The job names PC-1, and DM-1 is another reference.',
    ],
    [
      'that nobody entered',
      [...HEARD, value({ device: 'PC-9' })],
      { reference: 'PC-9' },
      'no reference whose address',
    ],
    ['that are simulated', [value({ model: 'Barys simulated controller' }), METER], {}, 'no measurement'],
  ])('is not started with instruments %s', async (_name, values, more, words) => {
    await heard(values);
    const start = inTx((tx) =>
      startAutomatic(tx, works.technician, runId, { bench: bench.id, ...DEVICES, ...more }),
    );
    await expect(start).rejects.toThrow(words);
    await heard();
  });

  it('is not started with what was heard a while ago', async () => {
    const start = inTx((tx) =>
      startAutomatic(tx, { ...works.technician, at: later(7) }, runId, { bench: bench.id, ...DEVICES }),
    );
    await expect(start).rejects.toThrow('Nothing is heard of PC-1.');
  });

  it('is started once, at one bench, by who may work', async () => {
    await inTx((tx) => startAutomatic(tx, works.technician, runId, { bench: bench.id, ...DEVICES }));
    await expect(
      inTx((tx) => startAutomatic(tx, works.technician, runId, { bench: other.id, ...DEVICES })),
    ).rejects.toThrow('already');
    expect(await automaticOf(base.app, runId)).toMatchObject({
      bench: { name: 'Bench A' },
      startedBy: 'Technician A',
      reference: 'PC-1',
    });
    await expect(
      inTx((tx) => startAutomatic(tx, works.technician, runId, { bench: 999, ...DEVICES })),
    ).rejects.toThrow('bench');
  });

  it('is none at a simulated bench, but for a demo: what that reads is no measurement', async () => {
    const simulated = { model: 'Barys simulated something' };
    await heard(
      [
        value({ device: 'Controller', ...simulated }),
        value({ device: 'Loop meter', channel: 'current', ...simulated }),
      ],
      other,
    );
    await inTx((tx) => endAutomatic(tx, works.technician, runId));
    const start = () =>
      inTx((tx) =>
        startAutomatic(tx, works.technician, runId, {
          bench: other.id,
          reference: 'Controller',
          output: 'Loop meter',
          digital: null,
        }),
      );
    await expect(start()).rejects.toThrow('no measurement');
    await addSite(base.owner, { siteName: 'Works', isDemo: true });
    await start();
    await base.owner.query('update installation set is_demo = false');
    await restart();
  });

  it('is given to its link with all that it takes, and to no other', async () => {
    const task = await inTx((tx) => assignmentOf(tx, bench, now));
    expect(task).toMatchObject({
      open: [1, 2, 3, 4, 5, 6, 7, 8, 9],
      orders: [],
      wasHeld: null,
      devices: DEVICES,
      plan: { unit: 'bar', inputSpan: 6, outputSpan: 16, isCurrent: true },
    });
    expect(task?.plan.stops.map(({ applied }) => applied)).toEqual([0, 1.5, 3, 4.5, 6, 4.5, 3, 1.5, 0]);
    expect(await inTx((tx) => assignmentOf(tx, other, now))).toBeNull();
  });

  it('keeps a reading in the name of who started it, with its source, once however often it is sent', async () => {
    const one = await taken(1);
    await keep(one);
    await keep(one);
    // A link that was killed and began anew brings another key for a point that has its reading.
    await keep({ ...one, clientKey: randomUUID(), outputText: '4.444' });
    const { readings } = await runNow();
    expect(readings).toMatchObject([
      {
        position: 1,
        outputText: '8.001',
        readBy: 'Technician A',
        source: {
          link: 'Bench A',
          reference: 'PC-1',
          output: 'DM-1',
          raw: { output: '8.001e0 mA' },
        },
      },
    ]);
    await keep({ ...one, clientKey: randomUUID(), outputText: '8.002', isRepeat: true });
    expect((await runNow()).readings).toMatchObject([{ outputText: '8.002' }]);
    expect((await runNow()).superseded).toHaveLength(1);
    const [entry] = await base.app.query<{ detail: object }>(
      `select detail from audit_entry where act = 'save reading' order by id limit 1`,
    );
    expect(entry?.detail).toMatchObject({ link: 'Bench A' });
  });

  it('whose pressure a person works is watched by its link, and is told to take a point', async () => {
    await inTx((tx) => endAutomatic(tx, works.technician, runId));
    await inTx((tx) =>
      startAutomatic(tx, works.technician, runId, { bench: bench.id, ...DEVICES, isByHand: true }),
    );
    await inTx((tx) => orderAutomatic(tx, works.technician, runId, 'take'));
    expect(await inTx((tx) => assignmentOf(tx, bench, now))).toMatchObject({
      plan: { isByHand: true, onLoss: 'hold', approach: { ratePercentPerS: 5 } },
      orders: [{ name: 'take' }],
    });
    expect(await automaticOf(base.app, runId)).toMatchObject({ isByHand: true });
    await restart();
  });

  it('takes nothing from another bench, for a point that there is not, or that is no number', async () => {
    await keep(await taken(2), other);
    expect((await runNow()).readings).toHaveLength(1);
    await expect(keep(await taken(77))).rejects.toThrow('77');
    await expect(keep(await taken(2, { outputText: 'NaN' }))).rejects.toThrow('NaN');
  });

  it('goes beside what is typed: a point that somebody read is not open any more', async () => {
    await saveReading(base.app, { ...works.technician, via: 'program' }, runId, reading(2, '8.000'));
    expect((await inTx((tx) => assignmentOf(tx, bench, now)))?.open).toEqual([3, 4, 5, 6, 7, 8, 9]);
    await keep(await taken(2));
    expect((await runNow()).readings.find(({ position }) => position === 2)).toMatchObject({
      outputText: '8.000',
      source: null,
    });
  });

  it('hears each order until it has obeyed it, and says where it stands', async () => {
    await inTx((tx) => orderAutomatic(tx, works.technician, runId, 'hold'));
    const told = await inTx((tx) => assignmentOf(tx, bench, now));
    expect(told?.orders.map(({ name }) => name)).toEqual(['hold']);
    const state = { phase: 'held' as const, position: 3, words: 'Held by hand.', leftS: null };
    const doneOrder = told?.orders[0]?.id ?? 0;
    await inTx(async (tx) => keepState(tx, bench, { automatic: await automaticId(), doneOrder, state }, now));
    expect(await inTx((tx) => assignmentOf(tx, bench, now))).toMatchObject({
      orders: [],
      wasHeld: 'Held by hand.',
      doneOrder,
    });
    expect(await standingOf(base.app, runId)).toMatchObject({ state, startedBy: 'Technician A' });
    await expect(
      inTx((tx) => orderAutomatic(tx, works.technician, runId, 'jump' as 'hold')),
    ).rejects.toThrow();
  });

  it('is over when it is taken over: what is on its way then is nobody’s', async () => {
    const late = await taken(3);
    await inTx((tx) => endAutomatic(tx, works.technician, runId));
    await keep(late);
    expect((await runNow()).readings).toHaveLength(2);
    expect(await inTx((tx) => assignmentOf(tx, bench, now))).toBeNull();
    // Ended twice is ended once.
    await inTx((tx) => endAutomatic(tx, works.technician, runId));
    const ends = await base.app.query(`select from audit_entry where act = 'end automatic run'`);
    // One of the test of a demo, two of a person at the pump, two of that and of this.
    expect(ends).toHaveLength(5);
    await expect(inTx((tx) => orderAutomatic(tx, works.technician, runId, 'hold'))).rejects.toThrow(
      'automatic run',
    );
  });

  it('of two starts at the same time one is refused in words', async () => {
    const start = () =>
      inTx((tx) => startAutomatic(tx, works.technician, runId, { bench: bench.id, ...DEVICES }));
    const both = await Promise.allSettled([start(), start()]);
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const refused = both.find((one) => one.status === 'rejected');
    expect(String(refused?.reason)).toContain('already');
  });

  it('of a reading and a take-over at the same time, none is kept after the end', async () => {
    const lastOf = async (act: string) =>
      (
        await base.app.query<{ id: number }>(
          `select coalesce(max(id), 0) as id from audit_entry where act like '%' || $1`,
          [act],
        )
      )[0]?.id ?? 0;
    const kept: boolean[] = [];
    for (let turn = 0; turn < 12; turn += 1) {
      await restart();
      const one = await taken(3 + (turn % 7), { isRepeat: true });
      const end = () => inTx((tx) => endAutomatic(tx, works.technician, runId));
      await Promise.all(turn % 2 === 0 ? [keep(one), end()] : [end(), keep(one)]);
      const isKept =
        (await base.app.query('select from reading where client_key = $1', [one.clientKey])).length > 0;
      kept.push(isKept);
      if (isKept) expect(await lastOf(' reading')).toBeLessThan(await lastOf('end automatic run'));
    }
    expect(kept).toContain(true);
  });

  it('ends by itself when it is finished, and when its job goes on without it', async () => {
    await restart();
    const state = { phase: 'finished' as const, position: null, words: '', leftS: null };
    await inTx(async (tx) =>
      keepState(tx, bench, { automatic: await automaticId(), doneOrder: 0, state }, now),
    );
    expect(await automaticOf(base.app, runId)).toBeNull();
    await inTx((tx) => startAutomatic(tx, works.technician, runId, { bench: bench.id, ...DEVICES }));
    await inTx((tx) => throwRunAway(tx, works.technician, jobId, 'as-found', 'shaken'));
    expect(await inTx((tx) => assignmentOf(tx, bench, now))).toBeNull();
    expect(await automaticOf(base.app, runId)).toBeNull();
    await expect(
      inTx((tx) => startAutomatic(tx, works.technician, runId, { bench: bench.id, ...DEVICES })),
    ).rejects.toThrow();
  });
});

describe('what can go by itself', () => {
  it('is a run whose output is a current, with one reference and nothing that an eye reads', async () => {
    const { madeWith } = await runNow();
    const why = (more: Partial<MadeWith>) => whyNotAutomatic({ ...madeWith, ...more });
    expect(why({})).toBeNull();
    expect(why({ columns: ['digital'] })).toBeNull();
    expect(why({ columns: ['before-tap'] })).toContain('by eye');
    expect(why({ meter: null })).toContain('not a current');
    expect(why({ secondReference: madeWith.pressureReference })).toContain('changes its reference');
    const plan = planOf({ ...madeWith, head: 0.1 });
    expect([plan.isByHand, plan.onLoss, plan.approach.ratePercentPerS]).toEqual([false, 'hold', 5]);
    const slow = planOf({ ...madeWith, approach: { ratePercentPerS: 1, onLoss: 'vent' } }, true);
    expect([slow.isByHand, slow.onLoss, slow.approach.ratePercentPerS]).toEqual([true, 'vent', 1]);
    // Where the instrument sees more than the reference, that has to show less.
    expect(plan.stops[1]?.applied).toBeCloseTo(1.4, 9);
  });
});
