/** What a tolerance means beside a run: the outputs it accepts, its ratio to the standard, an error in other terms. */
import { CoreError, requireFinite, requireNotNegative, requirePositive } from '../errors';
import { exact, scaled, surdToNumber } from '../exact';
import { evenPoints } from '../procedure';
import {
  appliedAtOutputPercent,
  appliedAtPercent,
  appliedForOutput,
  checkRange,
  exactExpectedOutput,
  expectedOutput,
  outputSpan,
  transferOf,
  type SignalRange,
} from '../signal';
import { checkTolerance, exactLimitAt, limitAt, type Tolerance } from './tolerance';

/**
 * Lowest and highest output that still count as inside at an applied value, in the output unit. A tolerance in the
 * input domain gives a band that is neither symmetrical nor constant through a square root.
 */
export function acceptedOutput(
  range: SignalRange,
  tolerance: Tolerance,
  applied: number,
): { lowest: number; highest: number } {
  checkTolerance(tolerance);
  const expected = expectedOutput(range, applied);
  const limit = limitAt(range, tolerance, applied, expected);
  const ends =
    tolerance.domain === 'output'
      ? [expected - limit, expected + limit]
      : [expectedOutput(range, applied - limit), expectedOutput(range, applied + limit)];
  // Twelve significant digits: 12 + 0.04 shall not read 12.040000000000001.
  const [lowest = expected, highest = expected] = ends
    .map((end) => Number(end.toPrecision(12)))
    .sort((a, b) => a - b);
  return { lowest, highest };
}

/** An accuracy of what stands on one side of the instrument, in the unit of that side. */
export interface Accuracy {
  readonly side: 'input' | 'output';
  /** Half width, never negative. */
  readonly size: number;
}

/** How far something that is wrong by its accuracy moves what is compared with the limit, in the unit of its domain. */
export function effectOf(
  range: SignalRange,
  { domain }: Pick<Tolerance, 'domain'>,
  applied: number,
  { side, size }: Accuracy,
): number {
  if (side === domain) return size;
  const follow = (value: number) =>
    side === 'input' ? expectedOutput(range, value) : appliedForOutput(range, value);
  const at = side === 'input' ? applied : expectedOutput(range, applied);
  const stays = follow(at);
  // A step either way and not the slope: that of a square root has no end at zero.
  return Math.max(Math.abs(follow(at + size) - stays), Math.abs(follow(at - size) - stays));
}

/**
 * Accuracy ratio at one point: the limit over what the accuracy of a standard or meter makes of it there, along the real
 * curve of the transfer function. At least 4 is common practice, so a linear instrument's ratio is made from the exact
 * decimals: one that is 4 shall not come out a hair below.
 * @returns null where the accuracy has no effect, as below a low-flow cut-off
 * @throws CoreError `negative`, and as `checkRange` and `checkTolerance`
 */
export function accuracyRatioAt(
  range: SignalRange,
  tolerance: Tolerance,
  applied: number,
  accuracy: Accuracy,
): number | null {
  checkRange(range);
  checkTolerance(tolerance);
  requireNotNegative('The accuracy', accuracy.size, 'standardAccuracyInput');
  if (accuracy.size === 0) return null;
  if (transferOf(range).kind !== 'linear' && accuracy.side !== tolerance.domain) {
    const effect = effectOf(range, tolerance, applied, accuracy);
    const limit = limitAt(range, tolerance, applied, expectedOutput(range, applied));
    return effect === 0 ? null : Number((limit / effect).toPrecision(12));
  }
  const spans = exact(range.urv)
    .sub(exact(range.lrv))
    .div(exact(range.outputHigh).sub(exact(range.outputLow)))
    .abs();
  const scale = (
    accuracy.side === tolerance.domain ? exact(1) : accuracy.side === 'input' ? spans : spans.inverse()
  ).div(exact(accuracy.size));
  const limit = exactLimitAt(range, tolerance, applied, exactExpectedOutput(range, applied));
  return 'value' in limit
    ? surdToNumber(scaled(limit.value, scale))
    : Math.sqrt(surdToNumber(scaled(limit.square, scale.mul(scale))));
}

