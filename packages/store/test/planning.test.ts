/** The plan in the store: from the registers to a problem, kept, changed by hand, and checked as it stands. */
import { clashesOf, firstCome, planWorth } from '@barys/core/plan';
import { beforeAll, describe, expect, it } from 'vitest';
import { openJob } from '../src/jobs/decide';
import { addSite } from '../src/people/site';
import { fixPlanned, keepPlan, putPlanned, takeOutOfPlan } from '../src/planning/change';
import { markDone, markUndone } from '../src/planning/done';
import { askPlan, lastMaking, stopPlan, workPlan, type MakePlan } from '../src/planning/making';
import { planGround, withFixed } from '../src/planning/problem';
import { loadWeek, plannedWalks, waysOf } from '../src/planning/week';
import { addInstrument, findInstrument } from '../src/registers/instruments';
import { entry, openWorks, RANGE, TAG, TODAY } from './works';

const { base, works } = await openWorks();
const planner = works.administrator;
const idOf: Record<string, number> = {};
const job = (tag: string): string => String(idOf[tag]);
/** From Monday to Sunday. */
const ground = () => planGround(base.app, TODAY, 7);
const week = () => loadWeek(base.app, TODAY, 7, TODAY);
const planAnew = async () => {
  const now = await ground();
  const problem = withFixed(now, TODAY);
  const plan = firstCome(problem);
  await base.app.transaction((tx) => keepPlan(tx, planner, now, plan));
  return { problem, plan };
};
const stands = async () =>
  new Map((await week()).placed.map(({ job: id, planned }) => [id, planned] as const));
const put = (tag: string, seen: number | null, day: string, person = works.colleague.personId) =>
  base.app.transaction((tx) =>
    putPlanned(tx, planner, idOf[tag] ?? 0, seen, {
      personId: person,
      day,
      minutes: 60,
      references: ['PC-1', 'DM-1'],
    }),
  );

beforeAll(async () => {
  const { body, id } = await findInstrument(base.app, { tag: TAG });
  idOf[TAG] = id;
  const add = async (tag: string, more: Partial<Parameters<typeof entry>[0]>) => {
    idOf[tag] = await addInstrument(
      base.app,
      works.technician,
      entry({ tag, bodyId: body.id, ...more }),
      RANGE,
    );
  };
  await add('PT-OLD', { dueOn: '2026-04-01', criticality: 'quality', area: 'kiln', walk: 2 });
  await add('PT-KILN', { dueOn: '2026-05-06', area: 'kiln', walk: 1, isolatedWith: 'kiln head' });
  await add('PT-SHUT', { dueOn: '2026-05-08', area: 'tanks', canBeIsolated: 'in a shutdown' });
  await add('PT-NEVER', { dueOn: '2026-05-08', area: 'boiler', canBeIsolated: 'in a shutdown' });
  await add('PT-SOON', { dueOn: '2026-05-20' });
  await add('PT-FAR', { dueOn: '2026-09-20' });
  await add('PT-SPARE', { state: 'spare' });
  await base.owner.query(
    `insert into shutdown (area, first_day, last_day, what) values ('tanks', '2026-05-01', '2026-05-05', 'wash'),
       ('kiln', '2026-05-06', '2026-05-06', '')`,
  );
  await base.owner.query(
    `insert into absence (person_id, first_day, last_day) values ($1, '2026-05-05', '2026-05-06')`,
    [works.colleague.personId],
  );
  await addSite(base.owner, { siteName: 'Works', isDemo: false });
  await base.owner.query(`update installation set grace_days = 3`);
});

