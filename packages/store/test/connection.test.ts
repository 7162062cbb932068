import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { addBody } from '../src/registers/bodies';
import { addCertificate } from '../src/registers/certificates';
import { addStandard, keepModule } from '../src/registers/references';
import { addInstrument } from '../src/registers/instruments';
import { asFoundRun, loadJob } from '../src/jobs/file';
import { connectJob, type NewConnection } from '../src/jobs/connect';
import { decideOnRun, finishRun, openJob, throwRunAway } from '../src/jobs/decide';
import { keepMark, type NewMark } from '../src/runs/marks';
import { logAdjustment } from '../src/jobs/adjust';
import { saveReading } from '../src/runs/reading';
import { isTooFast, leakOf, type LeakBasis } from '../src/jobs/leak';
import {
  CELL,
  closeOpenJobs,
  CONNECTION,
  entry,
  jobAtAsFound,
  lastRunId,
  LIMIT,
  MODULE,
  openWorks,
  RANGE,
  readAll,
  reading,
  TAG,
  walkToConnect,
} from './works';

const { base, works } = await openWorks();

beforeEach(async () => {
  await closeOpenJobs(base.owner);
});

async function connect(more: Partial<NewConnection>, tag = TAG): Promise<number> {
  const jobId = await openJob(base.app, works.technician, tag, 'due');
  await walkToConnect(base.app, works.technician, jobId);
  await connectJob(base.app, works.technician, jobId, { ...CONNECTION, ...more });
  return jobId;
}
const madeWith = async (jobId: number) => asFoundRun(await loadJob(base.app, jobId))?.madeWith;

describe('the leak check', () => {
  it('has its rate in per cent of span a minute, and its limit: a tenth of the tolerance', async () => {
    const jobId = await connect({ leak: { startText: '6.000', endText: '5,999', minutes: 2 } });
    const [connection] = (await loadJob(base.app, jobId)).connections;
    // 0.001 of 6 bar in 2 minutes.
    expect(connection?.leak).toMatchObject({ startText: '6.000', endText: '5,999', limit: 0.025 });
    expect(connection?.leak?.percentOfSpanPerMinute).toBeCloseTo(0.1 / 6 / 2, 12);
  });

  it('that loses too much needs a word, and so does one that does not rest', async () => {
    const leaking = { startText: '6.000', endText: '5.990', minutes: 2 };
    await expect(connect({ leak: leaking })).rejects.toThrow(
      'loses 0.083 % of span a minute, more than 0.025 %',
    );
    await closeOpenJobs(base.owner);
    await expect(connect({ leak: { startText: '6.000', endText: '6.010', minutes: 2 } })).rejects.toThrow(
      'rises, away from that of the air, by 0.083 %',
    );
    await closeOpenJobs(base.owner);
    await expect(connect({ leak: { startText: '-0.500', endText: '-0.490', minutes: 2 } })).rejects.toThrow(
      'the line rises by 0.083 % of span a minute',
    );
    await closeOpenJobs(base.owner);
    await connect({ leak: { startText: '6.000', endText: '5.997', minutes: 2 } });
  });

  it('is of numbers', async () => {
    await expect(connect({ leak: { startText: 'six', endText: '6', minutes: 2 } })).rejects.toThrow(
      'not a number',
    );
  });
});

describe('a height between standard and instrument', () => {
  it('is a head that the run keeps and every reading is judged with', async () => {
    // Water of 998 kg/m³ less air of 1.2, 2 m up: 996.8 · 9.80665 · 2 Pa = 0.195505 bar.
    const jobId = await connect({ heightM: 2, liquidDensityKgPerM3: 998 });
    expect((await madeWith(jobId))?.head).toBeCloseTo(-0.195505, 6);
  });

  it('is nothing in gas', async () => {
    expect((await madeWith(await connect({ heightM: 2, liquidDensityKgPerM3: 0 })))?.head).toBe(0);
  });
});

