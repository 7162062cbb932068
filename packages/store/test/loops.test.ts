/** Loops of instruments: kept in versions, checked in a job at every tap, and never a reason to trim to a wrong receiver. */
import { randomUUID } from 'node:crypto';
import { afterEach, describe, expect, it } from 'vitest';
import {
  assignmentOf,
  benchOfToken,
  keepTaken,
  keepValues,
  startAutomatic,
  type Automatic,
} from '../src/benches';
import { logAdjustment } from '../src/jobs/adjust';
import { connectJob } from '../src/jobs/connect';
import { beginAsLeft, decideOnRun, finishRun, openJob, openJobsFor } from '../src/jobs/decide';
import { asFoundRun, loadJob } from '../src/jobs/file';
import { addSite, makeToken } from '../src/people';
import { addBody } from '../src/registers/bodies';
import { addConfiguration } from '../src/registers/configurations';
import { addInstrument } from '../src/registers/instruments';
import type { LoopContent } from '../src/registers/loop-content';
import { keepLoop, loopSchema, loopsOf } from '../src/registers/loops';
import { besideOf } from '../src/runs/beside';
import { checkLoop, receiverTrims, verdictOfCheck } from '../src/runs/loop-check';
import { saveReading } from '../src/runs/reading';
import {
  CELL,
  closeOpenJobs,
  CONNECTION,
  entry,
  jobAtAsFound,
  lastRunId,
  openWorks,
  RANGE,
  reading,
  TAG,
  walkToConnect,
} from './works';

const { base, works } = await openWorks();
const { app, owner } = base;
const { technician, auditor } = works;
const LOOPED = 'PT-LOOP';
const bodyId = await addBody(owner, technician, { ...CELL, model: 'Cell of the loop' });
const instrumentId = await addInstrument(owner, technician, entry({ tag: LOOPED, bodyId }), RANGE);

afterEach(() => closeOpenJobs(owner));

const linear = { kind: 'linear' } as const;
const MA = { low: 4, high: 20 };
const V = { low: 1, high: 5 };

/** Resistor and card behind the transmitter, an indicator and a recorder of 2 % beside them. */
const CONTENT: LoopContent = {
  items: [
    {
      name: LOOPED,
      kind: 'transmitter',
      from: null,
      input: { low: 0, high: 5 },
      output: MA,
      inputUnit: 'bar',
      outputUnit: 'mA',
      transfer: linear,
      tolerancePercent: 0.1,
    },
    {
      name: 'IS-1',
      kind: 'barrier',
      from: 0,
      input: MA,
      output: MA,
      inputUnit: 'mA',
      outputUnit: 'mA',
      transfer: linear,
      tolerancePercent: 0.1,
    },
    {
      name: 'R',
      kind: 'resistor',
      from: 1,
      input: MA,
      output: V,
      inputUnit: 'mA',
      outputUnit: 'V',
      transfer: linear,
      tolerancePercent: 0.1,
    },
    {
      name: 'AI',
      kind: 'input card',
      from: 2,
      input: V,
      output: { low: 0, high: 60 },
      inputUnit: 'V',
      outputUnit: 'm',
      transfer: linear,
      tolerancePercent: 0.1,
    },
    {
      name: 'PI',
      kind: 'indicator',
      from: 1,
      input: MA,
      output: { low: 0, high: 100 },
      inputUnit: 'mA',
      outputUnit: '%',
      transfer: linear,
      tolerancePercent: 2,
    },
  ],
  isFlow: false,
  judgedBy: 'sum',
};
const keep = (content: LoopContent = CONTENT, reason = 'as drawn') =>
  keepLoop(app, technician, LOOPED, { fields: { items: '[]' }, content, reason });

const BARS = [0, 1.5, 3, 4.5, 6, 4.5, 3, 1.5, 0];
interface Readings {
  readonly milliamp?: (bar: number) => number;
  readonly volt?: (milliamp: number) => number;
  readonly card?: (volt: number) => number;
  readonly percent?: (milliamp: number) => number;
}
const line = (bar: number): number => 4 + (16 * bar) / 6;

