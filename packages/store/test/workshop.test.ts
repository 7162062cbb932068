/** What comes from the workshop and the set-up walk into registers and jobs. */
import { NOTHING_READ, type Setup } from '@barys/core/setup';
import { afterEach, describe, expect, it } from 'vitest';
import { asFoundRun, loadJob } from '../src/jobs/file';
import { openJob, openJobsFor, passAsked } from '../src/jobs/decide';
import { tickLine } from '../src/jobs/lists';
import { openRangeChange } from '../src/jobs/range-plan';
import { handsIn, reviewJob, signJob } from '../src/jobs/sign';
import { addConfiguration } from '../src/registers/configurations';
import { addInstrument, findInstrument } from '../src/registers/instruments';
import { addNote, biasesOf, keepBias, noteSchema, notesOf, type NewBias } from '../src/registers/notes';
import { judgeChecks, USUAL_CHECKS } from '../src/registers/setup';
import { changeBody } from '../src/registers/bodies';
import { bodyShape, rangeMisfit } from '../src/registers/body';
import { findLiquid, keepLiquid, liquidSchema } from '../src/registers/liquids';
import { keepVessel, vesselsOf } from '../src/registers/vessels';
import { keepSetupReading, setupReadingsOf } from '../src/registers/setup-readings';
import { answersAt, CELL, closeOpenJobs, entry, openWorks, RANGE, SIGNED, TAG } from './works';

const { base, works } = await openWorks();
const { app } = base;
const { technician, colleague } = works;
const instrument = () => findInstrument(app, { tag: TAG });

afterEach(() => closeOpenJobs(base.owner));

const READ: Setup = { ...NOTHING_READ, inputUnit: 'bar', lrv: 0, urv: 6.3, dampingS: RANGE.dampingS };
const walk = async (more: Partial<Parameters<typeof keepSetupReading>[3]> = {}) =>
  keepSetupReading(app, technician, TAG, {
    job: null,
    version: (await instrument()).configuration.version,
    settings: READ,
    checks: USUAL_CHECKS,
    remark: '',
    ...more,
  });

describe('a set-up that was read', () => {
  it('is kept with the differences that it had then', async () => {
    await walk({ checks: { ...USUAL_CHECKS, restMilliamp: 3.8 }, remark: 'read at the display' });
    const { id } = await instrument();
    const [kept] = await setupReadingsOf(app, id, 1);
    expect(kept).toMatchObject({
      moment: 'walk',
      jobId: null,
      remark: 'read at the display',
      readBy: 'Technician A',
    });
    expect(kept?.differences.map(({ key, matters }) => [key, matters])).toEqual([['urv', 'yes']]);
    expect(kept?.checks).toMatchObject([{ name: 'Output at rest', isGood: false }]);
    // Another version later changes nothing of it.
    await addConfiguration(app, technician, id, { ...RANGE, urv: 6.3, displayHigh: 6.3, reason: 'as it is' });
    expect((await setupReadingsOf(app, id, 1))[0]?.differences).toHaveLength(1);
    await addConfiguration(app, technician, id, { ...RANGE, reason: 'back' });
  });

  it('is refused where nothing was read, and against a version that is no longer in force', async () => {
    await expect(walk({ settings: NOTHING_READ })).rejects.toThrow('nothing was read');
    await expect(walk({ version: 1 })).rejects.toThrow('changed');
  });

  it('belongs to an open job of its own instrument, and asks at the return for what is wrong', async () => {
    const jobId = await openJob(app, technician, TAG, 'check');
    const other = await addInstrument(
      app,
      technician,
      entry({ tag: 'PT-2', bodyId: (await instrument()).body.id }),
      RANGE,
    );
    expect(other).toBeGreaterThan(0);
    await expect(walk({ job: { id: 999, moment: 'as set' } })).rejects.toThrow(`no job on ${TAG} 999`);
    await walk({ job: { id: jobId, moment: 'as set' } });
    const job = await loadJob(app, jobId);
    expect(job.setups.map(({ moment }) => moment)).toEqual(['as set']);
    expect((await handsIn(app, jobId)).has(technician.personId)).toBe(true);
  });

  it('has checks that are judged on their limits', async () => {
    const { configuration } = await instrument();
    const good = (more: object) =>
      judgeChecks({ ...USUAL_CHECKS, ...more }, configuration, 0.25).map((one) => one.isGood);
    expect(good({})).toEqual([]);
    // 12 V at 22 mA: 4 mA and 250 ohms away stand 4.5 V more.
    expect([good({ terminalV: 16.5 }), good({ terminalV: 16.499 })]).toEqual([[true], [false]]);
    expect([good({ sensorC: 85 }), good({ sensorC: 85.1 }), good({ electronicsC: -41 })]).toEqual([
      [true],
      [false],
      [false],
    ]);
    // 934 x 9.80665 x 0.06 x sin 90 = 550 Pa are 0.09 % of 6 bar.
    expect(good({ tiltDegrees: 90 })).toEqual([true]);
    expect(good({ tiltDegrees: 90, distanceMm: 200 })).toEqual([false]);
    expect([good({ restMilliamp: 3.95 }), good({ restMilliamp: 3.81 }), good({ restMilliamp: 3.5 })]).toEqual(
      [[true], [false], [false]],
    );
  });
});

