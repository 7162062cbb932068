/** What is found to be behind the readings of a run: kept as it was weighed, taken back, and never changed. */
import type { Suspicion } from '@barys/core/suspects';
import { afterEach, describe, expect, it } from 'vitest';
import { chooseCause, takeBackCause } from '../src/jobs/causes';
import { connectJob } from '../src/jobs/connect';
import { decideOnRun, finishRun, openJob } from '../src/jobs/decide';
import { asFoundRun, loadJob } from '../src/jobs/file';
import { knownBeside } from '../src/jobs/known-beside';
import { addBody } from '../src/registers/bodies';
import { addInstrument } from '../src/registers/instruments';
import { addConfiguration } from '../src/registers/configurations';
import { saveReading } from '../src/runs/reading';
import { weighRun } from '../src/runs/suspects';
import {
  CELL,
  closeOpenJobs,
  CONNECTION,
  entry,
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
const bodyId = await addBody(owner, technician, { ...CELL, model: 'Another cell' });

afterEach(() => closeOpenJobs(owner));

const BARS = [0, 1.5, 3, 4.5, 6, 4.5, 3, 1.5, 0];

/** A job of 0 to 6 bar at Judge, read as an output follows from the input. */
async function atJudge(tag: string, output: (bar: number) => number): Promise<number> {
  const jobId = await openJob(app, technician, tag, 'due');
  await walkToConnect(app, technician, jobId);
  await connectJob(app, technician, jobId, CONNECTION);
  const runId = await lastRunId(app, jobId, 'as-found');
  for (const [index, bar] of BARS.entries())
    await saveReading(
      app,
      technician,
      runId,
      reading(index + 1, output(bar).toFixed(3), { appliedText: bar.toFixed(3) }),
    );
  await finishRun(app, technician, jobId, 'as-found');
  return jobId;
}

const line = (bar: number): number => 4 + (16 * bar) / 6;
const choose = (jobId: number, suspicion: Suspicion, more: { vented?: string; remark?: string } = {}) =>
  chooseCause(app, technician, jobId, { suspicion, vented: '', remark: '', ...more });
const weighed = async (jobId: number, vented?: number) => {
  const job = await loadJob(app, jobId);
  const run = asFoundRun(job);
  if (run === null) throw new Error('There is no run.');
  return weighRun(run, job.instrument.kind, await knownBeside(app, job, run), vented);
};

describe('a finding behind the readings', () => {
  it('is kept as it was weighed, with what was read to decide it', async () => {
    const jobId = await atJudge(TAG, (bar) => line(bar) + 0.12);
    expect((await weighed(jobId, 4.12))?.weighed.told).toBe('zero');
    await choose(jobId, 'zero', { vented: '4.120', remark: 'vented at the block' });
    const [cause, ...others] = (await loadJob(app, jobId)).causes;
    expect(others).toEqual([]);
    expect(cause).toMatchObject({
      suspicion: 'zero',
      remark: 'vented at the block',
      chosenBy: 'Technician A',
      takenBack: null,
      content: { title: 'The zero has drifted', isTold: true, vented: '4.120' },
    });
    // 0.12 of 16 mA over 6 bar is 0.045 bar.
    expect(cause?.content.figure).toMatch(/^\+0\.04[45]\d* bar \(\+0\.7\d* % of span\)$/);
  });

  it('is taken back and chosen again, and both stay', async () => {
    const jobId = await atJudge(TAG, (bar) => line(bar) * 1.01);
    await choose(jobId, 'gain');
    await expect(choose(jobId, 'gain')).rejects.toMatchObject({ refusal: { code: 'taken' } });
    await takeBackCause(app, technician, jobId, { suspicion: 'gain', remark: 'the reference was it' });
    await expect(
      takeBackCause(app, technician, jobId, { suspicion: 'gain', remark: '' }),
    ).rejects.toMatchObject({
      refusal: { code: 'no-such' },
    });
    await choose(jobId, 'gain');
    const { causes } = await loadJob(app, jobId);
    expect(causes.map(({ takenBack }) => takenBack?.remark ?? null)).toEqual(['the reference was it', null]);
  });

  it('is refused where it was not weighed, away from Judge, of a reading that is none, and to who may not', async () => {
    const jobId = await atJudge(TAG, line);
    // A gauge pressure has no sides to exchange.
    await expect(choose(jobId, 'sides exchanged')).rejects.toMatchObject({ refusal: { code: 'no-such' } });
    await expect(choose(jobId, 'zero', { vented: 'four' })).rejects.toThrow(/number/i);
    await expect(
      chooseCause(app, auditor, jobId, { suspicion: 'zero', vented: '', remark: '' }),
    ).rejects.toMatchObject({ refusal: { code: 'not-allowed' } });
    await decideOnRun(app, technician, jobId, { decision: 'leave', note: '' });
    await expect(choose(jobId, 'zero')).rejects.toMatchObject({ refusal: { code: 'wrong-stage' } });
    expect((await loadJob(app, jobId)).causes).toEqual([]);
  });

  it('cannot be changed or deleted by anybody', async () => {
    const jobId = await atJudge(TAG, (bar) => line(bar) + 0.12);
    await choose(jobId, 'zero');
    await expect(owner.query('update cause set suspicion = $1', ['gain'])).rejects.toThrow();
    await expect(owner.query('delete from cause')).rejects.toThrow();
  });
});

describe('what is known beside a run', () => {
  it('names the range of another version', async () => {
    const tag = 'PT-NEIGHBOUR';
    const id = await addInstrument(owner, technician, entry({ tag, bodyId }), { ...RANGE, urv: 4.37 });
    await addConfiguration(owner, technician, id, { ...RANGE, reason: 'for the new pump' });
    const jobId = await atJudge(tag, (bar) => Math.min(20.5, 4 + (16 * bar) / 4.37));
    const found = await weighed(jobId);
    expect(found?.weighed.told).toBe('neighbouring range');
    expect(found?.weighed.suspects[0]?.fit.variant.name).toBe('version 1');
  });

  it('brings in how others were found with the same reference', async () => {
    const off = (bar: number): number => line(bar) - (16 * bar * 0.012) / 6;
    for (const tag of ['PT-OFF-1', 'PT-OFF-2', 'PT-OFF-3']) {
      await addInstrument(owner, technician, entry({ tag, bodyId }), RANGE);
      await atJudge(tag, off);
    }
    const jobId = await atJudge(TAG, off);
    const job = await loadJob(app, jobId);
    const run = asFoundRun(job);
    const known = run === null ? {} : await knownBeside(app, job, run);
    expect(known.others?.map(({ name }) => name).sort()).toEqual(
      expect.arrayContaining(['PT-OFF-1', 'PT-OFF-2', 'PT-OFF-3']),
    );
    expect((await weighed(jobId))?.weighed.told).toBe('reference');
  });
});
