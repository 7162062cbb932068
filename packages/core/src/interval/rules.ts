/** Rules that move an interval by each result alone. Common practice; the staircase and the factors have no source. */
import { CoreError, requirePositive } from '../errors';
import { checkShare } from './reliability';

export interface FactorRule {
  /** Part by which an interval grows after a result inside. */
  readonly increase: number;
  /** Part by which it shrinks after one outside. */
  readonly decrease: number;
  readonly least: number;
  readonly most: number;
}

/**
 * The interval after each result: times 1 + a inside, times 1 - b outside, held within its ends.
 * @throws CoreError `not-positive`
 */
export function intervalsByFactor(
  start: number,
  isInside: readonly boolean[],
  { increase, decrease, least, most }: FactorRule,
): number[] {
  requirePositive('Interval', start, 'start');
  let interval = start;
  return isInside.map((inside) => {
    interval = Math.min(most, Math.max(least, interval * (inside ? 1 + increase : 1 - decrease)));
    return interval;
  });
}

/**
 * The decrease that balances an increase at a reliability, so that an instrument that has it keeps its interval in the long run:
 * (1 + a)^R (1 - b)^(1 - R) = 1, from memory of published interval analysis.
 * @throws CoreError `not-positive`, `out-of-bounds`
 * @example balancedDecrease(0.1, 0.95) // 0.83649
 */
export function balancedDecrease(increase: number, reliability: number): number {
  requirePositive('Increase', increase, 'increase');
  checkShare('Reliability', reliability, 'reliability');
  return 1 - (1 + increase) ** (-reliability / (1 - reliability));
}

export interface Staircase {
  /** Rising. */
  readonly steps: readonly number[];
  readonly start: number;
  /** Results inside, one after the other, for a step up. */
  readonly needed: number;
}

/** How a result lies to its limit, as the staircase takes it. */
export type StaircaseResult = 'inside' | 'outside' | 'far outside';

/**
 * How an error lies to its limit: on it is inside, and beyond twice the limit is far outside.
 * @throws CoreError `not-positive`
 * @example staircaseResult(0.5, 0.25) // 'outside'
 */
export function staircaseResult(error: number, limit: number): StaircaseResult {
  requirePositive('Limit', limit, 'limit');
  const size = Math.abs(error);
  return size <= limit ? 'inside' : size <= 2 * limit ? 'outside' : 'far outside';
}

/**
 * The interval after each result: a step up after enough inside in a row, one down outside, two far outside.
 * @throws CoreError `missing` where the start is none of the steps; `not-whole`
 */
export function intervalsByStaircase(
  { steps, start, needed }: Staircase,
  results: readonly StaircaseResult[],
): number[] {
  let place = steps.indexOf(start);
  if (place < 0)
    throw new CoreError({ code: 'missing', name: 'The start', why: 'it is none of the steps' }, 'start');
  if (!Number.isInteger(needed) || needed < 1)
    throw new CoreError({ code: 'not-whole', name: 'Results in a row', value: needed, least: 1 }, 'needed');
  let row = 0;
  return results.map((result) => {
    if (result === 'inside') {
      row += 1;
      if (row === needed) {
        place = Math.min(steps.length - 1, place + 1);
        row = 0;
      }
    } else {
      place = Math.max(0, place - (result === 'outside' ? 1 : 2));
      row = 0;
    }
    return steps[place] as number;
  });
}
