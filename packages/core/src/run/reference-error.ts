/**
 * A run judged again after its reference was found to read wrongly. The true value is the reading less the error found
 * (error = reading minus true value, as everywhere); between the points of the finding the error follows a straight
 * line, beyond them it is that of the nearest point. Common practice: a finding has few points and says nothing between.
 */
import { CoreError, requireFinite } from '../errors';
import type { RunReading } from './evaluate';

export interface ReferenceErrorPoint {
  /** What the reference read, in its unit. */
  readonly at: number;
  /** Reading minus true value, in the same unit. */
  readonly error: number;
}

/** @throws CoreError `missing`, `not-rising`, `not-finite` */
export function checkReferenceErrors(points: readonly ReferenceErrorPoint[]): void {
  if (points.length === 0)
    throw new CoreError(
      { code: 'missing', name: 'A point of the finding', why: 'the runs are judged again with it' },
      'errors',
    );
  points.forEach(({ at, error }, index) => {
    requireFinite('The reading of a point', at, 'errors');
    requireFinite('The error of a point', error, 'errors');
    const before = points[index - 1];
    if (before !== undefined && at <= before.at)
      throw new CoreError({ code: 'not-rising', name: 'The readings of the finding' }, 'errors');
  });
}

/**
 * The error of a reference at a reading, in its unit.
 * @throws CoreError as `checkReferenceErrors`
 * @example referenceErrorAt([{ at: 0, error: 0 }, { at: 10, error: 0.02 }], 5) // 0.01
 */
export function referenceErrorAt(points: readonly ReferenceErrorPoint[], reading: number): number {
  checkReferenceErrors(points);
  const around = pointsAround(points, reading);
  return between(around, reading, ({ error }) => error);
}

/**
 * The two points of a table next to a reading, twice the same where it is on one or beyond the ends.
 * @param points at least one, in rising order
 */
export function pointsAround<P extends { readonly at: number }>(
  points: readonly P[],
  reading: number,
): readonly [low: P, high: P] {
  const above = points.findIndex(({ at }) => at >= reading);
  const high = points[above] ?? points[points.length - 1];
  if (high === undefined) throw new CoreError({ code: 'missing', name: 'A point', why: 'a table has one' });
  const low = points[above - 1];
  return high.at <= reading || low === undefined ? [high, high] : [low, high];
}

/** A value of a table at a reading, on the straight line between the points around it. */
export function between<P extends { readonly at: number }>(
  [low, high]: readonly [P, P],
  reading: number,
  valueOf: (point: P) => number,
): number {
  if (low.at === high.at) return valueOf(low);
  return valueOf(low) + ((valueOf(high) - valueOf(low)) * (reading - low.at)) / (high.at - low.at);
}

/**
 * The readings of a run with the error of one of its references taken out.
 * @param side which of the two the reference read
 * @param toFinding one value of that side in the unit of the finding
 * @param fromFinding a difference in the unit of the finding, in the unit of the side
 */
export function withoutReferenceError(
  readings: readonly RunReading[],
  points: readonly ReferenceErrorPoint[],
  side: 'applied' | 'output',
  toFinding: (value: number) => number,
  fromFinding: (difference: number) => number,
): RunReading[] {
  return readings.map((reading) => ({
    ...reading,
    [side]: reading[side] - fromFinding(referenceErrorAt(points, toFinding(reading[side]))),
  }));
}
