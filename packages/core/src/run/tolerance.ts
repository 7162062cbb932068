/**
 * Tolerances: terms that are added, or the largest of them taken, or their root sum of squares. They stand in the domain
 * of the output or of the input; with a square-root instrument only the input domain makes a tolerance on the
 * differential mean the same at every flow. Units are those of the range's input and output.
 */
import { CoreError, requireFinite, requireNotNegative, requirePositive } from '../errors';
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
import type { SignalRange } from '../signal';

export type ToleranceTerm =
  /** Of the absolute span of the domain. */
  | { readonly kind: 'percent-of-span'; readonly percent: number }
  /**
   * Of the absolute span, one figure for the middle half of the scale and one outside it, as the grades A to C of
   * ASME B40.100 have them (from memory). Where the ideal output stands at a quarter, the middle's counts.
   */
  | {
      readonly kind: 'percent-of-span-in-zones';
      readonly middlePercent: number;
      readonly outerPercent: number;
    }
  /** Of the applied value, or of the ideal output. */
  | {
      readonly kind: 'percent-of-reading';
      readonly percent: number;
      readonly of: 'applied' | 'ideal-output';
    }
  /** Of the body's upper range limit, in the input unit. */
  | {
      readonly kind: 'percent-of-upper-range-limit';
      readonly percent: number;
      readonly upperRangeLimit: number;
    }
  | { readonly kind: 'absolute'; readonly value: number; readonly in: 'output' | 'input' }
  /** Scale divisions of a gauge, each `division` output units wide. */
  | { readonly kind: 'scale-divisions'; readonly divisions: number; readonly division: number };

export interface Tolerance {
  readonly terms: readonly ToleranceTerm[];
  readonly combine: 'sum' | 'maximum' | 'root-sum-square';
  /** Where the terms and the error compared with them stand. */
  readonly domain: 'output' | 'input';
  /** Above this part of the limit an adjustment is advised, per cent of the limit (above 0, to 100). */
  readonly adjustAbovePercentOfLimit: number;
}

/**
 * The commonest tolerance: a per cent of the absolute output span.
 * @example spanTolerance(0.25, 70) // 0.25 % of span, adjust above 70 % of it
 */
export const spanTolerance = (percentOfSpan: number, adjustAbovePercentOfLimit = 100): Tolerance => ({
  terms: [{ kind: 'percent-of-span', percent: percentOfSpan }],
  combine: 'sum',
  domain: 'output',
  adjustAbovePercentOfLimit,
});

function amountsOf(term: ToleranceTerm): readonly number[] {
  switch (term.kind) {
    case 'absolute':
      return [term.value];
    case 'scale-divisions':
      return [term.divisions];
    case 'percent-of-span-in-zones':
      return [term.middlePercent, term.outerPercent];
    case 'percent-of-span':
    case 'percent-of-reading':
    case 'percent-of-upper-range-limit':
      return [term.percent];
  }
}

/** Share of the output span within which the middle of a scale lies, both ends counted. */
const MIDDLE_OF_SCALE = [0.25, 0.75] as const;

/** Whether an ideal output lies in the middle half of the scale; a hair of rounding at a quarter does not count. */
export function isMiddleOfScale({ outputLow, outputHigh }: SignalRange, expected: number): boolean {
  const share = (expected - outputLow) / (outputHigh - outputLow);
  return share > MIDDLE_OF_SCALE[0] - 1e-12 && share < MIDDLE_OF_SCALE[1] + 1e-12;
}

/**
 * Refuses a tolerance that cannot be judged with.
 * @throws CoreError `missing`, `not-positive`, `not-finite`, `out-of-bounds`
 */
export function checkTolerance(tolerance: Tolerance): void {
  const field = 'tolerance';
  if (tolerance.terms.length === 0)
    throw new CoreError(
      { code: 'missing', name: 'A tolerance term', why: 'without one there is no limit to judge by' },
      field,
    );
  let largest = 0;
  for (const term of tolerance.terms) {
    for (const amount of amountsOf(term)) {
      requireNotNegative('A tolerance term', amount, field);
      largest = Math.max(largest, amount);
    }
    if (term.kind === 'percent-of-upper-range-limit')
      requirePositive('The size of the upper range limit', Math.abs(term.upperRangeLimit), field);
    if (term.kind === 'scale-divisions') requirePositive('The scale division', term.division, field);
  }
  requirePositive('The tolerance', largest, field);
  const share = tolerance.adjustAbovePercentOfLimit;
  requireFinite('The adjust limit', share, 'adjustAbovePercentOfLimit');
  if (share <= 0 || share > 100)
    throw new CoreError(
      {
        code: 'out-of-bounds',
        name: 'The adjust limit',
        value: share,
        lowest: 0,
        highest: 100,
        unit: '% of the tolerance',
      },
      'adjustAbovePercentOfLimit',
    );
}

