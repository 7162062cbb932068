/** The benches that lessons are made of: a source, an instrument, what reads it. Instruments are inventions. */
import type { SignalRange } from '@barys/core/signal';
import { drawAnalog } from '../../adjusting';
import { makeChance, type Chance } from '../../chance';
import { drawReference } from '../../reference';
import type { Settings } from '../../smart';
import {
  plant,
  soundController,
  soundSmart,
  soundSurroundings,
  USUAL_SPREAD,
  worldOf,
  type Parts,
  type Planted,
  type SourceParts,
  type World,
} from '../../world';
import { RANGE } from './lesson';

/** A hand pump with a gauge beside it, in kilopascals. */
export function pump(chance: Chance): SourceParts {
  return {
    kind: 'pump',
    gauge: drawReference(
      { percentOfReading: 0, percentOfRange: 0.01, floor: 0, range: 100, resolution: 0.001 },
      chance,
    ),
    air: {
      volumeM3: 5e-5,
      strokeM3: 2e-6,
      perTurnM3: 4e-7,
      turns: 30,
      warmth: 0.3,
      coolingS: 15,
      leakS: Infinity,
      ventS: 0.5,
    },
  };
}

/** An analog transmitter at a pump, its screws turned before anybody looks. */
export function analogBench(
  seed: number,
  off: (chance: Chance) => { readonly zero?: number; readonly span?: number },
  { outputLow, outputHigh }: SignalRange = RANGE,
): World {
  const chance = makeChance(seed);
  const drawn = drawAnalog(chance);
  const analog = {
    ...drawn,
    bend: 0.0003,
    range: { ...drawn.range, outputLow, outputHigh },
    saturation: [outputLow * 0.5, outputHigh * 1.2] as const,
  };
  const around = soundSurroundings(100, chance.uniform(-0.0005, 0.0005));
  const parts: Parts = {
    ...around,
    // A receiver of 1 to 5 V at the top of the signal, whatever that is.
    loop: { ...around.loop, seriesOhm: 5000 / outputHigh },
    source: pump(chance),
    tested: { kind: 'analog transmitter', analog },
  };
  const world = worldOf(parts, seed + 1);
  if (world.tested.kind === 'analog transmitter') {
    // In shares of the span, whatever a turn moves: what is off is off by what the lesson means.
    const { zero = 0, span = 0 } = off(chance);
    world.tested.turn({ span: span / analog.spanPerTurn });
    world.tested.turn({ zero: (zero - analog.pivot * span) / analog.zeroPerTurn });
  }
  return world;
}

/** A pneumatic force balance at a pump: its range wheel moves zero too. */
export function balanceBench(
  seed: number,
  off: (chance: Chance) => { readonly zeroTurns: number; readonly wheelTurns: number },
  planted: readonly Planted[] = [],
): World {
  const chance = makeChance(seed);
  const parts: Parts = {
    ...soundSurroundings(100, 0),
    source: pump(chance),
    tested: {
      kind: 'force balance',
      range: { lrv: 0, urv: 100 },
      supply: 1,
      balance: {
        wheelPerTurn: chance.uniform(0.02, 0.04),
        zeroPerTurn: chance.uniform(0.015, 0.03),
        springAtZero: chance.uniform(0.1, 0.35),
        nozzleGain: 4000,
        friction: 0.0004,
        settlingS: 1,
        burr: null,
        low: 3,
        high: 15,
      },
    },
  };
  const world = worldOf(plant(parts, planted), seed + 1);
  const { zeroTurns, wheelTurns } = off(chance);
  if (world.tested.kind === 'force balance') world.tested.turn({ zero: zeroTurns, wheel: wheelTurns });
  return world;
}

/** A digital gauge at a pump that somebody calibrated in the field against a reference that was wrong. */
export function gaugeBench(seed: number): World {
  const chance = makeChance(seed);
  const gauge = {
    offset: 0,
    gain: chance.uniform(-0.0001, 0.0001),
    bow: 0.0001,
    full: 100,
    resolution: 0.01,
    waitS: 5,
  };
  const world = worldOf(
    { ...soundSurroundings(100, 0), source: pump(chance), tested: { kind: 'digital gauge', gauge } },
    seed + 1,
  );
  const wrong = either(chance, 0.004, 0.009);
  if (world.tested.kind === 'digital gauge') {
    const { state } = world.tested;
    const full = { raw: 100, pressure: 100 * (1 + wrong) };
    world.tested.state = {
      ...state,
      table: { ...state.table, full },
      lastField: state.table,
      fieldCalibrations: 1,
    };
  }
  return world;
}

export const SETTINGS: Settings = {
  lrv: 0,
  urv: 100,
  transfer: { kind: 'linear' },
  dampingS: 0.4,
  displayDampingS: 0.4,
  displayLow: 0,
  displayHigh: 100,
  drivenBy: 'pressure',
  scaledTransfer: { kind: 'linear' },
  isProtected: false,
};

/** Cut to zero where the primary element is weak. */
export const ROOT = { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 } as const;

/** A smart transmitter at a controller, with faults of sizes that the seed draws. */
export function smartBench(
  seed: number,
  planted: (chance: Chance) => readonly Planted[],
  settings: Partial<Settings> = {},
): World {
  const chance = makeChance(seed);
  const parts: Parts = {
    source: soundController(100, USUAL_SPREAD.referencePercent, chance),
    ...soundSurroundings(100, chance.uniform(-0.0005, 0.0005)),
    tested: soundSmart({ ...SETTINGS, ...settings }, USUAL_SPREAD.noise),
  };
  return worldOf(plant(parts, planted(chance)), seed + 1);
}

/** Either way, and never near nothing. */
export const either = (chance: Chance, least: number, most: number): number =>
  (chance.uniform(0, 1) < 0.5 ? -1 : 1) * chance.uniform(least, most);
