import { expect, it } from 'vitest';
import { isSameRange, type NewConfiguration } from '../src/registers/configuration';
import { addConfiguration } from '../src/registers/configurations';
import { asFoundRun, asLeftRun, hasSamePoints, loadJob } from '../src/jobs/file';
import { backToJudge, beginAsLeft, decideOnRun, finishRun, openJob, throwRunAway } from '../src/jobs/decide';
import { connectJob } from '../src/jobs/connect';
import { findInstrument } from '../src/registers/instruments';
import { logAdjustment } from '../src/jobs/adjust';
import {
  bringBack,
  closeOpenJobs,
  CONNECTION,
  jobAtAsFound,
  lastRunId,
  openWorks,
  RANGE,
  readAll,
  TAG,
  walkToConnect,
} from './works';

const { base, works } = await openWorks();

/** Ten bar in another unit, so that nothing of the old range fits by chance. */
const WIDER: NewConfiguration = {
  ...RANGE,
  inputUnit: 'kPa',
  urv: 1000,
  displayUnit: 'kPa',
  displayHigh: 1000,
  reason: 'pump exchanged',
};

const configure = async (more: NewConfiguration) =>
  addConfiguration(base.app, works.technician, (await findInstrument(base.app, { tag: TAG })).id, more);

it('a range is changed between as found and as left, and the standards are chosen anew for it', async () => {
  const { app } = base;
  const { technician } = works;
  const { jobId, runId } = await jobAtAsFound(app, technician);
  await readAll(app, technician, runId, 0.01);
  await finishRun(app, technician, jobId, 'as-found');
  const decision = { decision: 'range change', note: '' } as const;
  await expect(decideOnRun(app, technician, jobId, decision)).rejects.toThrow('which range is asked for');
  await decideOnRun(app, technician, jobId, { ...decision, note: '0 to 10 bar for the new pump' });
  await expect(beginAsLeft(app, technician, jobId)).rejects.toThrow('No adjustment is logged yet');
  const entry = {
    kind: 'zero',
    description: '',
    atAppliedText: '0',
    beforeText: '4.01',
    afterText: '4',
  } as const;
  await logAdjustment(app, technician, jobId, entry);
  await configure(WIDER);
  await logAdjustment(app, technician, jobId, { ...entry, kind: 'span', atAppliedText: '1000' });
  await beginAsLeft(app, technician, jobId);
  expect((await loadJob(app, jobId)).stage).toBe('connect');
  const [newest] = await app.query('select act from audit_entry order by id desc limit 1');
  expect(newest).toEqual({ act: 'connect anew' });

  const anew = { ...CONNECTION, note: 'the bench was changed', checksDone: [] };
  await connectJob(app, technician, jobId, anew);
  const job = await loadJob(app, jobId);
  expect(job.stage).toBe('as-left');
  expect(job.connections.map(({ inputUnit, checksDone }) => [inputUnit, checksDone.length])).toEqual([
    ['bar', 4],
    ['kPa', 0],
  ]);
  const [found, left] = [asFoundRun(job), asLeftRun(job)];
  if (found === null || left === null) throw new Error('both runs are there');
  expect(found.madeWith.configuration).toMatchObject({ version: 1, urv: 6, inputUnit: 'bar' });
  expect(left.madeWith.configuration).toMatchObject({ version: 2, urv: 1000, inputUnit: 'kPa' });
  expect(left.pass).toBe(1);
  expect(left.madeWith.points.map(({ nominalApplied }) => nominalApplied)).toContain(750);
  expect(hasSamePoints(found, left)).toBe(false);
  expect(job.adjustments.map(({ atAppliedText, inputUnit }) => `${atAppliedText} ${inputUnit}`)).toEqual([
    '0 bar',
    '1000 kPa',
  ]);
  await readAll(app, technician, left.id, 0.002);
  await finishRun(app, technician, jobId, 'as-left');
  await bringBack(app, technician, jobId);
  const answers = (await loadJob(app, jobId)).passed.find(({ stage }) => stage === 'return')?.answers;
  expect(answers?.map(({ question }) => question)).toContain(
    'Display, controller and computer have the range that is set',
  );
  await closeOpenJobs(base.owner);
  await configure(RANGE);
});

