import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  clashesOf,
  firstCome,
  planWorth,
  startsOf,
  timed,
  unitsOf,
  walkOrder,
  wayMinutes,
  worthOn,
  type Placed,
  type PlanJob,
  type PlanProblem,
} from './index';

const job = (id: string, more: Partial<PlanJob> = {}): PlanJob => ({
  id,
  minutes: 60,
  area: 'kiln',
  walk: 1,
  group: null,
  days: [0, 1, 2],
  weight: 1,
  lateFrom: 5,
  needs: [['PC-1', 'PC-2'], ['DM-1']],
  fixedTo: null,
  ...more,
});

const problem = (jobs: readonly PlanJob[], more: Partial<PlanProblem> = {}): PlanProblem => ({
  days: 3,
  jobs,
  people: [
    { id: 'A', minutes: [420, 420, 420] },
    { id: 'B', minutes: [420, 0, 420] },
  ],
  references: [
    { id: 'PC-1', lastDay: 99 },
    { id: 'PC-2', lastDay: 1 },
    { id: 'DM-1', lastDay: 99 },
    { id: 'DM-2', lastDay: 99 },
  ],
  walkMinutes: 5,
  permitMinutes: 10,
  ...more,
});

const put = (
  id: string,
  person: string,
  day: number,
  start: number,
  references = ['PC-1', 'DM-1'],
): Placed => ({
  job: id,
  person,
  day,
  start,
  references,
});

describe('the day of a person', () => {
  it('walks area by area, asks for each permit once, and comes back', () => {
    const jobs = [
      job('1', { area: 'tanks', walk: 2 }),
      job('2', { area: 'kiln', walk: 9 }),
      job('3', { area: 'tanks', walk: 1, minutes: 30 }),
    ];
    const ordered = walkOrder(jobs);
    expect(ordered.map(({ id }) => id)).toEqual(['2', '3', '1']);
    expect(startsOf(problem(jobs), ordered)).toEqual({ starts: [15, 90, 120], end: 185 });
    expect(150 + wayMinutes(problem(jobs), 2)).toBe(185);
    expect([wayMinutes(problem([]), 0), startsOf(problem([]), []).end]).toEqual([0, 0]);
  });

  it('keeps together what is isolated together, at the place of its first', () => {
    const jobs = [
      job('a', { walk: 5, group: 'filter' }),
      job('b', { walk: 3 }),
      job('c', { walk: 1, group: 'filter' }),
      job('d', { walk: 2 }),
    ];
    expect(walkOrder(jobs).map(({ id }) => id)).toEqual(['c', 'a', 'd', 'b']);
  });
});

describe('the independent check', () => {
  const kinds = (jobs: readonly PlanJob[], plan: readonly Placed[], more: Partial<PlanProblem> = {}) =>
    clashesOf(problem(jobs, more), plan).map(({ kind }) => kind);

  it('finds nothing in a plan that can be done, to the last minute', () => {
    const jobs = [job('1'), job('2', { minutes: 340 })];
    const plan = [put('1', 'A', 0, 15), put('2', 'A', 0, 75)];
    expect(kinds(jobs, plan)).toEqual([]);
    expect(clashesOf(problem([job('1'), job('2', { minutes: 341 })]), plan)).toEqual([
      { kind: 'overtime', job: '2', person: 'A', minutes: 1 },
    ]);
  });

  it('finds a job before the way to it, on top of another, and another area without its walk', () => {
    expect(clashesOf(problem([job('1')]), [put('1', 'A', 0, 14)])).toEqual([
      { kind: 'overlap', job: '1', before: null, minutes: 1 },
    ]);
    expect(clashesOf(problem([job('1'), job('2')]), [put('1', 'A', 0, 15), put('2', 'A', 0, 74)])).toEqual([
      { kind: 'overlap', job: '2', before: '1', minutes: 1 },
    ]);
    const apart = [job('1'), job('2', { area: 'tanks' })];
    expect(kinds(apart, [put('1', 'A', 0, 15), put('2', 'A', 0, 89)])).toEqual(['overlap']);
    expect(kinds(apart, [put('1', 'A', 0, 15), put('2', 'A', 0, 90)])).toEqual([]);
  });

  it('finds a reference in two jobs at once, and not where the second begins as the first ends', () => {
    const jobs = [job('1'), job('2', { area: 'tanks' })];
    const other = ['PC-1', 'DM-2'];
    const either = [
      ['PC-1', 'PC-2'],
      ['DM-1', 'DM-2'],
    ];
    const free = jobs.map((one) => ({ ...one, needs: either }));
    expect(clashesOf(problem(free), [put('1', 'A', 0, 15), put('2', 'B', 0, 74, other)])).toEqual([
      { kind: 'in-use', job: '2', reference: 'PC-1', by: '1', until: 75 },
    ]);
    expect(kinds(free, [put('1', 'A', 0, 15), put('2', 'B', 0, 75, other)])).toEqual([]);
    // A long job before two short ones is found with the second as well.
    const three = [job('1', { minutes: 200 }), job('2', { minutes: 10 }), job('3', { area: 'tanks' })].map(
      (one) => ({
        ...one,
        needs: [['PC-1']],
      }),
    );
    const hold = [
      put('1', 'A', 0, 15, ['PC-1']),
      put('2', 'B', 0, 20, ['PC-1']),
      put('3', 'B', 0, 100, ['PC-1']),
    ];
    expect(kinds(three, hold)).toEqual(['in-use', 'in-use']);
  });

  it('finds what runs out before, does not serve, is missing, is not then, twice, unknown or split', () => {
    expect(kinds([job('1')], [put('1', 'A', 2, 15, ['PC-2', 'DM-1'])])).toEqual(['out-of-date']);
    expect(kinds([job('1')], [put('1', 'A', 1, 15, ['PC-2', 'DM-1'])])).toEqual([]);
    expect(kinds([job('1')], [put('1', 'A', 0, 15, ['DM-1', 'DM-1'])])).toEqual(['unfit']);
    expect(kinds([job('1')], [put('1', 'A', 0, 15, ['PC-1'])])).toEqual(['needs']);
    expect(kinds([job('1', { days: [1] })], [put('1', 'A', 0, 15)])).toEqual(['not-then']);
    expect(kinds([job('1')], [put('1', 'A', 0, 15), put('1', 'B', 2, 15)])).toEqual(['twice']);
    expect(kinds([job('1')], [put('9', 'A', 0, 15), put('1', 'Z', 3, 15)])).toEqual([
      'unknown',
      'unknown',
      'unknown',
    ]);
    expect(kinds([job('1')], [put('1', 'B', 1, 15)])).toEqual(['overtime']);
    expect(clashesOf(problem([job('1', { fixedTo: 'B' })]), [put('1', 'A', 0, 15)])).toEqual([
      { kind: 'not-by', job: '1', person: 'B' },
    ]);
    expect(kinds([job('1', { fixedTo: 'A' })], [put('1', 'A', 0, 15)])).toEqual([]);
    const group = [job('1', { group: 'g' }), job('2', { group: 'g' }), job('3')];
    const split = [put('1', 'A', 0, 15), put('3', 'A', 0, 75), put('2', 'A', 0, 135)];
    expect(kinds(group, split)).toEqual(['split']);
    expect(kinds(group.slice(0, 2), [put('1', 'A', 0, 15), put('2', 'A', 1, 15)])).toEqual(['split']);
    const areas = [job('1', { group: 'g' }), job('2', { group: 'g', area: 'tanks' })];
    expect(kinds(areas, [put('1', 'A', 0, 15), put('2', 'A', 1, 15)])).toEqual([]);
  });
});

