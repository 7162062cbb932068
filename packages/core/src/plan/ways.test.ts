/** Ways out, on small problems whose answers are read off by hand; and on random ones, that each way breaks nothing. */
import { describe, expect, it } from 'vitest';
import { clashesOf, firstCome, timed, waysOut, type PlanJob, type PlanProblem } from './index';

const job = (id: string, more: Partial<PlanJob> = {}): PlanJob => ({
  id,
  minutes: 60,
  area: 'boiler',
  walk: 1,
  group: null,
  days: [0, 1],
  weight: 1,
  lateFrom: 1,
  needs: [['PC-1', 'PC-2']],
  fixedTo: null,
  ...more,
});
const problem = (jobs: readonly PlanJob[], more: Partial<PlanProblem> = {}): PlanProblem => ({
  days: 2,
  jobs,
  people: [
    { id: 'A', minutes: [450, 450] },
    { id: 'B', minutes: [450, 0] },
  ],
  references: [
    { id: 'PC-1', lastDay: 1 },
    { id: 'PC-2', lastDay: 0 },
  ],
  walkMinutes: 5,
  permitMinutes: 15,
  ...more,
});
const at = (id: string, person: string, day: number, references: readonly string[]) => ({
  job: id,
  person,
  day,
  references,
});

describe('ways out', () => {
  it('of one reference wanted by two, another that serves comes first, and nothing is moved for it', () => {
    const jobs = problem([job('x'), job('y')]);
    const plan = timed(jobs, [at('x', 'A', 0, ['PC-1']), at('y', 'B', 0, ['PC-1'])]);
    expect(clashesOf(jobs, plan)).toHaveLength(1);
    const [first, second] = waysOut(jobs, plan, 'y');
    expect(first).toEqual({
      person: 'B',
      day: 0,
      moves: [{ job: 'y', person: 'B', day: 0, start: 20, references: ['PC-2'] }],
    });
    // With A it comes after x, and keeps what it had: A carries it already.
    expect(second).toEqual({
      person: 'A',
      day: 0,
      moves: [{ job: 'y', person: 'A', day: 0, start: 80, references: ['PC-1'] }],
    });
  });

  it('where no other reference serves, another person, and then another day on which it is in date', () => {
    const only = { needs: [['PC-1']] };
    const jobs = problem([job('x', only), job('y', only)]);
    const plan = timed(jobs, [at('x', 'A', 0, ['PC-1']), at('y', 'B', 0, ['PC-1'])]);
    expect(waysOut(jobs, plan, 'y').map(({ person, day }) => `${person} ${day}`)).toEqual(['A 0', 'A 1']);
    const late = { ...jobs, references: [{ id: 'PC-1', lastDay: 0 }] };
    expect(waysOut(late, plan, 'y').map(({ person, day }) => `${person} ${day}`)).toEqual(['A 0']);
  });

  it('a full day is none, to the minute', () => {
    const full = (minutes: number) => problem([job('x', { minutes }), job('y')]);
    const places = (minutes: number) =>
      waysOut(
        full(minutes),
        timed(full(minutes), [at('x', 'A', 0, ['PC-1']), at('y', 'B', 0, ['PC-1'])]),
        'y',
      ).map(({ person, day }) => `${person} ${day}`);
    // 5 min there, 15 min permit, x, 60 min y, 5 min back: 450 min with 365 min of x.
    expect(places(365)).toContain('A 0');
    expect(places(366)).not.toContain('A 0');
  });

  it('what is isolated together goes together', () => {
    const jobs = problem([
      job('x', { group: 'rack', walk: 1 }),
      job('y', { group: 'rack', walk: 2 }),
      job('z', { area: 'kiln' }),
    ]);
    const plan = timed(jobs, [
      at('x', 'A', 0, ['PC-1']),
      at('y', 'A', 1, ['PC-1']),
      at('z', 'A', 1, ['PC-1']),
    ]);
    expect(clashesOf(jobs, plan).map(({ kind }) => kind)).toEqual(['split']);
    const ways = waysOut(jobs, plan, 'y', 9);
    expect(ways.map(({ person, day }) => `${person} ${day}`)).toEqual(['A 1', 'A 0', 'B 0']);
    expect(ways[0]?.moves.map((move) => `${move.job} ${move.day} ${move.start}`)).toEqual([
      'y 1 80',
      'x 1 20',
    ]);
  });

  it('one that stands in no plan is placed from the first day on, and one that nobody knows nowhere', () => {
    const jobs = problem([job('x'), job('y', { days: [1] })]);
    const plan = timed(jobs, [at('x', 'A', 0, ['PC-1'])]);
    expect(waysOut(jobs, plan, 'y')).toEqual([
      {
        person: 'A',
        day: 1,
        moves: [{ job: 'y', person: 'A', day: 1, start: 20, references: ['PC-1'] }],
      },
    ]);
    expect(waysOut(jobs, plan, 'nobody')).toEqual([]);
    expect(waysOut(problem([job('x', { days: [] })]), [], 'x')).toEqual([]);
  });

  it('of 300 random plans, each way leaves no more clashes than there are without the job, and none of its own', () => {
    let seed = 7;
    const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
    const pick = <Value>(all: readonly Value[]): Value => all[Math.floor(random() * all.length)] as Value;
    let found = 0;
    for (let trial = 0; trial < 300; trial += 1) {
      const jobs = Array.from({ length: 6 }, (_, index) =>
        job(`j${index}`, {
          minutes: 30 + Math.floor(random() * 120),
          area: pick(['boiler', 'kiln']),
          group: pick([null, null, 'rack']),
          needs: [pick([['PC-1'], ['PC-1', 'PC-2'], ['PC-2', 'PC-1']])],
        }),
      );
      const of = problem(jobs);
      const plan = timed(
        of,
        jobs.slice(1).map(({ id }) => at(id, pick(['A', 'B']), pick([0, 1]), [pick(['PC-1', 'PC-2'])])),
      );
      const { id } = pick(jobs);
      for (const { moves } of waysOut(of, plan, id)) {
        found += 1;
        const ids = new Set(moves.map((move) => move.job));
        const rest = plan.filter((one) => !ids.has(one.job));
        const after = clashesOf(of, timed(of, [...rest, ...moves]));
        expect(after.length).toBeLessThanOrEqual(clashesOf(of, timed(of, rest)).length);
        expect(after.filter((clash) => ids.has(clash.job))).toEqual([]);
      }
    }
    expect(found).toBeGreaterThan(300);
  });

  it('a plan as it comes needs none: where each job stands is the first of its ways', () => {
    const jobs = problem([job('x'), job('y'), job('z', { area: 'kiln' })]);
    const plan = firstCome(jobs);
    for (const { job: id, person, day, references } of plan)
      expect(waysOut(jobs, plan, id, 1)).toMatchObject([{ person, day, moves: [{ references }] }]);
  });
});
