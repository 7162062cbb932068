/**
 * The range of an instrument: which input makes which output, through its transfer function. Input and output each keep
 * one unit of their own; the functions never see it, so any unit serves as long as it is the same throughout.
 *
 * Reverse action is two exchanged output ends or LRV above URV; the same formulas serve both.
 * Source of the relation: IEC 60381-1 and IEC 60382 signal ranges (from memory).
 */
import { CoreError, requireFinite } from '../errors';
import { exact, plus, rational, scaled, surdToNumber, toNumber, type Exact, type Surd } from '../exact';
import { checkTransfer, exactInverseShare, exactShare, LINEAR, slope, type Transfer } from './transfer';

export interface SignalRange {
  /** Lower range value, in the input unit: the input that makes `outputLow`. */
  readonly lrv: number;
  /** Upper range value, in the input unit: the input that makes `outputHigh`. */
  readonly urv: number;
  /** Output at the lower range value, in the output unit. */
  readonly outputLow: number;
  /** Output at the upper range value, in the output unit. */
  readonly outputHigh: number;
  /** How the output follows the input; linear where nothing is said. */
  readonly transferFunction?: Transfer;
}

export const transferOf = (range: SignalRange): Transfer => range.transferFunction ?? LINEAR;

/**
 * Refuses a range that cannot be computed with.
 * @throws CoreError `not-finite`, `zero-span`, and as `checkTransfer`
 */
export function checkRange(range: SignalRange): void {
  requireFinite('lower range value', range.lrv, 'lrv');
  requireFinite('upper range value', range.urv, 'urv');
  requireFinite('output at the lower range value', range.outputLow, 'outputLow');
  requireFinite('output at the upper range value', range.outputHigh, 'outputHigh');
  if (range.lrv === range.urv)
    throw new CoreError({ code: 'zero-span', name: 'The input range', value: range.lrv }, 'urv');
  if (range.outputLow === range.outputHigh)
    throw new CoreError(
      { code: 'zero-span', name: 'The output range', value: range.outputLow },
      'outputHigh',
    );
  if (range.transferFunction !== undefined) checkTransfer(range.transferFunction);
}

const between = (x: Exact, from: number, to: number): Exact =>
  x.sub(exact(from)).div(exact(to).sub(exact(from)));

const along = (share: Exact, from: number, to: number): Exact =>
  exact(to).sub(exact(from)).mul(share).add(exact(from));

/** Share of the input span at an input, exact: 0 at LRV, 1 at URV. */
export const exactInputShare = (range: SignalRange, applied: number): Exact =>
  between(exact(applied), range.lrv, range.urv);

/**
 * The ideal output for an input, exact: outputLow + (outputHigh - outputLow) s, with s the transfer function of
 * (applied - LRV) / (URV - LRV). Not limited to the signal range.
 * @param applied in the input unit
 * @returns in the output unit
 * @throws CoreError `not-finite`, `zero-span`
 */
export function exactExpectedOutput(range: SignalRange, applied: number): Surd {
  checkRange(range);
  return exactOutputOf(range)(applied);
}

/** The same for many inputs of a range that was checked: what does not hang on the input is computed once. */
export function exactOutputOf(range: SignalRange): (applied: number) => Surd {
  const transfer = transferOf(range);
  const [lrv, low] = [exact(range.lrv), exact(range.outputLow)];
  const inputSpan = exact(range.urv).sub(lrv);
  const outputSpan = exact(range.outputHigh).sub(low);
  if (transfer.kind === 'linear') {
    const gain = outputSpan.div(inputSpan);
    return (applied) => rational(exact(applied).sub(lrv).mul(gain).add(low));
  }
  const zero = rational(low);
  return (applied) =>
    plus(scaled(exactShare(transfer, exact(applied).sub(lrv).div(inputSpan)), outputSpan), zero);
}

