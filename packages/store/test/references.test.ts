import { setTimeout as sleep } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import type { Queryable } from '../src/db/database';
import { addCertificate, fileOfCertificate } from '../src/registers/certificates';
import { certificateSchema, moduleSchema, standardSchema, type Reference } from '../src/registers/reference';
import {
  addStandard,
  changeStandard,
  findReference,
  findStandard,
  keepModule,
  listReferences,
} from '../src/registers/references';
import {
  addFinding,
  decideFinding,
  decideFindingFor,
  doubtsOfJob,
  findFinding,
  findingSchema,
  findingsOf,
  openFindings,
  releaseReference,
  runsInDoubt,
} from '../src/registers/findings';
import { addInstrument, findInstrument } from '../src/registers/instruments';
import { bodySchema, addBody } from '../src/registers/bodies';
import { connectAgain } from '../src/jobs/turns';
import { connectJob } from '../src/jobs/connect';
import { betterStandard, fitOf, measuresSide, quantityWanted } from '../src/runs/fit';
import { uncertaintyAt } from '../src/runs/accuracy';
import {
  CELL,
  closeOpenJobs,
  CONNECTION,
  entry,
  jobAtAsFound,
  MODULE,
  openWorks,
  RANGE,
  readAll,
  TAG,
  TODAY,
} from './works';

const { base, works } = await openWorks();

const DUE = { number: 'K-9', laboratory: 'L', calibratedOn: '2026-04-01', dueOn: '2027-04-01' };
const module = (more: object) =>
  moduleSchema.parse({
    name: '',
    quantity: 'pressure',
    kind: 'gauge',
    unit: 'bar',
    rangeLow: 0,
    rangeHigh: 10,
    resolution: 0.001,
    percentOfReading: 0,
    percentOfRange: 0.02,
    floor: 0,
    driftPercentOfReadingPerYear: 0,
    percentOfReadingPerK: 0,
    isActive: true,
    ...more,
  });

describe('a reference', () => {
  it('is entered with its modules and certificates; the newest calibration is in force', async () => {
    const { technician } = works;
    const id = await addStandard(base.app, technician, {
      tag: 'PC-9',
      description: 'calibrator with modules',
      serial: '9',
      state: 'in use',
      location: 'shop',
    });
    const low = await keepModule(
      base.app,
      technician,
      id,
      null,
      module({ name: 'low', unit: 'mbar', rangeHigh: 700 }),
    );
    await keepModule(base.app, technician, id, null, module({ name: 'high' }));
    expect(
      fitOf(await findReference(base.app, low), await findInstrument(base.app, { tag: TAG }), 'input', {
        today: TODAY,
      }).unfit,
    ).toContain('it has no certificate');
    const pdf = { name: 'K-9.pdf', bytes: Buffer.from('%PDF-1.7') };
    await addCertificate(base.app, technician, id, { ...DUE, uncertaintyPercentOfRange: 0.01 }, pdf);
    await addCertificate(
      base.app,
      technician,
      id,
      { ...DUE, number: 'K-8', calibratedOn: '2025-04-01', uncertaintyPercentOfRange: null },
      null,
    );
    expect(await findReference(base.app, low)).toMatchObject({
      certificate: 'K-9',
      tag: 'PC-9',
      name: 'low',
    });
    const standard = await findStandard(base.app, 'PC-9');
    expect(standard.certificates.map(({ number }) => number)).toEqual(['K-9', 'K-8']);
    expect(await fileOfCertificate(base.app, standard.certificates[0]?.id ?? 0)).toMatchObject({
      name: 'K-9.pdf',
    });
    await expect(fileOfCertificate(base.app, standard.certificates[1]?.id ?? 0)).rejects.toThrow('no file');
    await changeStandard(base.app, technician, standard, { ...standard, state: 'away' });
    await expect(
      changeStandard(base.app, technician, standard, { ...standard, state: 'out' }),
    ).rejects.toThrow('Somebody else has changed PC-9');
    const instrument = await findInstrument(base.app, { tag: TAG });
    const high = (await listReferences(base.app)).find(({ tag, name }) => tag === 'PC-9' && name === 'high');
    expect(high && fitOf(high, instrument, 'input', { today: TODAY }).unfit).toBe('it is away (shop)');
    expect(high && fitOf(high, instrument, 'input', { today: '2027-04-02' }).unfit).toContain(
      'ran out on 1 Apr 2027',
    );
  });

  it.each([
    [{ unit: 'inH2O' }, 'A pressure unit with its reference is needed'],
    [{ rangeHigh: 0 }, 'must be above the lower one'],
    [{ percentOfRange: 0 }, 'At least one of'],
    [{ quantity: 'current' }, 'A current is in mA'],
    [{ resolution: NaN }, 'The resolution is a number'],
  ])('is refused with %o', (more, words) => {
    expect(() => module(more)).toThrow(words);
  });

  it('has a due date after its calibration', () => {
    expect(() =>
      certificateSchema.parse({ ...DUE, dueOn: DUE.calibratedOn, uncertaintyPercentOfRange: null }),
    ).toThrow('after the day of calibration');
  });

  it('is uncertain by certificate and specification together', async () => {
    const reference = await findReference(base.app, MODULE['PC-1']);
    // 0.005 % of 21 bar with k = 2 is u = 0.000525 bar; 0.02 % of 6 bar + 0.01 % of 21 bar, rectangular, is 0.0033/sqrt 3.
    expect(uncertaintyAt(reference, 6, { today: TODAY })).toBeCloseTo(
      2 * Math.sqrt(0.000525 ** 2 + 0.0033 ** 2 / 3),
      12,
    );
  });
});