describe('a leak under vacuum', () => {
  const basis: LeakBasis = {
    kind: 'vacuum',
    configuration: { ...RANGE, urv: 1 },
    tolerance: { ...LIMIT, percentOfSpan: 0, percentOfReading: 20 },
  };

  it('is a rise, judged against what is read where the limit is', () => {
    // 0.010 to 0.500 bar in 2 minutes: 49 times the reading, of which a tenth of 20 % a minute is taken.
    const leak = leakOf(basis, { startText: '0.010', endText: '0.500', minutes: 2 }, 1010);
    expect(leak).toMatchObject({ of: 'reading', direction: 'rose', limit: 2 });
    expect(leak.percentOfSpanPerMinute).toBeCloseTo(2450, 9);
    expect(isTooFast(leak)).toBe(true);
    expect(isTooFast(leakOf(basis, { startText: '0.0100', endText: '0.0103', minutes: 2 }, 1010))).toBe(
      false,
    );
  });

  it('goes down again above the pressure of the air', () => {
    const absolute: LeakBasis = { ...basis, kind: 'absolute', tolerance: LIMIT };
    const down = { startText: '1.2', endText: '1.1', minutes: 1 };
    expect(leakOf(absolute, down, 1010)).toMatchObject({ of: 'span', direction: 'lost' });
    expect(leakOf(absolute, down, 1010).percentOfSpanPerMinute).toBeCloseTo(10, 9);
    const up = leakOf(absolute, { startText: '0.3', endText: '0.4', minutes: 1 }, 1010);
    expect(up.percentOfSpanPerMinute).toBeCloseTo(10, 9);
  });
});

describe('two standards in one run', () => {
  it('share its points: each by the one that is better there', async () => {
    const jobId = await connect({ pressureReference: MODULE['PC-1'], secondReference: MODULE['PC-SHORT'] });
    const made = await madeWith(jobId);
    // PC-SHORT reaches 3 bar and is a per cent of a shorter range: better up to there.
    expect(made?.points.map(({ nominalApplied, standard }) => [nominalApplied, standard])).toEqual([
      [0, 'second'],
      [1.5, 'second'],
      [3, 'second'],
      [4.5, 'first'],
      [6, 'first'],
      [4.5, 'first'],
      [3, 'second'],
      [1.5, 'second'],
      [0, 'second'],
    ]);
    expect(made?.secondReference?.tag).toBe('PC-SHORT');
  });

  it('that both stop short of a point need a reason', async () => {
    const short = { pressureReference: MODULE['PC-SHORT'], secondReference: MODULE['PC-SHORT'] };
    await expect(connect(short)).rejects.toThrow('neither reaches 4.5 bar');
  });
});

describe('an output read by eye', () => {
  it('needs no meter, and is read to half a division', async () => {
    const dial = {
      ...CELL,
      model: 'Dial',
      technology: 'dial gauge' as const,
      outputs: ['indication' as const],
    };
    const bodyId = await addBody(base.app, works.technician, dial);
    const scale = {
      ...RANGE,
      signal: 'indication' as const,
      outputUnit: 'bar',
      outputLow: 0,
      outputHigh: 6,
      scaleDivision: 0.1,
    };
    const gauge = entry({ bodyId, tag: 'PI-1', tolerance: { ...LIMIT, percentOfSpan: 1.6 } });
    await addInstrument(base.app, works.technician, gauge, scale);
    const made = await madeWith(await connect({ meter: null }, 'PI-1'));
    expect(made).toMatchObject({ meter: null, columns: ['before-tap'] });
    await closeOpenJobs(base.owner);
    // An instrument with a current output does need one.
    await expect(connect({ meter: null })).rejects.toThrow('which meter reads the output');
  });
});