describe('what is to be planned', () => {
  it('comes from the registers: days, hours, weights, references that serve and last', async () => {
    const { problem, days, candidates } = await ground();
    expect(days).toEqual([
      '2026-05-04',
      '2026-05-05',
      '2026-05-06',
      '2026-05-07',
      '2026-05-08',
      '2026-05-09',
      '2026-05-10',
    ]);
    expect(candidates.map(({ instrument }) => instrument.tag).sort()).toEqual(
      ['PT-1', 'PT-KILN', 'PT-NEVER', 'PT-OLD', 'PT-SHUT', 'PT-SOON'].sort(),
    );
    expect(problem.people).toEqual([
      { id: String(works.technician.personId), minutes: [450, 450, 450, 450, 450, 0, 0] },
      { id: String(works.colleague.personId), minutes: [450, 0, 0, 450, 450, 0, 0] },
    ]);
    const of = (tag: string) => problem.jobs.find(({ id }) => id === job(tag));
    expect(of('PT-OLD')).toMatchObject({
      weight: 4,
      lateFrom: 0,
      minutes: 60,
      area: 'kiln',
      walk: 2,
      group: null,
    });
    expect(of('PT-KILN')).toMatchObject({
      weight: 1.5,
      lateFrom: 6,
      group: 'kiln head',
      days: [0, 1, 2, 3, 4, 5, 6],
    });
    expect(of('PT-SOON')).toMatchObject({ weight: 0.5, lateFrom: 20 });
    expect([of('PT-SHUT')?.days, of('PT-NEVER')?.days]).toEqual([[0, 1], []]);
    // The works' other references have run out, do not reach, or are too coarse.
    expect(of(TAG)?.needs).toEqual([['PC-1'], ['DM-1']]);
    const lastDay = new Map(problem.references.map(({ id, lastDay: day }) => [id, day]));
    expect([lastDay.get('PC-1'), lastDay.get('PC-OLD')]).toEqual([0, -1]);
  });
});

