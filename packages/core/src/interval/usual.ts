/** Intervals that a planner works with. */
import { intervalsByStaircase, type StaircaseResult } from './rules';

/** Months. */
export const INTERVALS = [1, 2, 3, 4, 6, 8, 9, 12, 15, 18, 24, 30, 36, 48, 60] as const;

/**
 * The longest usual interval that is not longer than a time; null where even the shortest is.
 * @example usualInterval(13.9) // 12
 */
export const usualInterval = (months: number): number | null =>
  INTERVALS.filter((usual) => usual <= months).at(-1) ?? null;

/** Results inside, one after the other, for a step up. */
const NEEDED = 3;

/**
 * What a plain staircase would say after the last results: a step down after one outside, two far outside, a step up after three
 * inside. It looks at results alone, however far inside they were; shown beside the advice.
 * @param results in their order
 */
export function stepRule(months: number, results: readonly StaircaseResult[]): number {
  const start = usualInterval(months);
  const last = results.at(-1);
  if (start === null || last === undefined) return months;
  const counted = last === 'inside' ? results.slice(-NEEDED) : [last];
  if (last === 'inside' && counted.some((result) => result !== 'inside')) return months;
  const next = intervalsByStaircase({ steps: INTERVALS, start, needed: NEEDED }, counted).at(-1) ?? months;
  return next === start ? months : next;
}
