/**
 * Straight lines through a run's errors, against the ideal output as a share of span.
 *
 * Linearity after IEC 61298-2 and ISA-51.1 (both from memory), always with its kind: the largest deviation of the
 * point means from a line through the first and last point (terminal), from the best line through the first point
 * (zero-based), or from the best line of all (independent); best is the one whose largest deviation is least.
 */

/** x is a share of span, y an error in per cent of span. */
export interface PlotPoint {
  readonly x: number;
  readonly y: number;
}

export interface Linearity {
  readonly terminal: number;
  readonly zeroBased: number;
  readonly independent: number;
}

/** @param points in rising order of x, at least two, from 0 to 100 % of span */
export function linearityOf(points: readonly PlotPoint[]): Linearity | null {
  const first = points[0];
  const last = points.at(-1);
  if (first === undefined || last === undefined || last.x === first.x) return null;
  return {
    terminal: terminalDeviation(points, first, last),
    zeroBased: zeroBasedDeviation(points, first),
    independent: independentDeviation(points),
  };
}

function terminalDeviation(points: readonly PlotPoint[], first: PlotPoint, last: PlotPoint): number {
  const slope = (last.y - first.y) / (last.x - first.x);
  let largest = 0;
  for (const { x, y } of points) largest = Math.max(largest, Math.abs(y - first.y - slope * (x - first.x)));
  return largest;
}

/**
 * Through the first point only the slope is free, and every deviation allows an interval of slopes. Intervals of a line
 * meet all together as soon as they meet in pairs (Helly), so the least deviation is the largest that a pair asks for.
 */
function zeroBasedDeviation(points: readonly PlotPoint[], first: PlotPoint): number {
  let largest = 0;
  for (const p of points)
    for (const q of points) {
      const xp = p.x - first.x;
      const xq = q.x - first.x;
      if (xp + xq > 0) largest = Math.max(largest, ((p.y - first.y) * xq - (q.y - first.y) * xp) / (xp + xq));
    }
  return largest;
}

const turn = (a: PlotPoint, b: PlotPoint, c: PlotPoint): number =>
  (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);

/** One side of the convex hull of points in rising order of x: +1 the lower side, -1 the upper. */
function hull(points: readonly PlotPoint[], side: 1 | -1): PlotPoint[] {
  const kept: PlotPoint[] = [];
  for (const point of points) {
    while (kept.length > 1) {
      const before = kept[kept.length - 2] as PlotPoint;
      const last = kept[kept.length - 1] as PlotPoint;
      if (turn(before, last, point) * side > 0) break;
      kept.pop();
    }
    kept.push(point);
  }
  return kept;
}

/** The strip of least height around the points lies along an edge of their hull; half its height is the deviation. */
function independentDeviation(points: readonly PlotPoint[]): number {
  const lower = hull(points, 1);
  const upper = hull(points, -1);
  return Math.max(0, Math.min(leastStrip(lower, lower, upper), leastStrip(upper, lower, upper)));
}

/** Half the height of the lowest strip along one of the edges. */
function leastStrip(
  edges: readonly PlotPoint[],
  lower: readonly PlotPoint[],
  upper: readonly PlotPoint[],
): number {
  let least = Infinity;
  for (let index = 1; index < edges.length; index += 1) {
    const a = edges[index - 1] as PlotPoint;
    const b = edges[index] as PlotPoint;
    if (a.x === b.x) continue;
    const slope = (b.y - a.y) / (b.x - a.x);
    let highest = -Infinity;
    let lowest = Infinity;
    for (const { x, y } of upper) highest = Math.max(highest, y - slope * x);
    for (const { x, y } of lower) lowest = Math.min(lowest, y - slope * x);
    least = Math.min(least, (highest - lowest) / 2);
  }
  return least;
}

export interface Line {
  /** Error where the output is at its low end, per cent of span. */
  readonly atZero: number;
  /** Rise of the error over the whole output span, per cent of span. */
  readonly overSpan: number;
}

/** Ordinary least squares; null where all points stand at one x. */
export function leastSquares(points: readonly PlotPoint[]): Line | null {
  let sumX = 0;
  let sumY = 0;
  for (const { x, y } of points) {
    sumX += x;
    sumY += y;
  }
  const meanX = sumX / points.length;
  const meanY = sumY / points.length;
  let sxx = 0;
  let sxy = 0;
  for (const { x, y } of points) {
    sxx += (x - meanX) ** 2;
    sxy += (x - meanX) * (y - meanY);
  }
  if (!(sxx > 0)) return null;
  return { atZero: meanY - (sxy / sxx) * meanX, overSpan: sxy / sxx };
}
