/** What is changed at an instrument over a link: when it may be, and that it leaves its trace. */
import type { BenchRequest, ReadSetup } from '@barys/core/port';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  askForWrite,
  benchOfToken,
  instrumentActSchema,
  keepAnswer,
  keepValues,
  logWrite,
  requestAnswerSchema,
  takeRequests,
  writeWords,
  type Bench,
} from '../src/benches';
import { beginAsLeft, decideOnRun, finishRun } from '../src/jobs';
import { adjustmentsOfJob, logAdjustment } from '../src/jobs/adjust';
import { addSite, makeToken } from '../src/people';
import { saveReading } from '../src/runs';
import { jobAtAsFound, openWorks, reading, TODAY } from './works';

const { base, works } = await openWorks();
const inTx = base.app.transaction.bind(base.app);
const now = works.technician.at;
const later = (seconds: number) => new Date(now.getTime() + seconds * 1000);

const READ: ReadSetup = {
  tag: 'PT-1',
  serial: '000007',
  unit: 'bar',
  lrv: 0,
  urv: 6,
  dampingS: 0.5,
  transfer: 'linear',
  isProtected: false,
  value: 0.0123,
  milliamp: 4.0328,
  isFixed: false,
  temperaturesC: [],
  volts: null,
};
const VALUE = {
  device: 'Transmitter',
  channel: 'digital value' as const,
  model: 'simulated transmitter',
  serial: '000007',
  value: 0.0123,
  unit: 'bar',
  raw: '',
  isStable: null,
  state: 'measuring',
  trouble: '',
  at: now,
};
let bench: Bench;
let jobId = 0;
let beats = 0;
const heard = (more: object = {}) =>
  inTx((tx) => keepValues(tx, bench, [{ ...VALUE, ...more }], later((beats += 1) / 1000)));
const write = (more: object = {}, actor = works.technician) =>
  inTx((tx) =>
    askForWrite(tx, actor, jobId, {
      bench: bench.id,
      device: 'Transmitter',
      serial: '000007',
      act: { kind: 'zero trim' },
      atAppliedText: '0.000',
      ...more,
    }),
  );

beforeAll(async () => {
  const token = await makeToken(base.app, works.administrator, { name: 'Bench A', scope: 'link', days: 30 });
  const found = await benchOfToken(base.app, token, now);
  if (found === null) throw new Error('no bench');
  bench = found;
  const { jobId: job, runId } = await jobAtAsFound(base.app, works.technician);
  jobId = job;
  await heard();
  await expect(write()).rejects.toThrow('The job is at as-found; this belongs to adjust.');
  for (let position = 1; position <= 9; position += 1)
    await saveReading(base.app, { ...works.technician, via: 'program' }, runId, reading(position, '8.100'));
  await inTx((tx) => finishRun(tx, works.technician, jobId, 'as-found'));
  await inTx((tx) => decideOnRun(tx, works.technician, jobId, { decision: 'adjust', note: '' }));
});