describe('a range that is handed over', () => {
  const planned = { ...RANGE, urv: 4, displayHigh: 4, reason: 'less pressure' };
  const open = (more: Partial<typeof RANGE> = {}, exchange: 'lbf·ft' | null = null) =>
    openRangeChange(app, technician, TAG, { ...planned, ...more }, { label: 'PT-1: 0 … 4 bar', exchange });

  it('opens a job with the configuration, the label and what must follow', async () => {
    const job = await loadJob(app, await open());
    expect(job).toMatchObject({
      reason: 'range change',
      plan: { label: 'PT-1: 0 … 4 bar', reason: 'less pressure' },
    });
    expect(job.plan?.configuration.urv).toBe(4);
    // The register says the old range until it is set.
    expect(job.instrument.configuration.urv).toBe(6);
    expect(job.lines.map(({ list }) => list)).toEqual(Array<string>(7).fill('what must follow'));
    await expect(open()).rejects.toThrow('already has an open job');
  });

  it('brings the checklist of a body that is exchanged, with torques in the unit of the plant', async () => {
    const { body } = await instrument();
    const { id, revision, ...cell } = body;
    await changeBody(app, technician, id, revision, {
      ...cell,
      outputs: [...cell.outputs],
      swapChecklist: [
        { step: 'New seals', torqueNm: null },
        { step: 'Bolts crosswise', torqueNm: 34 },
      ],
    });
    const { lines } = await loadJob(app, await open({}, 'lbf·ft'));
    expect(lines.filter(({ list }) => list === 'exchange of the body').map(({ text }) => text)).toEqual([
      'New seals',
      'Bolts crosswise: 25.1 lbf·ft',
    ]);
  });

  it('is refused where the body does not allow it, or nothing changes; no job stays', async () => {
    const before = await app.query('select id from job');
    await expect(open({ urv: 20 })).rejects.toThrow('outside the limits');
    await expect(open({ urv: 0.5 })).rejects.toThrow('least span');
    await expect(open({ urv: 6, displayHigh: 6 })).rejects.toThrow('has this range already');
    await expect(open({ signal: 'mA-10-50' })).rejects.toThrow('does not have this output');
    expect(await app.query('select id from job')).toEqual(before);
  });

  it('has lines that are ticked, taken back, and asked about at the return', async () => {
    const jobId = await open();
    const [first] = (await loadJob(app, jobId)).lines;
    const tick = (isDone: boolean, lineId = first?.id ?? 0) =>
      tickLine(app, colleague, jobId, { lineId, isDone });
    await tick(true);
    expect((await loadJob(app, jobId)).lines[0]).toMatchObject({ isDone: true, doneBy: 'Technician B' });
    await tick(false);
    expect((await loadJob(app, jobId)).lines[0]).toMatchObject({ isDone: false });
    await expect(tick(true, 0)).rejects.toThrow('no line 0');
    // Whoever ticked has had a hand in the job.
    expect((await handsIn(app, jobId)).has(colleague.personId)).toBe(true);
    await base.owner.query(`update job set stage = 'return' where id = $1`, [jobId]);
    const { given } = await answersAt(app, jobId, 'return');
    expect(given['open-lines']).toBe('as usual');
    const { 'open-lines': _open, ...rest } = given;
    await expect(
      passAsked(app, technician, jobId, 'return', { given: rest, skipReason: '' }),
    ).rejects.toThrow('not ticked (7)');
  });
});

