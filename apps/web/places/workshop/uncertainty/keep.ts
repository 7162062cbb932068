/** The budget last typed, kept in the browser so that a reload does not lose it. */
import { z } from 'zod';
import { DISTRIBUTIONS, type BudgetFields, type DistributionKind } from './fields';

const KEY = 'barys-budget';

const shape = z.object({
  title: z.string(),
  model: z.string(),
  unit: z.string(),
  inputs: z.array(
    z.object({
      name: z.string(),
      estimate: z.string(),
      unit: z.string(),
      kind: z.enum(Object.keys(DISTRIBUTIONS) as [DistributionKind, ...DistributionKind[]]),
      figures: z.array(z.string()),
      degreesOfFreedom: z.string(),
    }),
  ),
  correlations: z.array(z.object({ a: z.string(), b: z.string(), r: z.string() })),
  probability: z.string(),
  lower: z.string(),
  upper: z.string(),
});

export function keepBudget(fields: BudgetFields): void {
  try {
    window.localStorage.setItem(KEY, JSON.stringify(fields));
  } catch {
    // A browser that keeps nothing still computes.
  }
}

export function keptBudget(): BudgetFields | null {
  try {
    const parsed = shape.safeParse(JSON.parse(window.localStorage.getItem(KEY) ?? 'null'));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}
