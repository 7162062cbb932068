/** Advice in a job: what is kept of it, what speaks against an adjustment, and what a null meter showed. */
import type { Act } from '@barys/core/adjust';
import { NOTHING_READ } from '@barys/core/setup';
import { afterEach, describe, expect, it } from 'vitest';
import { logAdjustment, type NewAdjustment } from '../src/jobs/adjust';
import { outcomesOf } from '../src/jobs/advice';
import { connectJob, type NewConnection } from '../src/jobs/connect';
import { beginAsLeft, decideOnRun, finishRun, openJob, type DecisionOnRun } from '../src/jobs/decide';
import { asFoundRun, asLeftRun, loadJob } from '../src/jobs/file';
import { addBody, changeBody, listBodies } from '../src/registers/bodies';
import { addInstrument } from '../src/registers/instruments';
import { USUAL_CHECKS } from '../src/registers/setup';
import { keepSetupReading } from '../src/registers/setup-readings';
import { evaluateStoredRun } from '../src/runs/evaluation';
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
  readAll,
  reading,
  TAG,
  walkToConnect,
} from './works';

const { base, works } = await openWorks();
const { app, owner } = base;
const { technician } = works;
const ANALOG = 'PT-2';
const bodyId = await addBody(owner, technician, {
  ...CELL,
  model: 'Analog cell',
  technology: 'analog',
  trims: ['zero screw', 'span screw'],
});
await addInstrument(owner, technician, entry({ tag: ANALOG, bodyId }), RANGE);

afterEach(() => closeOpenJobs(owner));

/** A job at Judge, with the same error at all points, or an error for each share of the range. */
async function atJudge(
  tag: string,
  error: number | ((share: number) => number),
  more: Partial<NewConnection> = {},
) {
  const jobId = await openJob(app, technician, tag, 'due');
  await walkToConnect(app, technician, jobId);
  await connectJob(app, technician, jobId, { ...CONNECTION, ...more });
  await readRun(await lastRunId(app, jobId, 'as-found'), error);
  await finishRun(app, technician, jobId, 'as-found');
  return jobId;
}

async function readRun(runId: number, error: number | ((share: number) => number)): Promise<void> {
  if (typeof error === 'number') return readAll(app, technician, runId, error);
  for (const [index, bar] of [0, 1.5, 3, 4.5, 6, 4.5, 3, 1.5, 0].entries())
    await saveReading(
      app,
      technician,
      runId,
      reading(index + 1, (4 + (bar / 6) * 16 + error(bar / 6)).toFixed(3), { appliedText: bar.toFixed(3) }),
    );
}

const decide = (jobId: number, decision: DecisionOnRun, act: Act | null = null, note = '') =>
  decideOnRun(app, technician, jobId, { decision, note, act });
const log = (jobId: number, made: Partial<NewAdjustment>) =>
  logAdjustment(app, technician, jobId, {
    kind: 'zero',
    description: '',
    atAppliedText: '0.000',
    beforeText: '4.080',
    afterText: '4.000',
    ...made,
  });
const adviceOf = async (jobId: number) => (await loadJob(app, jobId)).advice;