/**
 * The ideal output for an input, as a double.
 * @example expectedOutput({ lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 }, 25) // 8
 * @example expectedOutput({ lrv: 0, urv: 600, outputLow: 10, outputHigh: 50 }, 425) // 38.333333333333336
 * @example expectedOutput({ lrv: 0, urv: 100, outputLow: 4, outputHigh: 20, transferFunction: { kind: 'square-root' } }, 25) // 12
 */
export function expectedOutput(range: SignalRange, applied: number): number {
  return surdToNumber(exactExpectedOutput(range, applied));
}

/**
 * The inverse: the input that an output stands for, exact.
 * @param output in the output unit
 * @throws CoreError `not-finite`, `zero-span`
 */
export function exactAppliedForOutput(range: SignalRange, output: number): Exact {
  checkRange(range);
  const s = between(exact(output), range.outputLow, range.outputHigh);
  return along(exactInverseShare(transferOf(range), s), range.lrv, range.urv);
}

/**
 * The inverse: the input that an output stands for.
 * @param output in the output unit
 * @returns in the input unit
 * @throws CoreError `not-finite`, `zero-span`
 * @example appliedForOutput({ lrv: 0, urv: 600, outputLow: 10, outputHigh: 50 }, 33.2) // 348
 */
export function appliedForOutput(range: SignalRange, output: number): number {
  return toNumber(exactAppliedForOutput(range, output));
}

/**
 * The input at a per cent of the input span, 0 % at LRV and 100 % at URV.
 * @example appliedAtPercent({ lrv: 120, urv: 620, outputLow: 4, outputHigh: 20 }, 25) // 245
 */
export function appliedAtPercent(range: SignalRange, percent: number): number {
  checkRange(range);
  return toNumber(along(exact(percent).div(100), range.lrv, range.urv));
}

/**
 * The input that makes a per cent of the output span, 0 % at `outputLow`.
 * @example appliedAtOutputPercent({ lrv: 0, urv: 25, outputLow: 4, outputHigh: 20, transferFunction: { kind: 'square-root' } }, 50) // 6.25
 */
export function appliedAtOutputPercent(range: SignalRange, percent: number): number {
  checkRange(range);
  return toNumber(along(exactInverseShare(transferOf(range), exact(percent).div(100)), range.lrv, range.urv));
}

/** The output at a per cent of the output span. */
export function outputAtPercent(range: SignalRange, percent: number): number {
  checkRange(range);
  return toNumber(along(exact(percent).div(100), range.outputLow, range.outputHigh));
}

/** Size of the output span, in the output unit, always positive. */
export function outputSpan(range: SignalRange): number {
  return toNumber(exact(range.outputHigh).sub(exact(range.outputLow)).abs());
}

/** Size of the input span, in the input unit, always positive. */
export function inputSpan(range: SignalRange): number {
  return toNumber(exact(range.urv).sub(exact(range.lrv)).abs());
}

/**
 * Sensitivity of the output to the input at an input: output units in one input unit, with its sign.
 * @throws CoreError `undefined-result` for a square root at zero
 */
export function outputSensitivity(range: SignalRange, applied: number): number {
  checkRange(range);
  const t = toNumber(exactInputShare(range, applied));
  const gain = toNumber(
    exact(range.outputHigh)
      .sub(exact(range.outputLow))
      .div(exact(range.urv).sub(exact(range.lrv))),
  );
  return gain * slope(transferOf(range), t);
}

/** The scale of a display, which is set apart from the range: its values at the two ends of the output. */
export interface DisplayScale {
  readonly low: number;
  readonly high: number;
}

/**
 * What a display shows for an output.
 * @returns in the display's unit
 * @example displayedValue({ lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 }, { low: 0, high: 8 }, 12) // 4
 */
export function displayedValue(range: SignalRange, scale: DisplayScale, output: number): number {
  checkRange(range);
  requireFinite('The reading', output, 'output');
  requireFinite('The display at 0 %', scale.low, 'display.low');
  requireFinite('The display at 100 %', scale.high, 'display.high');
  return toNumber(along(between(exact(output), range.outputLow, range.outputHigh), scale.low, scale.high));
}
