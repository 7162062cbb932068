/** Lessons: what the trainee is told, what is hidden, and how one reasons about it afterwards. Instruments are inventions. */
import type { SignalRange } from '@barys/core/signal';
import { drawAnalog } from '../adjusting';
import { makeChance, type Chance } from '../chance';
import { drawReference } from '../reference';
import type { Settings } from '../smart';
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
} from '../world';
import type { Cause } from './acts';

export interface Lesson {
  readonly id: string;
  readonly title: string;
  readonly brief: string;
  readonly range: SignalRange;
  readonly unit: string;
  /** Per cent of span, and of the limit. */
  readonly limitPercent: number;
  readonly adjustAbovePercent: number;
  /** Points, per cent of the range. */
  readonly points: readonly number[];
  /** Beyond this the reference is over-ranged, input unit. */
  readonly referenceLimit: number;
  readonly minutes: number;
  readonly hints: readonly string[];
  readonly reasoning: string;
  /** What is wrong. Hidden from the trainee. */
  readonly causes: readonly Cause[];
  /** Two worlds of one seed are the same. */
  make(seed: number): World;
}

const FIVE = [0, 25, 50, 75, 100] as const;
const RANGE: SignalRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
const COMMON = {
  range: RANGE,
  unit: 'kPa',
  limitPercent: 0.25,
  adjustAbovePercent: 70,
  points: FIVE,
  referenceLimit: 150,
};

