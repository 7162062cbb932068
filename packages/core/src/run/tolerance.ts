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
 * @example spanTolerance(0.25, 70).adjustAbovePercentOfLimit // 70, of a limit of 0.25 % of span
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
export const limitAt = (
  range: SignalRange,
  tolerance: Tolerance,
  applied: number,
  expected: number,
): number => limiter(range, tolerance)(applied, expected);

/** The same for many readings: what does not hang on the reading is computed once. */
export function limiter(
  range: SignalRange,
  { terms, combine, domain }: Tolerance,
): (applied: number, expected: number) => number {
  const parts = terms.map((term) => termLimiter(range, domain, term));
  if (parts.some((part) => typeof part !== 'number'))
    return (applied, expected) => combined(parts, combine, applied, expected);
  const everywhere = combined(parts, combine, 0, 0);
  return () => everywhere;
}

type TermLimit = number | ((applied: number, expected: number) => number);

function combined(
  parts: readonly TermLimit[],
  combine: Tolerance['combine'],
  applied: number,
  expected: number,
): number {
  let total = 0;
  for (const part of parts) {
    const value = typeof part === 'number' ? part : part(applied, expected);
    if (combine === 'sum') total += value;
    else if (combine === 'maximum') total = Math.max(total, value);
    else total = Math.hypot(total, value);
  }
  return total;
}

/** One term in the unit of the domain; a number where it is the same at every reading. */
function termLimiter(range: SignalRange, domain: Tolerance['domain'], term: ToleranceTerm): TermLimit {
  const inputSpan = Math.abs(range.urv - range.lrv);
  const outputSpan = Math.abs(range.outputHigh - range.outputLow);
  const span = domain === 'output' ? outputSpan : inputSpan;
  const [inputScale, outputScale] =
    domain === 'output' ? [outputSpan / inputSpan, 1] : [1, inputSpan / outputSpan];
  switch (term.kind) {
    case 'percent-of-span':
      return (term.percent / 100) * span;
    case 'percent-of-span-in-zones':
      return (_, expected) =>
        ((isMiddleOfScale(range, expected) ? term.middlePercent : term.outerPercent) / 100) * span;
    case 'percent-of-reading':
      return term.of === 'applied'
        ? (applied) => (term.percent / 100) * (Math.abs(applied) * inputScale)
        : (_, expected) => (term.percent / 100) * (Math.abs(expected) * outputScale);
    case 'percent-of-upper-range-limit':
      return (term.percent / 100) * Math.abs(term.upperRangeLimit) * inputScale;
    case 'absolute':
      return term.value * (term.in === 'output' ? outputScale : inputScale);
    case 'scale-divisions':
      return term.divisions * term.division * outputScale;
  }
}

/** An exact limit: itself, or, of a root sum of squares, its square. */
export type ExactLimit = { readonly value: Surd } | { readonly square: Surd };

/** The limit at a reading, exact. */
export const exactLimitAt = (
  range: SignalRange,
  tolerance: Tolerance,
  applied: number,
  expected: Surd,
): ExactLimit => exactLimiter(range, tolerance)(applied, expected);

/** The same for many readings: what does not hang on the reading is computed once. */
export function exactLimiter(
  range: SignalRange,
  { terms, combine, domain }: Tolerance,
): (applied: number, expected: Surd) => ExactLimit {
  const parts = terms.map((term) => exactTermLimiter(range, domain, term));
  if (parts.some((part) => typeof part === 'function'))
    return (applied, expected) => exactlyCombined(parts, combine, applied, expected);
  const everywhere = exactlyCombined(parts, combine, 0, rational(ZERO));
  return () => everywhere;
}

const ZERO = exact(0);

type ExactTermLimit = Exact | ((applied: number, expected: Surd) => Surd);

function exactlyCombined(
  parts: readonly ExactTermLimit[],
  combine: Tolerance['combine'],
  applied: number,
  expected: Surd,
): ExactLimit {
  const zero = rational(ZERO, expected.t);
  const values = parts.map((part) =>
    typeof part === 'function' ? part(applied, expected) : rational(part, expected.t),
  );
  if (combine === 'root-sum-square')
    return { square: values.reduce((sum, value) => plus(sum, times(value, value)), zero) };
  if (combine === 'sum') return { value: values.reduce(plus, zero) };
  return {
    value: values.reduce((most, value) => (signOf(minus(value, most)) > 0 ? value : most), zero),
  };
}

const hundredth = (percent: number): Exact => exact(percent).div(100);

const exactSpan = (range: SignalRange, of: Tolerance['domain']): Exact =>
  (of === 'output'
    ? exact(range.outputHigh).sub(exact(range.outputLow))
    : exact(range.urv).sub(exact(range.lrv))
  ).abs();

/** What an amount of one domain is multiplied by to stand in the other. */
const exactScale = (range: SignalRange, to: Tolerance['domain'], from: Tolerance['domain']): Exact =>
  from === to ? exact(1) : exactSpan(range, to).div(exactSpan(range, from));

/** One term in the unit of the domain, exact; a plain number where it is the same at every reading. */
function exactTermLimiter(
  range: SignalRange,
  domain: Tolerance['domain'],
  term: ToleranceTerm,
): ExactTermLimit {
  switch (term.kind) {
    case 'percent-of-span':
      return hundredth(term.percent).mul(exactSpan(range, domain));
    case 'percent-of-span-in-zones': {
      const middle = hundredth(term.middlePercent).mul(exactSpan(range, domain));
      const outer = hundredth(term.outerPercent).mul(exactSpan(range, domain));
      return (_, expected) =>
        rational(isExactlyInMiddleOfScale(range, expected) ? middle : outer, expected.t);
    }
    case 'percent-of-reading': {
      const part = hundredth(term.percent).mul(
        exactScale(range, domain, term.of === 'applied' ? 'input' : 'output'),
      );
      return term.of === 'applied'
        ? (applied, expected) => rational(part.mul(exact(applied).abs()), expected.t)
        : (_, expected) => scaled(magnitude(expected), part);
    }
    case 'percent-of-upper-range-limit':
      return hundredth(term.percent)
        .mul(exact(term.upperRangeLimit).abs())
        .mul(exactScale(range, domain, 'input'));
    case 'absolute':
      return exact(term.value).mul(exactScale(range, domain, term.in));
    case 'scale-divisions':
      return exact(term.divisions)
        .mul(exact(term.division))
        .mul(exactScale(range, domain, 'output'));
  }
}

function isExactlyInMiddleOfScale({ outputLow, outputHigh }: SignalRange, expected: Surd): boolean {
  const low = exact(outputLow);
  const share = scaled(minus(expected, rational(low)), exact(1).div(exact(outputHigh).sub(low)));
  const sideOf = (end: number) => signOf(minus(share, rational(exact(end))));
  return sideOf(MIDDLE_OF_SCALE[0]) >= 0 && sideOf(MIDDLE_OF_SCALE[1]) <= 0;
}