describe('a boiler drum', () => {
  const BIAS: NewBias = {
    biasPercent: 7.3,
    pressurePa: 2.1e6,
    glassPercent: 50,
    shownPercent: 47,
    explainedPercent: 7.3,
    unexplainedPercent: -10.3,
    reason: 'leg proven full, zero proven',
    address: '/workshop/drum?taps=600',
  };
  let bodyId: number;
  const drum = async () => {
    bodyId = (await instrument()).body.id;
    await addInstrument(
      app,
      technician,
      entry({ tag: 'LT-9', bodyId, measures: 'level', hookUp: 'wet-leg' }),
      RANGE,
    );
  };

  it('is checked hot in a job without a run: no verdict, no certificate, the due date stays', async () => {
    await drum();
    const jobId = await openJob(app, technician, 'LT-9', 'hot check');
    for (const stage of ['brief', 'authorise'] as const)
      await passAsked(app, technician, jobId, stage, await answersAt(app, jobId, stage));
    const there = await loadJob(app, jobId);
    expect(there.stage).toBe('return');
    for (const { id } of there.lines) await tickLine(app, technician, jobId, { lineId: id, isDone: true });
    await keepBias(app, technician, 'LT-9', jobId, BIAS);
    const { given } = await answersAt(app, jobId, 'return');
    // Nothing was opened or connected.
    expect(Object.keys(given)).toEqual(['live', 'handed-back']);
    await passAsked(app, technician, jobId, 'return', { given, skipReason: '' });
    const before = (await findInstrument(app, { tag: 'LT-9' })).dueOn;
    await base.owner.query(`update installation set letterhead = '{"laboratory": "Works"}'`);
    await signJob(app, technician, jobId, SIGNED);
    await reviewJob(app, colleague, jobId, { isAccepted: true, remark: '', password: '' });
    const signed = await loadJob(app, jobId);
    expect(signed).toMatchObject({
      stage: 'closed',
      asFoundVerdict: null,
      asLeftVerdict: null,
      nextDue: null,
    });
    expect(signed.biases).toMatchObject([{ biasPercent: 7.3, pressurePa: 2.1e6, madeBy: 'Technician A' }]);
    expect(asFoundRun(signed)).toBeNull();
    expect((await findInstrument(app, { tag: 'LT-9' })).dueOn).toBe(before);
    await expect(keepBias(app, technician, 'LT-9', jobId, BIAS)).rejects.toThrow('an open job');
    await expect(
      tickLine(app, technician, jobId, { lineId: signed.lines[0]?.id ?? 0, isDone: false }),
    ).rejects.toThrow('an open job');
  });

  it('no other job can be signed without a run', async () => {
    const jobId = await openJob(app, technician, TAG, 'check');
    await base.owner.query(`update job set stage = 'sign' where id = $1`, [jobId]);
    await expect(signJob(app, technician, jobId, SIGNED)).rejects.toThrow('as-found run');
  });

  it('has kinds of job that are for a level with a wet leg alone', async () => {
    await expect(openJob(app, technician, TAG, 'hot check')).rejects.toThrow('wet leg');
    const id = (await instrument()).id;
    const level = (await findInstrument(app, { tag: 'LT-9' })).id;
    const { opened, refused } = await openJobsFor(app, technician, [id, level], 'cold set-up');
    expect(opened).toBe(1);
    expect(refused).toEqual([`${TAG}: This kind of job is for the level of a drum or tank with a wet leg.`]);
    const [job] = await app.query<{ id: number }>(
      'select id from job where instrument_id = $1 and reason = $2',
      [level, 'cold set-up'],
    );
    expect((await loadJob(app, job?.id ?? 0)).lines).toHaveLength(7);
  });

  it('has biases outside of jobs too, the last one first; a job of another instrument is refused', async () => {
    await keepBias(app, technician, 'LT-9', null, { ...BIAS, biasPercent: 3 });
    const { id } = await findInstrument(app, { tag: 'LT-9' });
    expect((await biasesOf(app, id, 9)).map(({ biasPercent }) => biasPercent)).toEqual([3, 7.3]);
    const jobId = await openJob(app, technician, TAG, 'check');
    await expect(keepBias(app, technician, 'LT-9', jobId, BIAS)).rejects.toThrow('no job on LT-9');
  });
});

