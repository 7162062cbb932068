/** The errors of an instrument point by point over the years, and where each leads. */
import {
  daysToLimit,
  driftLine,
  isBeyond,
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
  /** Past it the instrument is adjusted, per cent of span. */
  readonly adjustLimit: number;
}

export interface PointDrift {
  readonly at: number;
  readonly limit: number;
  readonly line: DriftLine;
  /** Limits on the line, with what was adjusted taken into account. */
  readonly band: Band;
  /** The same of the adjust limits. */
  readonly adjustBand: Band;
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
  /** The last whole day on which the bounds of 95 % of every point are inside; null where one is beyond its limit already, and where none meets a limit ahead. */
  readonly lastDayInside: number | null;
  /** The same of the adjust limit. */
  readonly lastDayBelowAdjust: number | null;
}

/**
 * The lines of the points that were read often enough.
 * @throws CoreError as `driftLine`
 */
export const pointDrifts = (points: readonly FollowedPoint[]): PointDrift[] =>
  points
    .filter(({ history }) => history.length >= LEAST_OF_DRIFT)
    .map(({ at, history, limit, adjustLimit }) => {
      const { history: joined, taken } = unadjusted(history);
      const bandOf = (most: number): Band => ({ low: taken - most, high: taken + most });
      return { at, limit, line: driftLine(joined), band: bandOf(limit), adjustBand: bandOf(adjustLimit) };
    });

const outsideOn = ({ line, band }: PointDrift, day: number): number => outsideProbability(line, day, band);

/** The probability that the point that is worst on a day is outside then; 0 of no points. */
export const worstOutside = (drifts: readonly PointDrift[], day: number): number =>
  Math.max(0, ...drifts.map((drift) => outsideOn(drift, day)));

/** Last whole day with the bounds inside; null where a bound is beyond already, or never comes to a limit. */
function lastDayIn(line: DriftLine, band: Band): number | null {
  const days = daysToLimit(line, band);
  return days === null ? null : Math.floor(line.firstDay + days);
}

/** The figures of the point that is likeliest outside on a day. */
export function driftFigures(drifts: readonly PointDrift[], day: number): DriftFigures | null {
  const [first] = [...drifts].sort(
    (a, b) =>
      outsideOn(b, day) - outsideOn(a, day) ||
      (lastDayIn(a.line, a.band) ?? Infinity) - (lastDayIn(b.line, b.band) ?? Infinity),
  );
  if (first === undefined) return null;
  const { at, limit, line } = first;
  const firstOf = (bandOf: (drift: PointDrift) => Band): number | null => {
    if (drifts.some((drift) => isBeyond(drift.line, bandOf(drift)))) return null;
    const days = drifts.flatMap((drift) => lastDayIn(drift.line, bandOf(drift)) ?? []);
    return days.length === 0 ? null : Math.min(...days);
  };
  return {
    at,
    calibrations: line.count,
    slopePerYear: line.slopePerYear,
    slopeStandardErrorPerYear: line.slopeStandardErrorPerYear,
    limit,
    lastDay: line.lastDay,
    lastDayInside: firstOf(({ band }) => band),
    lastDayBelowAdjust: firstOf(({ adjustBand }) => adjustBand),
  };
}

/** Whether the bounds are wider than the limits on the last day, so that no time is short enough for the scatter. */
export function isScattered({ line, band }: PointDrift): boolean {
  const { low, high } = predictAt(line, line.lastDay);
  return high - low >= band.high - band.low;
}