describe('which reference fits', () => {
  it('tells absolute from gauge, and asks for what the output is', async () => {
    const body = bodySchema.parse({
      ...CELL,
      model: 'Absolute',
      kind: 'absolute',
      lowerRangeLimit: 0,
      outputs: ['psi-3-15'],
    });
    const bodyId = await addBody(base.app, works.technician, body);
    await addInstrument(base.app, works.technician, entry({ bodyId, tag: 'PT-ABS', kind: 'absolute' }), {
      ...RANGE,
      signal: 'psi-3-15',
      outputUnit: 'psi',
      outputLow: 3,
      outputHigh: 15,
    });
    const instrument = await findInstrument(base.app, { tag: 'PT-ABS' });
    expect(quantityWanted(instrument, 'output')).toBe('pressure');
    const gauge = await findReference(base.app, MODULE['PC-1']);
    expect(fitOf(gauge, instrument, 'input', { today: TODAY }).unfit).toContain(
      'does not read absolute pressure',
    );
    // The pneumatic output is gauge pressure all the same: 3 to 15 psi are 0.21 to 1.03 bar, of which 0.25 % of span is 2 mbar.
    expect(measuresSide(gauge, instrument, 'output')).toBe(true);
    expect(fitOf(gauge, instrument, 'output', { today: TODAY }).ratio).toBeCloseTo(0.897, 3);
    expect(measuresSide({ ...gauge, kind: 'absolute' }, instrument, 'output')).toBe(false);
  });
});

describe('the points of a run', () => {
  const fit = async (reference: Partial<Reference>, use: { head?: number } = {}) =>
    fitOf(
      { ...(await findReference(base.app, MODULE['PC-1'])), ...reference },
      await findInstrument(base.app, { tag: TAG }),
      'input',
      { today: TODAY, ...use },
    );

  it('decide what a reference has to reach: what it sees, with the head between', async () => {
    expect((await fit({ rangeLow: 0, rangeHigh: 6 })).unfit).toBeNull();
    // The instrument sees 0.02 bar less than the standard, which has to make 6.02 bar.
    expect((await fit({ rangeLow: 0, rangeHigh: 6 }, { head: -0.02 })).unfit).toContain(
      'does not cover the points',
    );
    expect((await fit({ rangeLow: 0, rangeHigh: 6.02 }, { head: -0.02 })).unfit).toBeNull();
  });

  it('are each taken by the standard with the smaller uncertainty, not the smaller specification', async () => {
    const instrument = await findInstrument(base.app, { tag: TAG });
    const first = await findReference(base.app, MODULE['PC-1']);
    // Half the specification, but a certificate with an uncertainty of ten times that of the other.
    const second = { ...first, percentOfReading: 0.01, uncertaintyPercentOfRange: 0.1 };
    const certain = { ...first, uncertaintyPercentOfRange: 0.01 };
    expect(betterStandard(certain, second, instrument, 6, { today: TODAY })).toBe('first');
    expect(betterStandard(second, certain, instrument, 6, { today: TODAY })).toBe('second');
  });
});