/** A loop check of 0 to 6 bar at Judge. */
async function atJudge({
  milliamp = line,
  volt = (current) => current / 4,
  card = (volts) => (volts - 1) * 15,
  percent = (current) => ((current - 4) / 16) * 100,
}: Readings = {}): Promise<number> {
  const jobId = await openJob(app, technician, LOOPED, 'loop check');
  await walkToConnect(app, technician, jobId);
  await connectJob(app, technician, jobId, CONNECTION);
  const runId = await lastRunId(app, jobId, 'as-found');
  for (const [index, bar] of BARS.entries()) {
    const current = milliamp(bar);
    const volts = volt(current);
    await saveReading(
      app,
      technician,
      runId,
      reading(index + 1, current.toFixed(3), {
        appliedText: bar.toFixed(3),
        more: {
          'tap-1': volts.toFixed(4),
          'tap-2': card(volts).toFixed(3),
          'tap-3': percent(current).toFixed(2),
        },
      }),
    );
  }
  await finishRun(app, technician, jobId, 'as-found');
  return jobId;
}
const runOf = async (jobId: number) => {
  const run = asFoundRun(await loadJob(app, jobId));
  if (run === null) throw new Error('There is no run.');
  return run;
};

describe('a loop of an instrument', () => {
  it('is kept in versions with who and why, and never changed', async () => {
    await keep();
    await keep({ ...CONTENT, judgedBy: 'root of the sum of squares' }, 'by the site rule');
    const [newest, first] = await loopsOf(app, instrumentId);
    expect([newest?.version, newest?.reason, newest?.madeBy]).toEqual([
      2,
      'by the site rule',
      'Technician A',
    ]);
    expect([newest?.content.judgedBy, first?.content.judgedBy]).toEqual([
      'root of the sum of squares',
      'sum',
    ]);
    await expect(owner.query('update loop set reason = $1', ['x'])).rejects.toThrow();
    await expect(owner.query('delete from loop')).rejects.toThrow();
  });

  it('is refused where it is no chain behind one instrument, without a reason, and to who may not', async () => {
    const twice = {
      ...CONTENT,
      items: CONTENT.items.map((one, i) => (i === 1 ? { ...one, from: null } : one)),
    };
    await expect(keep(twice)).rejects.toMatchObject({ refusal: { code: 'not-walkable' } });
    const backwards = {
      ...CONTENT,
      items: CONTENT.items.map((one, i) => (i === 1 ? { ...one, from: 3 } : one)),
    };
    await expect(keep(backwards)).rejects.toThrow(/reads one that stands before it/);
    expect(loopSchema.safeParse({ fields: {}, content: CONTENT, reason: ' ' }).success).toBe(false);
    expect(
      loopSchema.safeParse({
        fields: {},
        content: { ...CONTENT, items: CONTENT.items.slice(0, 1) },
        reason: 'x',
      }).success,
    ).toBe(false);
    await expect(
      keepLoop(app, auditor, LOOPED, { fields: {}, content: CONTENT, reason: 'x' }),
    ).rejects.toMatchObject({ refusal: { code: 'not-allowed' } });
  });
});