describe('a change over a link', () => {
  it('is asked for by who may work, at an instrument that is there and is no simulated one outside of a demo', async () => {
    await expect(write({}, works.auditor)).rejects.toThrow('may not do this');
    await expect(write()).rejects.toThrow('Transmitter is simulated');
    await addSite(base.owner, { siteName: 'Works', isDemo: true });
    await expect(write({ device: 'Nobody' })).rejects.toThrow('Nothing is heard of Nobody.');
    await expect(write({ atAppliedText: 'none' })).rejects.toThrow();
    await heard({ model: '' });
    await expect(write()).rejects.toThrow('has not said what it is');
    await heard();
    expect(await write()).toBeGreaterThan(0);
  });

  it('is refused as long as the job does not say that its controller is in manual', async () => {
    await base.owner.query(`alter table stage_passed disable trigger user`);
    const before = await base.owner.query<{ id: number; answers: unknown }>(
      'select id, answers from stage_passed',
    );
    await base.owner.query(`update stage_passed set answers = '[]'`);
    await expect(write()).rejects.toThrow('does not say that its controller is in manual');
    for (const { id, answers } of before)
      await base.owner.query('update stage_passed set answers = $2 where id = $1', [
        id,
        JSON.stringify(answers),
      ]);
    await base.owner.query(`alter table stage_passed enable trigger user`);
  });

  it('is told to its link once, and stands in the trail before it is done', async () => {
    await inTx((tx) => takeRequests(tx, bench, now));
    const id = await write({ act: { kind: 'output trim', at: 4, measured: 4.012 } });
    expect(await inTx((tx) => takeRequests(tx, bench, now))).toEqual([
      {
        id,
        device: 'Transmitter',
        request: { kind: 'write', act: { kind: 'output trim', at: 4, measured: 4.012 }, serial: '000007' },
      },
    ]);
    expect(await inTx((tx) => takeRequests(tx, bench, now))).toEqual([]);
    const [entry] = await base.app.query<{ detail: object }>(
      `select detail from audit_entry where act = 'write to instrument' order by id desc limit 1`,
    );
    expect(entry?.detail).toMatchObject({
      device: 'Transmitter',
      serial: '000007',
      kind: 'output trim',
      measured: 4.012,
    });
  });

  it('goes into the log of its job in the name of who asked, with before and after', async () => {
    const id = await write();
    const after = { ...READ, value: 0.0001, milliamp: 4.0003 };
    const answer = requestAnswerSchema.shape.answer.parse({ kind: 'write', before: READ, after });
    await inTx(async (tx) => {
      const asked = await keepAnswer(tx, bench, { id, answer });
      if (asked?.request.kind !== 'write' || asked.job === null) throw new Error('nothing was asked');
      if (answer.kind !== 'write') throw new Error('nothing was written');
      await logWrite(tx, bench, { ...asked, job: asked.job, act: asked.request.act }, answer, {
        at: now,
        today: TODAY,
      });
    });
    // The answer comes once more, after a link did not hear that it was kept.
    expect(await inTx((tx) => keepAnswer(tx, bench, { id, answer }))).toBeNull();
    expect(await adjustmentsOfJob(base.app, jobId)).toMatchObject([
      {
        kind: 'zero',
        atAppliedText: '0.000',
        beforeText: '4.033',
        afterText: '4.000',
        madeBy: 'Technician A',
        description:
          'Over the link of Bench A, Transmitter, at PT-1, number 000007. Zero trim: digital value 0.01230 bar before, 0.00010 bar after. The output is what it believes.',
      },
    ]);
  });

  it('that fixed the loop has to be let go before the run as left, over the link or as somebody says', async () => {
    const fix = async (milliamp: number | null) => {
      const id = await write({ act: { kind: 'fixed current', milliamp } });
      const answer = requestAnswerSchema.shape.answer.parse({ kind: 'write', before: READ, after: READ });
      await inTx(async (tx) => {
        const asked = await keepAnswer(tx, bench, { id, answer });
        if (asked?.request.kind !== 'write' || asked.job === null || answer.kind !== 'write')
          throw new Error('nothing was asked');
        await logWrite(tx, bench, { ...asked, job: asked.job, act: asked.request.act }, answer, {
          at: now,
          today: TODAY,
        });
      });
    };
    const leave = () =>
      inTx(async (tx) => {
        await beginAsLeft(tx, works.technician, jobId);
        throw new Error('left');
      });
    await fix(4);
    await expect(leave()).rejects.toThrow('still fixed at 4 mA');
    await fix(null);
    await expect(leave()).rejects.toThrow('left');
    await fix(20);
    await expect(leave()).rejects.toThrow('still fixed at 20 mA');
    await inTx((tx) =>
      logAdjustment(tx, works.technician, jobId, {
        kind: 'other',
        description: 'switched off and on: the loop follows again',
        atAppliedText: '0',
        beforeText: '20',
        afterText: '4',
      }),
    );
    await expect(leave()).rejects.toThrow('left');
  });
});

it('says of each change what it was', () => {
  const after = { ...READ, dampingS: 2, urv: 4, unit: 'kPa', transfer: null };
  const words = (act: Extract<BenchRequest, { kind: 'write' }>['act']) => writeWords(act, READ, after);
  expect(words({ kind: 'damping', seconds: 2 })).toBe('Damping: 0.5 s before, 2 s after');
  expect(words({ kind: 'range', lrv: 0, urv: 4, unit: 'bar' })).toBe(
    'Range: 0 to 6 bar before, 0 to 4 kPa after',
  );
  expect(words({ kind: 'unit', unit: 'kPa' })).toBe('Unit: bar before, kPa after');
  expect(words({ kind: 'transfer function', transfer: 'linear' })).toContain('a curve of its own after');
  expect(words({ kind: 'fixed current', milliamp: 20 })).toBe('Its loop current was fixed at 20 mA');
  expect(words({ kind: 'fixed current', milliamp: null })).toBe('Its loop current was let go');
  expect(words({ kind: 'output trim', at: 20, measured: 19.985 })).toBe(
    'Output trim at 20 mA: 19.985 mA was measured',
  );
});

it('takes what an instrument could take', () => {
  const isTaken = (act: object) => instrumentActSchema.safeParse(act).success;
  expect(isTaken({ kind: 'output trim', at: 4, measured: 3 })).toBe(true);
  expect(isTaken({ kind: 'output trim', at: 12, measured: 12 })).toBe(false);
  expect(isTaken({ kind: 'output trim', at: 4, measured: NaN })).toBe(false);
  expect(isTaken({ kind: 'fixed current', milliamp: 22.6 })).toBe(false);
  expect(isTaken({ kind: 'fixed current', milliamp: null })).toBe(true);
  expect(isTaken({ kind: 'damping', seconds: -1 })).toBe(false);
  expect(isTaken({ kind: 'range', lrv: 1, urv: 1, unit: 'bar' })).toBe(false);
  expect(isTaken({ kind: 'unit', unit: 'furlong' })).toBe(false);
  expect(isTaken({ kind: 'sensor trim' })).toBe(false);
});
