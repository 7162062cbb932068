/** What comes due, how it stands to its grace, and what a planner sets for it. */
import { beforeAll, describe, expect, it } from 'vitest';
import { trailEntries, trailQuerySchema } from '../src/db';
import { addSite } from '../src/people/site';
import { putPlanned } from '../src/planning/change';
import { dueByDay, dueOn, dueStanding, dueWithin } from '../src/planning/due';
import {
  absenceSchema,
  addAbsence,
  addShutdown,
  planSiteSchema,
  removeAbsence,
  removeShutdown,
  setHours,
  setPlanSite,
  shutdownSchema,
} from '../src/planning/settings';
import { absencesIn, planSite, shutdownsIn, workersOn } from '../src/planning/site';
import { listInstruments, listQuerySchema } from '../src/registers/instrument-list';
import { addInstrument, findInstrument } from '../src/registers/instruments';
import { entry, openWorks, RANGE, TAG, TODAY } from './works';

const { base, works } = await openWorks();
const planner = works.administrator;
const idOf: Record<string, number> = {};

/** Monday, 4 May 2026. */
const DUE = {
  'D-LATE': '2026-04-26',
  'D-GRACE-LAST': '2026-04-27',
  'D-GRACE': '2026-05-03',
  'D-TODAY': TODAY,
  'D-WEEK': '2026-05-11',
  'D-AFTER': '2026-05-12',
  'D-MONTH': '2026-06-03',
  'D-FAR': '2026-06-04',
} as const;

beforeAll(async () => {
  const { body, id } = await findInstrument(base.app, { tag: TAG });
  await base.owner.query(`update instrument set due_on = '2027-01-01' where id = $1`, [id]);
  for (const [tag, due] of Object.entries(DUE))
    idOf[tag] = await addInstrument(
      base.app,
      works.technician,
      entry({ tag, bodyId: body.id, dueOn: due }),
      RANGE,
    );
  await addInstrument(
    base.app,
    works.technician,
    entry({ tag: 'D-SPARE', bodyId: body.id, dueOn: '2026-05-04', state: 'spare' }),
    RANGE,
  );
  await addSite(base.owner, { siteName: 'Works', isDemo: false });
});

const change = <Result>(work: (tx: Parameters<typeof setPlanSite>[0]) => Promise<Result>) =>
  base.app.transaction(work);
const SITE = { walkMinutes: 7, permitMinutes: 20, dayBegins: '06:30', graceDays: 7 };

describe('what a planner sets', () => {
  it('is how the site plans, kept with who and what it was before', async () => {
    await change((tx) => setPlanSite(tx, planner, planSiteSchema.parse(SITE)));
    expect(await planSite(base.app)).toEqual(SITE);
    const [last] = await trailEntries(base.app, trailQuerySchema.parse({ act: 'set planning' }), 1);
    expect(last?.detail).toMatchObject({ before: { graceDays: 0 }, after: SITE });
  });

  it.each([
    [{ walkMinutes: 241 }, 'The minutes of a way are a whole number from 0 to 240.'],
    [{ permitMinutes: -1 }, 'The minutes for a permit are a whole number from 0 to 480.'],
    [{ graceDays: 1.5 }, 'The days of grace are a whole number from 0 to 366.'],
    [{ dayBegins: '25:00' }, 'The start of work is a time, such as 07:00.'],
    [{ dayBegins: '7 Uhr' }, 'The start of work is a time, such as 07:00.'],
  ])('refuses %o in words', (wrong, words) => {
    const { error } = planSiteSchema.safeParse({ ...SITE, ...wrong });
    expect(error?.issues.map(({ message }) => message)).toEqual([words]);
  });

  it('takes the ends of each range', () => {
    for (const ends of [
      { walkMinutes: 0, permitMinutes: 0, dayBegins: '0:00', graceDays: 0 },
      { walkMinutes: 240, permitMinutes: 480, dayBegins: '23:59', graceDays: 366 },
    ])
      expect(planSiteSchema.safeParse(ends).success).toBe(true);
  });

  it('is hours of technicians, absences and shutdowns, each of which can be taken back', async () => {
    const { personId } = works.colleague;
    const week = [480, 480, 0, 480, 300, 0, 0];
    await change((tx) => setHours(tx, planner, personId, week));
    await change((tx) =>
      addAbsence(tx, planner, { personId, firstDay: '2026-05-04', lastDay: '2026-05-04', reason: 'ill' }),
    );
    await change((tx) =>
      addShutdown(tx, planner, { area: 'kiln', firstDay: '2026-05-05', lastDay: '2026-05-06', what: 'wash' }),
    );
    const days = ['2026-05-04', '2026-05-05', '2026-05-06'];
    const of = async () => (await workersOn(base.app, days)).find(({ id }) => id === personId);
    expect(await of()).toMatchObject({ week, minutes: [0, 480, 0] });
    const [away] = await absencesIn(base.app, '2026-05-04', '2026-05-04');
    const [still] = await shutdownsIn(base.app, '2026-05-06', '2026-05-06');
    expect([away?.reason, still?.what]).toEqual(['ill', 'wash']);
    await change((tx) => removeAbsence(tx, planner, away?.id ?? 0));
    await change((tx) => removeShutdown(tx, planner, still?.id ?? 0));
    expect((await of())?.minutes).toEqual([480, 480, 0]);
    expect(await shutdownsIn(base.app, '2026-05-01', '2026-05-30')).toEqual([]);
    await expect(change((tx) => removeAbsence(tx, planner, away?.id ?? 0))).rejects.toMatchObject({
      refusal: { code: 'no-such' },
    });
    await expect(change((tx) => setHours(tx, planner, works.auditor.personId, week))).rejects.toMatchObject({
      refusal: { code: 'no-such', what: 'technician' },
    });
    await expect(
      base.app.transaction((tx) => setHours(tx, planner, personId, [1441, 0, 0, 0, 0, 0, 0])),
    ).rejects.toThrow();
  });

  it('has a last day that is not before its first, and not years after it', () => {
    const span = (firstDay: string, lastDay: string) =>
      shutdownSchema.safeParse({ area: 'kiln', what: '', firstDay, lastDay }).error?.issues[0]?.path;
    expect(span('2026-05-04', '2026-05-04')).toBeUndefined();
    expect(span('2026-05-04', '2026-05-03')).toEqual(['lastDay']);
    expect(span('2026-05-04', '2027-05-04')).toBeUndefined();
    expect(span('2026-05-04', '2027-05-05')).toEqual(['lastDay']);
    expect(span('2026-13-04', '2027-05-05')).toEqual(['firstDay']);
    expect(
      absenceSchema.safeParse({ personId: 0, firstDay: TODAY, lastDay: TODAY, reason: '' }).error?.issues[0]
        ?.message,
    ).toBe('Choose who is away.');
  });

  it('is set by planners and administrators alone', async () => {
    const { personId } = works.colleague;
    for (const actor of [works.technician, works.auditor])
      for (const work of [
        (tx: Parameters<typeof setPlanSite>[0]) => setPlanSite(tx, actor, SITE),
        (tx: Parameters<typeof setPlanSite>[0]) => setHours(tx, actor, personId, [0, 0, 0, 0, 0, 0, 0]),
        (tx: Parameters<typeof setPlanSite>[0]) =>
          addAbsence(tx, actor, { personId, firstDay: TODAY, lastDay: TODAY, reason: '' }),
        (tx: Parameters<typeof setPlanSite>[0]) => removeAbsence(tx, actor, 1),
        (tx: Parameters<typeof setPlanSite>[0]) =>
          addShutdown(tx, actor, { area: 'kiln', firstDay: TODAY, lastDay: TODAY, what: '' }),
        (tx: Parameters<typeof setPlanSite>[0]) => removeShutdown(tx, actor, 1),
      ])
        await expect(change(work)).rejects.toMatchObject({ refusal: { code: 'not-allowed' } });
  });
});

