/** Chance by a seed: the same seed gives the same world, on a server as in a browser. */
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

export interface Chance {
  /** In [low, high). */
  uniform(low: number, high: number): number;
  /** Standard normal. */
  normal(): number;
}

/** Seeds that lie side by side, spread over all bits: the generator's first draw of a small seed is near one. */
function spread(seed: number): number {
  // The finaliser of MurmurHash3 (Appleby), in the public domain.
  let bits = Math.imul(seed ^ (seed >>> 16), 0x85ebca6b);
  bits = Math.imul(bits ^ (bits >>> 13), 0xc2b2ae35);
  return bits ^ (bits >>> 16);
}

/** Two of the same seed give the same in the same order. */
export function makeChance(seed: number): Chance {
  const random = xoroshiro128plus(spread(seed));
  return {
    uniform: (low, high) => low + (high - low) * uniformFloat64(random),
    normal() {
      // Box and Muller (1958); 1 - u keeps the logarithm finite, since u is in [0, 1).
      const radius = Math.sqrt(-2 * Math.log(1 - uniformFloat64(random)));
      return radius * Math.cos(2 * Math.PI * uniformFloat64(random));
    },
  };
}

/**
 * The next value of a first-order (Ornstein and Uhlenbeck) noise: x e^(-dt/tau) + sigma sqrt(1 - e^(-2 dt/tau)) n. Exact for
 * any step, so that its spread does not depend on how finely time is cut; a correlation time of 0 is white.
 * @param sigma standard deviation in the long run
 * @param normal a standard normal draw
 */
export function nextNoise(
  x: number,
  { sigma, tauS }: { readonly sigma: number; readonly tauS: number },
  stepS: number,
  normal: number,
): number {
  const keep = tauS > 0 ? Math.exp(-stepS / tauS) : 0;
  return keep * x + sigma * Math.sqrt(1 - keep * keep) * normal;
}