describe('a certificate with results at its points', () => {
  const RESULTS = [
    { at: 0, correction: 0, uncertainty: 0.001 },
    { at: 6, correction: -0.012, uncertainty: 0.002 },
  ];
  const keep = (
    standardId: number,
    moduleId: number,
    {
      points = RESULTS,
      unit = 'bar',
      tx = base.app,
    }: { points?: typeof RESULTS; unit?: string; tx?: Queryable } = {},
  ) =>
    addCertificate(
      tx,
      works.technician,
      standardId,
      certificateSchema.parse({
        ...DUE,
        number: 'K-10',
        uncertaintyPercentOfRange: null,
        results: [{ moduleId, unit, points }],
      }),
      null,
    );

  it('keeps them for their range, which then keeps its unit', async () => {
    const id = await addStandard(
      base.app,
      works.technician,
      standardSchema.parse({ tag: 'PC-10', description: 'x', serial: '', state: 'in use', location: '' }),
    );
    const bar = await keepModule(base.app, works.technician, id, null, module({ name: 'bar' }));
    const other = await keepModule(base.app, works.technician, id, null, module({ name: 'other' }));
    await keep(id, bar);
    expect((await findReference(base.app, bar)).results).toEqual(RESULTS);
    expect((await findReference(base.app, other)).results).toEqual([]);
    expect((await findStandard(base.app, 'PC-10')).certificates[0]?.results).toEqual([
      { moduleId: bar, unit: 'bar', points: RESULTS },
    ]);
    await expect(keep(id, MODULE['PC-1'])).rejects.toThrow('no module');
    const change = (unit: string) =>
      keepModule(base.app, works.technician, id, bar, module({ name: 'bar', unit }));
    await expect(change('kPa')).rejects.toThrow('states its results for this range in bar');
    await change('bar');
    await expect(keep(id, bar, { unit: 'kPa' })).rejects.toThrow('The unit of this range is bar by now');
    await expect(base.owner.query('update certificate_result set correction = 0')).rejects.toThrow();
  });

  it('and a change of the unit of its range, at the same time, wait for each other', async () => {
    const id = await addStandard(
      base.app,
      works.technician,
      standardSchema.parse({ tag: 'PC-11', description: 'x', serial: '', state: 'in use', location: '' }),
    );
    const range = await keepModule(base.app, works.technician, id, null, module({ name: 'bar' }));
    const change = (unit: string) =>
      keepModule(base.app, works.technician, id, range, module({ name: 'bar', unit }));
    let changed: Promise<unknown> = Promise.resolve();
    await base.app.transaction(async (tx) => {
      await keep(id, range, { tx });
      changed = change('kPa').then(
        () => 'changed',
        (error: unknown) => String(error),
      );
      // The other one is at its lock by then.
      await sleep(200);
    });
    expect(await changed).toContain('states its results for this range in bar');
  });

  it('is refused with a point twice, or without an uncertainty', () => {
    const at = (points: unknown) =>
      certificateSchema.safeParse({
        ...DUE,
        uncertaintyPercentOfRange: null,
        results: [{ moduleId: 1, unit: 'bar', points }],
      }).success;
    expect(at(RESULTS)).toBe(true);
    expect(at([RESULTS[0], RESULTS[0]])).toBe(false);
    expect(at([{ at: 0, correction: 0, uncertainty: 0 }])).toBe(false);
    expect(at([{ at: 0, uncertainty: 1 }])).toBe(false);
  });
});

