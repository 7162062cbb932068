/**
 * Drift with the adjustments taken out: what an instrument did by itself, from as left to the next as found. Common practice, no
 * source.
 */
import { CoreError, requireFinite } from '../errors';
import { YEAR_DAYS } from './days';
import type { DatedError } from './regression';

export interface Calibration {
  /** Number of the day. */
  readonly day: number;
  readonly found: number;
  /** The same as found where nothing was adjusted. */
  readonly left: number;
}

export interface DriftStep {
  /** Length of the step, days. */
  readonly days: number;
  /** As found less the as left before it. */
  readonly drift: number;
}

/**
 * The steps between calibrations, in order of their days.
 * @throws CoreError `too-few-points` below two; `not-rising` where two were made on one day; `not-finite`
 */
export function driftSteps(history: readonly Calibration[]): DriftStep[] {
  if (history.length < 2)
    throw new CoreError({ code: 'too-few-points', count: history.length, least: 2 }, 'history');
  for (const { day, found, left } of history)
    for (const value of [day, found, left]) requireFinite('Error', value, 'history');
  return history.slice(1).map(({ day, found }, index) => {
    const before = history[index] as Calibration;
    if (day <= before.day)
      throw new CoreError({ code: 'not-rising', name: 'Days of calibration' }, 'history');
    return { days: day - before.day, drift: found - before.left };
  });
}

export interface DriftRates {
  /** Sum of the drifts over the sum of the days, per year. */
  readonly totalOverTime: number;
  /** Least squares through the origin, per year: a long step counts more. */
  readonly throughOrigin: number;
}

/** The rates of drift of some steps, of which there is at least one. */
export function driftRates(steps: readonly DriftStep[]): DriftRates {
  let [drift, days, product, square] = [0, 0, 0, 0];
  for (const step of steps) {
    drift += step.drift;
    days += step.days;
    product += step.drift * step.days;
    square += step.days ** 2;
  }
  return { totalOverTime: (drift / days) * YEAR_DAYS, throughOrigin: (product / square) * YEAR_DAYS };
}

/**
 * Days from the last calibration, as it was left, until the rate through the origin brings it to a limit; without a bound.
 * @param limit either way, in the unit of the errors, greater than zero
 * @returns null where it does not drift; 0 where it was left outside
 */
export function daysLeft(history: readonly Calibration[], limit: number): number | null {
  const last = history.at(-1);
  const perDay = driftRates(driftSteps(history)).throughOrigin / YEAR_DAYS;
  if (last === undefined || perDay === 0) return null;
  if (Math.abs(last.left) >= limit) return 0;
  return (Math.sign(perDay) * limit - last.left) / perDay;
}

/** What the errors would have been with nothing adjusted, and how much was taken out of them in all. */
export interface Unadjusted {
  readonly history: readonly DatedError[];
  /** What has to be taken from an error of `history` to get that of the instrument as it stands. */
  readonly taken: number;
}

/**
 * Joins the steps to one line of errors, as if nothing had ever been adjusted: a regression over it gives the drift, and with what
 * was taken out its bounds hold for the instrument as it was left.
 */
export function unadjusted(history: readonly Calibration[]): Unadjusted {
  let taken = 0;
  const joined = history.map(({ day, found, left }) => {
    const error = found + taken;
    taken += found - left;
    return { day, error };
  });
  return { history: joined, taken };
}