describe('a loop check', () => {
  it('is not opened where no loop is kept', async () => {
    await expect(openJob(app, technician, TAG, 'loop check')).rejects.toMatchObject({
      refusal: { code: 'not-walkable' },
    });
    const { id } = (
      await owner.query<{ id: number }>('select id from instrument where tag = $1', [TAG])
    )[0] ?? { id: 0 };
    const { opened, refused } = await openJobsFor(app, technician, [id], 'loop check');
    expect([opened, refused.length]).toEqual([0, 1]);
  });

  it('reads the taps that somebody can read, with the instrument as it is set', async () => {
    await keep();
    const run = await runOf(await atJudge());
    expect(run.madeWith.columns).toEqual(['tap-1', 'tap-2', 'tap-3']);
    // Drawn with 5 bar, set to 6: the run takes what is set.
    expect(run.madeWith.loop?.content.items[0]?.input).toEqual({ low: 0, high: 6 });
    expect(run.madeWith.loop?.taps).toEqual([2, 3, 4]);
    expect(checkLoop(run)?.taps.map(({ name, verdict }) => [name, verdict])).toEqual([
      [LOOPED, 'within'],
      ['R', 'within'],
      ['AI', 'within'],
      ['PI', 'within'],
    ]);
    expect(verdictOfCheck(run)).toBe('within');
  });

  it('judges a tap on its limit to the last digit: the sum of all on the way', async () => {
    await keep();
    // 0.25 of the transmitter and 0.1 thrice is 0.55 % of 60: 0.33. At 3 bar the card shows 30.
    const half = await runOf(await atJudge({ card: (volts) => (volts - 1) * 15 + 0.33 }));
    const at = (run: typeof half) => besideOf(run)[2]?.['tap-2'];
    expect(at(half)).toMatchObject({
      verdict: 'within',
      limitPercentOfSpan: expect.closeTo(0.55, 12) as number,
    });
    const over = await runOf(
      await (await closeOpenJobs(owner), atJudge({ card: (volts) => (volts - 1) * 15 + 0.331 })),
    );
    expect(at(over)?.verdict).toBe('outside');
    expect(verdictOfCheck(over)).toBe('outside');
  });

  it('keeps its loop where the register says otherwise later', async () => {
    await keep();
    const jobId = await atJudge();
    const before = checkLoop(await runOf(jobId));
    await keep({ ...CONTENT, items: CONTENT.items.slice(0, 3) }, 'the card is gone');
    await addConfiguration(owner, technician, instrumentId, { ...RANGE, urv: 4, reason: 'for a test' });
    expect(checkLoop(await runOf(jobId))).toEqual(before);
    await addConfiguration(owner, technician, instrumentId, { ...RANGE, reason: 'back' });
  });

  it('names the resistor in ohms where that is wrong, and no other item', async () => {
    await keep();
    const run = await runOf(await atJudge({ volt: (current) => (current / 1000) * 245 }));
    const check = checkLoop(run);
    const [best] = check?.diagnosis?.suspicions ?? [];
    expect([best?.item, (best?.probability ?? 0) > 0.9]).toEqual([2, true]);
    const tap = check?.taps.find(({ name }) => name === 'R');
    expect(tap?.segment?.verdict).toBe('outside');
    expect(tap?.segment?.suspected?.resistorOhm).toBe(250);
    // The card shows what the resistor gives it, and is sound by itself.
    const card = check?.taps.find(({ name }) => name === 'AI');
    expect([card?.verdict, card?.segment?.verdict]).toEqual(['outside', 'within']);
  });

  it('wants a reason to leave a loop whose receiver is outside', async () => {
    await keep();
    const jobId = await atJudge({ percent: (current) => ((current - 4) / 16) * 100 + 4 });
    await expect(decideOnRun(app, technician, jobId, { decision: 'leave', note: '' })).rejects.toMatchObject({
      refusal: { code: 'reason-needed' },
    });
    await decideOnRun(app, technician, jobId, {
      decision: 'leave',
      note: 'the indicator is replaced tomorrow',
    });
  });
});

describe('a loop check at a bench', () => {
  it('goes by itself only where something reads each tap, and keeps what they read', async () => {
    await keep();
    const jobId = await openJob(app, technician, LOOPED, 'loop check');
    await walkToConnect(app, technician, jobId);
    await connectJob(app, technician, jobId, CONNECTION);
    const runId = await lastRunId(app, jobId, 'as-found');
    const token = await makeToken(app, works.administrator, { name: 'Bench L', scope: 'link', days: 3 });
    const bench = await benchOfToken(app, token, technician.at);
    if (bench === null) throw new Error('There is no bench.');
    const start = (taps: Automatic['taps']) =>
      startAutomatic(app, technician, runId, {
        bench: bench.id,
        reference: 'Controller',
        output: 'Loop meter',
        digital: null,
        taps,
      });
    const voltmeter = { device: 'Voltmeter', channel: 'voltage' } as const;
    const receiver = { device: 'Receiver', channel: 'display' } as const;
    await expect(start({})).rejects.toThrow('Nothing is chosen that reads R.');
    await expect(start({ 'tap-1': voltmeter, 'tap-2': receiver })).rejects.toThrow(
      'Nothing is chosen that reads PI.',
    );
    const taps = { 'tap-1': voltmeter, 'tap-2': receiver, 'tap-3': receiver };
    // Nothing is heard of anything here; a demo may be read by what is simulated.
    await expect(start(taps)).rejects.toThrow('Nothing is heard of Controller.');
    const heard = (device: string, channel: 'pressure' | 'current' | 'voltage' | 'display') => ({
      device,
      channel,
      model: 'Barys simulated instrument',
      serial: 'SIM-1',
      value: 1,
      unit: 'V',
      raw: '1',
      isStable: true,
      state: 'measuring',
      trouble: '',
      at: technician.at,
    });
    await keepValues(
      app,
      bench,
      [heard('Controller', 'pressure'), heard('Loop meter', 'current'), heard('Voltmeter', 'voltage')],
      technician.at,
    );
    await addSite(owner, { siteName: 'Works', isDemo: true });
    await expect(start(taps)).rejects.toThrow('Nothing is heard of Receiver.');
    await keepValues(
      app,
      bench,
      [
        heard('Controller', 'pressure'),
        heard('Loop meter', 'current'),
        heard('Voltmeter', 'voltage'),
        heard('Receiver', 'display'),
      ],
      technician.at,
    );
    await start(taps);
    const task = await assignmentOf(app, bench, technician.at);
    expect(task?.taps.map(({ key, device, unit, low, high }) => [key, device, unit, low, high])).toEqual([
      ['tap-1', 'Voltmeter', 'V', 1, 5],
      ['tap-2', 'Receiver', 'm', 0, 60],
      ['tap-3', 'Receiver', '%', 0, 100],
    ]);
    expect(task?.plan.taps).toEqual([
      { key: 'tap-1', span: 4 },
      { key: 'tap-2', span: 60 },
      { key: 'tap-3', span: 100 },
    ]);
    await keepTaken(
      app,
      bench,
      {
        automatic: task?.automatic ?? 0,
        position: 1,
        clientKey: randomUUID(),
        appliedText: '0.000',
        outputText: '4.000',
        digitalText: null,
        taps: [
          { key: 'tap-1', text: '1.0000', raw: '1.000000e+0' },
          { key: 'tap-2', text: '0.0000', raw: '0.0' },
          { key: 'tap-3', text: '0.000', raw: '0.0' },
        ],
        raw: { applied: '0', output: '4', digital: '' },
        takenAt: technician.at,
        isRepeat: false,
      },
      technician,
    );
    const [first] = (await runOf(jobId)).readings;
    expect(first?.more).toEqual({ 'tap-1': '1.0000', 'tap-2': '0.0000', 'tap-3': '0.000' });
    expect(first?.source?.raw.taps).toEqual({ 'tap-1': '1.000000e+0', 'tap-2': '0.0', 'tap-3': '0.0' });
    await owner.query('update installation set is_demo = false');
  });
});

