/**
 * A typed reading that looks like a slip of the fingers and not like a fault of the instrument. It is a question to be
 * asked once, never a correction: an instrument may really stand still or move the wrong way. The bounds are common
 * sense, from no standard.
 */
import type { Direction } from '../procedure';
import { expectedOutput, type SignalRange } from '../signal';

export type Slip =
  /** Ten or a hundred times what is expected, or a tenth or a hundredth: a digit too many, a decimal sign moved. */
  | 'decimal-sign'
  /** The same figure as at the point before, though the input was moved. */
  | 'same-as-before'
  /** The output went the other way than the input asks. */
  | 'other-way';

export interface TypedBefore {
  readonly applied: number;
  readonly output: number;
  readonly direction: Direction;
}

/** Farther from what is expected than this share of span a reading is doubted at all. */
const FAR_SHARE = 0.2;
/** So near what is expected, as a share of span, that a moved decimal sign explains it. */
const NEAR_SHARE = 0.02;
/** A move of the input that must show in the output, as a share of the output span. */
const MOVE_SHARE = 0.05;

/**
 * @param before the reading at the point before, or null at the first point
 * @example slipOf({ lrv: 0, urv: 6, outputLow: 4, outputHigh: 20 }, 3, 120.4, null) // 'decimal-sign'
 */
export function slipOf(
  range: SignalRange,
  applied: number,
  output: number,
  before: TypedBefore | null,
): Slip | null {
  const span = Math.abs(range.outputHigh - range.outputLow);
  const ideal = expectedOutput(range, applied);
  const isNear = (value: number) => Math.abs(value - ideal) <= NEAR_SHARE * span;
  const isFar = Math.abs(output - ideal) > FAR_SHARE * span;
  if (isFar && [10, 100, 0.1, 0.01].some((factor) => isNear(output * factor))) return 'decimal-sign';
  if (before === null) return null;
  const wanted = ideal - expectedOutput(range, before.applied);
  if (Math.abs(wanted) <= MOVE_SHARE * span) return null;
  if (output === before.output) return 'same-as-before';
  const moved = output - before.output;
  return Math.sign(moved) !== Math.sign(wanted) && Math.abs(moved) > MOVE_SHARE * span ? 'other-way' : null;
}
