/**
 * Verdicts on a limit. On the limit is inside (simple acceptance, common practice), and that is decided on the decimals
 * as typed: 4.040 mA at 4 mA is exactly 0.25 % of 16 mA, while in binary it comes out a hair above. Double precision
 * decides where it can; within its own rounding of a limit, exact arithmetic does.
 */
import { methodSixMultiplier } from '../conformity';
import { CoreError, requireNotNegative } from '../errors';
import {
  exact,
  magnitude,
  minus,
  plus,
  rational,
  scaled,
  signOf,
  times,
  type Exact,
  type Surd,
} from '../exact';
import { exactAppliedForOutput, exactExpectedOutput, transferOf, type SignalRange } from '../signal';
import { exactLimitAt, type ExactLimit, type Tolerance } from './tolerance';

/** Worse towards the end, so that the worst of several is the last in this order. */
export const VERDICTS = ['within', 'within-adjust', 'undecided', 'not-judged', 'outside'] as const;
export type Verdict = (typeof VERDICTS)[number];

/**
 * The site's rule for a reading whose uncertainty is known. A guard band w is kept free inside the limit; w is r U, or
 * M U with M of method 6. Within w of the limit, either side, a reading is `undecided` where the rule allows that
 * answer (ILAC-G8:09/2019, from memory), else outside. Whatever the rule, a reading whose uncertainty exceeds the limit is
 * `not-judged`: nothing can be said with such a standard, unless the error is further outside than it is uncertain.
 */
export type DecisionRule = (
  | { readonly kind: 'simple' }
  | { readonly kind: 'guard-band'; readonly r: number; readonly isUndecidedAllowed: boolean }
  | { readonly kind: 'method-6' }
) & {
  /** Judges also where the uncertainty exceeds the limit, as runs of earlier days were. */
  readonly judgesBeyondUncertainty?: boolean | undefined;
};

export const SIMPLE_ACCEPTANCE: DecisionRule = { kind: 'simple' };

/** Sign of value - share times the limit, exact. */
function compareToLimit(value: Surd, limit: ExactLimit, share: Exact): -1 | 0 | 1 {
  if ('value' in limit) return signOf(minus(value, scaled(limit.value, share)));
  if (signOf(value) < 0) return -1;
  return signOf(minus(times(value, value), scaled(limit.square, share.mul(share))));
}

interface Judged {
  readonly applied: number;
  readonly output: number;
  /** Error and limit in the unit of the tolerance's domain, as computed in double precision. */
  readonly error: number;
  readonly limit: number;
  /** Expanded uncertainty of the error in that unit. */
  readonly uncertainty: number;
}

/** Width of the guard band, in the unit of the tolerance's domain. */
export function guardBand(rule: DecisionRule, limit: number, uncertainty: number): number {
  if (rule.kind === 'simple' || uncertainty === 0) return 0;
  return (rule.kind === 'guard-band' ? rule.r : methodSixMultiplier(limit / uncertainty)) * uncertainty;
}

/**
 * The verdict on one reading whose error and limit were computed in double precision.
 * @param noise largest rounding error of `error` and `limit` together
 */
export function decide(
  range: SignalRange,
  tolerance: Tolerance,
  rule: DecisionRule,
  judged: Judged,
  noise: number,
): Verdict {
  const { error, limit, uncertainty } = judged;
  const size = Math.abs(error);
  // An uncertainty on the limit still judges; both are computed, so a hair of rounding does not count.
  const isBeyond = uncertainty > limit + noise && rule.judgesBeyondUncertainty !== true;
  if (isBeyond && size <= limit + uncertainty + noise) return 'not-judged';
  const width = guardBand(rule, limit, uncertainty);
  const adjustShare = tolerance.adjustAbovePercentOfLimit / 100;
  const isUndecidedAllowed = rule.kind === 'guard-band' && rule.isUndecidedAllowed && width > 0;
  const isNear =
    Math.abs(size - (limit - width)) <= noise ||
    Math.abs(size - limit * adjustShare) <= noise ||
    (isUndecidedAllowed && Math.abs(size - (limit + width)) <= noise);
  const exactly = isNear ? exactSides(range, tolerance, judged) : null;
  if (isUndecidedAllowed && exceeds(size, limit, -width, 1, exactly)) return 'outside';
  if (exceeds(size, limit, width, 1, exactly)) return isUndecidedAllowed ? 'undecided' : 'outside';
  return exceeds(size, limit, 0, adjustShare, exactly) ? 'within-adjust' : 'within';
}

interface ExactSides {
  readonly size: Surd;
  readonly limit: ExactLimit;
}

/** Whether the size of an error with an offset exceeds a share of the limit. */
function exceeds(
  size: number,
  limit: number,
  offset: number,
  share: number,
  exactly: ExactSides | null,
): boolean {
  if (exactly === null) return size + offset > limit * share;
  const shifted = plus(exactly.size, rational(exact(offset), exactly.size.t));
  return compareToLimit(shifted, exactly.limit, exact(share)) > 0;
}

/** The size of an error and its limit, exact. */
function exactSides(range: SignalRange, tolerance: Tolerance, { applied, output }: Judged): ExactSides {
  const expected = exactExpectedOutput(range, applied);
  const error =
    tolerance.domain === 'output'
      ? minus(rational(exact(output), expected.t), expected)
      : rational(exactAppliedForOutput(range, output).sub(exact(applied)), expected.t);
  return { size: magnitude(error), limit: exactLimitAt(range, tolerance, applied, expected) };
}

/** Bound on the rounding error of an error and its limit, in the unit of the tolerance's domain. */
export function roundingNoise(range: SignalRange, tolerance: Tolerance, judged: Judged): number {
  const inputSpan = Math.abs(range.urv - range.lrv);
  const outputSpan = Math.abs(range.outputHigh - range.outputLow);
  // Far-off zeros lose digits in the differences; a square root near zero loses half of those it has.
  const stretch = 1 + (Math.abs(range.lrv) + Math.abs(judged.applied)) / inputSpan;
  const { kind } = transferOf(range);
  const isRoot = kind !== 'linear' && kind !== 'table';
  const ends = 1 + (Math.abs(range.outputLow) + Math.abs(judged.output)) / outputSpan;
  const ofSpan = (isRoot ? 1e-7 : 1e-13) * stretch * ends;
  return ofSpan * (tolerance.domain === 'output' ? outputSpan : inputSpan) + 1e-13 * Math.abs(judged.limit);
}

/** @throws CoreError `negative`, `missing` */
export function checkRule(
  rule: DecisionRule,
  uncertainties: readonly (number | undefined)[],
  fieldAt = (place: number): string => `readings.${place}.uncertainty`,
): void {
  if (rule.kind === 'guard-band') requireNotNegative('The guard band factor r', rule.r, 'rule.r');
  uncertainties.forEach((uncertainty, place) => {
    const field = fieldAt(place);
    if (uncertainty !== undefined) requireNotNegative('The uncertainty', uncertainty, field);
    else if (rule.kind !== 'simple')
      throw new CoreError(
        {
          code: 'missing',
          name: 'The expanded uncertainty of each reading',
          why: 'the guard band is made from it',
        },
        field,
      );
  });
}

/** The worse of two verdicts. */
const worseOf = (a: Verdict, b: Verdict): Verdict => (VERDICTS.indexOf(a) >= VERDICTS.indexOf(b) ? a : b);

/** The worst of several verdicts, or null of none. */
export function worstVerdict(verdicts: readonly Verdict[]): Verdict | null {
  return verdicts.reduce<Verdict | null>((worst, one) => (worst === null ? one : worseOf(worst, one)), null);
}
