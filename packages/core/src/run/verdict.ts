/**
 * Verdicts on a limit. On the limit is inside (simple acceptance, common practice), and that is decided on the decimals
 * as typed: 4.040 mA at 4 mA is exactly 0.25 % of 16 mA, while in binary it comes out a hair above. Double precision
 * decides where it can; within its own rounding of a limit, exact arithmetic does.
 */
import { methodSixMultiplier } from '../conformity';
import { CoreError, requireNotNegative } from '../errors';
import {
  compareSurds,
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
import { exactAppliedForOutput, exactOutputOf, transferOf, type SignalRange } from '../signal';
import { exactLimiter, type ExactLimit, type Tolerance } from './tolerance';

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

/** Decides on readings whose error and limit were computed in double precision. */
export class Decider {
  private readonly adjustShare: number;
  private readonly isSimple: boolean;
  private readonly judgesBeyond: boolean;
  private readonly mayBeUndecided: boolean;
  private exactly: ExactSides | null = null;

  constructor(
    private readonly range: SignalRange,
    private readonly tolerance: Tolerance,
    private readonly rule: DecisionRule,
  ) {
    this.adjustShare = tolerance.adjustAbovePercentOfLimit / 100;
    this.isSimple = rule.kind === 'simple';
    this.judgesBeyond = rule.judgesBeyondUncertainty === true;
    this.mayBeUndecided = rule.kind === 'guard-band' && rule.isUndecidedAllowed;
  }

  /**
   * The verdict on the size of an error without an uncertainty; null where it lies so near to what divides verdicts that
   * only exact arithmetic can tell. Apart from the rest, so that it is quick.
   * @param noise as of `decide`
   */
  decidePlainly(size: number, limit: number, noise: number): Verdict | null {
    const adjust = limit * this.adjustShare;
    if (Math.abs(size - limit) <= noise || Math.abs(size - adjust) <= noise) return null;
    return size > limit ? 'outside' : size > adjust ? 'within-adjust' : 'within';
  }

  /**
   * The verdict on one reading.
   * @param noise largest rounding error of `error` and `limit` together
   */
  decide(judged: Judged, noise: number): Verdict {
    const { adjustShare } = this;
    const { error, limit, uncertainty } = judged;
    const size = Math.abs(error);
    // An uncertainty on the limit still judges; both are computed, so a hair of rounding does not count.
    const isBeyond = uncertainty > limit + noise && !this.judgesBeyond;
    if (isBeyond && size <= limit + uncertainty + noise) return 'not-judged';
    const width = this.isSimple ? 0 : guardBand(this.rule, limit, uncertainty);
    const isUndecidedAllowed = this.mayBeUndecided && width > 0;
    const isNear =
      Math.abs(size - (limit - width)) <= noise ||
      Math.abs(size - limit * adjustShare) <= noise ||
      (isUndecidedAllowed && Math.abs(size - (limit + width)) <= noise);
    const sides = isNear ? this.exactSides(judged) : null;
    if (isUndecidedAllowed && exceeds(judged, -width, 1, sides)) return 'outside';
    if (exceeds(judged, width, 1, sides)) return isUndecidedAllowed ? 'undecided' : 'outside';
    return exceeds(judged, 0, adjustShare, sides) ? 'within-adjust' : 'within';
  }

  private exactSides({ applied, output }: Judged): Sides {
    this.exactly ??= new ExactSides(this.range, this.tolerance);
    return this.exactly.at(applied, output);
  }
}

/** The size of an error and its limit, exact. */
interface Sides {
  readonly size: Surd;
  readonly limit: ExactLimit;
}

/** The exact sides of many readings: most readings are not near a limit, so this is made only when one is. */
class ExactSides {
  private readonly outputAt: (applied: number) => Surd;
  private readonly limitAt: (applied: number, expected: Surd) => ExactLimit;

  constructor(
    private readonly range: SignalRange,
    private readonly tolerance: Tolerance,
  ) {
    this.outputAt = exactOutputOf(range);
    this.limitAt = exactLimiter(range, tolerance);
  }

  at(applied: number, output: number): Sides {
    const expected = this.outputAt(applied);
    const error =
      this.tolerance.domain === 'output'
        ? minus(rational(exact(output), expected.t), expected)
        : rational(exactAppliedForOutput(this.range, output).sub(exact(applied)), expected.t);
    return { size: magnitude(error), limit: this.limitAt(applied, expected) };
  }
}

/** Whether the size of an error with an offset exceeds a share of the limit. */
function exceeds({ error, limit }: Judged, offset: number, share: number, exactly: Sides | null): boolean {
  if (exactly === null) return Math.abs(error) + offset > limit * share;
  const shifted = plus(exactly.size, rational(exact(offset), exactly.size.t));
  return compareToLimit(shifted, exactly.limit, exact(share)) > 0;
}

/** Sign of value - share times the limit, exact. */
function compareToLimit(value: Surd, limit: ExactLimit, share: Exact): -1 | 0 | 1 {
  if ('value' in limit) return compareSurds(value, scaled(limit.value, share));
  if (signOf(value) < 0) return -1;
  return compareSurds(times(value, value), scaled(limit.square, share.mul(share)));
}

/** Bounds the rounding error of an error and its limit together, in the unit of the tolerance's domain. */
export function noiseBound(
  range: SignalRange,
  tolerance: Tolerance,
): (applied: number, output: number, limit: number) => number {
  const inputSpan = Math.abs(range.urv - range.lrv);
  const outputSpan = Math.abs(range.outputHigh - range.outputLow);
  const { kind } = transferOf(range);
  const isRoot = kind !== 'linear' && kind !== 'table';
  const ofSpan = (isRoot ? 1e-7 : 1e-13) * (tolerance.domain === 'output' ? outputSpan : inputSpan);
  // Far-off zeros lose digits in the differences; a square root near zero loses half of those it has.
  const [fromZero, fromLow] = [inputSpan + Math.abs(range.lrv), outputSpan + Math.abs(range.outputLow)];
  const ofStretches = ofSpan / inputSpan / outputSpan;
  return (applied, output, limit) =>
    ofStretches * (fromZero + Math.abs(applied)) * (fromLow + Math.abs(output)) + 1e-13 * Math.abs(limit);
}

/** @throws CoreError `negative`, `missing`, at `uncertainty` */
export function checkUncertainty(rule: DecisionRule, uncertainty: number | undefined): void {
  if (uncertainty !== undefined) requireNotNegative('The uncertainty', uncertainty, 'uncertainty');
  else if (rule.kind !== 'simple')
    throw new CoreError(
      {
        code: 'missing',
        name: 'The expanded uncertainty of each reading',
        why: 'the guard band is made from it',
      },
      'uncertainty',
    );
}

/** @throws CoreError `negative`, at `rule.r` */
export function checkRule(rule: DecisionRule): void {
  if (rule.kind === 'guard-band') requireNotNegative('The guard band factor r', rule.r, 'rule.r');
}

/** Whether a reading has the uncertainty that a rule asks for, or none where it asks for none. */
export const hasUncertainty = (rule: DecisionRule, uncertainty: number | undefined): boolean =>
  uncertainty === undefined ? rule.kind === 'simple' : uncertainty >= 0 && uncertainty < Infinity;

/** The worse of two verdicts, of which one may not be there yet. */
export const worseVerdict = (a: Verdict | null, b: Verdict): Verdict =>
  a === null || (a !== b && VERDICTS.indexOf(b) > VERDICTS.indexOf(a)) ? b : a;

/** The worst of several verdicts, or null of none. */
export const worstVerdict = (verdicts: readonly Verdict[]): Verdict | null =>
  verdicts.reduce<Verdict | null>(worseVerdict, null);
