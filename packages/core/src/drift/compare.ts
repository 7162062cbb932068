/** Whether what was measured differs by more than chance: Student's and Welch's tests (textbook). */
import tCdf from '@stdlib/stats-base-dists-t-cdf';

/** A sample by its figures, as a database sums it up. */
export interface Sample {
  readonly count: number;
  readonly mean: number;
  /** Standard deviation, n - 1. */
  readonly scatter: number;
}

export interface Comparison {
  readonly difference: number;
  readonly t: number;
  readonly degreesOfFreedom: number;
  /** Two-sided. */
  readonly probability: number;
}

/**
 * The probability of a t so far from zero, either way, by chance.
 * @example chanceOf(2.776445, 4) // 0.05
 */
export const chanceOf = (t: number, degreesOfFreedom: number): number =>
  Number.isFinite(t) ? 2 * tCdf(-Math.abs(t), degreesOfFreedom) : 0;

/**
 * Welch's test of two means, with Satterthwaite's degrees of freedom.
 * @returns null where one of the two has fewer than two values, or neither scatters
 */
export function compareMeans(a: Sample, b: Sample): Comparison | null {
  if (a.count < 2 || b.count < 2) return null;
  const [va, vb] = [a.scatter ** 2 / a.count, b.scatter ** 2 / b.count];
  if (va + vb === 0) return null;
  const difference = a.mean - b.mean;
  const t = difference / Math.sqrt(va + vb);
  const degreesOfFreedom = (va + vb) ** 2 / (va ** 2 / (a.count - 1) + vb ** 2 / (b.count - 1));
  return { difference, t, degreesOfFreedom, probability: chanceOf(t, degreesOfFreedom) };
}

/** A sample without one of its parts: what all the others are. */
export function without(all: Sample, part: Sample): Sample {
  const count = all.count - part.count;
  if (count < 1) return { count: 0, mean: 0, scatter: 0 };
  const mean = (all.count * all.mean - part.count * part.mean) / count;
  const squares = ({ count: n, mean: m, scatter }: Sample) => (n - 1) * scatter ** 2 + n * m ** 2;
  const rest = squares(all) - squares(part) - count * mean ** 2;
  return { count, mean, scatter: count < 2 ? 0 : Math.sqrt(Math.max(0, rest) / (count - 1)) };
}
