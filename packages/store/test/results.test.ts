/** What calibrations came to: kept at the signature, taken back with it, and not changed by a register that changes later. */
import { pointDrifts } from '@barys/core/interval';
import dayjs from 'dayjs';
import { beforeAll, describe, expect, it } from 'vitest';
import { amendJob, reviewAmendment } from '../src/jobs/amend';
import { amendmentsOfJob } from '../src/jobs/amendments';
import { connectJob } from '../src/jobs/connect';
import { beginAsLeft, decideOnRun, finishRun, openJob } from '../src/jobs/decide';
import { logAdjustment } from '../src/jobs/adjust';
import { asFoundRun, loadJob } from '../src/jobs/file';
import { reviewJob, signJob } from '../src/jobs/sign';
import type { Actor } from '../src/people/actor';
import { addPerson } from '../src/people/people';
import { addSite, setLetterhead, setReview, setTimeZone } from '../src/people/site';
import { addConfiguration } from '../src/registers/configurations';
import { rangeKeyOf } from '../src/results/figures';
import { adjustmentsOf, historyOf } from '../src/results/history';
import {
  followedPoints,
  followedZero,
  presentVisits,
  resultsOf,
  visitsOf,
  type KeptRun,
} from '../src/results/visits';
import {
  bringBack,
  CONNECTION,
  lastRunId,
  openWorks,
  RANGE,
  readAll,
  SIGNED,
  TAG,
  walkToConnect,
} from './works';

const { base, works } = await openWorks();
let reviewer: Actor;
let instrumentId = 0;
beforeAll(async () => {
  await addSite(base.owner, { siteName: 'Test works', isDemo: true });
  await setTimeZone(base.app, works.administrator, 'UTC');
  await setLetterhead(base.app, works.administrator, {
    laboratory: 'Test workshop',
    laboratoryAddress: '1 Kiln Lane',
    customer: 'Test works',
    customerAddress: '',
  });
  await setReview(base.app, works.administrator, 'another person');
  const person = { name: 'Reviewer', role: 'reviewer', login: null, isActive: true } as const;
  reviewer = { ...works.technician, personId: await addPerson(base.owner, works.administrator, person) };
  const [row] = await base.app.query<{ id: number }>(`select id from instrument where tag = '${TAG}'`);
  instrumentId = row?.id ?? 0;
});

const on = (actor: Actor, day: string): Actor => ({ ...actor, at: new Date(`${day}T08:00:00Z`), today: day });

/** A whole visit on a day, signed and not yet reviewed; adjusted to an error where one is given. */
async function visit(day: string, found: number, left: number | null = null): Promise<number> {
  const { app } = base;
  const technician = on(works.technician, day);
  const jobId = await openJob(app, technician, TAG, 'due');
  await walkToConnect(app, technician, jobId);
  await connectJob(app, technician, jobId, { ...CONNECTION, referenceReason: 'for the test' });
  await readAll(app, technician, await lastRunId(app, jobId, 'as-found'), found);
  await finishRun(app, technician, jobId, 'as-found');
  await decideOnRun(app, technician, jobId, {
    decision: left === null ? 'leave' : 'adjust',
    note: 'for the test',
  });
  if (left !== null) {
    await logAdjustment(app, technician, jobId, {
      kind: 'zero',
      description: '',
      atAppliedText: '0.000',
      beforeText: (4 + found).toFixed(3),
      afterText: (4 + left).toFixed(3),
    });
    await beginAsLeft(app, technician, jobId);
    await readAll(app, technician, await lastRunId(app, jobId, 'as-left'), left);
    await finishRun(app, technician, jobId, 'as-left');
  }
  await bringBack(app, technician, jobId);
  await signJob(app, technician, jobId, SIGNED);
  return jobId;
}
const accept = (jobId: number, day: string, isAccepted = true) =>
  reviewJob(base.app, on(reviewer, day), jobId, { isAccepted, remark: 'seen', password: '' });

const PER_MILLIAMP = 100 / 16;

