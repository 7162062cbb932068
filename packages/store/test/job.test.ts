import { beforeEach, describe, expect, it } from 'vitest';
import {
  adjustAgain,
  beginAsLeft,
  backToJudge,
  decideOnRun,
  finishRun,
  openJob,
  passAsked,
  reopenAsFound,
} from '../src/jobs/decide';
import { asFoundRun, asLeftRun, jobsOfInstrument, loadJob } from '../src/jobs/file';
import { connectJob } from '../src/jobs/connect';
import { evaluateStoredRun } from '../src/runs/evaluation';
import { findInstrument } from '../src/registers/instruments';
import { logAdjustment } from '../src/jobs/adjust';
import { saveReading } from '../src/runs/reading';
import { signJob } from '../src/jobs/sign';
import {
  bringBack,
  closeOpenJobs,
  CONNECTION,
  jobAtAsFound,
  lastRunId,
  MODULE,
  openWorks,
  readAll,
  reading,
  SIGNED,
  TAG,
  walkToConnect,
} from './works';

const { base, works } = await openWorks();

/** Each test has the instrument free: an open job of the test before is signed away as the owner. */
beforeEach(async () => {
  await closeOpenJobs(base.owner);
});

const ZERO = {
  kind: 'zero',
  description: '',
  atAppliedText: '0.000',
  beforeText: '4.060',
  afterText: '4.002',
} as const;