describe('advice', () => {
  it.each<[string, number, DecisionOnRun, Act | null, object]>([
    ['taken', 0.08, 'adjust', null, { lead: 'zero', act: 'zero', madeOfIt: 'taken' }],
    ['taken by its name', 0.08, 'adjust', 'zero', { lead: 'zero', act: 'zero', madeOfIt: 'taken' }],
    ['changed', 0.08, 'adjust', 'sensor trim', { lead: 'zero', act: 'sensor trim', madeOfIt: 'changed' }],
    ['changed for a repair', 0.08, 'repair', null, { lead: 'zero', act: null, madeOfIt: 'changed' }],
    ['ignored', 0.08, 'leave', null, { lead: 'zero', act: null, madeOfIt: 'ignored' }],
    ['taken, to leave it', 0.01, 'leave', null, { lead: 'none', act: null, madeOfIt: 'taken' }],
    [
      'changed, to adjust all the same',
      0.01,
      'adjust',
      null,
      { lead: 'none', act: null, madeOfIt: 'changed' },
    ],
  ])('is kept with what was made of it: %s', async (_what, error, decision, act, wanted) => {
    const jobId = await atJudge(TAG, error);
    await decide(jobId, decision, act, 'because');
    const [kept, ...others] = await adviceOf(jobId);
    expect(others).toEqual([]);
    expect({ lead: kept?.content.lead, act: kept?.content.act, madeOfIt: kept?.madeOfIt }).toEqual(wanted);
    expect(kept?.givenTo).toBe('Technician A');
    expect(kept?.content.portrait.zero?.value).toBeCloseTo((error / 16) * 100, 6);
  });

  it('is held against the run that follows, and is said where it was wrong', async () => {
    const jobId = await atJudge(TAG, (share) => 0.08 + (share === 0.5 ? 0.004 : 0));
    await decide(jobId, 'adjust');
    await log(jobId, {});
    await beginAsLeft(app, technician, jobId);
    // As predicted everywhere but at the top.
    await readRun(await lastRunId(app, jobId, 'as-left'), (share) =>
      share === 1 ? 0.03 : share === 0.5 ? 0.004 : 0,
    );
    const job = await loadJob(app, jobId);
    const [kept, run] = [job.advice[0], asLeftRun(job)];
    const outcomes = kept === undefined || run === null ? null : outcomesOf(kept, run);
    expect(outcomes?.map(({ isAsSaid }) => isAsSaid)).toEqual([
      true,
      true,
      true,
      true,
      false,
      true,
      true,
      true,
      true,
    ]);
    expect(outcomes?.[4]?.real).toBeCloseTo(0.1875, 6);
    expect(outcomes?.[2]?.predicted).toBeCloseTo(0.025, 6);
  });

  it('stays as it was when the body is changed later, and rests on what the run kept', async () => {
    const jobId = await atJudge(ANALOG, (share) => 0.02 + 0.1 * share);
    const body = (await listBodies(app)).find(({ model }) => model === 'Analog cell');
    if (body === undefined) throw new Error('no body');
    const { id, revision, ...register } = body;
    await changeBody(app, works.administrator, id, revision, { ...register, trims: ['zero screw'] });
    await decide(jobId, 'adjust');
    expect((await adviceOf(jobId))[0]?.content.lead).toBe('zero and span');
    await changeBody(app, works.administrator, id, revision + 1, register);
  });

  it('is never changed nor removed, not even by the owner', async () => {
    const jobId = await atJudge(TAG, 0.01);
    await decide(jobId, 'leave');
    await expect(owner.query('update advice set made_of_it = $1', ['ignored'])).rejects.toThrow();
    await expect(owner.query('delete from advice')).rejects.toThrow();
  });
});

describe('what speaks against an adjustment', () => {
  it('has to be answered with a reason, which the record keeps', async () => {
    const jobId = await atJudge(TAG, 0.08);
    await decide(jobId, 'adjust');
    const away = { atAppliedText: '1.500', beforeText: '8.080', afterText: '8.000' };
    await expect(log(jobId, away)).rejects.toThrow('A zero trim takes what is applied for nothing: 1.5 bar');
    expect((await loadJob(app, jobId)).adjustments).toEqual([]);
    await log(jobId, { ...away, description: 'done before it was read' });
    const [kept] = (await loadJob(app, jobId)).adjustments;
    expect(kept?.against).toContain('Vent or equalise first');
    expect(kept?.description).toBe('done before it was read');
  });

  it('is a pressure beyond the body, a leak under pressure, and a loop that is followed', async () => {
    const leaking = { startText: '6.000', endText: '5.900', minutes: 1 };
    const jobId = await atJudge(TAG, (share) => 0.1 * share, {
      leak: leaking,
      note: 'known',
      place: 'on site',
    });
    await decide(jobId, 'adjust');
    const trim = { kind: 'sensor trim' as const, beforeText: '20.1', afterText: '20.0' };
    await expect(log(jobId, { ...trim, atAppliedText: '16.5' })).rejects.toThrow(
      'outside the limits of the body',
    );
    await expect(log(jobId, { ...trim, atAppliedText: '6.000' })).rejects.toThrow('Find the leak first');
    // The works answer that a controller uses it; without that answer an output trim is refused.
    await log(jobId, { kind: 'output trim', atAppliedText: '0', beforeText: '4.01', afterText: '4.00' });
    await owner.query('alter table stage_passed disable trigger user');
    await owner.query(`update stage_passed set answers = '[]' where job_id = $1 and stage = 'authorise'`, [
      jobId,
    ]);
    await owner.query('alter table stage_passed enable trigger user');
    await expect(
      log(jobId, { kind: 'output trim', atAppliedText: '0', beforeText: '4.01', afterText: '4.00' }),
    ).rejects.toThrow('Something follows this loop');
  });

  it('is a range that was read otherwise, until the right one is set', async () => {
    const jobId = await openJob(app, technician, TAG, 'due');
    await walkToConnect(app, technician, jobId);
    await connectJob(app, technician, jobId, CONNECTION);
    await keepSetupReading(app, technician, TAG, {
      job: { id: jobId, moment: 'as set' },
      version: 1,
      settings: { ...NOTHING_READ, inputUnit: 'bar', lrv: 0, urv: 6.3 },
      checks: USUAL_CHECKS,
      remark: '',
    });
    await readRun(await lastRunId(app, jobId, 'as-found'), (share) => -0.76 * share);
    await finishRun(app, technician, jobId, 'as-found');
    expect((await loadJob(app, jobId)).isRangeWrong).toBe(true);
    await decide(jobId, 'adjust');
    expect((await adviceOf(jobId))[0]?.content).toMatchObject({ lead: 're-range', act: 're-range' });
    const trim = {
      kind: 'sensor trim' as const,
      atAppliedText: '6.000',
      beforeText: '19.24',
      afterText: '20.0',
    };
    await expect(log(jobId, trim)).rejects.toThrow('a trim would hide that');
    await log(jobId, { ...trim, kind: 're-range', description: '0 to 6 bar instead of 6.3' });
    expect((await loadJob(app, jobId)).isRangeWrong).toBe(false);
    await log(jobId, trim);
  });
});

