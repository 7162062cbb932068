/** What a plan is worth, as the solver counts it: so that plans made in different ways can be compared. */
import { wayMinutes } from './timeline';
import type { Placed, PlanProblem } from './problem';
import { unitsOf, WAY_COST, worthOn } from './units';

/** The worth of all units that are placed whole, less the cost of the ways. */
export function planWorth(problem: PlanProblem, plan: readonly Placed[]): number {
  const placed = new Map(plan.map((one) => [one.job, one]));
  const jobs = new Map(problem.jobs.map((job) => [job.id, job]));
  const worth = unitsOf(problem).reduce((sum, unit) => {
    const own = unit.jobs.map(({ id }) => placed.get(id));
    const [first] = own;
    return first === undefined || own.includes(undefined) ? sum : sum + worthOn(unit, first.day);
  }, 0);
  const areas = new Map<string, Set<string>>();
  for (const { person, day, job } of plan) {
    const key = `${day} ${person}`;
    areas.set(key, (areas.get(key) ?? new Set()).add(jobs.get(job)?.area ?? ''));
  }
  const ways = [...areas.values()].reduce((sum, visited) => sum + wayMinutes(problem, visited.size), 0);
  return worth - WAY_COST * ways;
}