/** A hand pump with a gauge beside it, in kilopascals. */
function pump(chance: Chance): SourceParts {
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
function analogBench(
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
function balanceBench(
  seed: number,
  off: (chance: Chance) => { readonly zeroTurns: number; readonly wheelTurns: number },
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
  const world = worldOf(parts, seed + 1);
  const { zeroTurns, wheelTurns } = off(chance);
  if (world.tested.kind === 'force balance') world.tested.turn({ zero: zeroTurns, wheel: wheelTurns });
  return world;
}

/** A digital gauge at a pump that somebody calibrated in the field against a reference that was wrong. */
function gaugeBench(seed: number): World {
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

const SETTINGS: Settings = {
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
const ROOT = { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 } as const;

/** A smart transmitter at a controller, with faults of sizes that the seed draws. */
function smartBench(
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
const either = (chance: Chance, least: number, most: number): number =>
  (chance.uniform(0, 1) < 0.5 ? -1 : 1) * chance.uniform(least, most);

export const LESSONS: readonly Lesson[] = [
  {
    ...COMMON,
    id: 'five-point check',
    title: 'Five-point check',
    brief: 'It is due. Read it at five points up and down, judge it, and say what is wrong.',
    minutes: 20,
    hints: ['Come to each point from its own side.', 'What lies inside the adjust limit is left alone.'],
    reasoning:
      'All errors lie inside the adjust limit. Nothing is adjusted: turning a screw here only writes today’s noise into the drift history.',
    causes: ['nothing'],
    make: (seed) => analogBench(seed, (chance) => ({ zero: chance.uniform(-0.0006, 0.0006) })),
  },
  {
    ...COMMON,
    id: 'zero and span',
    title: 'Zero and span of an analog transmitter',
    brief: '“It reads wrong, and more so at the top.” As found first, then only what the readings ask for.',
    minutes: 35,
    hints: [
      'Both ends are off, and by different amounts.',
      'The span screw moves zero too: set it beyond its target by what zero takes back.',
    ],
    reasoning:
      'Errors at both ends that differ are zero and gain together. The screws pull on each other, so each setting is aimed beyond its target by what the other takes back.',
    causes: ['zero off', 'span off'],
    make: (seed) =>
      analogBench(seed, (chance) => ({
        zero: either(chance, 0.005, 0.01),
        span: either(chance, 0.01, 0.02),
      })),
  },
  {
    ...COMMON,
    id: '10 to 50 mA',
    title: 'Ten to fifty milliamperes',
    brief: 'An old transmitter with another signal. The limit is in per cent of its span of 40 mA.',
    range: { ...RANGE, outputLow: 10, outputHigh: 50 },
    minutes: 35,
    hints: ['10 mA at 0 %, 30 in the middle, 50 at 100 %.', 'Only one end is off: one screw is enough.'],
    reasoning:
      'Every point is off by the same: the zero has moved. The span screw is left alone, though the signal is unusual.',
    causes: ['zero off'],
    make: (seed) =>
      analogBench(seed, (chance) => ({ zero: either(chance, 0.005, 0.01) }), {
        ...RANGE,
        outputLow: 10,
        outputHigh: 50,
      }),
  },
  {
    ...COMMON,
    id: 'pneumatic balance',
    title: 'The pneumatic balance',
    brief:
      'It gives 3 to 15 psi and reads wrong. One per cent of span is ordinary for it. No overshoot: it sticks a little.',
    range: { ...RANGE, outputLow: 3, outputHigh: 15 },
    limitPercent: 1,
    minutes: 35,
    hints: ['It settles in some seconds.', 'The range wheel moves zero too.'],
    reasoning:
      'Both ends are off. The wheel moves the arm of the feedback, and with it what the zero spring pulls: each setting is aimed past its target by what the other takes back.',
    causes: ['zero off', 'span off'],
    make: (seed) =>
      balanceBench(seed, (chance) => ({
        zeroTurns: either(chance, 0.6, 1),
        wheelTurns: either(chance, 0.8, 1.4),
      })),
  },
  {
    ...COMMON,
    id: 'digital gauge',
    title: 'A digital gauge with factory values',
    brief: '“It was right until somebody calibrated it.” It counts its calibrations.',
    range: { ...RANGE, outputLow: 0, outputHigh: 100 },
    limitPercent: 0.2,
    minutes: 20,
    hints: ['It has been calibrated in the field once.', 'The factory’s values are still in it.'],
    reasoning:
      'Right at zero and off in proportion above: its full scale was taken against a reference that was wrong. The factory’s values are restored, and it is read again before anything is calibrated.',
    causes: ['field values wrong'],
    make: gaugeBench,
  },
  {
    ...COMMON,
    id: 'sensor or output',
    title: 'Sensor trim or output trim',
    brief:
      'The panel reads wrong. Read the digital value and the current at each point before you trim anything.',
    minutes: 25,
    hints: ['Compare the digital value with the reference, and the current with the digital value.'],
    reasoning:
      'The digital value agrees with the reference and the current does not agree with the digital value: the output stage is off, and a sensor trim would hide it.',
    causes: ['output off'],
    make: (seed) =>
      smartBench(seed, (chance) => [{ fault: 'output offset', size: either(chance, 0.06, 0.12) }]),
  },
  {
    ...COMMON,
    id: 're-range or trim',
    title: 'Re-range or trim',
    brief: 'It reads low at the top and right at zero. The digital value is read too.',
    minutes: 25,
    hints: ['Does the digital value agree with the reference?', 'Read which range is set in it.'],
    reasoning:
      'The digital value is right everywhere: no sensor is off. The current is short in proportion, because another upper range value is set. The range is set right; a trim would have hidden it.',
    causes: ['range wrong'],
    make: (seed) => smartBench(seed, (chance) => [{ fault: 'wrong range', size: chance.uniform(2, 5) }]),
  },
  {
    ...COMMON,
    id: 'position zero',
    title: 'Position zero',
    brief: 'It was mounted again after a repair, and reads with nothing applied.',
    minutes: 25,
    hints: ['The error is the same at every point.', 'A zero trim is made at true zero, as it hangs now.'],
    reasoning:
      'The fill of a tilted body stands as a head on its diaphragms: every point is off by the same. A zero trim at true zero, in the position that it keeps, takes that away; nothing else is touched.',
    causes: ['body tilted'],
    make: (seed) => smartBench(seed, (chance) => [{ fault: 'tilt', size: either(chance, 0.4, 0.9) }]),
  },
  {
    ...COMMON,
    id: 'root twice',
    title: 'Root taken twice',
    brief: '“The flow reads far too high at half load.” It was set up anew last week.',
    range: { ...RANGE, transferFunction: ROOT },
    minutes: 25,
    hints: ['It is right at 0 and at 100 %, and far off between.', 'Which variable drives the output?'],
    reasoning:
      'Right at both ends and far too high between: the root is taken once too often. The scaled variable takes it already, and drives an output that takes it again. It is set, not trimmed.',
    causes: ['root twice'],
    make: (seed) =>
      smartBench(
        seed,
        (chance) => [{ fault: 'doubled root' }, { fault: 'offset', size: chance.uniform(-0.002, 0.002) }],
        { transfer: ROOT },
      ),
  },
  {
    ...COMMON,
    id: 'receiver',
    title: 'A receiver that is wrong',
    brief: '“The panel reads two per cent too high. Trim the transmitter.”',
    minutes: 25,
    hints: ['Read the current at each point, and what the panel shows.'],
    reasoning:
      'The current is right at every point and the panel is not: the receiver is off. A transmitter is never trimmed to a receiver that is not itself proven: every other receiver of the loop would be wrong.',
    causes: ['receiver wrong'],
    make: (seed) => smartBench(seed, (chance) => [{ fault: 'wrong receiver', size: either(chance, 1, 3) }]),
  },
];

/** @throws Error for an id that no lesson has */
export function lessonOf(id: string): Lesson {
  const lesson = LESSONS.find((one) => one.id === id);
  if (lesson === undefined) throw new Error(`There is no lesson ${id}.`);
  return lesson;
}
