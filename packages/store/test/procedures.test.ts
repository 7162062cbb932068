import { beforeAll, describe, expect, it } from 'vitest';
import { asFoundRun, loadJob } from '../src/jobs/file';
import { entryOf, toleranceOf } from '../src/registers/instrument';
import { changeInstrument, findInstrument } from '../src/registers/instruments';
import { decideOnRun, finishRun } from '../src/jobs/decide';
import {
  findProcedure,
  keepProcedure,
  listProcedures,
  procedureContentSchema,
  settleWaitS,
  type ProcedureContent,
} from '../src/registers/procedures';
import { saveReading } from '../src/runs/reading';
import { signJob } from '../src/jobs/sign';
import { bringBack, jobAtAsFound, openWorks, readAll, reading, SIGNED, TAG } from './works';

const { base, works } = await openWorks();
let usual: ProcedureContent;

beforeAll(async () => {
  const [first] = await listProcedures(base.app);
  if (first === undefined) throw new Error('no procedure comes with Barys');
  usual = first.content;
});

const keep = (
  edited: { id: number; version: number } | null,
  name: string,
  more: Partial<ProcedureContent>,
) =>
  base.app.transaction((tx) =>
    keepProcedure(tx, works.technician, edited, { name, content: { ...usual, ...more }, reason: 'trial' }),
  );

async function give(procedureId: number): Promise<void> {
  const instrument = await findInstrument(base.app, { tag: TAG });
  await changeInstrument(base.app, works.technician, instrument.id, instrument.revision, {
    ...entryOf(instrument),
    procedureId,
  });
}

it('seven come with Barys, each of them whole', async () => {
  const procedures = await listProcedures(base.app);
  expect(procedures).toHaveLength(7);
  for (const { content, name } of procedures)
    expect(procedureContentSchema.parse(content), name).toEqual(content);
  expect(procedures.find(({ name }) => name.startsWith('Square-root'))?.content.points.in).toBe(
    'percent-of-output',
  );
});

describe('a procedure', () => {
  it('is never edited: a change is a new version, and of two at once one is told', async () => {
    const id = await keep(null, 'Shop', {});
    await keep({ id, version: 1 }, 'Shop, quick', { cycles: 2 });
    const { name, versions } = await findProcedure(base.app, id);
    expect(name).toBe('Shop, quick');
    expect(versions.map(({ version, cycles, madeBy }) => [version, cycles, madeBy])).toEqual([
      [2, 2, 'Technician A'],
      [1, 1, 'Technician A'],
    ]);
    await expect(keep({ id, version: 1 }, 'Shop', {})).rejects.toThrow('Somebody else has changed');
    expect((await findProcedure(base.app, id)).name).toBe('Shop, quick');
    await expect(keep(null, 'Shop, quick', {})).rejects.toThrow('There is already a procedure');
    await expect(base.app.query(`update procedure_version set reason = 'x'`)).rejects.toThrow(
      'permission denied',
    );
    await expect(base.owner.query(`update procedure_version set reason = 'x'`)).rejects.toThrow(
      'only ever added to',
    );
  });

  it('decides points, order, cycles and limits of the next run, which keeps its copy', async () => {
    const id = await keep(null, 'Tight', {
      points: { in: 'percent-of-input', values: [0, 50, 100] },
      direction: 'up',
      cycles: 2,
      tolerancePercentOfSpan: 0.1,
      leastRatio: 1,
    });
    await give(id);
    expect(toleranceOf(await findInstrument(base.app, { tag: TAG }))).toEqual({
      percentOfSpan: 0.1,
      middlePercentOfSpan: null,
      percentOfReading: 0,
      adjustAbovePercentOfLimit: 70,
    });
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    const texts = ['4.000', '12.000', '20.000', '4.010', '12.010', '20.010'];
    for (const [index, text] of texts.entries())
      await saveReading(
        base.app,
        works.technician,
        runId,
        reading(index + 1, text, { appliedText: String((index % 3) * 3) }),
      );
    await keep({ id, version: 1 }, 'Tight', { cycles: 1 });
    const run = asFoundRun(await loadJob(base.app, jobId));
    expect(run?.madeWith.procedure).toEqual({ name: 'Tight', version: 1, isAsFoundOnly: false });
    expect(run?.madeWith.tolerance.percentOfSpan).toBe(0.1);
    expect(run?.madeWith.points.map(({ cycle, nominalPercent }) => [cycle, nominalPercent])).toEqual([
      [1, 0],
      [1, 50],
      [1, 100],
      [2, 0],
      [2, 50],
      [2, 100],
    ]);
    await finishRun(base.app, works.technician, jobId, 'as-found');
    await decideOnRun(base.app, works.technician, jobId, { decision: 'leave', note: '' });
    await bringBack(base.app, works.technician, jobId);
    await signJob(base.app, works.technician, jobId, SIGNED);
  });

  it('that is as found only lets nothing be adjusted', async () => {
    await give(3);
    const { jobId, runId } = await jobAtAsFound(base.app, works.technician);
    await readAll(base.app, works.technician, runId, 0.1);
    await finishRun(base.app, works.technician, jobId, 'as-found');
    await expect(
      decideOnRun(base.app, works.technician, jobId, { decision: 'adjust', note: '' }),
    ).rejects.toThrow('nothing is adjusted');
    await decideOnRun(base.app, works.technician, jobId, {
      decision: 'leave',
      note: 'reported to the planner',
    });
    await bringBack(base.app, works.technician, jobId);
    await signJob(base.app, works.technician, jobId, { ...SIGNED, remark: 'reported to the planner' });
    await give(1);
  });

  it('waits by the damping: 0.1 % of a step is left after 6.9 time constants', () => {
    expect(settleWaitS(usual, 2)).toBeCloseTo(2 * Math.log(1000), 12);
  });

  it.each([
    [{ points: { in: 'percent-of-input', values: [] } }, 'At least one point'],
    [
      { points: { in: 'percent-of-input', values: Array.from({ length: 12 }, (_, i) => i) } },
      'At most 11 points',
    ],
    [{ cycles: 6 }, 'At most five cycles'],
    [{ cycles: 1.5 }, 'a whole number'],
    [{ offStopsPercent: 30 }, 'at most 20 %'],
    [{ decisionRule: { kind: 'guard-band', r: 0, isUndecidedAllowed: true } }, 'greater than zero'],
    [{ tolerancePercentOfSpan: NaN }, 'The tolerance is a number'],
  ])('is refused with %o', (more, words) => {
    expect(() => procedureContentSchema.parse({ ...usual, ...more })).toThrow(words);
  });
});
