/** A heat-loss gauge on a manifold with two references: one for low pressures, one to the pressure of the air. */
import { makeChance } from '../../chance';
import { soundSurroundings, worldOf, type World } from '../../world';
import { either } from './benches';
import type { Lesson } from './lesson';

/** A capacitance gauge to 1 kPa and one to the pressure of the air, a heat-loss gauge between them; pascals, absolute. */
export function vacuumBench(seed: number): World {
  const chance = makeChance(seed);
  const world = worldOf(
    {
      ...soundSurroundings(10_000, 0, 1),
      source: {
        kind: 'manifold',
        manifold: {
          volumeM3: 0.01,
          outgassing: 1e-6,
          bleed: 2,
          rotary: { speedM3PerS: 0.001, endPa: 0.8 },
          diffusion: { speedM3PerS: 0.01, endPa: 0.0005 },
          stallsPa: 20,
        },
        gauge: { gain: chance.uniform(-0.001, 0.001), offset: either(chance, 20, 50), resolution: 1 },
      },
      tested: {
        kind: 'heat-loss gauge',
        gauge: { v0: 0.3, v0PerK: 0, k: 0.002, p1: 20_000, excitation: 1 },
        gas: 'nitrogen',
      },
    },
    seed + 1,
  );
  if (world.tested.kind === 'heat-loss gauge') {
    // Its zero was taken at a pressure that was none, and its span against a gauge that did not reach there.
    world.tested.zeroAt(chance.uniform(0.4, 0.8));
    world.tested.setSpan(1 + either(chance, 0.15, 0.25));
  }
  return world;
}

/** What a lesson over decades of vacuum has; pascals, absolute. */
export const VACUUM = {
  range: { lrv: 0, urv: 10_000, outputLow: 0, outputHigh: 10_000 },
  unit: 'Pa',
  outputUnit: 'Pa',
  limitPercent: 10,
  limitOf: 'reading',
  points: [0.01, 0.1, 1, 10, 100],
  referenceLimit: 150_000,
  second: { fine: { gain: 0.0005, offset: 0.002, resolution: 0.001 }, fineLimit: 1000 },
} as const satisfies Partial<Lesson>;
