/**
 * A straight line through errors over time, and where it leads: ordinary least squares with the prediction interval of one new
 * value (textbook; the prediction of one new calibration, not of the mean).
 */
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import { CoreError, requireFinite } from '../errors';
import { YEAR_DAYS } from './days';

export interface DatedError {
  /** Number of the day (`dayNumber`). */
  readonly day: number;
  /** In whatever unit the errors of one instrument are followed, usually per cent of span. */
  readonly error: number;
}

export interface DriftLine {
  readonly count: number;
  readonly firstDay: number;
  readonly lastDay: number;
  readonly meanDay: number;
  readonly meanError: number;
  /** Sum of the squared distances of the days from their mean, d². */
  readonly spread: number;
  readonly slopePerDay: number;
  readonly slopePerYear: number;
  readonly slopeStandardErrorPerYear: number;
  readonly atFirstDay: number;
  /** Standard deviation of the residuals, n - 2 degrees of freedom. */
  readonly residual: number;
  readonly degreesOfFreedom: number;
}

export type Sides = 'two-sided' | 'one-sided';
/** The probability that the bounds are for. */
const CONFIDENCE = 0.95;
/** What lies further ahead says nothing of an instrument. */
const HORIZON_DAYS = 60 * YEAR_DAYS;

/**
 * The least-squares line through errors over time.
 * @throws CoreError `too-few-points` below three; `missing` where all were found on one day; `not-finite`
 */
export function driftLine(history: readonly DatedError[]): DriftLine {
  const count = history.length;
  if (count < 3) throw new CoreError({ code: 'too-few-points', count, least: 3 }, 'history');
  for (const { day, error } of history) {
    requireFinite('Day', day, 'history');
    requireFinite('Error', error, 'history');
  }
  const days = history.map(({ day }) => day);
  const meanDay = days.reduce((sum, day) => sum + day, 0) / count;
  const meanError = history.reduce((sum, { error }) => sum + error, 0) / count;
  const [firstDay, lastDay] = [Math.min(...days), Math.max(...days)];
  if (firstDay === lastDay)
    throw new CoreError(
      { code: 'missing', name: 'Time between calibrations', why: 'all were made on one day' },
      'history',
    );
  let [spread, product] = [0, 0];
  for (const { day, error } of history) {
    spread += (day - meanDay) ** 2;
    product += (day - meanDay) * (error - meanError);
  }
  const slopePerDay = product / spread;
  const squares = history.reduce(
    (sum, { day, error }) => sum + (error - meanError - slopePerDay * (day - meanDay)) ** 2,
    0,
  );
  const residual = Math.sqrt(squares / (count - 2));
  return {
    count,
    firstDay,
    lastDay,
    meanDay,
    meanError,
    spread,
    slopePerDay,
    slopePerYear: slopePerDay * YEAR_DAYS,
    slopeStandardErrorPerYear: (residual / Math.sqrt(spread)) * YEAR_DAYS,
    atFirstDay: meanError + slopePerDay * (firstDay - meanDay),
    residual,
    degreesOfFreedom: count - 2,
  };
}

/** The error that the line gives on a day. */
export const lineAt = ({ meanError, slopePerDay, meanDay }: DriftLine, day: number): number =>
  meanError + slopePerDay * (day - meanDay);

/**
 * Student's t of the bounds, 95 %.
 * @example studentOf('two-sided', 4) // 2.7764
 */
export const studentOf = (sides: Sides, degreesOfFreedom: number): number =>
  tQuantile(sides === 'two-sided' ? (1 + CONFIDENCE) / 2 : CONFIDENCE, degreesOfFreedom);

/** The standard deviation of one new error about the line on a day. */
export const scatterAt = ({ residual, count, spread, meanDay }: DriftLine, day: number): number =>
  residual * Math.sqrt(1 + 1 / count + (day - meanDay) ** 2 / spread);

export interface Prediction {
  readonly error: number;
  readonly low: number;
  readonly high: number;
}

/** What one new calibration on a day would find, with its bounds of 95 %. */
export function predictAt(line: DriftLine, day: number, sides: Sides = 'two-sided'): Prediction {
  const error = lineAt(line, day);
  const half = studentOf(sides, line.degreesOfFreedom) * scatterAt(line, day);
  return { error, low: error - half, high: error + half };
}

/** The probability that one new error on a day lies outside a band. */
export function outsideProbability(line: DriftLine, day: number, { low, high }: Band): number {
  const [middle, scatter] = [lineAt(line, day), scatterAt(line, day)];
  if (scatter === 0) return middle < low || middle > high ? 1 : 0;
  const below = tCdf((low - middle) / scatter, line.degreesOfFreedom);
  const above = tCdf((middle - high) / scatter, line.degreesOfFreedom);
  return Math.min(1, below + above);
}

/** The two limits that an error is followed towards. */
export interface Band {
  readonly low: number;
  readonly high: number;
}

/**
 * How long a bound stays inside a band: the first time after the last calibration at which the upper bound reaches the upper
 * limit or the lower bound the lower one.
 * @returns days after the first calibration; null where a bound is beyond a limit already at the last calibration
 *   (`isBeyond` tells the two apart), and where none is reached within 60 years
 */
export function daysToLimit(line: DriftLine, band: Band, sides: Sides = 'two-sided'): number | null {
  const last = line.lastDay - line.meanDay;
  if (isBeyond(line, band, sides)) return null;
  const reached = [
    crossing(line, band.high - line.meanError, 1, sides),
    crossing(line, line.meanError - band.low, -1, sides),
  ].flatMap((times) => times.filter((z) => z >= last));
  if (reached.length === 0) return null;
  const days = Math.min(...reached) + line.meanDay - line.firstDay;
  return days > HORIZON_DAYS ? null : days;
}

/** Whether a bound is beyond its limit at the last calibration already. */
export function isBeyond(line: DriftLine, band: Band, sides: Sides = 'two-sided'): boolean {
  const { low, high } = predictAt(line, line.lastDay, sides);
  return high >= band.high || low <= band.low;
}

/**
 * Where side * slope * z + k sqrt(1 + 1/n + z²/S) comes to `room`, z counted from the mean day: the roots of its square that lie
 * on the right branch.
 */
function crossing(line: DriftLine, room: number, side: 1 | -1, sides: Sides): number[] {
  const { count, spread, residual, degreesOfFreedom } = line;
  const slope = side * line.slopePerDay;
  const k = studentOf(sides, degreesOfFreedom) * residual;
  const a = slope ** 2 - k ** 2 / spread;
  const half = -slope * room;
  const c = room ** 2 - k ** 2 * (1 + 1 / count);
  const isRight = (z: number) => Number.isFinite(z) && room - slope * z >= -1e-9 * Math.abs(room);
  if (a === 0) return [-c / (2 * half)].filter(isRight);
  const root = half ** 2 - a * c;
  if (root < 0) return [];
  // The form that does not take the difference of two nearly equal numbers.
  const q = -(half + Math.sign(half || 1) * Math.sqrt(root));
  return [q / a, c / q].filter(isRight);
}
