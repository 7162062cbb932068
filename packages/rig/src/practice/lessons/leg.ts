/** A level transmitter with a wet leg, on its process behind a manifold of three valves. */
import { makeChance } from '../../chance';
import {
  plant,
  soundController,
  soundSmart,
  soundSurroundings,
  USUAL_SPREAD,
  worldOf,
  type Planted,
  type World,
} from '../../world';
import type { Process } from '../field';
import { SETTINGS } from './benches';
import { RANGE, type Lesson } from './lesson';

const LEG: Process['leg'] = { heightM: 3, fillKgPerM3: 1000, drainS: 20, condenseS: 3600 };
/** Head of the full leg, kPa. */
const LEG_KPA = (LEG.heightM * LEG.fillKgPerM3 * 9.80665) / 1000;
/** Head of a full level, kPa. */
const LEVEL_KPA = 20;

/** It measures the level less the leg; faults are planted in a leg that is full of its liquid. */
export function legBench(seed: number, planted: readonly Planted[]): World {
  const chance = makeChance(seed);
  const settings = { ...SETTINGS, lrv: -LEG_KPA, urv: LEVEL_KPA - LEG_KPA };
  const parts = plant(
    {
      source: soundController(100, USUAL_SPREAD.referencePercent, chance),
      ...soundSurroundings(100, 0),
      tested: soundSmart(settings, USUAL_SPREAD.noise),
      leg: { leg: LEG, filled: 1 },
    },
    planted,
  );
  return worldOf(parts, seed + 1);
}

/** What a lesson has whose instrument stays on its process. */
export const WET_LEG = {
  range: { ...RANGE, urv: LEVEL_KPA },
  task: 'service',
  hasAsFound: false,
  face: { displayUnit: '%', startView: 'per cent of range' },
  /** A vessel under pressure, with a level of its own. */
  field: (seed) => ({
    arrangement: 'wet-leg',
    staticPressure: 600,
    head: makeChance(seed + 11).uniform(0.35, 0.7) * LEVEL_KPA,
    leg: LEG,
  }),
} as const satisfies Partial<Lesson>;
