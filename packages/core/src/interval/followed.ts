/** The errors of an instrument point by point over the years, and where each leads. */
import {
  daysToLimit,
  driftLine,
  outsideProbability,
  predictAt,
  unadjusted,
  type Band,
  type Calibration,
  type DriftLine,
} from '../drift';

/** Calibrations in one range, below which a line through them says nothing: with three, t is 12.7. */
export const LEAST_OF_DRIFT = 5;

/** The errors of one test point over the years, per cent of span. */
export interface FollowedPoint {
  /** Nominal input, per cent of span. */
  readonly at: number;
  readonly history: readonly Calibration[];
  /** What is allowed there today, per cent of span. */
  readonly limit: number;
}

export interface PointDrift {
  readonly at: number;
  readonly limit: number;
  readonly line: DriftLine;
  /** Limits on the line, with what was adjusted taken into account. */
  readonly band: Band;
}

export interface DriftFigures {
  /** The point that leads out first. */
  readonly at: number;
  readonly calibrations: number;
  readonly slopePerYear: number;
  readonly slopeStandardErrorPerYear: number;
  readonly limit: number;
  /** Number of the last calibration's day. */
  readonly lastDay: number;
  /** The last whole day on which the bounds of 95 % of every point are inside; null where there is none ahead. */
  readonly lastDayInside: number | null;
}

/**
 * The lines of the points that were read often enough.
 * @throws CoreError as `driftLine`
 */
export const pointDrifts = (points: readonly FollowedPoint[]): PointDrift[] =>
  points
    .filter(({ history }) => history.length >= LEAST_OF_DRIFT)
    .map(({ at, history, limit }) => {
      const { history: joined, taken } = unadjusted(history);
      return { at, limit, line: driftLine(joined), band: { low: taken - limit, high: taken + limit } };
    });

const outsideOn = ({ line, band }: PointDrift, day: number): number => outsideProbability(line, day, band);

/** The probability that the point that is worst on a day is outside then; 0 of no points. */
export const worstOutside = (drifts: readonly PointDrift[], day: number): number =>
  Math.max(0, ...drifts.map((drift) => outsideOn(drift, day)));

/** Last whole day with the bounds inside; null where a bound is beyond already, or never comes to a limit. */
function lastDayInside({ line, band }: PointDrift): number | null {
  const days = daysToLimit(line, band);
  return days === null ? null : Math.floor(line.firstDay + days);
}

/** The figures of the point that is likeliest outside on a day. */
export function driftFigures(drifts: readonly PointDrift[], day: number): DriftFigures | null {
  const [first] = [...drifts].sort(
    (a, b) =>
      outsideOn(b, day) - outsideOn(a, day) ||
      (lastDayInside(a) ?? Infinity) - (lastDayInside(b) ?? Infinity),
  );
  if (first === undefined) return null;
  const { at, limit, line } = first;
  const days = drifts.flatMap((drift) => lastDayInside(drift) ?? []);
  return {
    at,
    calibrations: line.count,
    slopePerYear: line.slopePerYear,
    slopeStandardErrorPerYear: line.slopeStandardErrorPerYear,
    limit,
    lastDay: line.lastDay,
    lastDayInside: days.length === 0 ? null : Math.min(...days),
  };
}

/** Whether the bounds are wider than the limits on the last day, so that no time is short enough for the scatter. */
export function isScattered({ line, band }: PointDrift): boolean {
  const { low, high } = predictAt(line, line.lastDay);
  return high - low >= band.high - band.low;
}
