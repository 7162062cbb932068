/**
 * What a run of readings says about a linear instrument.
 *
 * Errors are reading minus ideal at the value applied, never at the nominal one. Figures follow IEC 61298-2 and
 * ISA-51.1 (both from memory): hysteresis is the largest difference between falling and rising error at one point
 * inside one cycle, dead band not subtracted; zero and span error come from the means at 0 and 100 %.
 * A figure that the readings do not support is null, and `missing` says why.
 */
import type { Direction } from '../procedure';
import { requireFinite, requirePositive } from '../errors';
import { exact, toNumber } from '../exact';
import { checkRange, exactExpectedOutput, outputSpan, type LinearRange } from '../signal';
import {
  checkTolerance,
  exactLimit,
  judgeReading,
  worstVerdict,
  type Tolerance,
  type Verdict,
} from './verdict';

export interface RunReading {
  /** Which climb of the run, from 1. */
  readonly cycle: number;
  readonly direction: Direction;
  /** Nominal input, per cent of the input span; groups the readings of one point. */
  readonly nominalPercent: number;
  /** Input actually read at the reference, in the input unit. */
  readonly applied: number;
  /** Output read at the meter, in the output unit. */
  readonly output: number;
}

export interface JudgedReading extends RunReading {
  /** Ideal output at the applied value, in the output unit. */
  readonly expected: number;
  /** Error in the output unit. */
  readonly errorOutput: number;
  /** Error in per cent of the absolute output span. */
  readonly errorPercentSpan: number;
  /** Error referred to the input, in the input unit. */
  readonly errorInput: number;
  /** Error as a part of the limit; -1 and +1 are the walls of the corridor. */
  readonly errorOfLimit: number;
  readonly verdict: Verdict;
}

export interface RunEvaluation {
  readonly readings: readonly JudgedReading[];
  /** Tolerance in the output unit. */
  readonly limitOutput: number;
  /** The single reading with the largest error either way. */
  readonly worst: JudgedReading | null;
  /** Mean error at 0 %, per cent of span. */
  readonly zeroErrorPercentSpan: number | null;
  /** (Actual span - ideal span) / ideal span from the means at 0 and 100 %, per cent. */
  readonly spanErrorPercentSpan: number | null;
  /** Largest falling-against-rising difference inside one cycle, per cent of span, never negative. */
  readonly hysteresisPercentSpan: number | null;
  /** The worst verdict of the readings that there are; null of none. */
  readonly verdict: Verdict | null;
  /** Why a figure is null, in words. */
  readonly missing: readonly string[];
}

function judge(range: LinearRange, tolerance: Tolerance, reading: RunReading): JudgedReading {
  requireFinite('applied value', reading.applied);
  requireFinite('reading', reading.output);
  const expected = exactExpectedOutput(range, reading.applied);
  const error = exact(reading.output).sub(expected);
  const signedOutputSpan = exact(range.outputHigh).sub(exact(range.outputLow));
  const signedInputSpan = exact(range.urv).sub(exact(range.lrv));
  return {
    ...reading,
    expected: toNumber(expected),
    errorOutput: toNumber(error),
    errorPercentSpan: toNumber(error.mul(100).div(signedOutputSpan.abs())),
    errorInput: toNumber(error.mul(signedInputSpan).div(signedOutputSpan)),
    errorOfLimit: toNumber(error.div(exactLimit(range, tolerance))),
    verdict: judgeReading(range, tolerance, reading.applied, reading.output),
  };
}

const mean = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((sum, value) => sum + value, 0) / values.length;

/** Mean of the direction means present at a point, so that a missing reading does not tilt the point. */
function pointMean(readings: readonly JudgedReading[], nominalPercent: number): number | null {
  const directionMeans = (['up', 'down'] as const).map((direction) =>
    mean(
      readings
        .filter((reading) => reading.nominalPercent === nominalPercent && reading.direction === direction)
        .map((reading) => reading.errorPercentSpan),
    ),
  );
  return mean(directionMeans.filter((value) => value !== null));
}

function hysteresis(readings: readonly JudgedReading[]): number | null {
  const differences = readings
    .filter((reading) => reading.direction === 'up')
    .flatMap((up) =>
      readings
        .filter(
          (down) =>
            down.direction === 'down' && down.cycle === up.cycle && down.nominalPercent === up.nominalPercent,
        )
        .map((down) => Math.abs(down.errorPercentSpan - up.errorPercentSpan)),
    );
  return differences.length === 0 ? null : Math.max(...differences);
}

/**
 * Evaluates a run, complete or not.
 * @throws CoreError `not-finite`, `zero-span`, `not-positive`, `out-of-bounds`
 */
export function evaluateRun(
  range: LinearRange,
  tolerance: Tolerance,
  readings: readonly RunReading[],
): RunEvaluation {
  checkRange(range);
  checkTolerance(tolerance);
  const judged = readings.map((reading) => judge(range, tolerance, reading));
  const atZero = pointMean(judged, 0);
  const atFull = pointMean(judged, 100);
  const direction = Math.sign(range.outputHigh - range.outputLow);
  const hysteresisPercentSpan = hysteresis(judged);
  const missing = [
    ...(atZero === null ? ['Zero error needs a reading at 0 %.'] : []),
    ...(atZero === null || atFull === null ? ['Span error needs readings at 0 % and 100 %.'] : []),
    ...(hysteresisPercentSpan === null ? ['Hysteresis needs one point read both rising and falling.'] : []),
  ];
  return {
    readings: judged,
    limitOutput: toNumber(exactLimit(range, tolerance)),
    worst: judged.reduce<JudgedReading | null>(
      (worst, reading) =>
        worst === null || Math.abs(reading.errorPercentSpan) > Math.abs(worst.errorPercentSpan)
          ? reading
          : worst,
      null,
    ),
    zeroErrorPercentSpan: atZero,
    spanErrorPercentSpan: atZero === null || atFull === null ? null : direction * (atFull - atZero),
    hysteresisPercentSpan,
    verdict: worstVerdict(judged.map((reading) => reading.verdict)),
    missing,
  };
}

/** Lowest and highest output that still count as inside at an applied value, in the output unit. */
export function acceptedOutput(
  range: LinearRange,
  tolerance: Tolerance,
  applied: number,
): { lowest: number; highest: number } {
  const expected = exactExpectedOutput(range, applied);
  const limit = exactLimit(range, tolerance);
  return { lowest: toNumber(expected.sub(limit)), highest: toNumber(expected.add(limit)) };
}

/**
 * Accuracy ratio: the tolerance over the accuracy of the standard, both referred to the input.
 * At least 4:1 is common practice.
 * @param standardAccuracyInput accuracy of the standard, in the range's input unit
 * @throws CoreError `not-positive`
 */
export function accuracyRatio(
  range: LinearRange,
  tolerance: Tolerance,
  standardAccuracyInput: number,
): number {
  requirePositive('The accuracy of the standard', standardAccuracyInput);
  const limitInput = exactLimit(range, tolerance)
    .mul(exact(range.urv).sub(exact(range.lrv)).abs())
    .div(exact(outputSpan(range)));
  return toNumber(limitInput.div(exact(standardAccuracyInput)));
}