describe('the screws', () => {
  it('are logged with the setting that was advised, and whether it was followed', async () => {
    const jobId = await atJudge(ANALOG, (share) => 0.08 + 0.24 * share);
    await decide(jobId, 'adjust');
    // Span first, short of nothing known: 0.24 mA and what the usual pivot takes from zero.
    await log(jobId, { kind: 'span', atAppliedText: '6.000', beforeText: '20.320', afterText: '20.038' });
    await log(jobId, { kind: 'zero', beforeText: '4.020', afterText: '4.005' });
    const [span, zero] = (await loadJob(app, jobId)).adjustments;
    expect(span?.advised).toMatchObject({ screw: 'span', isFollowed: true });
    // D = -0.24 / 0.85 and zero then moves -(0.08 + 0.15 D): by hand 20 + 0.0376.
    expect(span?.advised?.setTo).toBeCloseTo(20.0376, 3);
    // The move took 0.06 from zero, so the pivot is another: r = 0.06 / 0.282 = 0.213. What is left, 0.020 and 0.038, asks for
    // another -0.018 / 0.787 of span, which takes 0.0049 from zero: that is left standing for it.
    expect(zero?.advised?.setTo).toBeCloseTo(4.0049, 3);
    expect(zero?.advised?.screw).toBe('zero');
    expect(zero?.advised?.isFollowed).toBe(true);
  });

  it('are none of a smart transmitter, whose trims do not pull on each other', async () => {
    const jobId = await atJudge(TAG, (share) => 0.08 + 0.24 * share);
    await decide(jobId, 'adjust');
    await log(jobId, {});
    expect((await loadJob(app, jobId)).adjustments[0]?.advised).toBeNull();
  });

  it('are told nothing of an act that is no screw', async () => {
    const jobId = await atJudge(ANALOG, 0.08);
    await decide(jobId, 'adjust');
    await log(jobId, { kind: 'linkage', atAppliedText: '3', beforeText: '12.08', afterText: '12.0' });
    expect((await loadJob(app, jobId)).adjustments[0]?.advised).toBeNull();
  });
});

describe('a null meter', () => {
  it('is typed as a deviation in the log, in its own unit', async () => {
    const jobId = await atJudge(ANALOG, 0.08);
    await decide(jobId, 'adjust');
    await log(jobId, { beforeText: '0.5', afterText: '0,01', nullAt: 0, nullUnit: '% of span' });
    await log(jobId, { beforeText: '0.01', afterText: '0', nullAt: 0 });
    const [kept, other] = (await loadJob(app, jobId)).adjustments;
    expect(other).toMatchObject({ nullUnit: 'output unit', before: 4.01, after: 4 });
    expect(kept).toMatchObject({
      beforeText: '0.5',
      afterText: '0,01',
      nullAt: 0,
      nullUnit: '% of span',
      before: 4.08,
      after: 4.0016,
    });
  });

  it('is typed as a deviation in a run, and judged as the output that it stands for', async () => {
    const { jobId, runId } = await jobAtAsFound(app, technician);
    await saveReading(app, technician, runId, reading(1, '4 + 0.03'));
    await expect(
      saveReading(app, technician, runId, reading(3, '4 + 0.03', { appliedText: '3.000' })),
    ).rejects.toThrow('type the output itself here');
    await expect(
      saveReading(app, technician, runId, reading(5, '4 + 0.03', { appliedText: '6.000' })),
    ).rejects.toThrow('another range');
    await saveReading(app, technician, runId, reading(5, '20 - 0.5 % of 16', { appliedText: '6.000' }));
    const run = asFoundRun(await loadJob(app, jobId));
    expect(run?.readings.map(({ outputText, output }) => [outputText, output])).toEqual([
      ['4 + 0.03', 4.03],
      ['20 - 0.5 % of 16', 19.92],
    ]);
    const judged = run === null ? [] : evaluateStoredRun(run).readings;
    expect(judged.map(({ verdict }) => verdict)).toEqual(['within-adjust', 'outside']);
    expect(judged[1]?.errorPercentSpan).toBeCloseTo(-0.5, 9);
  });
});