it('the digital value and a second indication are columns of the run', async () => {
  const jobId = await connect({ readsDigital: true, secondIndication: 'panel meter' });
  const runId = await lastRunId(base.app, jobId, 'as-found');
  expect((await madeWith(jobId))?.columns).toEqual(['digital', 'second']);
  const more = { digital: '0,002', second: '0.0' };
  const takenAt = new Date('2026-05-04T07:59:00Z');
  await saveReading(base.app, works.technician, runId, reading(1, '4.001', { more, takenAt }));
  const [kept] = asFoundRun(await loadJob(base.app, jobId))?.readings ?? [];
  expect(kept).toMatchObject({ more, takenAt, readAt: works.technician.at });
  await expect(
    saveReading(base.app, works.technician, runId, reading(2, '8', { more: { digital: 'x' } })),
  ).rejects.toThrow('not a number');
});

it('what the procedure asks at the connection is answered, or left out with a word', async () => {
  await base.owner.query('update instrument set procedure_id = 7 where tag = $1', [TAG]);
  await expect(connect({})).rejects.toThrow('Is the supply at its nominal pressure');
  await base.owner.query('update instrument set procedure_id = 1 where tag = $1', [TAG]);
});

describe('a point', () => {
  const mark = (more: Partial<NewMark>): NewMark => ({
    position: 1,
    clientKey: '7b1f1c2e-6a52-4a83-9a4e-0d5b3f6f2a11',
    kind: 'overshot',
    appliedText: '0.2',
    outputText: '4.5',
    remark: '',
    ...more,
  });

  it('keeps an approach that overshot, once however often it is sent, and does not judge it', async () => {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    const first = await keepMark(base.app, works.technician, runId, mark({}));
    expect((await keepMark(base.app, works.technician, runId, mark({}))).id).toBe(first.id);
    const run = asFoundRun(await loadJob(base.app, jobId));
    expect(run?.marks).toMatchObject([{ kind: 'overshot', appliedText: '0.2', outputText: '4.5' }]);
    expect(run?.readings).toEqual([]);
  });

  it('may stay without a reading, with the reason, and the run is complete all the same', async () => {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    await readAll(base.app, works.technician, runId, 0.01);
    await base.owner.query('alter table reading disable trigger append_only');
    await base.owner.query('delete from reading where run_id = $1 and position = 5', [runId]);
    await base.owner.query('alter table reading enable trigger append_only');
    await expect(finishRun(base.app, works.technician, jobId, 'as-found')).rejects.toThrow('1 point has');
    const none = mark({ position: 5, kind: 'no reading', clientKey: '7b1f1c2e-6a52-4a83-9a4e-0d5b3f6f2a12' });
    await expect(keepMark(base.app, works.technician, runId, none)).rejects.toThrow('Say why');
    await keepMark(base.app, works.technician, runId, { ...none, remark: 'pump does not reach it' });
    await finishRun(base.app, works.technician, jobId, 'as-found');
    expect((await loadJob(base.app, jobId)).stage).toBe('judge');
  });

  it('of a run may not all stay without a reading: there would be nothing to judge', async () => {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    for (let position = 1; position <= 9; position += 1)
      await keepMark(
        base.app,
        works.technician,
        runId,
        mark({ position, clientKey: randomUUID(), kind: 'no reading', remark: 'no air' }),
      );
    await expect(finishRun(base.app, works.technician, jobId, 'as-found')).rejects.toThrow(
      'nothing to judge',
    );
  });

  it.each([
    [{ position: 99 }, 'no point 99'],
    [{ outputText: 'x' }, 'not a number'],
  ])('refuses a mark with %j', async (more, words) => {
    const { runId } = await jobAtAsFound(base.app, works.technician);
    const other = mark({ clientKey: '7b1f1c2e-6a52-4a83-9a4e-0d5b3f6f2a13', ...more });
    await expect(keepMark(base.app, works.technician, runId, other)).rejects.toThrow(words);
  });
});