describe('a plan', () => {
  it('is kept, can be done, and says of the rest why it found no place', async () => {
    const { problem, plan } = await planAnew();
    expect(clashesOf(problem, plan)).toEqual([]);
    const { placed, clashes, notPlaced, done } = await week();
    expect(placed.map(({ planned: _, ...one }) => one).sort((a, b) => a.start - b.start)).toEqual(
      [...plan].sort((a, b) => a.start - b.start),
    );
    expect([clashes, done]).toEqual([[], []]);
    expect(placed.length).toBeGreaterThan(2);
    expect(
      new Map(notPlaced.map(({ candidate, why }) => [candidate.instrument.tag, why.code])).get('PT-NEVER'),
    ).toBe('no-shutdown');
  });

  it('is changed by hand, says what that breaks, and is planned anew around it', async () => {
    const before = (await stands()).get(job('PT-KILN'));
    expect(before).toMatchObject({ isFixed: false, revision: 1, day: TODAY });
    await put('PT-KILN', 1, '2026-05-05');
    const { clashes } = await week();
    expect(clashes.map(({ kind }) => kind).sort()).toEqual(['out-of-date', 'out-of-date', 'overtime']);
    await expect(put('PT-KILN', 1, '2026-05-07')).rejects.toMatchObject({
      refusal: { code: 'changed-meanwhile', what: 'the plan of PT-KILN' },
    });
    await planAnew();
    expect((await stands()).get(job('PT-KILN'))).toMatchObject({
      isFixed: true,
      revision: 2,
      day: '2026-05-05',
      personId: works.colleague.personId,
      references: ['PC-1', 'DM-1'],
    });
    await base.app.transaction((tx) => fixPlanned(tx, planner, idOf['PT-KILN'] ?? 0, 2, false));
    await planAnew();
    expect((await stands()).get(job('PT-KILN'))).toMatchObject({ isFixed: false, day: TODAY });
  });

  it('a job moved beyond its shutdown is named, fixed or not', async () => {
    const { revision = 0 } = (await stands()).get(job('PT-SHUT')) ?? {};
    await put('PT-SHUT', revision, '2026-05-07');
    const { clashes } = await week();
    expect(clashes).toContainEqual({ kind: 'not-then', job: job('PT-SHUT'), day: 3 });
    await base.app.transaction((tx) => takeOutOfPlan(tx, planner, idOf['PT-SHUT'] ?? 0, revision + 1));
    expect((await stands()).has(job('PT-SHUT'))).toBe(false);
  });

  it('takes in what nobody planned without moving the rest', async () => {
    const rest = await stands();
    await put('PT-FAR', null, '2026-05-04');
    const now = await stands();
    expect(now.get(job('PT-FAR'))).toMatchObject({ isFixed: true, day: TODAY });
    now.delete(job('PT-FAR'));
    expect(now).toEqual(rest);
    await expect(put('PT-FAR', null, '2026-05-04')).rejects.toMatchObject({
      refusal: { code: 'changed-meanwhile' },
    });
    await expect(put('PT-SPARE', null, '2026-05-04')).rejects.toMatchObject({ refusal: { code: 'no-such' } });
  });

  it('is changed only by who schedules, and given only to who works', async () => {
    const entryOf = { personId: works.technician.personId, day: TODAY, minutes: 60, references: [] };
    for (const actor of [works.technician, works.auditor])
      await expect(
        base.app.transaction((tx) => putPlanned(tx, actor, idOf['PT-SOON'] ?? 0, null, entryOf)),
      ).rejects.toMatchObject({ refusal: { code: 'not-allowed' } });
    await expect(put('PT-SHUT', null, TODAY, works.auditor.personId)).rejects.toMatchObject({
      refusal: { code: 'no-such', what: 'technician' },
    });
    await expect(
      base.app.transaction((tx) =>
        putPlanned(tx, planner, idOf['PT-SHUT'] ?? 0, null, { ...entryOf, references: ['PC-NONE'] }),
      ),
    ).rejects.toMatchObject({ refusal: { code: 'no-such', what: 'reference' } });
    expect((await stands()).has(job('PT-SHUT'))).toBe(false);
  });

  it('has no day that is past, and none that is years away', async () => {
    for (const day of ['2026-05-03', '2028-05-05'])
      await expect(put('PT-SHUT', null, day)).rejects.toMatchObject({
        refusal: { code: 'no-plan-day', day },
      });
    await put('PT-SHUT', null, '2028-05-04');
    await base.app.transaction((tx) => takeOutOfPlan(tx, planner, idOf['PT-SHUT'] ?? 0, 1));
    await expect(
      base.app.transaction((tx) => askPlan(tx, planner, { firstDay: '2026-05-03', days: 5 })),
    ).rejects.toMatchObject({ refusal: { code: 'no-plan-day' } });
  });

  it('of two planners at once, one is told', async () => {
    const { revision = 0 } = (await stands()).get(job('PT-OLD')) ?? {};
    const both = await Promise.allSettled(
      ['2026-05-04', '2026-05-07'].map((day) => put('PT-OLD', revision, day)),
    );
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  it('leaves what is fixed on a later day there, and frees what was fixed on a day that is past', async () => {
    const of = async () => {
      const [row] = await base.app.query<{ day: string; revision: number; isFixed: boolean }>(
        `select day, revision, is_fixed as "isFixed" from planned where instrument_id = $1 and done_by_job is null`,
        [idOf['PT-SOON']],
      );
      return row;
    };
    await put('PT-SOON', (await of())?.revision ?? null, '2026-05-18');
    const { problem } = await planAnew();
    expect(problem.jobs.some(({ id }) => id === job('PT-SOON'))).toBe(false);
    expect(await of()).toMatchObject({ day: '2026-05-18', isFixed: true });
    // Friday of the week before was still to come when it was put there.
    await base.owner.query(
      `update planned set day = '2026-05-01' where instrument_id = $1 and done_by_job is null`,
      [idOf['PT-SOON']],
    );
    await planAnew();
    expect(await of()).toMatchObject({ day: TODAY, isFixed: false });
    await base.app.transaction(async (tx) =>
      takeOutOfPlan(tx, planner, idOf['PT-SOON'] ?? 0, (await of())?.revision ?? 0),
    );
  });

  it('of one day leaves what stands on others', async () => {
    const { revision = 0 } = (await stands()).get(job('PT-OLD')) ?? {};
    await put('PT-OLD', revision, '2026-05-07');
    await base.app.transaction((tx) => fixPlanned(tx, planner, idOf['PT-OLD'] ?? 0, revision + 1, false));
    const before = await stands();
    const friday = await planGround(base.app, '2026-05-08', 1);
    const problem = withFixed(friday, TODAY);
    expect(problem.jobs.some(({ id }) => id === job('PT-OLD'))).toBe(false);
    await base.app.transaction((tx) => keepPlan(tx, planner, friday, firstCome(problem)));
    const after = await stands();
    for (const [id, planned] of before)
      if (planned.day !== '2026-05-08') expect(after.get(id)).toEqual(planned);
  });

  it('says of one that is read that it is in hand, and of one planned on a past day that it was not done', async () => {
    const jobId = await openJob(base.app, works.technician, 'PT-NEVER', 'due');
    const whyOf = async (tag: string, today = TODAY) =>
      (await loadWeek(base.app, today, 7, today)).notPlaced.find(
        ({ candidate }) => candidate.instrument.tag === tag,
      )?.why;
    // Nothing is read yet: a plan can still have it.
    expect(await whyOf('PT-NEVER')).toEqual({ code: 'no-shutdown' });
    await base.owner.query(`update job set stage = 'sign' where id = $1`, [jobId]);
    expect(await whyOf('PT-NEVER')).toEqual({ code: 'in-hand', jobId, stage: 'sign' });
    await base.owner.query(`update job set stage = 'brief' where id = $1`, [jobId]);
    expect(await whyOf('PT-OLD', '2026-05-11')).toEqual({ code: 'not-done', day: '2026-05-07' });
    expect(await whyOf('PT-OLD')).toBeUndefined();
  });

  it('takes along what is isolated with one that comes due, and what is asked for', async () => {
    const tagsFor = async (also: number | null) =>
      (await planGround(base.app, TODAY, 7, { also })).candidates.map(({ instrument }) => instrument.tag);
    await base.owner.query(
      `update instrument set isolated_with = 'rack', area = 'kiln' where tag = any($1)`,
      [['PT-OLD', 'PT-FAR']],
    );
    const far = idOf['PT-FAR'] ?? 0;
    await base.owner.query('delete from planned where instrument_id = $1', [far]);
    expect(await tagsFor(null)).not.toContain('PT-FAR');
    expect(await tagsFor(far)).toContain('PT-FAR');
    await base.owner.query(`update instrument set due_on = '2026-07-20' where id = $1`, [far]);
    expect(await tagsFor(null)).toContain('PT-FAR');
    await base.owner.query(`update instrument set due_on = '2026-09-20', isolated_with = '' where id = $1`, [
      far,
    ]);
    await base.owner.query(`update instrument set isolated_with = '' where tag = 'PT-OLD'`);
  });

  it('looks at what is planned, and at so many of the rest; what is left is counted', async () => {
    const all = await planGround(base.app, TODAY, 7);
    const none = await planGround(base.app, TODAY, 7, { most: 0 });
    expect(all.left).toBe(0);
    expect(none.candidates.length + none.left).toBe(all.candidates.length);
    expect(none.left).toBeGreaterThan(0);
    expect(none.candidates.every(({ planned }) => planned !== null)).toBe(true);
  });

  it('has walks with the times of the week, and ways out on the days that are left', async () => {
    const now = await week();
    const walks = await plannedWalks(base.app, TODAY, '2026-05-10');
    expect(walks.length).toBeGreaterThan(2);
    expect(new Map(walks.map(({ instrumentId, start }) => [String(instrumentId), start]))).toEqual(
      new Map(now.placed.map(({ job: id, start }) => [id, start])),
    );
    const keys = walks.map(
      ({ day, personId, start }) => `${day} ${personId} ${String(start).padStart(4, '0')}`,
    );
    expect(keys).toEqual([...keys].sort());
    const { personId } = works.colleague;
    expect(await plannedWalks(base.app, TODAY, '2026-05-10', personId)).toEqual(
      walks.filter((one) => one.personId === personId),
    );
    await base.owner.query(`update instrument set state = 'out' where tag = 'PT-OLD'`);
    const without = await plannedWalks(base.app, TODAY, '2026-05-10');
    expect(without.length).toBe(walks.length - 1);
    await base.owner.query(`update instrument set state = 'in service' where tag = 'PT-OLD'`);
    // The only reference that serves runs out on Monday: no way is on a later day, and on Tuesday Monday is past.
    const ways = waysOf(now, idOf['PT-OLD'] ?? 0, TODAY);
    expect(ways.map(({ day }) => day)).toEqual(ways.map(() => 0));
    expect(ways.length).toBeGreaterThan(0);
    expect(waysOf(now, idOf['PT-OLD'] ?? 0, '2026-05-05')).toEqual([]);
    expect(waysOf(now, idOf['PT-OLD'] ?? 0, '2026-05-11')).toEqual([]);
  });
});

/** A solver that answers at once; told by `watch` whether to go on. */
const atOnce: MakePlan = async (problem, watch) => {
  await watch(0.5);
  const plan = firstCome(problem);
  return { plan, worth: planWorth(problem, plan), bound: 100 };
};
const ask = () => base.app.transaction((tx) => askPlan(tx, planner, { firstDay: TODAY, days: 5 }));

describe('a plan in the making', () => {
  it('is worked through and kept, with what it is worth beside the plan as it comes', async () => {
    const id = await ask();
    await expect(ask()).rejects.toMatchObject({
      refusal: { code: 'calculates-already', by: 'Administrator' },
    });
    await workPlan(base.app, { id, day: TODAY }, atOnce);
    const made = await lastMaking(base.app);
    expect(made).toMatchObject({ id, state: 'done', part: 1, firstDay: TODAY, days: 5, bound: 100 });
    expect(made?.placed).toBeGreaterThan(0);
    expect(made?.worth).toBe(made?.asItComes);
  });

  it('changes nothing where it was stopped, and its solver is told', async () => {
    const before = await stands();
    const id = await ask();
    let goesOn = true;
    await workPlan(base.app, { id, day: TODAY }, async (problem, watch) => {
      expect(await watch(0.1)).toBe(true);
      await base.app.transaction((tx) => stopPlan(tx, planner, id));
      goesOn = await watch(0.2);
      return { plan: [], worth: 0, bound: problem.jobs.length };
    });
    expect(goesOn).toBe(false);
    expect((await lastMaking(base.app))?.state).toBe('cancelled');
    expect(await stands()).toEqual(before);
    expect(await base.app.transaction((tx) => stopPlan(tx, planner, id))).toBe(false);
  });

  it('is not kept where it cannot be done, or its solver fails', async () => {
    const before = await stands();
    const late: MakePlan = async (problem, watch) => {
      const { plan, ...rest } = await atOnce(problem, watch);
      return { ...rest, plan: plan.map((one) => ({ ...one, start: one.start - 1 })) };
    };
    const broken: MakePlan = () => Promise.reject(new Error('no memory'));
    for (const make of [late, broken]) {
      const id = await ask();
      await expect(workPlan(base.app, { id, day: TODAY }, make)).rejects.toThrow(/cannot be done|no memory/);
      expect((await lastMaking(base.app))?.state).toBe('failed');
    }
    expect(await stands()).toEqual(before);
    await expect(
      base.app.transaction((tx) => askPlan(tx, works.technician, { firstDay: TODAY, days: 5 })),
    ).rejects.toMatchObject({ refusal: { code: 'not-allowed' } });
  });
});

describe('what was done', () => {
  it('stays where it stood, is planned no more, and comes back where the job is sent back', async () => {
    const [jobId, instrumentId] = [await openJob(base.app, works.technician, TAG, 'due'), idOf[TAG] ?? 0];
    const { id } = (await stands()).get(job(TAG)) ?? {};
    await markDone(base.app, instrumentId, jobId);
    expect((await stands()).has(job(TAG))).toBe(false);
    expect((await week()).done).toMatchObject([{ id, instrumentId, doneByJob: jobId }]);
    await planAnew();
    expect((await week()).done).toMatchObject([{ id }]);
    await markUndone(base.app, jobId);
    const { done, placed } = await week();
    expect([done.length, placed.filter(({ job: one }) => one === job(TAG)).length]).toEqual([1, 1]);
    await base.app.transaction((tx) =>
      takeOutOfPlan(
        tx,
        planner,
        instrumentId,
        placed.find((one) => one.job === job(TAG))?.planned.revision ?? 0,
      ),
    );
    await markUndone(base.app, jobId);
    expect((await stands()).get(job(TAG))?.id).toBe(id);
  });
});
