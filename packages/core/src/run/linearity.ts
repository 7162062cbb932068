/**
 * Straight lines through a run's errors, against the ideal output as a share of span.
 *
 * Linearity after IEC 61298-2 and ISA-51.1 (both from memory), always with its kind: the largest deviation of the
 * point means from a line through the first and last point (terminal), from the best line through the first point
 * (zero-based), or from the best line of all (independent); best is the one whose largest deviation is least.
 *
 * Points are given as two columns: `x` shares of span, `y` errors in per cent of span.
 */
type Column = readonly number[];

const at = (column: Column, index: number): number => column[index] as number;

/** A largest deviation and the points (by their index) that it hangs on. */
export interface Deviation {
  /** Per cent of span, never negative. */
  readonly largest: number;
  readonly points: readonly number[];
}

export interface Linearity {
  /** Null where a point at 0 % or at 100 % is missing, since the line goes through those. */
  readonly terminal: number | null;
  /** Null where the point at 0 % is missing. */
  readonly zeroBased: number | null;
  readonly independent: number;
}

/**
 * The three linearities; null where all points stand at one x.
 * @param x in rising order, at least two
 * @param has whether the first point stands at 0 %, and the last at 100 %
 */
export function linearityOf(
  x: Column,
  y: Column,
  has: { readonly zero: boolean; readonly full: boolean },
): Linearity | null {
  if (x.length < 2 || at(x, 0) === at(x, x.length - 1)) return null;
  return {
    terminal: has.zero && has.full ? terminalDeviation(x, y).largest : null,
    zeroBased: has.zero ? zeroBasedDeviation(x, y).largest : null,
    independent: independentDeviation(x, y).largest,
  };
}

/** From the line through first and last point; hangs on one point. */
export function terminalDeviation(x: Column, y: Column): Deviation {
  const [x0, y0] = [at(x, 0), at(y, 0)];
  const slope = (at(y, y.length - 1) - y0) / (at(x, x.length - 1) - x0);
  let largest = 0;
  let point = 0;
  for (let i = 0; i < x.length; i += 1) {
    const deviation = Math.abs(at(y, i) - y0 - slope * (at(x, i) - x0));
    if (deviation > largest) [largest, point] = [deviation, i];
  }
  return { largest, points: [point] };
}

/**
 * Through the first point only the slope is free, and every deviation allows an interval of slopes. Intervals of a line
 * meet all together as soon as they meet in pairs (Helly), so the least deviation is the largest that a pair asks for.
 * Hangs on the two points of that pair, which the line leaves above and below it by the same amount.
 */
export function zeroBasedDeviation(x: Column, y: Column): Deviation {
  const [x0, y0] = [at(x, 0), at(y, 0)];
  let largest = 0;
  let pair = [0, 0];
  for (let i = 0; i < x.length; i += 1)
    for (let j = 0; j < x.length; j += 1) {
      const xi = at(x, i) - x0;
      const xj = at(x, j) - x0;
      if (!(xi + xj > 0)) continue;
      const deviation = ((at(y, i) - y0) * xj - (at(y, j) - y0) * xi) / (xi + xj);
      if (deviation > largest) {
        largest = deviation;
        pair = [i, j];
      }
    }
  return { largest, points: pair };
}

/** One side of the convex hull of points in rising order of x: +1 the lower side, -1 the upper. */
function hull(x: Column, y: Column, side: 1 | -1): number[] {
  const kept: number[] = [];
  for (let c = 0; c < x.length; c += 1) {
    while (kept.length > 1) {
      const [a, b] = [kept[kept.length - 2] as number, kept[kept.length - 1] as number];
      const turn =
        (at(x, b) - at(x, a)) * (at(y, c) - at(y, a)) - (at(y, b) - at(y, a)) * (at(x, c) - at(x, a));
      if (turn * side > 0) break;
      kept.pop();
    }
    kept.push(c);
  }
  return kept;
}

/**
 * The strip of least height around the points lies along an edge of their hull; half its height is the deviation. Hangs
 * on the two ends of that edge and the point across the strip.
 */
export function independentDeviation(x: Column, y: Column): Deviation {
  const lower = hull(x, y, 1);
  const upper = hull(x, y, -1);
  const along = leastStrip(x, y, lower, upper, 1);
  const under = leastStrip(x, y, upper, lower, -1);
  return under.largest < along.largest ? under : along;
}

/** Half the height of the lowest strip along an edge of one side of the hull, reaching across to the other side. */
function leastStrip(x: Column, y: Column, edges: Column, others: Column, side: 1 | -1): Deviation {
  let least = Infinity;
  let points = [0, 0, 0];
  for (let index = 1; index < edges.length; index += 1) {
    const a = at(edges, index - 1);
    const b = at(edges, index);
    if (at(x, a) === at(x, b)) continue;
    const slope = (at(y, b) - at(y, a)) / (at(x, b) - at(x, a));
    let height = 0;
    let across = a;
    for (let k = 0; k < others.length; k += 1) {
      const c = at(others, k);
      const reach = side * (at(y, c) - at(y, a) - slope * (at(x, c) - at(x, a)));
      if (reach > height) {
        height = reach;
        across = c;
      }
    }
    if (height / 2 < least) {
      least = height / 2;
      points = [a, b, across];
    }
  }
  return { largest: least, points };
}

export interface Line {
  /** Error where the output is at its low end, per cent of span. */
  readonly atZero: number;
  /** Rise of the error over the whole output span, per cent of span. */
  readonly overSpan: number;
}

/** Ordinary least squares; null where all points stand at one x. */
export function leastSquares(x: Column, y: Column): Line | null {
  let sumX = 0;
  let sumY = 0;
  for (let i = 0; i < x.length; i += 1) {
    sumX += at(x, i);
    sumY += at(y, i);
  }
  const meanX = sumX / x.length;
  const meanY = sumY / x.length;
  let sxx = 0;
  let sxy = 0;
  for (let i = 0; i < x.length; i += 1) {
    const dx = at(x, i) - meanX;
    sxx += dx * dx;
    sxy += dx * (at(y, i) - meanY);
  }
  if (!(sxx > 0)) return null;
  return { atZero: meanY - (sxy / sxx) * meanX, overSpan: sxy / sxx };
}