describe('a run', () => {
  it('is thrown away with a reason that stays, and begun anew', async () => {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    await saveReading(base.app, works.technician, runId, reading(1, '4.001'));
    await expect(throwRunAway(base.app, works.technician, jobId, 'as-found', ' ')).rejects.toThrow('Say why');
    await throwRunAway(base.app, works.technician, jobId, 'as-found', 'pump leaked');
    const job = await loadJob(base.app, jobId);
    expect(job.runs.map(({ pass, thrownAway }) => [pass, thrownAway?.reason ?? null])).toEqual([
      [1, 'pump leaked'],
      [2, null],
    ]);
    expect(asFoundRun(job)?.pass).toBe(2);
    expect(job.runs[0]?.readings).toHaveLength(1);
    await expect(saveReading(base.app, works.technician, runId, reading(2, '8.001'))).rejects.toThrow(
      'no longer counts',
    );
  });

  it.each([
    ['repair', 'adjust'],
    ['replace', 'return'],
    ['range change', 'adjust'],
    ['further tests', 'as-found'],
  ] as const)('that is judged to %s goes on at %s, with the reason', async (decision, stage) => {
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    await readAll(base.app, works.technician, runId, 0.06);
    await finishRun(base.app, works.technician, jobId, 'as-found');
    const decide = (note: string) => decideOnRun(base.app, works.technician, jobId, { decision, note });
    await expect(decide('')).rejects.toThrow('Say why');
    await decide('seen on the bench');
    const job = await loadJob(base.app, jobId);
    expect(job.stage).toBe(stage);
    expect(job.passed.at(-1)).toMatchObject({
      note: 'seen on the bench',
      answers: [{ question: 'Decision', answer: decision }],
    });
    expect(job.runs).toHaveLength(decision === 'further tests' ? 2 : 1);
    // What is decided on next and signed is the newest run; the first one stays beside it.
    expect(asFoundRun(job)?.pass).toBe(decision === 'further tests' ? 2 : 1);
  });
});

describe('at atmosphere', () => {
  it.each([
    ['absolute', 'zero', '1.0', 'The zero of an absolute transmitter is not set at atmosphere'],
    ['vacuum', 'span', '1.0', 'The span of a vacuum gauge is not set at atmosphere'],
  ] as const)('an %s instrument has no %s set', async (kind, what, applied, words) => {
    const tag = `PT-${kind.toUpperCase()}`;
    const body = { ...CELL, model: `Cell ${kind}`, kind, lowerRangeLimit: 0, upperRangeLimit: 16 };
    const bodyId = await addBody(base.app, works.technician, body);
    await addInstrument(base.app, works.technician, entry({ bodyId, tag, kind }), RANGE);
    const standard = {
      tag: `AB-${kind}`,
      description: 'absolute',
      serial: '',
      state: 'in use',
      location: '',
    } as const;
    const id = await addStandard(base.app, works.technician, standard);
    const module = {
      name: '',
      quantity: 'pressure',
      kind: 'absolute',
      unit: 'bar',
      rangeLow: 0,
      rangeHigh: 20,
      resolution: 0.0001,
      percentOfReading: 0.02,
      percentOfRange: 0.01,
      floor: 0,
      driftPercentOfReadingPerYear: 0,
      percentOfReadingPerK: 0,
      isActive: true,
    } as const;
    const moduleId = await keepModule(base.app, works.technician, id, null, module);
    const certificate = { number: 'K', laboratory: '', calibratedOn: '2026-01-01', dueOn: '2027-01-01' };
    await addCertificate(
      base.app,
      works.technician,
      id,
      { ...certificate, uncertaintyPercentOfRange: null },
      null,
    );
    const given = { damping: 'done', gas: 'air, air' };
    const jobId = await connect({ pressureReference: moduleId, given }, tag);
    await readAll(base.app, works.technician, await lastRunId(base.app, jobId, 'as-found'), 0.06);
    await finishRun(base.app, works.technician, jobId, 'as-found');
    await decideOnRun(base.app, works.technician, jobId, { decision: 'adjust', note: '' });
    const log = (atAppliedText: string) =>
      logAdjustment(base.app, works.technician, jobId, {
        kind: what,
        description: '',
        atAppliedText,
        beforeText: '4.06',
        afterText: '4.00',
      });
    await expect(log(applied)).rejects.toThrow(words);
    await log('0.01');
    expect((await loadJob(base.app, jobId)).adjustments).toHaveLength(1);
  });
});