it('what else is set, such as the damping, asks for an as-left run and for no other connection', async () => {
  const { app } = base;
  const { technician } = works;
  const { jobId, runId } = await jobAtAsFound(app, technician);
  await readAll(app, technician, runId, 0.01);
  await finishRun(app, technician, jobId, 'as-found');
  await decideOnRun(app, technician, jobId, { decision: 'adjust', note: '' });
  await configure({ ...RANGE, dampingS: 5, reason: 'less noise' });
  await expect(backToJudge(app, technician, jobId)).rejects.toThrow('as-left run is required');
  await beginAsLeft(app, technician, jobId);
  const left = asLeftRun(await loadJob(app, jobId));
  expect(left?.madeWith.configuration.dampingS).toBe(5);
  await closeOpenJobs(base.owner);
});

it('a run begun again keeps the range that its standards were connected for, whatever came in force since', async () => {
  const { app } = base;
  const { technician } = works;
  const jobId = await openJob(app, technician, TAG, 'range change');
  await walkToConnect(app, technician, jobId);
  await connectJob(app, technician, jobId, { ...CONNECTION, heightM: 2, liquidDensityKgPerM3: 1000 });
  const before = asFoundRun(await loadJob(app, jobId))?.madeWith;
  expect(before?.head).toBeLessThan(-0.19);
  await configure(WIDER);
  await throwRunAway(app, technician, jobId, 'as-found', 'the unit was changed');
  const again = (await loadJob(app, jobId)).runs.find(({ thrownAway }) => thrownAway === null);
  expect(again?.madeWith).toEqual(before);
  expect(again?.id).toBe(await lastRunId(app, jobId, 'as-found'));
});

it('another range asks who has to know, and makes the instrument due at once', async () => {
  const { app } = base;
  const { id, configuration } = await findInstrument(app, { tag: TAG });
  await base.owner.query(`update instrument set due_on = '2027-01-01' where id = $1`, [id]);
  const { version: _version, madeBy: _by, madeAt: _at, ...range } = configuration;
  const set = (more: Partial<typeof range>, given: Record<string, string> | null) =>
    addConfiguration(app, works.technician, id, { ...range, ...more, reason: 'more flow' }, given);
  const dueOn = async () => (await findInstrument(app, { tag: TAG })).dueOn;

  await set({ dampingS: 3 }, {});
  expect(await dueOn()).toBe('2027-01-01');
  const wider = { urv: range.urv * 1.1 };
  await expect(set(wider, { permit: 'W-1', controller: ' ' })).rejects.toThrow(
    /Not answered yet: Controller .*; Label .*; Receivers/,
  );
  await set(wider, { permit: 'W-1', controller: 'none uses it', label: 'fixed', receivers: 'control room' });
  expect(await dueOn()).toBe(works.technician.today);
  const [entry] = await app.query(
    `select detail -> 'due' as due, detail -> 'answers' ->> 'receivers' as receivers from audit_entry
     where act = 'configure instrument' order by id desc limit 1`,
  );
  expect(entry).toEqual({
    due: { before: '2027-01-01', after: works.technician.today },
    receivers: 'control room',
  });
});

it('another transfer function is another range to its standards', () => {
  const linear = { ...RANGE, version: 1 };
  expect(isSameRange(linear, { ...linear, version: 2, dampingS: 9, displayHigh: 100 })).toBe(true);
  expect(isSameRange(linear, { ...linear, transferFunction: { kind: 'square-root' } })).toBe(false);
  expect(isSameRange(linear, { ...linear, urv: 8 })).toBe(false);
});