describe('a reference found out of tolerance', () => {
  const FINDING = findingSchema.parse({
    foundOn: TODAY,
    goodUntil: '2026-01-01',
    errors: [
      { at: 0, error: 0 },
      { at: 6, error: 0.012 },
    ],
    note: 'reads high',
  });

  it('has its runs judged again, newest first, and each is decided with the earlier decisions kept', async () => {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    await readAll(base.app, works.technician, runId, 0.03);
    const id = await addFinding(base.app, works.technician, MODULE['PC-1'], FINDING);
    const finding = await findFinding(base.app, id);
    const [run, ...others] = await runsInDoubt(base.app, finding, 10);
    expect(others).toEqual([]);
    // +0.030 mA is 0.1875 %; at 6 bar the true pressure is 5.988 bar, so the error is +0.062 mA, 0.3875 %.
    expect(run).toMatchObject({
      jobId,
      runId,
      tag: TAG,
      verdictThen: 'within-adjust',
      verdictNow: 'outside',
      decision: null,
    });
    expect(run?.worstThen).toBeCloseTo(0.1875, 10);
    expect(run?.worstNow).toBeCloseTo(0.3875, 10);
    const decide = (decision: 'no effect' | 'recall' | 'note', remark: string) =>
      decideFinding(base.app, works.technician, id, { runId, decision, remark });
    await expect(decide('note', ' ')).rejects.toThrow('Say why');
    await decide('note', 'ask production');
    await base.owner.query(`update instrument set due_on = '2027-01-01' where tag = $1`, [TAG]);
    await decide('recall', '');
    expect((await runsInDoubt(base.app, finding, 10))[0]).toMatchObject({
      decision: 'recall',
      decidedBy: 'Technician A',
    });
    expect((await findInstrument(base.app, { tag: TAG })).dueOn).toBe(TODAY);
    expect(await base.app.query('select from finding_decision')).toHaveLength(2);
    expect((await findingsOf(base.app, 'PC-1')).map(({ note }) => note)).toEqual(['reads high']);
  });

  it('asks nothing of runs outside the time in doubt, or with another reference', async () => {
    const early = { ...FINDING, foundOn: '2026-02-01' };
    const id = await addFinding(base.app, works.technician, MODULE['PC-1'], early);
    expect(await runsInDoubt(base.app, await findFinding(base.app, id), 10)).toEqual([]);
    const other = await addFinding(base.app, works.technician, MODULE['PC-COARSE'], FINDING);
    expect(await runsInDoubt(base.app, await findFinding(base.app, other), 10)).toEqual([]);
  });

  it('leaves runs of another module of the same reference alone', async () => {
    const [standard] = await base.app.query<{ id: number }>(
      `select id from reference_standard where tag = 'PC-1'`,
    );
    const other = await keepModule(
      base.app,
      works.technician,
      standard?.id ?? 0,
      null,
      module({ name: 'low', unit: 'mbar', rangeHigh: 700 }),
    );
    const id = await addFinding(base.app, works.technician, other, FINDING);
    expect(await runsInDoubt(base.app, await findFinding(base.app, id), 10)).toEqual([]);
  });

  it('takes the error of a meter from the output', async () => {
    const meter = { ...FINDING, errors: [{ at: 4, error: 0.02 }] };
    const id = await addFinding(base.app, works.technician, MODULE['DM-1'], meter);
    const [run] = await runsInDoubt(base.app, await findFinding(base.app, id), 10);
    expect(run?.worstNow).toBeCloseTo(0.0625, 10);
  });

  it('is refused without points, with points that do not rise, and from people who keep no registers', async () => {
    expect(() => findingSchema.parse({ ...FINDING, errors: [] })).toThrow('at least one point');
    expect(() => findingSchema.parse({ ...FINDING, goodUntil: '2027-01-01' })).toThrow('not after');
    const twice = { ...FINDING, errors: [FINDING.errors[0], FINDING.errors[0]] as typeof FINDING.errors };
    await expect(addFinding(base.app, works.technician, MODULE['PC-1'], twice)).rejects.toThrow('must rise');
    await expect(addFinding(base.app, works.auditor, MODULE['PC-1'], FINDING)).rejects.toThrow(
      'may not do this',
    );
  });

  it('is held until somebody releases it, and its records say what was found', async () => {
    const { technician, auditor } = works;
    await closeOpenJobs(base.owner);
    await base.owner.query(
      `insert into finding_release (finding_id, reason, released_by, released_at)
       select id, 'long ago', $1, now() from reference_finding`,
      [technician.personId],
    );
    const { jobId, runId } = await jobAtAsFound(base.app, technician);
    await readAll(base.app, technician, runId, 0.01);
    const id = await addFinding(base.app, technician, MODULE['PC-1'], {
      foundOn: TODAY,
      goodUntil: '2026-01-01',
      errors: [{ at: 0, error: 0.01 }],
      note: 'dropped',
    });
    const reference = await findReference(base.app, MODULE['PC-1']);
    expect(reference.heldSince).toBe(TODAY);
    const instrument = await findInstrument(base.app, { tag: TAG });
    expect(fitOf(reference, instrument, 'input', { today: TODAY }).unfit).toContain('nobody has released it');
    await connectAgain(base.app, technician, jobId, 'to try it');
    const connect = () =>
      connectJob(base.app, technician, jobId, { ...CONNECTION, referenceReason: 'no other' });
    await expect(connect()).rejects.toThrow('PC-1 cannot be used: it is held');

    const [doubt] = (await doubtsOfJob(base.app, jobId)).filter(({ findingId }) => findingId === id);
    expect(doubt).toMatchObject({ reference: 'PC-1', foundOn: TODAY, runId, decision: null });
    const waiting = async () => (await openFindings(base.app, 50)).find((one) => one.id === id);
    const undecided = (await waiting())?.undecided ?? 0;
    expect(undecided).toBeGreaterThan(0);
    const runs = (await runsInDoubt(base.app, await findFinding(base.app, id), 100)).map((one) => one.runId);
    expect(runs).toHaveLength(undecided);
    await expect(
      decideFindingFor(base.app, technician, id, { runIds: [], decision: 'no effect', remark: '' }),
    ).rejects.toThrow('tick them first');
    await decideFindingFor(base.app, technician, id, {
      runIds: runs,
      decision: 'no effect',
      remark: 'small',
    });
    expect(await waiting()).toMatchObject({ undecided: 0, isHeld: true });
    expect((await doubtsOfJob(base.app, jobId)).find(({ findingId }) => findingId === id)).toMatchObject({
      decision: 'no effect',
      remark: 'small',
      decidedBy: 'Technician A',
    });

    await expect(releaseReference(base.app, technician, id, ' ')).rejects.toThrow('Say why');
    await expect(releaseReference(base.app, auditor, id, 'fine')).rejects.toThrow('may not do this');
    await releaseReference(base.app, technician, id, 'adjusted');
    await expect(releaseReference(base.app, technician, id, 'again')).rejects.toThrow('There is already');
    expect(await waiting()).toBeUndefined();
    expect((await findReference(base.app, MODULE['PC-1'])).heldSince).toBeNull();
    await connect();
  });
});

