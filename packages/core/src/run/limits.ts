/** What a tolerance means beside a run: the outputs it accepts, its ratio to the standard, an error in other terms. */
import { requireFinite, requirePositive } from '../errors';
import { exact, scaled, surdToNumber } from '../exact';
import {
  appliedForOutput,
  checkRange,
  exactExpectedOutput,
  expectedOutput,
  outputSpan,
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

/**
 * Accuracy ratio: the tolerance over the accuracy of the standard, both referred to the input, where the tolerance is
 * tightest of both ends of the range. At least 4:1 is common practice, so the ratio is made from the exact decimals: one
 * that is 4 shall not come out a hair below.
 * @param standardAccuracyInput accuracy of the standard, in the range's input unit
 * @throws CoreError `not-positive`
 */
export function accuracyRatio(
  range: SignalRange,
  tolerance: Tolerance,
  standardAccuracyInput: number,
): number {
  checkRange(range);
  checkTolerance(tolerance);
  requirePositive('The accuracy of the standard', standardAccuracyInput, 'standardAccuracyInput');
  const spans = exact(range.urv)
    .sub(exact(range.lrv))
    .div(exact(range.outputHigh).sub(exact(range.outputLow)))
    .abs();
  const scale = (tolerance.domain === 'input' ? exact(1) : spans).div(exact(standardAccuracyInput));
  const ratios = [range.lrv, range.urv].map((applied) => {
    const limit = exactLimitAt(range, tolerance, applied, exactExpectedOutput(range, applied));
    return 'value' in limit
      ? surdToNumber(scaled(limit.value, scale))
      : Math.sqrt(surdToNumber(scaled(limit.square, scale.mul(scale))));
  });
  return Math.min(...ratios);
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