/** Five points up the range, even in what the output follows: even in flow where a root is taken. */
export function usualPoints(range: SignalRange): number[] {
  const { in: counted, values } = evenPoints(5, range);
  const at = counted === 'percent-of-output' ? appliedAtOutputPercent : appliedAtPercent;
  return values.map((percent) => at(range, percent));
}

/** A point and the accuracy ratio there. */
export interface RatioAt {
  readonly applied: number;
  readonly ratio: number;
}

/**
 * The point at which a standard is weakest against the tolerance.
 * @param points applied values at which the instrument is tested; five over the range where none are given
 * @returns null where the accuracy has no effect at any of them
 * @throws CoreError as `accuracyRatioAt`
 */
export function weakestPoint(
  range: SignalRange,
  tolerance: Tolerance,
  accuracy: Accuracy,
  points: readonly number[] = usualPoints(range),
): RatioAt | null {
  let weakest: RatioAt | null = null;
  for (const applied of points) {
    const ratio = accuracyRatioAt(range, tolerance, applied, accuracy);
    if (ratio !== null && (weakest === null || ratio < weakest.ratio)) weakest = { applied, ratio };
  }
  return weakest;
}

/**
 * Accuracy ratio of a standard of one accuracy over the whole range: the least of all points.
 * @param standardAccuracyInput accuracy of the standard, in the range's input unit
 * @throws CoreError `not-positive`; `undefined-result` where it has no effect at any point
 */
export function accuracyRatio(
  range: SignalRange,
  tolerance: Tolerance,
  standardAccuracyInput: number,
  points?: readonly number[],
): RatioAt {
  checkRange(range);
  requirePositive('The accuracy of the standard', standardAccuracyInput, 'standardAccuracyInput');
  const accuracy = { side: 'input', size: standardAccuracyInput } as const;
  const weakest = weakestPoint(range, tolerance, accuracy, points);
  if (weakest === null)
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The accuracy ratio',
        why: 'at these points the output does not follow the input',
      },
      'points',
    );
  return weakest;
}

/** One error in every term that it is asked for in. */
export interface ErrorTerms {
  /** Output unit. */
  readonly output: number;
  /** Per cent of the absolute output span. */
  readonly percentOfSpan: number;
  /** Input unit, by the exact inverse of the transfer function. */
  readonly input: number;
  /** Input-referred error in per cent of the applied value; null where nothing is applied. */
  readonly percentOfReading: number | null;
  /** Input-referred error in per cent of the upper range limit; null where none is given. */
  readonly percentOfUpperRangeLimit: number | null;
  /** In scale divisions of a gauge; null where none is given. */
  readonly scaleDivisions: number | null;
}

/**
 * The error of one reading in all terms.
 * @param upperRangeLimit of the body, input unit
 * @param division width of one scale division, output unit
 * @throws CoreError `not-finite`, `zero-span`, `not-positive`
 * @example errorTerms({ lrv: 0, urv: 150, outputLow: 4, outputHigh: 20 }, 74.92, 12.013).percentOfReading // 0.26945
 */
export function errorTerms(
  range: SignalRange,
  applied: number,
  output: number,
  { upperRangeLimit, division }: { upperRangeLimit?: number; division?: number } = {},
): ErrorTerms {
  requireFinite('applied value', applied, 'applied');
  requireFinite('reading', output, 'output');
  if (upperRangeLimit !== undefined)
    requirePositive('The upper range limit', Math.abs(upperRangeLimit), 'upperRangeLimit');
  if (division !== undefined) requirePositive('The scale division', division, 'division');
  const error = output - expectedOutput(range, applied);
  const input = appliedForOutput(range, output) - applied;
  return {
    output: error,
    percentOfSpan: (error / outputSpan(range)) * 100,
    input,
    percentOfReading: applied === 0 ? null : (input / Math.abs(applied)) * 100,
    percentOfUpperRangeLimit:
      upperRangeLimit === undefined ? null : (input / Math.abs(upperRangeLimit)) * 100,
    scaleDivisions: division === undefined ? null : error / division,
  };
}