const problems = fc
  .record({
    jobs: fc.array(
      fc.record({
        minutes: fc.integer({ min: 5, max: 300 }),
        area: fc.constantFrom('kiln', 'tanks', 'boiler'),
        walk: fc.integer({ min: 1, max: 50 }),
        group: fc.constantFrom(null, null, null, 'g', 'h'),
        days: fc.subarray([0, 1, 2], { minLength: 1 }),
        weight: fc.integer({ min: 1, max: 9 }),
        lateFrom: fc.integer({ min: -2, max: 6 }),
        fixedTo: fc.constantFrom(null, null, null, null, 'A', 'B'),
        needs: fc.constantFrom(
          [
            ['PC-1', 'PC-2'],
            ['DM-1', 'DM-2'],
          ],
          [['PC-2']],
          [['PC-1']],
          [],
        ),
      }),
      { maxLength: 25 },
    ),
    walkMinutes: fc.integer({ min: 0, max: 20 }),
    permitMinutes: fc.integer({ min: 0, max: 30 }),
  })
  .map(({ jobs, ...rest }) =>
    problem(
      jobs.map((one, index) => job(String(index), one)),
      rest,
    ),
  );

describe('the plan as it comes', () => {
  it('can always be done, and leaves out only what has no room left', () => {
    fc.assert(
      fc.property(problems, (given) => {
        const plan = firstCome(given);
        expect(clashesOf(given, plan)).toEqual([]);
        const done = new Set(plan.map((one) => one.job));
        // Groups are placed whole or not at all.
        for (const { jobs } of unitsOf(given))
          expect(new Set(jobs.map(({ id }) => done.has(id))).size).toBe(1);
        expect(planWorth(given, plan)).toBeGreaterThanOrEqual(plan.length === 0 ? 0 : -1);
      }),
    );
  });

  it('takes what is fixed before all others, and takes its group along', () => {
    const urgent = job('1', { minutes: 380, lateFrom: -9, needs: [['PC-1']] });
    const fixed = { days: [0], needs: [['PC-1']] };
    const given = (people: readonly [string, string | null]) =>
      problem([
        urgent,
        job('2', { ...fixed, fixedTo: people[0], group: 'g' }),
        job('3', { ...fixed, fixedTo: people[1], group: 'g' }),
      ]);
    const placed = (people: readonly [string, string | null]) =>
      firstCome(given(people)).map((one) => [one.job, one.person, one.day]);
    expect(placed(['B', null])).toEqual([
      ['2', 'B', 0],
      ['3', 'B', 0],
      ['1', 'A', 1],
    ]);
    // Fixed to two people, it can be done by neither.
    expect(placed(['A', 'B'])).toEqual([['1', 'A', 0]]);
  });

  it('the same jobs in another order have the same times', () => {
    fc.assert(
      fc.property(problems, (given) => {
        const plan = firstCome(given);
        const bare = plan.map(({ start: _start, ...one }) => one);
        const again = timed(given, [...bare].reverse());
        const at = (all: readonly Placed[]) => new Map(all.map((one) => [one.job, one.start]));
        expect(at(again)).toEqual(at(plan));
      }),
    );
  });
});

it('a unit loses a tenth of its worth for each day that it is late, and keeps the last tenth', () => {
  const unit = { weight: 10, lateFrom: 1 };
  expect([0, 1, 2, 9, 20].map((day) => worthOn(unit, day))).toEqual([10, 9, 8, 1, 1]);
});
