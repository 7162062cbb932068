/** Points of the curves that are drawn beside a budget. */
import type { Limits } from '@barys/core/conformity';

export interface CurvePoint {
  readonly x: number;
  readonly y: number;
}

/** A normal density over four standard deviations either side. */
export function normalDensity(mean: number, sd: number, count = 161): CurvePoint[] {
  const scale = 1 / (sd * Math.sqrt(2 * Math.PI));
  return Array.from({ length: count }, (_, i) => {
    const z = -4 + (8 * i) / (count - 1);
    return { x: mean + z * sd, y: scale * Math.exp(-0.5 * z * z) };
  });
}

/** The part of a curve outside limits; where it is inside there is nothing to shade. */
export function riskAreas(
  points: readonly CurvePoint[],
  { lower, upper }: Limits,
): { x: number; y: number | null }[] {
  const isOutside = (x: number) => (lower !== null && x < lower) || (upper !== null && x > upper);
  return points.map(({ x, y }) => ({ x, y: isOutside(x) ? y : null }));
}