describe('results', () => {
  it('are kept at the signature: errors, limits, verdict, who and with what, and how it was left', async () => {
    const first = await visit('2024-05-06', 0.02);
    await accept(first, '2024-05-06');
    const second = await visit('2025-05-05', 0.05, 0.004);
    await accept(second, '2025-05-05');
    const [one, two] = await historyOf(base.app, instrumentId);
    expect(one?.found).toMatchObject({
      jobId: first,
      doneOn: '2024-05-06',
      verdict: 'within',
      isLeft: true,
      standard: 'PC-1',
      meter: 'DM-1',
      doneBy: 'Technician A',
      sinceDays: null,
      rangeKey: '0 … 6 bar → 4 … 20 mA',
    });
    expect(one?.left).toBeNull();
    expect(one?.found?.at).toEqual([0, 25, 50, 75, 100, 75, 50, 25, 0]);
    expect(one?.found?.isDown.filter(Boolean)).toHaveLength(4);
    expect(one?.found?.error[0]).toBeCloseTo(0.02 * PER_MILLIAMP, 9);
    expect(new Set(one?.found?.limit)).toEqual(new Set([0.25]));
    expect(one?.found?.zeroPercent).toBeCloseTo(0.125, 9);
    expect([two?.found?.isLeft, two?.left?.isLeft, two?.found?.sinceDays]).toEqual([false, true, 364]);
    expect(two?.found?.verdict).toBe('outside');
    expect(await adjustmentsOf(base.app, instrumentId)).toMatchObject([{ jobId: second, kind: 'zero' }]);
    const [drift] = await base.app.query<{ zero: number; span: number }>(
      `select drift_zero_percent as zero, drift_span_percent as span from result where job_id = $1 and kind = 'as-found'`,
      [second],
    );
    expect(drift?.zero).toBeCloseTo(0.03 * PER_MILLIAMP, 9);
    expect(drift?.span).toBeCloseTo(0, 9);
  });

  it('are taken back when the job is sent back, and kept anew when it is signed again', async () => {
    const jobId = await visit('2025-11-03', 0.03);
    expect(await historyOf(base.app, instrumentId)).toHaveLength(3);
    await accept(jobId, '2025-11-03', false);
    expect(await historyOf(base.app, instrumentId)).toHaveLength(2);
    await signJob(base.app, on(works.technician, '2025-11-04'), jobId, SIGNED);
    await accept(jobId, '2025-11-04');
    const visits = await historyOf(base.app, instrumentId);
    expect(visits.map(({ doneOn }) => doneOn)).toEqual(['2024-05-06', '2025-05-05', '2025-11-03']);
  });

  it('follow an amendment of a reading from when it is agreed to', async () => {
    const jobId = (await historyOf(base.app, instrumentId)).at(-1)?.jobId ?? 0;
    const run = asFoundRun(await loadJob(base.app, jobId));
    const worst = async () => (await historyOf(base.app, instrumentId)).at(-1)?.found;
    await amendJob(base.app, works.technician, jobId, {
      readingId: run?.readings[4]?.id ?? 0,
      field: 'remark',
      what: '',
      afterText: '20.200',
      reason: 'misread',
      password: '',
    });
    expect(await worst()).toMatchObject({ verdict: 'within-adjust', isAmended: false });
    const amendment = (await amendmentsOfJob(base.app, jobId)).at(-1)?.id ?? 0;
    await reviewAmendment(base.app, reviewer, amendment, { isAccepted: true, remark: '', password: '' });
    expect(await worst()).toMatchObject({ verdict: 'outside', isAmended: true });
    expect((await worst())?.worstOfLimit).toBeCloseTo((0.2 * PER_MILLIAMP) / 0.25, 9);
  });

  it('do not follow a register that changes later, and a new range begins a line of its own', async () => {
    const before = await historyOf(base.app, instrumentId);
    await base.owner.query(`update instrument set tolerance_percent_of_span = 5 where tag = '${TAG}'`);
    await addConfiguration(base.app, works.technician, instrumentId, { ...RANGE, urv: 10, reason: 'test' });
    expect(await historyOf(base.app, instrumentId)).toEqual(before);
    await base.owner.query(`update instrument set tolerance_percent_of_span = 0.25 where tag = '${TAG}'`);
    const technician = on(works.technician, '2026-05-04');
    const jobId = await openJob(base.app, technician, TAG, 'due');
    await walkToConnect(base.app, technician, jobId);
    await connectJob(base.app, technician, jobId, CONNECTION);
    const runId = await lastRunId(base.app, jobId, 'as-found');
    const points = asFoundRun(await loadJob(base.app, jobId))?.madeWith.points ?? [];
    const { saveReading } = await import('../src/runs/reading');
    const { reading } = await import('./works');
    for (const { position, nominalPercent, nominalApplied } of points)
      await saveReading(
        base.app,
        technician,
        runId,
        reading(position, (4 + 0.16 * nominalPercent).toFixed(3), { appliedText: nominalApplied.toFixed(3) }),
      );
    await finishRun(base.app, technician, jobId, 'as-found');
    await decideOnRun(base.app, technician, jobId, { decision: 'leave', note: '' });
    await bringBack(base.app, technician, jobId);
    await signJob(base.app, technician, jobId, SIGNED);
    const visits = await historyOf(base.app, instrumentId);
    expect(visits.at(-1)?.rangeKey).toBe('0 … 10 bar → 4 … 20 mA');
    expect(presentVisits(visits, '0 … 10 bar → 4 … 20 mA')).toHaveLength(1);
    expect(presentVisits(visits, '0 … 12 bar → 4 … 20 mA')).toEqual([]);
    const [row] = await base.app.query(
      `select since_days as since, drift_zero_percent as zero from result where job_id = $1`,
      [jobId],
    );
    expect(row).toEqual({ since: dayjs('2026-05-04').diff('2025-11-03', 'day'), zero: null });
  });
});

