/**
 * Verdicts on a limit. On the limit is inside (simple acceptance, common practice), and that is decided on the decimals
 * as typed: 4.040 mA at 4 mA is exactly 0.25 % of 16 mA, while in binary it comes out a hair above.
 */
import { CoreError, requireFinite, requirePositive } from '../errors';
import { exact, type Exact } from '../exact';
import { checkRange, exactExpectedOutput, type LinearRange } from '../signal';

/** Worse towards the end, so that the worst of several is the last in this order. */
export const VERDICTS = ['within', 'within-adjust', 'outside'] as const;
export type Verdict = (typeof VERDICTS)[number];

export interface Tolerance {
  /** Largest allowed error either way, per cent of the absolute output span. */
  readonly percentOfSpan: number;
  /** Above this part of the limit an adjustment is advised, per cent of the limit (0 to 100). */
  readonly adjustAbovePercentOfLimit: number;
}

/**
 * Refuses a tolerance that cannot be judged with.
 * @throws CoreError `not-positive`, `not-finite`, `out-of-bounds`
 */
export function checkTolerance(tolerance: Tolerance): void {
  requirePositive('The tolerance', tolerance.percentOfSpan);
  const share = tolerance.adjustAbovePercentOfLimit;
  requireFinite('The adjust limit', share);
  if (share <= 0 || share > 100)
    throw new CoreError({
      code: 'out-of-bounds',
      name: 'The adjust limit',
      value: share,
      lowest: 0,
      highest: 100,
      unit: '% of the tolerance',
    });
}

/** The tolerance in output units, exact. */
export function exactLimit(range: LinearRange, tolerance: Tolerance): Exact {
  return exact(tolerance.percentOfSpan)
    .div(100)
    .mul(exact(range.outputHigh).sub(exact(range.outputLow)).abs());
}

/**
 * Judges one reading against the ideal output at the value applied.
 * @param applied in the range's input unit
 * @param output the reading, in the range's output unit
 * @throws CoreError as `checkRange` and `checkTolerance`
 */
export function judgeReading(
  range: LinearRange,
  tolerance: Tolerance,
  applied: number,
  output: number,
): Verdict {
  checkRange(range);
  checkTolerance(tolerance);
  const error = exact(output).sub(exactExpectedOutput(range, applied)).abs();
  const limit = exactLimit(range, tolerance);
  if (error.compare(limit) > 0) return 'outside';
  const adjustAbove = limit.mul(exact(tolerance.adjustAbovePercentOfLimit)).div(100);
  return error.compare(adjustAbove) > 0 ? 'within-adjust' : 'within';
}

/** The worst of several verdicts, or null of none. */
export function worstVerdict(verdicts: readonly Verdict[]): Verdict | null {
  const rank = Math.max(...verdicts.map((verdict) => VERDICTS.indexOf(verdict)));
  return VERDICTS[rank] ?? null;
}
