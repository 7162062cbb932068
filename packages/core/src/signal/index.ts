/**
 * The linear range: which input makes which output. Input and output each keep one unit of their own; the functions
 * never see it, so any unit serves as long as it is the same throughout.
 *
 * Reverse action is two exchanged output ends or LRV above URV; the same formulas serve both.
 * Source of the relation: IEC 60381-1 and IEC 60382 signal ranges (from memory), straight line between the end points.
 */
import { CoreError, requireFinite } from '../errors';
import { exact, toNumber, type Exact } from '../exact';

export interface LinearRange {
  /** Lower range value, in the input unit: the input that makes `outputLow`. */
  readonly lrv: number;
  /** Upper range value, in the input unit: the input that makes `outputHigh`. */
  readonly urv: number;
  /** Output at the lower range value, in the output unit. */
  readonly outputLow: number;
  /** Output at the upper range value, in the output unit. */
  readonly outputHigh: number;
}

/**
 * Refuses a range that cannot be computed with.
 * @throws CoreError `not-finite`, `zero-span`
 */
export function checkRange(range: LinearRange): void {
  requireFinite('lower range value', range.lrv);
  requireFinite('upper range value', range.urv);
  requireFinite('output at the lower range value', range.outputLow);
  requireFinite('output at the upper range value', range.outputHigh);
  if (range.lrv === range.urv)
    throw new CoreError({ code: 'zero-span', name: 'The input range', value: range.lrv });
  if (range.outputLow === range.outputHigh)
    throw new CoreError({ code: 'zero-span', name: 'The output range', value: range.outputLow });
}

function interpolate(x: number, [x0, x1]: [number, number], [y0, y1]: [number, number]): Exact {
  const share = exact(x)
    .sub(exact(x0))
    .div(exact(x1).sub(exact(x0)));
  return exact(y0).add(exact(y1).sub(exact(y0)).mul(share));
}

/**
 * The ideal output for an input, exact: outputLow + (outputHigh - outputLow) (applied - LRV) / (URV - LRV).
 * Not limited to the signal range.
 * @param applied in the input unit
 * @returns in the output unit
 * @throws CoreError `not-finite`, `zero-span`
 */
export function exactExpectedOutput(range: LinearRange, applied: number): Exact {
  checkRange(range);
  return interpolate(applied, [range.lrv, range.urv], [range.outputLow, range.outputHigh]);
}

/**
 * The ideal output for an input, rounded once to a double.
 * @example expectedOutput({ lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 }, 25) // 8
 * @example expectedOutput({ lrv: 0, urv: 600, outputLow: 10, outputHigh: 50 }, 425) // 38.333333333333336
 */
export function expectedOutput(range: LinearRange, applied: number): number {
  return toNumber(exactExpectedOutput(range, applied));
}

/**
 * The inverse: the input that an output stands for.
 * @param output in the output unit
 * @returns in the input unit
 * @throws CoreError `not-finite`, `zero-span`
 * @example appliedForOutput({ lrv: 0, urv: 600, outputLow: 10, outputHigh: 50 }, 33.2) // 348
 */
export function appliedForOutput(range: LinearRange, output: number): number {
  checkRange(range);
  return toNumber(interpolate(output, [range.outputLow, range.outputHigh], [range.lrv, range.urv]));
}

/**
 * The input at a per cent of the input span, 0 % at LRV and 100 % at URV.
 * @example appliedAtPercent({ lrv: 120, urv: 620, outputLow: 4, outputHigh: 20 }, 25) // 245
 */
export function appliedAtPercent(range: LinearRange, percent: number): number {
  checkRange(range);
  return toNumber(interpolate(percent, [0, 100], [range.lrv, range.urv]));
}

/** Size of the output span, in the output unit, always positive. */
export function outputSpan(range: LinearRange): number {
  return toNumber(exact(range.outputHigh).sub(exact(range.outputLow)).abs());
}
