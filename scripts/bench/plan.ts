/**
 * Plans of a week beside the plan as it comes: what they are worth, how far from a bound that no plan exceeds, and how many jobs are
 * placed. Problems are invented, three of each size; the time for each is given.
 */
import { clashesOf, firstCome, planWorth } from '@barys/core/plan';
import { inventProblem, makePlan } from '@barys/plan';
import { Failure } from '../lib/failure';
import { remark } from './table';

const SIZES: readonly (readonly [jobs: number, seconds: number])[] = [
  [20, 20],
  [200, 20],
  [2000, 90],
];
const SEEDS = [101, 102, 103];

export async function benchPlan(): Promise<void> {
  for (const [jobs, seconds] of SIZES)
    for (const seed of SEEDS) {
      const problem = inventProblem(jobs, seed);
      const asItComes = firstCome(problem);
      const startedAt = performance.now();
      const made = await makePlan(problem, { seconds });
      const took = (performance.now() - startedAt) / 1000;
      if (clashesOf(problem, made.plan).length > 0)
        throw new Failure(`The plan of ${jobs} jobs cannot be done.`);
      const first = planWorth(problem, asItComes);
      remark(
        `${jobs} jobs, seed ${seed}: worth ${made.worth.toFixed(1)}, as they come ${first.toFixed(1)} (${(made.worth / first).toFixed(2)} times); ` +
          `placed ${made.plan.length}, as they come ${asItComes.length}; ${(made.gap * 100).toFixed(1)} % below the bound ${made.bound.toFixed(1)}` +
          `${made.provedGap === null ? '' : `, ${(made.provedGap * 100).toFixed(2)} % below the best of its kind`}; ${took.toFixed(1)} s.`,
      );
    }
}
