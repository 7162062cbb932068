/**
 * Whether a body can be set to a range, and what holds it up. All figures of one body are in one unit. The rules are
 * common practice: a range lies within the limits of the body, its span between the least and the greatest, and its zero is
 * elevated or suppressed no farther than the body allows.
 */
import { CoreError, requireAtLeast, requireFinite, requirePositive } from '../errors';

/** A class that the linkage of a force balance is set for, or one of several capsules. */
export interface SpanClass {
  readonly name: string;
  readonly leastSpan: number;
  readonly greatestSpan: number;
}

export interface BodyReach {
  readonly lowerRangeLimit: number;
  readonly upperRangeLimit: number;
  readonly leastSpan: number;
  /** Null is as wide as the limits allow. */
  readonly greatestSpan: number | null;
  /** How far 0 % may lie below zero, and above it, per cent of span; as far as the limits allow where nothing is said. */
  readonly greatestElevationPercent?: number | null | undefined;
  readonly greatestSuppressionPercent?: number | null | undefined;
  /** Empty where there are none. */
  readonly spanClasses: readonly SpanClass[];
}

export type RangeBreach =
  | { readonly limit: 'lower range limit'; readonly allowed: number; readonly wanted: number }
  | { readonly limit: 'upper range limit'; readonly allowed: number; readonly wanted: number }
  | { readonly limit: 'least span'; readonly allowed: number; readonly wanted: number }
  | { readonly limit: 'greatest span'; readonly allowed: number; readonly wanted: number }
  /** Per cent of span. */
  | { readonly limit: 'zero elevation'; readonly allowed: number; readonly wanted: number }
  | { readonly limit: 'zero suppression'; readonly allowed: number; readonly wanted: number };

export interface RangeJudgement {
  /** Empty where the body can be ranged so. */
  readonly breaches: readonly RangeBreach[];
  readonly span: number;
  /** The greatest span over this one. */
  readonly turndown: number;
  /** How far 0 % is moved from zero, over the span. */
  readonly zeroShiftOfSpan: number;
  /** The classes that the span lies in; none of several where the linkage cannot be set for it. */
  readonly classes: readonly SpanClass[];
}

/** The widest span, where the limits allow no more. */
export const greatestSpanOf = ({ greatestSpan, lowerRangeLimit, upperRangeLimit }: BodyReach): number =>
  greatestSpan ?? upperRangeLimit - lowerRangeLimit;

/**
 * Rounding of a conversion is no breach: 60 psi in bar and back differ in the sixteenth digit. Twelve digits are more than
 * any range is set to.
 */
const exceeds = (value: number, limit: number): boolean =>
  value - limit > 1e-12 * Math.max(Math.abs(value), Math.abs(limit));

/**
 * @param lrv may lie above the upper range value: the range is then reversed
 * @throws CoreError `zero-span`, `not-finite`
 */
export function judgeRange(body: BodyReach, lrv: number, urv: number): RangeJudgement {
  requireFinite('The lower range value', lrv, 'lrv');
  requireFinite('The upper range value', urv, 'urv');
  if (lrv === urv) throw new CoreError({ code: 'zero-span', name: 'The range', value: lrv }, 'urv');
  const [low, high] = [Math.min(lrv, urv), Math.max(lrv, urv)];
  const span = high - low;
  const widest = greatestSpanOf(body);
  const breaches: RangeBreach[] = [];
  if (exceeds(body.lowerRangeLimit, low))
    breaches.push({ limit: 'lower range limit', allowed: body.lowerRangeLimit, wanted: low });
  if (exceeds(high, body.upperRangeLimit))
    breaches.push({ limit: 'upper range limit', allowed: body.upperRangeLimit, wanted: high });
  if (exceeds(body.leastSpan, span))
    breaches.push({ limit: 'least span', allowed: body.leastSpan, wanted: span });
  if (exceeds(span, widest)) breaches.push({ limit: 'greatest span', allowed: widest, wanted: span });
  const shift = (Math.abs(low) / span) * 100;
  const [limit, allowed] =
    low < 0
      ? (['zero elevation', body.greatestElevationPercent] as const)
      : (['zero suppression', body.greatestSuppressionPercent] as const);
  if (allowed != null && exceeds(shift, allowed)) breaches.push({ limit, allowed, wanted: shift });
  return {
    breaches,
    span,
    turndown: widest / span,
    zeroShiftOfSpan: lrv / span,
    classes: body.spanClasses.filter(
      (one) => !exceeds(one.leastSpan, span) && !exceeds(span, one.greatestSpan),
    ),
  };
}

/**
 * The least span of a body that is stamped with its largest span only: a 4:1 body stamped 200 goes down to 50 (common
 * practice).
 * @throws CoreError `not-positive`, `too-small` for a turndown below one
 * @example leastSpanOfStamp(200, 4) // 50
 */
export function leastSpanOfStamp(largestSpan: number, turndown: number): number {
  requirePositive('The largest span', largestSpan, 'largestSpan');
  requireAtLeast('The turndown', turndown, [1, ''], 'turndown');
  return largestSpan / turndown;
}

/**
 * The spans that two capsules, or two classes, can both be set to; null where there are none.
 * @example spanOverlap({ leastSpan: 20, greatestSpan: 205 }, { leastSpan: 200, greatestSpan: 850 }) // [200, 205]
 */
export function spanOverlap(
  one: Pick<SpanClass, 'leastSpan' | 'greatestSpan'>,
  other: Pick<SpanClass, 'leastSpan' | 'greatestSpan'>,
): readonly [least: number, greatest: number] | null {
  const least = Math.max(one.leastSpan, other.leastSpan);
  const greatest = Math.min(one.greatestSpan, other.greatestSpan);
  return least <= greatest ? [least, greatest] : null;
}

export interface Candidate<B extends BodyReach> {
  readonly body: B;
  readonly judgement: RangeJudgement;
  /** Per cent of span, by the body's formula; null where none is known. */
  readonly accuracyPercentOfSpan: number | null;
}

/**
 * Bodies that can be set to a range, the best first: by their accuracy at that span, those without a formula after them by
 * the smaller turndown, since accuracy falls with it.
 * @param rangeIn the range in the unit of a body
 * @throws CoreError as `judgeRange`
 */
export function rankBodies<B extends BodyReach>(
  bodies: readonly B[],
  rangeIn: (body: B) => readonly [lrv: number, urv: number],
  accuracyAt: (body: B, span: number) => number | null,
): Candidate<B>[] {
  return bodies
    .map((body) => {
      const judgement = judgeRange(body, ...rangeIn(body));
      return { body, judgement, accuracyPercentOfSpan: accuracyAt(body, judgement.span) };
    })
    .filter(
      ({ body, judgement }) =>
        judgement.breaches.length === 0 && (body.spanClasses.length === 0 || judgement.classes.length > 0),
    )
    .sort(
      (a, b) =>
        (a.accuracyPercentOfSpan ?? Infinity) - (b.accuracyPercentOfSpan ?? Infinity) ||
        a.judgement.turndown - b.judgement.turndown,
    );
}