describe('what comes due', () => {
  it('is late, in grace, due within a week or thirty days, to the day; spares are not counted', async () => {
    expect(await dueStanding(base.app, TODAY)).toEqual({
      late: 1,
      inGrace: 2,
      week: 2,
      month: 4,
      planned: 0,
    });
    const tags = async (due: string) =>
      (
        await listInstruments(
          base.app,
          listQuerySchema.parse({ due, state: 'in service', sort: 'dueOn' }),
          TODAY,
        )
      ).lines.map(({ tag }) => tag);
    expect(await tags('late')).toEqual(['D-LATE']);
    expect(await tags('grace')).toEqual(['D-GRACE-LAST', 'D-GRACE']);
    expect(await tags('overdue')).toEqual(['D-LATE', 'D-GRACE-LAST', 'D-GRACE']);
    expect(await tags('2026-05-12')).toEqual(['D-AFTER']);
    expect(await tags('2026-05-99')).toHaveLength(9);
  });

  it('stands day by day with what of it is planned, and with whom', async () => {
    await change((tx) =>
      putPlanned(tx, planner, idOf['D-WEEK'] ?? 0, null, {
        personId: works.technician.personId,
        day: '2026-05-06',
        minutes: 30,
        references: [],
      }),
    );
    expect(await dueByDay(base.app, '2026-05-04', '2026-05-12')).toEqual([
      { day: '2026-05-04', due: 1, planned: 0 },
      { day: '2026-05-11', due: 1, planned: 1 },
      { day: '2026-05-12', due: 1, planned: 0 },
    ]);
    expect((await dueStanding(base.app, TODAY)).planned).toBe(1);
    expect((await dueStanding(base.app, '2026-05-07')).planned).toBe(0);
    const lines = await dueOn(base.app, '2026-05-11', '2026-05-12', 10);
    expect(lines.map(({ tag, plannedFor, plannedWith }) => [tag, plannedFor, plannedWith])).toEqual([
      ['D-WEEK', '2026-05-06', 'Technician A'],
      ['D-AFTER', null, null],
    ]);
    expect(await dueOn(base.app, '2026-05-11', '2026-05-12', 1)).toHaveLength(1);
    // Four are due by Sunday and have no place; the one of the Monday after stands in this week.
    expect(await dueWithin(base.app, '2026-05-04', '2026-05-10')).toEqual({ due: 4, placed: 0 });
    expect(await dueWithin(base.app, '2026-05-04', '2026-05-11')).toEqual({ due: 5, placed: 1 });
    expect(await dueWithin(base.app, '2026-05-11', '2026-05-17')).toEqual({ due: 6, placed: 0 });
  });
});
