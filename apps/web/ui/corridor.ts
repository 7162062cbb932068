/** The corridor's points: error in units of the limit against input in per cent of span, for screen and paper alike. */
import type { Direction } from '@barys/core';
import { evaluateStoredRun, type StoredRun } from '@barys/store/evaluation';

export interface CorridorPoint {
  /** Applied input, per cent of span. */
  readonly x: number;
  /** Error as a part of the limit. */
  readonly y: number;
  readonly direction: Direction;
  /** Expanded uncertainty of the error as a part of the limit, for the whiskers; null where it is not known. */
  readonly reach: number | null;
}

export function corridorPoints(run: StoredRun): CorridorPoint[] {
  const { lrv, urv } = run.madeWith.configuration;
  return evaluateStoredRun(run).readings.flatMap(({ applied, errorOfLimit, direction, limit, uncertainty }) =>
    // Where the limit is zero an error has no place in units of it; the table beside the drawing has it.
    errorOfLimit === null
      ? []
      : [
          {
            x: ((applied - lrv) / (urv - lrv)) * 100,
            y: errorOfLimit,
            direction,
            reach: uncertainty === undefined || limit === 0 ? null : uncertainty / limit,
          },
        ],
  );
}

/** How far the error axis reaches either way: a little outside the limit, or as far as the worst reading needs. */
export function corridorReach(points: readonly CorridorPoint[]): number {
  const worst = Math.max(0, ...points.map((point) => Math.abs(point.y)));
  return Math.max(1.35, worst * 1.12);
}