describe('a job', () => {
  it('walks from brief to a signature, which waits for its review', async () => {
    const { app } = base;
    const { technician } = works;
    const { jobId, runId } = await jobAtAsFound(app, technician);
    await readAll(app, technician, runId, 0.06);
    await finishRun(app, technician, jobId, 'as-found');
    await decideOnRun(app, technician, jobId, { decision: 'adjust', note: 'zero has moved' });
    await logAdjustment(app, technician, jobId, ZERO);
    await beginAsLeft(app, technician, jobId);
    await readAll(app, technician, await lastRunId(app, jobId, 'as-left'), 0.002);
    await finishRun(app, technician, jobId, 'as-left');
    await bringBack(app, technician, jobId);
    await signJob(app, technician, jobId, SIGNED);

    const job = await loadJob(app, jobId);
    expect(job).toMatchObject({
      stage: 'review',
      signedBy: 'Technician A',
      asFoundVerdict: 'outside',
      asLeftVerdict: 'within',
    });
    expect(job.passed.map(({ stage }) => stage)).toEqual([
      'brief',
      'authorise',
      'isolate',
      'connect',
      'as-found',
      'judge',
      'adjust',
      'as-left',
      'return',
      'sign',
    ]);
    expect(job.adjustments).toMatchObject([
      { kind: 'zero', beforeText: '4.060', afterText: '4.002', pass: 1 },
    ]);
    const found = asFoundRun(job);
    expect(found && evaluateStoredRun(found).zeroErrorPercentSpan).toBeCloseTo(0.375, 9);
    expect((await findInstrument(app, { tag: TAG })).dueOn).toBe('2026-05-04');
    expect((await jobsOfInstrument(app, job.instrument.id))[0]?.id).toBe(jobId);
  });

  it('is open once an instrument, and says which job it is', async () => {
    const id = await openJob(base.app, works.technician, TAG, 'due');
    await expect(openJob(base.app, works.colleague, TAG, 'fault')).rejects.toThrow(
      `PT-1 already has an open job, ${id}`,
    );
  });

  it('is open once an instrument even when two people open it at the same moment', async () => {
    const both = await Promise.allSettled(
      [works.technician, works.colleague].map((actor) =>
        base.app.transaction((tx) => openJob(tx, actor, TAG, 'due')),
      ),
    );
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  it('is worked on only by those who may', async () => {
    await expect(openJob(base.app, works.auditor, TAG, 'due')).rejects.toThrow(
      'Auditor has the role auditor, which may not do this',
    );
    const nobody = { ...works.technician, personId: 999 };
    await expect(openJob(base.app, nobody, TAG, 'due')).rejects.toThrow('Sign in first');
  });

  it('takes each act only at its stage', async () => {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    await expect(
      passAsked(base.app, works.technician, jobId, 'brief', { given: {}, skipReason: '' }),
    ).rejects.toThrow('The job is at as-found');
    await expect(logAdjustment(base.app, works.technician, jobId, ZERO)).rejects.toThrow('belongs to adjust');
    await readAll(base.app, works.technician, runId, 0);
    await finishRun(base.app, works.technician, jobId, 'as-found');
    await expect(saveReading(base.app, works.technician, runId, reading(1, '4.1'))).rejects.toThrow(
      'The job is at judge',
    );
  });

  it('does not go on from a run that lacks a reading', async () => {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    await saveReading(base.app, works.technician, runId, reading(1, '4.001'));
    await expect(finishRun(base.app, works.technician, jobId, 'as-found')).rejects.toThrow(
      '8 points have no reading',
    );
  });
});

describe('the decision', () => {
  async function judged(errorMilliamp: number): Promise<number> {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    await readAll(base.app, works.technician, runId, errorMilliamp);
    await finishRun(base.app, works.technician, jobId, 'as-found');
    return jobId;
  }

  it('to leave an instrument that is within needs no reason, and no as-left run', async () => {
    const jobId = await judged(0.01);
    await decideOnRun(base.app, works.technician, jobId, { decision: 'leave', note: '' });
    await bringBack(base.app, works.technician, jobId);
    await signJob(base.app, works.technician, jobId, SIGNED);
    const job = await loadJob(base.app, jobId);
    expect(asLeftRun(job)).toBeNull();
    expect(job).toMatchObject({ asFoundVerdict: 'within', asLeftVerdict: 'within' });
  });

  it('to leave one that asks for an adjustment needs a reason; left outside, it stays due', async () => {
    const { dueOn } = await findInstrument(base.app, { tag: TAG });
    const jobId = await judged(0.06);
    await expect(
      decideOnRun(base.app, works.technician, jobId, { decision: 'leave', note: ' ' }),
    ).rejects.toThrow('Say why');
    await decideOnRun(base.app, works.technician, jobId, {
      decision: 'leave',
      note: 'no spare part until Friday',
    });
    await bringBack(base.app, works.technician, jobId);
    // The reason was given once; it is not asked for again at the signature.
    await signJob(base.app, works.technician, jobId, SIGNED);
    expect((await findInstrument(base.app, { tag: TAG })).dueOn).toBe(dueOn);
  });

  it('can be put off to correct a reading, until something was adjusted', async () => {
    const jobId = await judged(0.06);
    await reopenAsFound(base.app, works.technician, jobId);
    await finishRun(base.app, works.technician, jobId, 'as-found');
    await decideOnRun(base.app, works.technician, jobId, { decision: 'adjust', note: '' });
    await backToJudge(base.app, works.technician, jobId);
    await decideOnRun(base.app, works.technician, jobId, { decision: 'adjust', note: '' });
    await logAdjustment(base.app, works.technician, jobId, ZERO);
    await expect(backToJudge(base.app, works.technician, jobId)).rejects.toThrow('as-left run is required');
  });

  it('to adjust is followed by an adjustment before the as-left run, in every pass', async () => {
    const { app } = base;
    const jobId = await judged(0.06);
    await decideOnRun(app, works.technician, jobId, { decision: 'adjust', note: '' });
    await expect(beginAsLeft(app, works.technician, jobId)).rejects.toThrow('No adjustment is logged yet');
    await logAdjustment(app, works.technician, jobId, ZERO);
    await beginAsLeft(app, works.technician, jobId);
    await readAll(app, works.technician, await lastRunId(app, jobId, 'as-left'), 0.05);
    await finishRun(app, works.technician, jobId, 'as-left');
    await adjustAgain(app, works.technician, jobId);
    await expect(beginAsLeft(app, works.technician, jobId)).rejects.toThrow('No adjustment is logged yet');
    await logAdjustment(app, works.technician, jobId, { ...ZERO, kind: 'span' });
    await beginAsLeft(app, works.technician, jobId);
    const job = await loadJob(app, jobId);
    expect(job.runs.map(({ kind, pass }) => `${kind} ${pass}`)).toEqual([
      'as-found 1',
      'as-left 1',
      'as-left 2',
    ]);
    expect(job.adjustments.map(({ pass }) => pass)).toEqual([1, 2]);
  });

  it('names an adjustment of no usual kind, and takes only numbers', async () => {
    const jobId = await judged(0.06);
    await decideOnRun(base.app, works.technician, jobId, { decision: 'adjust', note: '' });
    const log = (entry: object) => logAdjustment(base.app, works.technician, jobId, { ...ZERO, ...entry });
    await expect(log({ kind: 'other' })).rejects.toThrow('what was done');
    await expect(log({ afterText: 'about 4' })).rejects.toThrow('"about 4" is not a number');
  });
});

describe('the connection', () => {
  async function atConnect(): Promise<number> {
    const jobId = await openJob(base.app, works.technician, TAG, 'due');
    await walkToConnect(base.app, works.technician, jobId);
    return jobId;
  }

  it.each([
    ['PC-OLD', 'its certificate ran out on 3 May 2026'],
    ['PC-SHORT', 'does not cover the points'],
    ['DM-1', 'it measures current'],
  ] as const)('refuses %s', async (tag, words) => {
    const jobId = await atConnect();
    const wrong = { ...CONNECTION, pressureReference: MODULE[tag] };
    await expect(connectJob(base.app, works.technician, jobId, wrong)).rejects.toThrow(words);
    expect((await loadJob(base.app, jobId)).stage).toBe('connect');
  });

  it('takes a reference out of date with a reason, which the connection keeps', async () => {
    const jobId = await atConnect();
    const late = { ...CONNECTION, pressureReference: MODULE['PC-OLD'] };
    await connectJob(base.app, works.technician, jobId, { ...late, referenceReason: 'checked this morning' });
    const [connection] = (await loadJob(base.app, jobId)).connections;
    expect(connection?.pressureReference.tag).toBe('PC-OLD');
    expect(connection?.referenceReason).toBe('checked this morning');
  });

  it('asks why a check was left out', async () => {
    const jobId = await atConnect();
    const partly = { ...CONNECTION, checksDone: ['reference zeroed'] as const };
    await expect(connectJob(base.app, works.technician, jobId, partly)).rejects.toThrow('"leak checked"');
    await connectJob(base.app, works.technician, jobId, { ...partly, note: 'bench test, no process' });
    expect((await loadJob(base.app, jobId)).connections[0]?.checksDone).toEqual(['reference zeroed']);
  });

  it('leaves the run with its own copy of all it was made with', async () => {
    const { owner } = base;
    const { jobId } = await jobAtAsFound(base.app, works.technician);
    const before = asFoundRun(await loadJob(base.app, jobId))?.madeWith;
    await owner.query(
      `insert into reference_certificate (reference_id, number, calibrated_on, due_on)
       select id, 'K-2', '2026-02-01', '2027-02-01' from reference_standard where tag = 'PC-1'`,
    );
    await owner.query(`update instrument set tolerance_percent_of_span = 1 where tag = $1`, [TAG]);
    const job = await loadJob(base.app, jobId);
    expect(job.instrument.tolerance.percentOfSpan).toBe(1);
    expect(job.connections[0]?.pressureReference.certificate).toBe('K-1');
    expect(asFoundRun(job)?.madeWith).toEqual(before);
    expect(before?.pressureReference.certificate).toBe('K-1');
    expect(before?.points).toHaveLength(9);
    await owner.query(`update instrument set tolerance_percent_of_span = 0.25 where tag = $1`, [TAG]);
  });
});