it('two ranges have the same words where they are the same range, and only there', () => {
  const words = (more: object) => rangeKeyOf({ ...RANGE, version: 1, ...more });
  const all = [
    {},
    { urv: 6.5 },
    { inputUnit: 'psi' },
    { lrv: 1 },
    { outputLow: 20, outputHigh: 4 },
    { signal: 'V-1-5', outputLow: 1, outputHigh: 5, outputUnit: 'V' },
    { transferFunction: { kind: 'square-root' } },
    { transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 } },
    { transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 10 } },
    { transferFunction: { kind: 'square-root-linear-start', linearToPercentOfFlow: 10 } },
    {
      transferFunction: {
        kind: 'table',
        points: [
          [0, 0],
          [1, 1],
        ],
      },
    },
    {
      transferFunction: {
        kind: 'table',
        points: [
          [0, 0],
          [2, 1],
        ],
      },
    },
  ].map(words);
  expect(new Set(all).size).toBe(all.length);
  expect(words({ dampingS: 9, displayHigh: 100, version: 4 })).toBe(words({}));
});

describe('visits', () => {
  let id = 0;
  const run = (doneOn: string, more: Partial<KeptRun>): KeptRun => ({
    id: (id += 1),
    instrumentId: 1,
    jobId: null,
    runId: null,
    doneOn,
    kind: 'as-found',
    isLeft: true,
    verdict: 'within',
    isAmended: false,
    rangeKey: 'a',
    rangeVersion: 1,
    at: [0, 100, 0],
    isDown: [false, false, true],
    error: [0.1, 0.2, 0.14],
    limit: [0.25, 0.25, 0.25],
    adjustAbovePercent: 70,
    worstOfLimit: 0.8,
    zeroPercent: 0.1,
    spanPercent: 0.1,
    hysteresisPercent: 0.04,
    standard: 'PC-1',
    meter: 'DM-1',
    personId: null,
    doneBy: '',
    record: '',
    sinceDays: null,
    ...more,
  });

  it('join what was found and left, follow the mean at each point, and two of one day are one', () => {
    const visits = visitsOf([
      run('2024-01-01', { isLeft: false }),
      run('2024-01-01', { kind: 'as-left', error: [0, 0, 0], zeroPercent: 0 }),
      run('2025-01-01', { jobId: 7, zeroPercent: 0.05 }),
      run('2025-01-01', { jobId: 8, zeroPercent: 0.06, verdict: 'outside', worstOfLimit: 1.2 }),
    ]);
    expect(visits).toHaveLength(3);
    const present = presentVisits(visits, 'a');
    expect(present).toHaveLength(2);
    expect(followedZero(present).map(({ found, left }) => [found, left])).toEqual([
      [0.1, 0],
      [0.05, 0.06],
    ]);
    const [zero, full] = followedPoints(present);
    expect(zero).toMatchObject({ at: 0, limit: 0.25 });
    expect(zero?.adjustLimit).toBeCloseTo(0.175, 12);
    expect(zero?.history[0]?.found).toBeCloseTo(0.12, 12);
    expect(full?.history).toHaveLength(2);
    expect(resultsOf(visits)).toEqual(['inside', 'inside', 'outside']);
    expect(pointDrifts(followedPoints(present))).toEqual([]);
  });

  it('begin anew where only the end was kept, and say nothing of what was not judged', () => {
    const visits = visitsOf([
      run('2023-01-01', {}),
      run('2024-01-01', { kind: 'as-left' }),
      run('2025-01-01', { verdict: 'not-judged' }),
    ]);
    expect(presentVisits(visits, 'a').map(({ doneOn }) => doneOn)).toEqual(['2024-01-01', '2025-01-01']);
    expect(resultsOf(visits)).toEqual(['inside']);
    expect(presentVisits([], 'a')).toEqual([]);
    expect(followedPoints([])).toEqual([]);
    expect(
      followedPoints(visitsOf([run('2024-01-01', { limit: [0, 0.25, 0] })])).map(({ at }) => at),
    ).toEqual([100]);
  });
});