/** The limit at a reading, in the unit of the tolerance's domain, in double precision. */
export function limitAt(
  range: SignalRange,
  { terms, combine, domain }: Tolerance,
  applied: number,
  expected: number,
): number {
  const inputSpan = Math.abs(range.urv - range.lrv);
  const outputSpan = Math.abs(range.outputHigh - range.outputLow);
  const [inputScale, outputScale] =
    domain === 'output' ? [outputSpan / inputSpan, 1] : [1, inputSpan / outputSpan];
  let total = 0;
  for (const term of terms) {
    let value = 0;
    switch (term.kind) {
      case 'percent-of-span':
        value = (term.percent / 100) * (domain === 'output' ? outputSpan : inputSpan);
        break;
      case 'percent-of-span-in-zones':
        value =
          ((isMiddleOfScale(range, expected) ? term.middlePercent : term.outerPercent) / 100) *
          (domain === 'output' ? outputSpan : inputSpan);
        break;
      case 'percent-of-reading':
        value =
          (term.percent / 100) *
          (term.of === 'applied' ? Math.abs(applied) * inputScale : Math.abs(expected) * outputScale);
        break;
      case 'percent-of-upper-range-limit':
        value = (term.percent / 100) * Math.abs(term.upperRangeLimit) * inputScale;
        break;
      case 'absolute':
        value = term.value * (term.in === 'output' ? outputScale : inputScale);
        break;
      case 'scale-divisions':
        value = term.divisions * term.division * outputScale;
        break;
    }
    if (combine === 'sum') total += value;
    else if (combine === 'maximum') total = Math.max(total, value);
    else total = Math.hypot(total, value);
  }
  return total;
}

/** An exact limit: itself, or, of a root sum of squares, its square. */
export type ExactLimit = { readonly value: Surd } | { readonly square: Surd };

/** The limit at a reading, exact. */
export function exactLimitAt(
  range: SignalRange,
  { terms, combine, domain }: Tolerance,
  applied: number,
  expected: Surd,
): ExactLimit {
  const inputSpan = exact(range.urv).sub(exact(range.lrv)).abs();
  const outputSpan = exact(range.outputHigh).sub(exact(range.outputLow)).abs();
  const one = exact(1);
  const [inputScale, outputScale]: readonly [Exact, Exact] =
    domain === 'output' ? [outputSpan.div(inputSpan), one] : [one, inputSpan.div(outputSpan)];
  const percent = (value: number) => exact(value).div(100);
  const plain = (value: Exact) => rational(value, expected.t);
  const values = terms.map((term): Surd => {
    switch (term.kind) {
      case 'percent-of-span':
        return plain(percent(term.percent).mul(domain === 'output' ? outputSpan : inputSpan));
      case 'percent-of-span-in-zones': {
        const share = scaled(
          minus(expected, plain(exact(range.outputLow))),
          exact(1).div(exact(range.outputHigh).sub(exact(range.outputLow))),
        );
        const [from, to] = MIDDLE_OF_SCALE.map((end) => signOf(minus(share, plain(exact(end))))) as [
          number,
          number,
        ];
        const size = percent(from >= 0 && to <= 0 ? term.middlePercent : term.outerPercent);
        return plain(size.mul(domain === 'output' ? outputSpan : inputSpan));
      }
      case 'percent-of-reading':
        return term.of === 'applied'
          ? plain(percent(term.percent).mul(exact(applied).abs()).mul(inputScale))
          : scaled(magnitude(expected), percent(term.percent).mul(outputScale));
      case 'percent-of-upper-range-limit':
        return plain(percent(term.percent).mul(exact(term.upperRangeLimit).abs()).mul(inputScale));
      case 'absolute':
        return plain(exact(term.value).mul(term.in === 'output' ? outputScale : inputScale));
      case 'scale-divisions':
        return plain(exact(term.divisions).mul(exact(term.division)).mul(outputScale));
    }
  });
  const zero = plain(exact(0));
  if (combine === 'root-sum-square')
    return { square: values.reduce((sum, value) => plus(sum, times(value, value)), zero) };
  if (combine === 'sum') return { value: values.reduce(plus, zero) };
  return {
    value: values.reduce((most, value) => (signOf(minus(value, most)) > 0 ? value : most), zero),
  };
}
