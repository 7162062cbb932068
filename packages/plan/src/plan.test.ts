import { clashesOf, firstCome, planWorth, timed, type PlanProblem } from '@barys/core/plan';
import { describe, expect, it } from 'vitest';
import { makePlan } from './index';
import { inventProblem } from './invented';

/** Every assignment of a small problem, tried one by one: the best that there is. */
function bestOfAll(problem: PlanProblem): number {
  let best = 0;
  const choices = problem.jobs.map((job) => [
    null,
    ...problem.people.flatMap(({ id: person }) =>
      job.days.flatMap((day) =>
        job.needs
          .reduce<string[][]>((all, serving) => all.flatMap((one) => serving.map((id) => [...one, id])), [[]])
          .map((references) => ({ job: job.id, person, day, references })),
      ),
    ),
  ]);
  const walk = (place: number, taken: readonly NonNullable<(typeof choices)[number][number]>[]): void => {
    if (place === choices.length) {
      const plan = timed(problem, taken);
      if (clashesOf(problem, plan).length === 0) best = Math.max(best, planWorth(problem, plan));
      return;
    }
    for (const choice of choices[place] ?? []) walk(place + 1, choice === null ? taken : [...taken, choice]);
  };
  walk(0, []);
  return best;
}

const weightOf = ({ jobs }: PlanProblem, id: string): number =>
  jobs.find((job) => job.id === id)?.weight ?? 0;

describe('the solver', () => {
  it('finds the best of all plans of small problems, to its gap', async () => {
    for (const seed of [1, 2, 3, 4]) {
      const whole = inventProblem(20, seed);
      const problem: PlanProblem = {
        ...whole,
        days: 2,
        jobs: whole.jobs.slice(0, 5).map((job) => ({
          ...job,
          days: [0, 1],
          minutes: 100 + job.minutes,
          // References are held for a day each; where everybody has their own, that is no restriction.
          needs: [],
        })),
        people: whole.people.slice(0, 2).map(({ id }) => ({ id, minutes: [420, 300] })),
      };
      const made = await makePlan(problem, { seconds: 5 });
      const best = bestOfAll(problem);
      expect(made.worth).toBeGreaterThan(best * 0.997);
      expect(made.worth).toBeLessThanOrEqual(best + 1e-9);
      expect(made.bound).toBeGreaterThanOrEqual(best - 1e-9);
    }
  });

  it('twenty jobs: to the best in which a reference stays with one person a day', async () => {
    const problem = inventProblem(20, 11);
    const made = await makePlan(problem, { seconds: 60 });
    expect(clashesOf(problem, made.plan)).toEqual([]);
    expect(made.provedGap).toBeLessThan(0.003);
    expect(made.bound).toBeGreaterThanOrEqual(made.worth);
  });

  it('two hundred jobs, in parts: can be done, worth more than as they come, and within a bound', async () => {
    const problem = inventProblem(200, 12);
    const watched: number[] = [];
    const made = await makePlan(problem, { seconds: 6, watch: (part) => watched.push(part) > 0 });
    expect(clashesOf(problem, made.plan)).toEqual([]);
    expect(made.worth).toBeCloseTo(planWorth(problem, made.plan), 9);
    expect(made.worth).toBeGreaterThan(planWorth(problem, firstCome(problem)));
    expect(made.bound).toBeGreaterThanOrEqual(made.worth);
    expect(made.gap).toBeCloseTo((made.bound - made.worth) / made.bound, 9);
    expect(made.provedGap).toBeNull();
    expect(watched.at(-1)).toBe(1);
    expect(watched).toEqual([...watched].sort((a, b) => a - b));
  });

  it('leaves what is fixed where it was put, in small problems and in parts, and plans around it', async () => {
    for (const [count, seconds] of [
      [20, 4],
      [200, 6],
    ] as const) {
      const free = inventProblem(count, 21);
      const before = firstCome(free);
      // The least worthy are fixed, which nothing else would keep.
      const chosen = before
        .filter(({ job }) => free.jobs.find(({ id }) => id === job)?.group === null)
        .sort((a, b) => weightOf(free, a.job) - weightOf(free, b.job))
        .slice(0, count / 20);
      const placeOf = new Map(chosen.map((one) => [one.job, one]));
      const problem: PlanProblem = {
        ...free,
        jobs: free.jobs.map((job) => {
          const place = placeOf.get(job.id);
          if (place === undefined) return job;
          const needs = place.references.map((id) => [id]);
          return { ...job, days: [place.day], needs, fixedTo: place.person, weight: 0.01 };
        }),
      };
      const made = await makePlan(problem, { seconds });
      expect(clashesOf(problem, made.plan)).toEqual([]);
      for (const { job, person, day, references } of chosen)
        expect(made.plan.find((one) => one.job === job)).toMatchObject({ person, day, references });
    }
  });

  it('ends at once where it is told to, with what it has', async () => {
    const problem = inventProblem(200, 12);
    const begun = performance.now();
    const made = await makePlan(problem, { seconds: 30, watch: () => false });
    expect(performance.now() - begun).toBeLessThan(15_000);
    expect(clashesOf(problem, made.plan)).toEqual([]);
    expect(made.worth).toBeGreaterThan(0);
  });

  it('makes nothing of nothing, and leaves out what nobody can do', async () => {
    const problem = inventProblem(20, 5);
    expect((await makePlan({ ...problem, jobs: [] }, { seconds: 1 })).plan).toEqual([]);
    const alone = { ...problem, people: problem.people.map(({ id }) => ({ id, minutes: [0, 0, 0, 0, 0] })) };
    expect((await makePlan(alone, { seconds: 1 })).plan).toEqual([]);
    const without = { ...problem, references: problem.references.map((one) => ({ ...one, lastDay: -1 })) };
    const made = await makePlan(without, { seconds: 1 });
    expect(made.plan).toEqual([]);
  });
});