it('a finding stands for the correction of a certificate, it does not come on top', async () => {
  const { technician } = works;
  await closeOpenJobs(base.owner);
  await base.owner.query(
    `insert into finding_release (finding_id, reason, released_by, released_at)
     select id, 'looked at', $1, now() from reference_finding
     where not exists (select from finding_release where finding_id = reference_finding.id)`,
    [technician.personId],
  );
  const [standard] = await base.app.query<{ id: number }>(
    `select id from reference_standard where tag = 'PC-1'`,
  );
  const points = [
    { at: 0, correction: 0, uncertainty: 0.001 },
    { at: 6, correction: -0.012, uncertainty: 0.001 },
  ];
  await addCertificate(
    base.app,
    technician,
    standard?.id ?? 0,
    {
      ...DUE,
      number: 'K-11',
      calibratedOn: TODAY,
      uncertaintyPercentOfRange: null,
      results: [{ moduleId: MODULE['PC-1'], unit: 'bar', points }],
    },
    null,
  );
  const { runId } = await jobAtAsFound(base.app, technician);
  await readAll(base.app, technician, runId, 0.03);
  const id = await addFinding(base.app, technician, MODULE['PC-1'], {
    foundOn: TODAY,
    goodUntil: '2026-01-01',
    errors: [
      { at: 0, error: 0 },
      { at: 6, error: 0.012 },
    ],
    note: 'as the certificate says',
  });
  const runs = await runsInDoubt(base.app, await findFinding(base.app, id), 100);
  const run = runs.find((one) => one.runId === runId);
  // 6 bar was 5.988 bar: +0.062 mA at the top, by the certificate and by the finding alike.
  expect(run?.worstThen).toBeCloseTo(0.3875, 10);
  expect(run?.worstNow).toBeCloseTo(0.3875, 10);
});