describe('a transmitter trimmed to a receiver', () => {
  const log = (jobId: number, toReceiver: string, description: string) =>
    logAdjustment(app, technician, jobId, {
      kind: 'output trim',
      description,
      atAppliedText: '0.000',
      beforeText: '4.080',
      afterText: '4.000',
      toReceiver,
    });

  it('is refused to one that is not proven, to one that was not read, and without a reason', async () => {
    await keep();
    const jobId = await atJudge({ percent: (current) => ((current - 4) / 16) * 100 + 3 });
    const [card, indicator] = receiverTrims(await runOf(jobId));
    expect([card?.receiver, card?.isProven]).toEqual(['AI', true]);
    expect(indicator).toMatchObject({ receiver: 'PI', isProven: false });
    // It shows 3 % too much: the transmitter would be 3 % low, and the card with it.
    expect(indicator?.percent).toBeCloseTo(-3, 1);
    expect(indicator?.others).toEqual([{ place: 3, name: 'AI', percent: indicator?.percent }]);
    await decideOnRun(app, technician, jobId, { decision: 'adjust', note: 'as the control room asks' });
    await expect(log(jobId, 'PI', 'the operators trust it')).rejects.toMatchObject({
      refusal: { code: 'receiver-unproven', receiver: 'PI' },
    });
    await expect(log(jobId, 'XX', 'why not')).rejects.toMatchObject({ refusal: { code: 'no-such' } });
    await expect(log(jobId, 'AI', ' ')).rejects.toMatchObject({ refusal: { code: 'reason-needed' } });
    expect((await loadJob(app, jobId)).adjustments).toEqual([]);
  });

  it('is marked on the record with what it does to the others, and run again as left', async () => {
    await keep();
    const jobId = await atJudge({ milliamp: (bar) => line(bar) + 0.08 });
    await decideOnRun(app, technician, jobId, { decision: 'adjust', note: '' });
    await log(jobId, 'AI', 'the card is the standard of the control room');
    const [made] = (await loadJob(app, jobId)).adjustments;
    expect(made).toMatchObject({
      toReceiver: 'AI',
      description: 'the card is the standard of the control room',
    });
    expect(made?.against).toMatch(
      /^Trimmed to AI it is itself off by −0\.50 % of its span, PI by −0\.50 %\.$/,
    );
    await beginAsLeft(app, technician, jobId);
    const left = (await loadJob(app, jobId)).runs.find(({ kind }) => kind === 'as-left');
    expect(left?.madeWith.columns).toEqual(['tap-1', 'tap-2', 'tap-3']);
  });

  it('is not asked for in another kind of job', async () => {
    const { jobId } = await jobAtAsFound(app, technician);
    const run = (await loadJob(app, jobId)).runs[0];
    expect(run === undefined ? [] : receiverTrims(run)).toEqual([]);
    expect(run === undefined ? null : checkLoop(run)).toBeNull();
  });
});