it('a note stays with its instrument and leads back to where it was worked out', async () => {
  await addNote(app, technician, TAG, { text: 'would take 0 to 4 bar', address: '/workshop/level?a=1' });
  const [note] = await notesOf(app, (await instrument()).id, 5);
  expect(note).toMatchObject({ text: 'would take 0 to 4 bar', madeBy: 'Technician A' });
  await expect(addNote(app, technician, 'NONE', { text: 'x', address: '' })).rejects.toThrow('NONE');
  // A loop of twenty items, or a strapping table, as an address says it.
  const long = `/workshop/loop?items=${'x'.repeat(12_000)}`;
  await addNote(app, technician, TAG, noteSchema.parse({ text: 'a long loop', address: long }));
  const [longest] = await notesOf(app, (await instrument()).id, 5);
  expect(longest?.address).toBe(long);
  expect(() => noteSchema.parse({ text: 'x', address: `${long}${'x'.repeat(2_000)}` })).toThrow('too long');
});

describe('what a level is measured in', () => {
  const VESSEL = {
    tool: 'level',
    fields: { liquid: '1040' },
    lrvPa: 0,
    urvPa: 47996,
    reason: 'drawing',
  } as const;

  it('is kept in versions, for an instrument that measures a level', async () => {
    await expect(keepVessel(app, technician, TAG, VESSEL)).rejects.toThrow('measures pressure, not a level');
    await keepVessel(app, technician, 'LT-9', VESSEL);
    await keepVessel(app, colleague, 'LT-9', { ...VESSEL, fields: { liquid: '1060' }, reason: 'denser' });
    const { id } = await findInstrument(app, { tag: 'LT-9' });
    const kept = await vesselsOf(app, id);
    expect(kept.map(({ version, reason, madeBy }) => [version, reason, madeBy])).toEqual([
      [2, 'denser', 'Technician B'],
      [1, 'drawing', 'Technician A'],
    ]);
    expect(kept[1]?.fields).toEqual({ liquid: '1040' });
    await expect(app.query(`update vessel set reason = 'x'`)).rejects.toThrow();
  });

  it('has densities by temperature, which two people do not change over one another', async () => {
    const points = [
      { temperatureC: 20, densityKgPerM3: 1040 },
      { temperatureC: 60, densityKgPerM3: 1020 },
    ];
    const liquid = { name: 'Juice', source: 'laboratory', points };
    const id = await keepLiquid(app, technician, null, liquid);
    await expect(keepLiquid(app, technician, null, { ...liquid, name: 'JUICE' })).rejects.toThrow('JUICE');
    await keepLiquid(app, technician, { id, revision: 1 }, { ...liquid, source: 'again' });
    await expect(keepLiquid(app, colleague, { id, revision: 1 }, liquid)).rejects.toThrow('changed');
    expect(await findLiquid(app, id)).toMatchObject({ source: 'again', revision: 2, points });
    expect(liquidSchema.safeParse({ ...liquid, points: [...points].reverse() }).success).toBe(false);
    expect(liquidSchema.safeParse({ ...liquid, points: [] }).success).toBe(false);
    await expect(keepLiquid(app, technician, { id: 99, revision: 1 }, liquid)).rejects.toThrow(
      'no liquid 99',
    );
  });
});

it('a body that is stamped with its largest span only has the least span that follows', () => {
  const stamped = { ...CELL, greatestSpan: 8, leastSpan: 2, stampedTurndown: 4 };
  const wrong = (more: object) =>
    bodyShape.safeParse({ ...stamped, ...more }).error?.issues.map(({ path }) => path.join('.'));
  expect(wrong({})).toBeUndefined();
  expect(wrong({ leastSpan: 1 })).toEqual(['leastSpan']);
  expect(wrong({ greatestSpan: null })).toEqual(['greatestSpan']);
  expect(wrong({ stampedTurndown: 0.5 })).toContain('stampedTurndown');
  expect(wrong({ greatestElevationPercent: -1 })).toEqual(['greatestElevationPercent']);
  expect(rangeMisfit({ ...CELL, greatestSuppressionPercent: 100 }, 'bar', 5, 6)).toContain(
    '500 % of span above zero',
  );
  expect(rangeMisfit({ ...CELL, greatestSuppressionPercent: 500 }, 'bar', 5, 6)).toBeNull();
});
