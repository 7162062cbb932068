/** A signed record stays what it was when registers, people and rules change after it. */
import { afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { addSite, setLetterhead, setReview, setTimeZone } from '../src/people/site';
import { entryOf, type NewInstrument } from '../src/registers/instrument';
import { changeInstrument, findInstrument, tagToday } from '../src/registers/instruments';
import { changePerson } from '../src/people/people';
import { changeStandard, findStandard } from '../src/registers/references';
import { decideOnRun, finishRun, openJob, passAsked, throwRunAway } from '../src/jobs/decide';
import { evaluateStoredRun } from '../src/runs/evaluation';
import { keepMove } from '../src/jobs/valves';
import { lastDay, loadJob } from '../src/jobs/file';
import { saveReading } from '../src/runs/reading';
import { signJob } from '../src/jobs/sign';
import { bringBack, closeOpenJobs, jobAtAsFound, openWorks, readAll, reading, answersAt, TAG } from './works';

const { base, works } = await openWorks();
const { app } = base;
const { technician, administrator } = works;
const SIGNED = { remark: 'clear', password: '' };

beforeAll(async () => {
  await addSite(base.owner, { siteName: 'Test works', isDemo: false });
  await setReview(app, administrator, 'none');
  await setTimeZone(app, administrator, 'UTC');
  await setLetterhead(app, administrator, {
    laboratory: 'Workshop',
    laboratoryAddress: '',
    customer: '',
    customerAddress: '',
  });
});
beforeEach(() => closeOpenJobs(base.owner));

async function change(more: Partial<NewInstrument>): Promise<void> {
  const [{ id } = { id: 0 }] = await app.query<{ id: number }>('select id from instrument limit 1');
  const instrument = await findInstrument(app, { id });
  await changeInstrument(app, administrator, id, instrument.revision, { ...entryOf(instrument), ...more });
}
afterEach(() => change({ tag: TAG, serial: 'S-1', area: 'bench', hookUp: 'block-and-bleed' }));

async function signed(takenAt: (position: number) => Date | null = () => null): Promise<number> {
  const { jobId, runId } = await jobAtAsFound(app, technician);
  const applied = [0, 1.5, 3, 4.5, 6, 4.5, 3, 1.5, 0];
  for (const [index, bar] of applied.entries())
    await saveReading(
      app,
      technician,
      runId,
      reading(index + 1, (4.01 + (bar / 6) * 16).toFixed(3), {
        appliedText: bar.toFixed(3),
        takenAt: takenAt(index + 1),
      }),
    );
  await finishRun(app, technician, jobId, 'as-found');
  await decideOnRun(app, technician, jobId, { decision: 'leave', note: 'as it is' });
  await bringBack(app, technician, jobId);
  await signJob(app, technician, jobId, SIGNED);
  return jobId;
}

describe('after the register is changed', () => {
  it('a signed job keeps tag, serial number, place and hook-up, and says what the register says today', async () => {
    const jobId = await signed();
    const before = await loadJob(app, jobId);
    expect(before.since).toEqual([]);
    expect(before.renamed).toEqual([]);
    await change({ tag: 'PT-9', serial: 'S-2', area: 'hall', hookUp: '2-valve' });
    const after = await loadJob(app, jobId);
    expect(after).toMatchObject({ tag: TAG, area: 'bench' });
    expect(after.instrument).toMatchObject({ tag: TAG, serial: 'S-1', hookUp: 'block-and-bleed' });
    expect(after.since).toEqual([
      { name: 'tag', today: 'PT-9' },
      { name: 'area', today: 'hall' },
      { name: 'serial', today: 'S-2' },
      { name: 'hookUp', today: '2-valve' },
    ]);
    expect(await tagToday(app, TAG.toLowerCase())).toBe('PT-9');
    expect(await tagToday(app, 'PT-77')).toBeNull();
  });

  it('an open job takes over a hook-up that is put right before its valves are moved, and none after', async () => {
    const jobId = await openJob(app, technician, TAG, 'due');
    const pass = async (stage: 'brief' | 'authorise') =>
      passAsked(app, technician, jobId, stage, await answersAt(app, jobId, stage));
    await pass('brief');
    await change({ hookUp: '2-valve' });
    await pass('authorise');
    expect((await loadJob(app, jobId)).instrument.hookUp).toBe('2-valve');
    const move = { stage: 'isolate', valve: 'block', to: 'closed', isMadeAnyway: false, known: 0 } as const;
    await keepMove(app, technician, jobId, move);
    await change({ hookUp: '5-valve' });
    expect((await loadJob(app, jobId)).instrument.hookUp).toBe('2-valve');
  });

  it('a person who is renamed signs nothing that was signed before', async () => {
    const jobId = await signed();
    const person = { name: 'Technician A', role: 'technician', login: null, isActive: true } as const;
    const later = { ...administrator, at: new Date(technician.at.getTime() + 60_000) };
    await changePerson(app, later, technician.personId, { ...person, name: 'Technician Z' });
    const job = await loadJob(app, jobId);
    const run = job.runs[0];
    expect([
      job.openedBy,
      job.signedBy,
      run?.startedBy,
      run?.readings[0]?.readBy,
      job.passed[0]?.doneBy,
    ]).toEqual(Array(5).fill('Technician A'));
    expect(job.renamed).toEqual([{ then: 'Technician A', today: 'Technician Z' }]);
    await changePerson(app, later, technician.personId, person);
  });

  it('a connection keeps its standards as they were', async () => {
    const jobId = await signed();
    const standard = await findStandard(app, 'PC-1');
    const entry = { description: 'calibrator', serial: '1', state: 'in use', location: '' } as const;
    await changeStandard(app, administrator, standard, { ...entry, serial: '99' });
    const [connection] = (await loadJob(app, jobId)).connections;
    expect(connection?.pressureReference).toMatchObject({ tag: 'PC-1', serial: '1' });
    await changeStandard(app, administrator, { ...standard, revision: standard.revision + 1 }, entry);
  });

  it('a later run of a job has the tolerance and the points of the first', async () => {
    const { jobId, runId } = await jobAtAsFound(app, technician);
    await readAll(app, technician, runId, 0.01);
    await base.owner.query('update instrument set tolerance_percent_of_span = 2');
    await throwRunAway(app, technician, jobId, 'as-found', 'the hose was loose');
    const [first, second] = (await loadJob(app, jobId)).runs;
    expect(second?.madeWith.tolerance).toEqual(first?.madeWith.tolerance);
    expect(second?.connectionId).toBe(first?.connectionId);
    await base.owner.query('update instrument set tolerance_percent_of_span = 0.25');
  });
});

describe('the day of the work', () => {
  it('is that of the readings and not of the entry, and the due date follows it', async () => {
    const jobId = await signed(() => new Date('2026-04-28T10:00:00Z'));
    const [run] = (await loadJob(app, jobId)).runs;
    expect(run && lastDay(run)).toBe('2026-04-28');
    expect((await findInstrument(app, { tag: TAG })).dueOn).toBe('2027-04-28');
  });

  it('is never after the entry, whatever the clock of a browser says', async () => {
    const jobId = await signed(() => new Date('2031-04-28T10:00:00Z'));
    const [run] = (await loadJob(app, jobId)).runs;
    expect(run && lastDay(run)).toBe('2026-05-04');
  });

  it('is cut in the zone of the site, whatever that of the server', async () => {
    await setTimeZone(app, administrator, 'Pacific/Kiritimati');
    const jobId = await signed((position) => new Date(`2026-04-28T${position < 5 ? '09' : '10'}:30:00Z`));
    const [run] = (await loadJob(app, jobId)).runs;
    // Kiritimati is 14 hours before UTC all year (IANA tz database, australasia).
    expect(run?.readings.map(({ day }) => day.slice(-2)).join(' ')).toBe('28 28 28 28 29 29 29 29 29');
    expect(run && lastDay(run)).toBe('2026-04-29');
    await setTimeZone(app, administrator, 'UTC');
    await expect(setTimeZone(app, administrator, 'Mars/Olympus')).rejects.toThrow('time zone');
    await expect(setTimeZone(app, technician, 'UTC')).rejects.toThrow('may not do this');
  });

  it('is the day that the standards are taken to have drifted to', async () => {
    await base.owner.query('update reference_module set drift_percent_of_reading_per_year = 0.02');
    const uncertainty = async (day: string) => {
      const jobId = await signed(() => new Date(`${day}T10:00:00Z`));
      await closeOpenJobs(base.owner);
      const [run] = (await loadJob(app, jobId)).runs;
      return run === undefined ? undefined : evaluateStoredRun(run).readings[4]?.uncertainty;
    };
    expect(await uncertainty('2026-05-01')).toBeGreaterThan(1.05 * Number(await uncertainty('2026-01-08')));
    await base.owner.query('update reference_module set drift_percent_of_reading_per_year = 0');
  });
});
