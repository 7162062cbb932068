/** Means of a run's errors by point and direction, and the figures that rest on the spread between them. */
import type { Direction } from '../procedure';

/** What the figures of a run need of a reading. */
export interface ErrorAt {
  readonly cycle: number;
  readonly direction: Direction;
  readonly nominalPercent: number;
  /** Ideal output at the applied value, as a share of the output span. */
  readonly share: number;
  readonly errorPercentSpan: number;
}

export interface PointMeans {
  readonly nominalPercent: number;
  /** Ideal output, share of the output span: mean of the direction means. */
  readonly share: number;
  /** Mean error of the rising readings, per cent of span; null where there is none. */
  readonly up: number | null;
  readonly down: number | null;
  /** Mean of the direction means that there are, so that a missing reading does not tilt the point. */
  readonly mean: number;
}

/** Running sums of one point in one direction. */
class Sums {
  count = 0;
  error = 0;
  share = 0;
  lowest = Infinity;
  highest = -Infinity;

  add({ errorPercentSpan, share }: ErrorAt): void {
    this.count += 1;
    this.error += errorPercentSpan;
    this.share += share;
    if (errorPercentSpan < this.lowest) this.lowest = errorPercentSpan;
    if (errorPercentSpan > this.highest) this.highest = errorPercentSpan;
  }
}

class PointSums {
  readonly up = new Sums();
  readonly down = new Sums();
  constructor(readonly nominalPercent: number) {}
}

const byNominal = (a: PointSums, b: PointSums): number => a.nominalPercent - b.nominalPercent;

function sumsOf(readings: readonly ErrorAt[]): PointSums[] {
  const points: PointSums[] = [];
  let place = 0;
  for (const reading of readings) {
    // Readings come in the order of the climb, so the point is most often the next one or the one before.
    const { nominalPercent } = reading;
    if (points[place + 1]?.nominalPercent === nominalPercent) place += 1;
    else if (points[place - 1]?.nominalPercent === nominalPercent) place -= 1;
    else if (points[place]?.nominalPercent !== nominalPercent)
      place = points.findIndex((one) => one.nominalPercent === nominalPercent);
    if (place === -1) {
      place = points.length;
      points.push(new PointSums(nominalPercent));
    }
    const point = points[place];
    if (reading.direction === 'up') point?.up.add(reading);
    else point?.down.add(reading);
  }
  return points.sort(byNominal);
}

/** The middle of what there is of two means. */
const middle = (a: number | null, b: number | null): number =>
  a === null ? (b ?? 0) : b === null ? a : (a + b) / 2;

function meansOf({ nominalPercent, up, down }: PointSums): PointMeans {
  const meanUp = up.count === 0 ? null : up.error / up.count;
  const meanDown = down.count === 0 ? null : down.error / down.count;
  const shareUp = up.count === 0 ? null : up.share / up.count;
  const shareDown = down.count === 0 ? null : down.share / down.count;
  return {
    nominalPercent,
    share: middle(shareUp, shareDown),
    up: meanUp,
    down: meanDown,
    mean: middle(meanUp, meanDown),
  };
}

export interface Spread {
  readonly points: readonly PointMeans[];
  /** Largest difference of falling and rising means at one point; null where no point has both. */
  readonly hysteresisOfMeans: number | null;
  /** Largest spread over the cycles of one direction at one point; null of single readings. */
  readonly nonRepeatability: number | null;
}

/** Spread over the cycles; null of single readings. */
const rangeOf = ({ count, lowest, highest }: Sums): number | null => (count > 1 ? highest - lowest : null);

/** The larger of two amounts of which either may be missing. */
const largerOf = (a: number | null, b: number | null): number | null =>
  a === null ? b : b === null ? a : Math.max(a, b);

/** Means and spreads, all in per cent of span. */
export function spreadOf(readings: readonly ErrorAt[]): Spread {
  const sums = sumsOf(readings);
  const points: PointMeans[] = [];
  let hysteresisOfMeans: number | null = null;
  let nonRepeatability: number | null = null;
  for (const point of sums) {
    const means = meansOf(point);
    points.push(means);
    const difference = means.up === null || means.down === null ? null : Math.abs(means.down - means.up);
    hysteresisOfMeans = largerOf(hysteresisOfMeans, difference);
    nonRepeatability = largerOf(nonRepeatability, largerOf(rangeOf(point.up), rangeOf(point.down)));
  }
  return { points, hysteresisOfMeans, nonRepeatability };
}

/** Readings of one point, rising and falling, inside one cycle. */
export function* pairsInCycle<R extends ErrorAt>(
  readings: readonly R[],
): Generator<readonly [up: R, down: R]> {
  const falling = new Map<number, Map<number, R[]>>();
  for (const reading of readings) {
    if (reading.direction === 'up') continue;
    const ofCycle = falling.get(reading.cycle) ?? new Map<number, R[]>();
    if (ofCycle.size === 0) falling.set(reading.cycle, ofCycle);
    const known = ofCycle.get(reading.nominalPercent);
    if (known === undefined) ofCycle.set(reading.nominalPercent, [reading]);
    else known.push(reading);
  }
  if (falling.size === 0) return;
  for (const up of readings)
    if (up.direction === 'up')
      for (const down of falling.get(up.cycle)?.get(up.nominalPercent) ?? []) yield [up, down];
}

/** Largest difference of a falling and a rising error at one point inside one cycle; null where no cycle has both. */
export function hysteresisOfCycles(readings: readonly ErrorAt[]): number | null {
  let largest: number | null = null;
  for (const [up, down] of pairsInCycle(readings)) {
    const difference = Math.abs(down.errorPercentSpan - up.errorPercentSpan);
    if (largest === null || difference > largest) largest = difference;
  }
  return largest;
}
