/**
 * The exponential model of reliability, R(t) = exp(-lambda t): what is inside today is as likely as ever to be outside after the
 * same time again. Common practice; times in whatever unit the intervals are given in.
 */
import { CoreError, requirePositive } from '../errors';
import { checkCounted, checkShare, reliabilityBounds, type Counted } from './reliability';

export interface AtInterval extends Counted {
  /** Time since the calibration before. */
  readonly interval: number;
}

export interface ExponentialFit {
  readonly observed: number;
  /** Of going outside, per unit of time; infinite where all were found out. */
  readonly rate: number;
  /** Interval at which the target is met; null where none was found out, or all were. */
  readonly interval: number | null;
  readonly meanTime: number | null;
  /** The same interval from the lower one-sided bound of the part found inside. */
  readonly intervalFromBound: number;
}

/**
 * The model from calibrations that all came after one interval.
 * @throws CoreError `not-positive`, `not-whole`, `out-of-bounds`
 * @example exponentialAt({ interval: 12, calibrations: 40, out: 4 }, { target: 0.95 }).rate // 0.00878
 */
export function exponentialAt(
  found: AtInterval,
  { target, confidence = 0.95 }: { readonly target: number; readonly confidence?: number },
): ExponentialFit {
  requirePositive('Interval', found.interval, 'interval');
  checkShare('Target', target, 'target');
  const { observed, oneSided } = reliabilityBounds(found, confidence);
  const rate = found.out === 0 ? 0 : -Math.log(observed) / found.interval;
  const isBetween = observed > 0 && observed < 1;
  return {
    observed,
    rate,
    interval: isBetween ? intervalFor(rate, target) : null,
    meanTime: isBetween ? 1 / rate : null,
    intervalFromBound: oneSided.low === 0 ? 0 : (found.interval * Math.log(target)) / Math.log(oneSided.low),
  };
}

/** The interval at which the model meets a target. */
export const intervalFor = (rate: number, target: number): number => -Math.log(target) / rate;

/** The part inside after a time. */
export const reliabilityAt = (rate: number, time: number): number => Math.exp(-rate * time);

/** Steps of the search; each halves the bracket. */
const HALVINGS = 200;

/**
 * The rate that makes calibrations after different intervals most likely: the maximum of sum((n - r)(-lambda t) + r ln(1 -
 * exp(-lambda t))), whose derivative falls steadily, by halving.
 * @returns 0 where none was found out; infinite where all were
 * @throws CoreError `too-few-points`, `not-positive`, `not-whole`, `out-of-bounds`
 */
export function mostLikelyRate(rows: readonly AtInterval[]): number {
  if (rows.length === 0) throw new CoreError({ code: 'too-few-points', count: 0, least: 1 }, 'rows');
  for (const row of rows) {
    requirePositive('Interval', row.interval, 'rows');
    checkCounted(row);
  }
  if (rows.every(({ out }) => out === 0)) return 0;
  if (rows.every(({ out, calibrations }) => out === calibrations)) return Infinity;
  const derivative = (rate: number): number =>
    rows.reduce(
      (sum, { interval, calibrations, out }) =>
        sum -
        (calibrations - out) * interval +
        (out === 0 ? 0 : (out * interval) / Math.expm1(rate * interval)),
      0,
    );
  // In logarithms, from a rate that is surely too small: rates span many powers of ten.
  const longest = Math.max(...rows.map(({ interval }) => interval));
  let [low, high] = [
    Math.log(1e-12 / longest),
    Math.log(1e6 / Math.min(...rows.map(({ interval }) => interval))),
  ];
  for (let i = 0; i < HALVINGS && high - low > 1e-15 * Math.abs(low); i += 1) {
    const middle = (low + high) / 2;
    if (derivative(Math.exp(middle)) > 0) low = middle;
    else high = middle;
  }
  return Math.exp((low + high) / 2);
}

/**
 * The expected part of the time out of tolerance where each interval begins inside and nobody looks before its end: 1 - (1 -
 * exp(-lambda I)) / (lambda I), the mean of 1 - R(t) from 0 to I.
 * @example outsidePart(0.05, 12) // 0.2480
 */
export function outsidePart(rate: number, interval: number): number {
  const x = rate * interval;
  // Below, the difference of two nearly equal numbers is noise; the series is exact there.
  return x < 1e-4 ? x / 2 - x ** 2 / 6 : 1 + Math.expm1(-x) / x;
}
