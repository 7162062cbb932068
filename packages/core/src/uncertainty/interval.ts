/** Coverage intervals from Monte Carlo results (JCGM 101:2008, 7.7 and 5.3.4, from memory). */

export interface Interval {
  readonly low: number;
  readonly high: number;
}

export interface Intervals {
  /** As much probability below as above. */
  readonly symmetric: Interval;
  /** The shortest that holds the probability. */
  readonly shortest: Interval;
}

const SAMPLE = 16384;

/**
 * The lowest and the highest values, each side sorted: all that a coverage interval depends on. Thresholds are guessed
 * from an even sample, with room to spare; where the guess proves too narrow everything is sorted.
 */
function sortedTails(values: Float64Array, each: number): readonly [low: Float64Array, high: Float64Array] {
  const count = values.length;
  if (count > 8 * SAMPLE && each < count / 4) {
    const stride = Math.floor(count / SAMPLE);
    const sample = Float64Array.from({ length: SAMPLE }, (_, i) => values[i * stride] as number).sort();
    const share = each / count;
    const spare = 6 * Math.sqrt(share * (1 - share) * SAMPLE) + 2;
    const below = sample[Math.ceil(share * SAMPLE + spare)] ?? Infinity;
    const above = sample[Math.floor(SAMPLE - 1 - share * SAMPLE - spare)] ?? -Infinity;
    const [low, high] = [new Float64Array(count), new Float64Array(count)];
    let [lows, highs] = [0, 0];
    for (let i = 0; i < count; i += 1) {
      const value = values[i] as number;
      if (value <= below) low[lows++] = value;
      if (value >= above) high[highs++] = value;
    }
    if (lows >= each && highs >= each)
      return [
        low.subarray(0, lows).sort().subarray(0, each),
        high
          .subarray(0, highs)
          .sort()
          .subarray(highs - each),
      ];
  }
  const sorted = values.slice().sort();
  return [sorted.subarray(0, each), sorted.subarray(count - each)];
}

/** @param values results of the trials, at least a hundred */
export function coverageIntervals(values: Float64Array, probability: number): Intervals {
  const count = values.length;
  const held = Math.round(probability * count);
  const outside = count - held;
  // Interval number r runs from the r-th lowest to the r-th lowest of the upper tail.
  const [low, high] = sortedTails(values, outside);
  const interval = (r: number): Interval => ({ low: low[r] as number, high: high[r] as number });
  const middle = Math.max(0, Math.round(outside / 2) - 1);
  let best = 0;
  for (let r = 1; r < outside; r += 1)
    if ((high[r] as number) - (low[r] as number) < (high[best] as number) - (low[best] as number)) best = r;
  return { symmetric: interval(middle), shortest: interval(best) };
}
