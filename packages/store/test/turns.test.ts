/** Off the usual way of a job: cancelled, or connected once more. */
import { beforeEach, describe, expect, it } from 'vitest';
import { attach } from '../src/jobs/attachments';
import { cancelJob, connectAgain } from '../src/jobs/turns';
import { closedJobs, loadJob, openJobs, asFoundRun } from '../src/jobs/file';
import { connectJob } from '../src/jobs/connect';
import { decideOnRun, finishRun, openJob, passAsked } from '../src/jobs/decide';
import { logAdjustment } from '../src/jobs/adjust';
import { saveReading } from '../src/runs/reading';
import {
  answersAt,
  closeOpenJobs,
  CONNECTION,
  jobAtAsFound,
  lastRunId,
  MODULE,
  openWorks,
  readAll,
  reading,
  TAG,
  walkToConnect,
} from './works';

const { base, works } = await openWorks();
const { app } = base;
const { technician, auditor } = works;

beforeEach(() => closeOpenJobs(base.owner));

/** A job at Adjust, with its zero set. */
async function adjusted(): Promise<{ jobId: number; runId: number }> {
  const { jobId, runId } = await jobAtAsFound(app, technician);
  await readAll(app, technician, runId, 0.06);
  await finishRun(app, technician, jobId, 'as-found');
  await decideOnRun(app, technician, jobId, { decision: 'adjust', note: '' });
  const zero = {
    kind: 'zero',
    description: '',
    atAppliedText: '0',
    beforeText: '4.06',
    afterText: '4',
  } as const;
  await logAdjustment(app, technician, jobId, zero);
  return { jobId, runId };
}

describe('a job opened by mistake', () => {
  it('is cancelled with a reason, stays in the list, and its instrument is free', async () => {
    const jobId = await openJob(app, technician, TAG, 'due');
    await passAsked(app, technician, jobId, 'brief', await answersAt(app, jobId, 'brief'));
    await expect(cancelJob(app, technician, jobId, { reason: ' ', isBack: false })).rejects.toThrow(
      'Say why',
    );
    await expect(cancelJob(app, auditor, jobId, { reason: 'wrong tag', isBack: false })).rejects.toThrow(
      'may not do this',
    );
    await cancelJob(app, technician, jobId, { reason: 'wrong tag', isBack: false });
    const job = await loadJob(app, jobId);
    expect(job).toMatchObject({ stage: 'cancelled', cancelledBy: 'Technician A', cancelReason: 'wrong tag' });
    expect((await openJobs(app, 10)).map(({ id }) => id)).not.toContain(jobId);
    expect((await closedJobs(app, 1)).map(({ id }) => id)).toEqual([jobId]);
    expect(await openJob(app, technician, TAG, 'due')).toBeGreaterThan(jobId);
  });

  it('takes nothing more once it is cancelled', async () => {
    const jobId = await openJob(app, technician, TAG, 'due');
    await cancelJob(app, technician, jobId, { reason: 'wrong tag', isBack: false });
    const again = [
      () => cancelJob(app, technician, jobId, { reason: 'twice', isBack: false }),
      async () => passAsked(app, technician, jobId, 'brief', await answersAt(app, jobId, 'brief')),
      () => attach(app, technician, jobId, { remark: 'late', file: null }),
    ];
    for (const act of again) await expect(act()).rejects.toThrow('The job is at');
    await expect(base.owner.query(`update job set remark = 'x' where id = ${jobId}`)).rejects.toThrow(
      'is closed',
    );
  });

  it('is not cancelled while its valves are moved, and is once they are back', async () => {
    const jobId = await openJob(app, technician, TAG, 'due');
    await walkToConnect(app, technician, jobId);
    await expect(cancelJob(app, technician, jobId, { reason: 'wrong tag', isBack: false })).rejects.toThrow(
      'valves were moved',
    );
    expect((await loadJob(app, jobId)).stage).toBe('connect');
    await cancelJob(app, technician, jobId, { reason: 'wrong tag', isBack: true });
    expect((await loadJob(app, jobId)).stage).toBe('cancelled');
  });

  it('is not cancelled when something was adjusted', async () => {
    const { jobId } = await adjusted();
    await expect(cancelJob(app, technician, jobId, { reason: 'wrong tag', isBack: false })).rejects.toThrow(
      'an adjustment is logged',
    );
  });
});

describe('connecting once more', () => {
  it('from the run in hand begins another one under the new connection, and keeps the old on record', async () => {
    const { jobId, runId } = await jobAtAsFound(app, technician);
    await saveReading(app, technician, runId, reading(1, '4.010'));
    await expect(connectAgain(app, technician, jobId, '')).rejects.toThrow('Say why');
    await connectAgain(app, technician, jobId, 'the hose leaks');
    await connectJob(app, technician, jobId, {
      ...CONNECTION,
      pressureReference: MODULE['PC-COARSE'],
      referenceReason: 'the other one is away',
    });
    const job = await loadJob(app, jobId);
    expect(job.stage).toBe('as-found');
    expect(job.connections.map(({ pressureReference }) => pressureReference.tag)).toEqual([
      'PC-1',
      'PC-COARSE',
    ]);
    expect(job.runs.map(({ pass, thrownAway }) => [pass, thrownAway?.reason])).toEqual([
      [1, 'connected once more: the hose leaks'],
      [2, undefined],
    ]);
    expect(asFoundRun(job)?.madeWith.pressureReference.tag).toBe('PC-COARSE');
  });

  it('from Judge keeps the finished run, and the newest is decided on', async () => {
    const { jobId, runId } = await jobAtAsFound(app, technician);
    await readAll(app, technician, runId, 0.01);
    await finishRun(app, technician, jobId, 'as-found');
    await connectAgain(app, technician, jobId, 'a better standard is there now');
    await connectJob(app, technician, jobId, CONNECTION);
    const again = await lastRunId(app, jobId, 'as-found');
    expect(again).not.toBe(runId);
    await readAll(app, technician, again, 0.06);
    await finishRun(app, technician, jobId, 'as-found');
    const job = await loadJob(app, jobId);
    expect(job.runs.every(({ thrownAway }) => thrownAway === null)).toBe(true);
    expect(asFoundRun(job)?.id).toBe(again);
  });

  it('from Adjust begins the as-left run once something was adjusted, and not after that', async () => {
    const { jobId, runId } = await adjusted();
    await connectAgain(app, technician, jobId, 'the meter ran flat');
    await connectJob(app, technician, jobId, CONNECTION);
    expect((await loadJob(app, jobId)).stage).toBe('as-left');
    await expect(connectAgain(app, technician, jobId, 'again')).rejects.toThrow('The job is at as-left');
    expect(await lastRunId(app, jobId, 'as-left')).toBeGreaterThan(runId);
  });
});
