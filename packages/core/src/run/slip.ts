/**
 * A typed reading that looks like a slip of the fingers or of the hook-up, and not like a fault of the instrument. It is a
 * question to be asked once, naming what it could be, never a correction: an instrument may really stand still or move
 * the wrong way. The bounds are common sense, from no standard.
 */
import type { Direction } from '../procedure';
import { expectedOutput, type SignalRange } from '../signal';
import { limitAt, type Tolerance } from './tolerance';

export type Slip =
  /** Ten or a hundred times what is expected, or a tenth or a hundredth: a digit too many, a decimal sign moved. */
  | { readonly kind: 'decimal-sign' }
  /** What is expected, in another unit. */
  | { readonly kind: 'other-unit'; readonly unit: string }
  /** What is expected with the other sign: leads or lines reversed. */
  | { readonly kind: 'sign' }
  /** What is expected at the point before or after this one. */
  | { readonly kind: 'neighbouring-point' }
  /** The output in per cent of its span. */
  | { readonly kind: 'in-percent' }
  /** Nearly nothing, where a live zero should stand. */
  | { readonly kind: 'no-loop' }
  /** Below the live zero. */
  | { readonly kind: 'below-live-zero' }
  /** The same figure as at the point before, though the input was moved. */
  | { readonly kind: 'same-as-before' }
  /** The output went the other way than the input asks. */
  | { readonly kind: 'other-way' }
  /** Several limits off, and nothing explains it. */
  | { readonly kind: 'far-off' };

export interface TypedBefore {
  readonly applied: number;
  readonly output: number;
  readonly direction: Direction;
}

/** What is known around a reading. */
export interface SlipContext {
  /** The reading at the point before, or null at the first point. */
  readonly before: TypedBefore | null;
  /** Applied values of the points beside this one. */
  readonly neighbours?: readonly number[];
  /** Other units that the reading may be in: their names, and what one of them is in the output's unit. */
  readonly units?: readonly { readonly unit: string; readonly factor: number }[];
  /** Whether the output is in per cent anyway. */
  readonly isPercent?: boolean;
}

/** A reading is asked about from this many limits off. */
const SEVERAL_LIMITS = 4;
/** So near what is expected that something else explains it: in limits, and where they are of span, as a share of it. */
const NEAR_LIMITS = 2;
const NEAR_SHARE = 0.02;
/** A move of the input that must show in the output, as a share of the output span. */
const MOVE_SHARE = 0.05;
/** What is less than this share of a live zero is nothing. */
const NOTHING_SHARE = 0.15;

/**
 * What a reading may be instead of an error of the instrument; empty where it is not asked about.
 * @example slipsOf({ lrv: 0, urv: 6, outputLow: 4, outputHigh: 20 }, spanTolerance(0.25), 3, 120.4, { before: null })[0] // { kind: 'decimal-sign' } at 12.04 expected
 */
export function slipsOf(
  range: SignalRange,
  tolerance: Tolerance,
  applied: number,
  output: number,
  context: SlipContext,
): readonly Slip[] {
  const span = Math.abs(range.outputHigh - range.outputLow);
  const ideal = expectedOutput(range, applied);
  const limit = limitAt(range, { ...tolerance, domain: 'output' }, applied, ideal);
  const isOfSpan = tolerance.terms.some(({ kind }) => kind !== 'percent-of-reading');
  const near = Math.max(NEAR_LIMITS * limit, isOfSpan ? NEAR_SHARE * span : 0);
  const isNear = (value: number, at = ideal) => Math.abs(value - at) <= near;
  const off = output - ideal;
  const moves = movesOf(range, applied, output, context.before, span);
  if (Math.abs(off) <= SEVERAL_LIMITS * limit + 1e-9 * span) return moves;

  const found: Slip[] = [];
  const liveZero = Math.min(range.outputLow, range.outputHigh);
  if (liveZero > 0 && Math.abs(output) < NOTHING_SHARE * liveZero) found.push({ kind: 'no-loop' });
  else if (liveZero > 0 && output >= 0 && output < liveZero - near) found.push({ kind: 'below-live-zero' });
  if (!isNear(output) && [10, 100, 0.1, 0.01].some((factor) => isNear(output * factor)))
    found.push({ kind: 'decimal-sign' });
  if (output !== 0 && isNear(-output)) found.push({ kind: 'sign' });
  const percent = ((ideal - range.outputLow) / (range.outputHigh - range.outputLow)) * 100;
  if (isOfSpan && context.isPercent !== true && Math.abs(output - percent) <= 100 * NEAR_SHARE)
    found.push({ kind: 'in-percent' });
  const other = (context.units ?? []).find(({ factor }) => isNear(output * factor));
  if (other !== undefined) found.push({ kind: 'other-unit', unit: other.unit });
  if ((context.neighbours ?? []).some((at) => isNear(output, expectedOutput(range, at))))
    found.push({ kind: 'neighbouring-point' });
  found.push(...moves);
  if (found.length > 0) return found;
  return isSystematic(range, off, context.before) ? [] : [{ kind: 'far-off' }];
}

/** An instrument that was as far off at the point before, the same way, is so: nobody is asked at every point. */
function isSystematic(range: SignalRange, off: number, before: TypedBefore | null): boolean {
  if (before === null) return false;
  const earlier = before.output - expectedOutput(range, before.applied);
  return Math.sign(earlier) === Math.sign(off) && Math.abs(off - earlier) <= Math.abs(off) / 2;
}

function movesOf(
  range: SignalRange,
  applied: number,
  output: number,
  before: TypedBefore | null,
  span: number,
): readonly Slip[] {
  if (before === null) return [];
  const wanted = expectedOutput(range, applied) - expectedOutput(range, before.applied);
  if (Math.abs(wanted) <= MOVE_SHARE * span) return [];
  if (output === before.output) return [{ kind: 'same-as-before' }];
  const moved = output - before.output;
  return Math.sign(moved) !== Math.sign(wanted) && Math.abs(moved) > MOVE_SHARE * span
    ? [{ kind: 'other-way' }]
    : [];
}
