/** Six lessons on what is more than a fault: another meter, another body, a leg, a data sheet, decades of vacuum. */
import type { SettingKey, WantedSetup } from '@barys/core/setup';
import { makeChance } from '../../chance';
import type { Settings } from '../../smart';
import {
  soundController,
  soundSmart,
  soundSurroundings,
  USUAL_SPREAD,
  worldOf,
  type World,
} from '../../world';
import { analogBench, either, SETTINGS, smartBench } from './benches';
import { legBench, WET_LEG } from './leg';
import { COMMON, RANGE, type Lesson, type Swap } from './lesson';
import { VACUUM, vacuumBench } from './vacuum';

const NEW_RANGE = { ...RANGE, urv: 400 };

const BODIES = [
  { name: 'Body A, to 250 kPa', upperLimit: 250, accuracyPercent: 0.05 },
  { name: 'Body B, to 700 kPa', upperLimit: 700, accuracyPercent: 0.05 },
  { name: 'Body C, to 7000 kPa', upperLimit: 7000, accuracyPercent: 0.05 },
] as const;

/** A smart transmitter whose body reaches a limit; a large one is off by more where its range is small. */
function bodyBench(seed: number, upperLimit: number, settings: Partial<Settings>, off: number): World {
  const chance = makeChance(seed);
  const tested = soundSmart({ ...SETTINGS, ...settings }, USUAL_SPREAD.noise);
  return worldOf(
    {
      source: soundController(400, USUAL_SPREAD.referencePercent, chance),
      ...soundSurroundings(400, chance.uniform(-0.0005, 0.0005)),
      tested: {
        ...tested,
        smart: {
          ...tested.smart,
          sensor: { ...tested.smart.sensor, upperLimit, offset: off, gain: off / 400 },
        },
      },
    },
    seed + 1,
  );
}

const SWAP: Swap = {
  bodies: BODIES,
  right: 1,
  steps: [
    { words: 'Vent it, and see the reference at zero' },
    { words: 'Switch the supply off', does: 'off' },
    { words: 'Unplug the cable of the sensor' },
    { words: 'Take the body off its flange', does: 'out' },
    { words: 'Put new gaskets in' },
    { words: 'Mount the new body, marks in line, bolts crosswise to their torque', does: 'in' },
    { words: 'Plug the cable of the sensor in' },
    { words: 'Switch the supply on', does: 'on' },
  ],
  make(seed, body) {
    const { upperLimit, accuracyPercent } = BODIES[body] ?? BODIES[0];
    const chance = makeChance(seed + 7);
    // Twice what a body may be off by is what a mounting adds.
    const off = either(chance, 0.6, 1) * (accuracyPercent / 100) * upperLimit;
    return bodyBench(seed, upperLimit, { urv: upperLimit, displayHigh: upperLimit }, off);
  },
};

/** What a data sheet says that is not of the range. */
const SHEET: readonly SettingKey[] = [
  'lrv',
  'urv',
  'dampingS',
  'displayDampingS',
  'transferFunction',
  'displayUnit',
  'displayLow',
  'displayHigh',
  'startView',
  'drivenBy',
];

const WANTED: WantedSetup = {
  inputUnit: 'kPa',
  lrv: 0,
  urv: 25,
  dampingS: 2,
  displayDampingS: 1,
  application: null,
  transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 8 },
  displayUnit: 'm³/h',
  displayLow: 0,
  displayHigh: 450,
  startView: 'display scale',
  drivenBy: 'pressure',
  switchingPoints: null,
  outputLow: 4,
  outputHigh: 20,
  outputUnit: 'mA',
  tolerancePercentOfSpan: 0.25,
};

/** Product of 870 kg/m³, 0.2 to 3.2 m above the nozzle: ρ g h, to a hundredth of a kilopascal. */
const LEVEL_WANTED: WantedSetup = {
  ...WANTED,
  lrv: 1.71,
  urv: 27.3,
  dampingS: 4,
  displayDampingS: 1,
  transferFunction: { kind: 'linear' },
  displayUnit: 'm',
  displayLow: 0.2,
  displayHigh: 3.2,
};

export const FURTHER: readonly Lesson[] = [
  {
    ...COMMON,
    id: 'null meter',
    title: 'Zero and span at a null meter',
    brief:
      'The meter shows how far the output is from 4 or from 20 mA, not the output. Type what it shows, such as “−0.15 % null”. Read both ends as found, then adjust.',
    readBy: 'null meter',
    points: [0, 100],
    limitPercent: 0.25,
    minutes: 35,
    hints: [
      'It stands at nothing only at the end that it is set to.',
      'More than 4 or 20 mA is a positive deviation.',
    ],
    reasoning:
      'The deviation at each end is the error there, with one digit more than a meter of the whole current has. Set to the wrong end the needle lies at its stop and says nothing.',
    causes: ['zero off', 'span off'],
    make: (seed) =>
      analogBench(seed, (chance) => ({
        zero: either(chance, 0.004, 0.008),
        span: either(chance, 0.005, 0.01),
      })),
  },
  {
    ...COMMON,
    id: 'other density',
    title: 'Level with another density',
    brief:
      'The tank was filled with water and now holds a product of 870 kg/m³. 4 mA is 0.2 m above the nozzle, 20 mA is 3.2 m; it is vented, and the transmitter sits at the nozzle. Work out the range to 0.01 kPa with g = 9.80665 m/s², set it and its display, and say what was wrong.',
    range: { ...RANGE, lrv: LEVEL_WANTED.lrv, urv: LEVEL_WANTED.urv },
    task: 'set-up',
    hasAsFound: false,
    setup: LEVEL_WANTED,
    sheet: SHEET.filter((key) => key !== 'lrv' && key !== 'urv'),
    face: { displayUnit: '%', startView: 'per cent of range' },
    minutes: 20,
    hints: ['Pressure is density times g times height.', '0.87 × 9.80665 × 0.2 is 1.71 kPa.'],
    reasoning:
      'Range values are pressures, and the pressure of a level goes with its density: with the range for water 3.2 m of this product read 2.78 m. Nothing is wrong with the transmitter, so nothing is trimmed.',
    causes: ['density wrong'],
    make: (seed) =>
      smartBench(seed, () => [], {
        lrv: 1.961,
        urv: 31.381,
        dampingS: seed % 2 === 0 ? 1 : 8,
        displayDampingS: 1,
        displayLow: 0,
        displayHigh: 100,
      }),
  },
  {
    ...COMMON,
    id: 'set-up rehearsal',
    title: 'Set-up from a data sheet',
    brief:
      'A spare transmitter is to take the place of one that measures a flow. Set it as the data sheet says, at its own menu or by the communicator; nothing else is done to it.',
    range: { ...RANGE, urv: 25, transferFunction: WANTED.transferFunction },
    task: 'set-up',
    hasAsFound: false,
    setup: WANTED,
    sheet: SHEET,
    face: { displayUnit: '%', startView: 'pressure' },
    minutes: 20,
    hints: [
      'Go through the sheet line by line; what is right already is left.',
      'The root is taken once: in the output, or in what drives it.',
    ],
    reasoning:
      'A transmitter that reads its pressure rightly says a wrong flow where one setting is another: the range in proportion, a root that is missing from the middle on, a low-flow start at the very bottom, damping in time alone.',
    causes: ['range wrong'],
    make: (seed) =>
      smartBench(seed, () => [], {
        urv: seed % 2 === 0 ? 30 : 20,
        transfer: seed % 3 === 0 ? { kind: 'square-root' } : { kind: 'linear' },
        dampingS: 0.4,
        displayDampingS: seed % 2 === 0 ? 1 : 4,
        displayLow: 0,
        displayHigh: 100,
        drivenBy: seed % 3 === 1 ? 'scaled variable' : 'pressure',
      }),
  },
  {
    ...COMMON,
    id: 'body exchange',
    title: 'A range outside the body',
    brief:
      'From today it measures 0 to 400 kPa within ±0.25 %. Its body reaches 200 kPa. As found was read yesterday. Choose a body from the store, exchange it step by step, set the range, and read it as left.',
    range: NEW_RANGE,
    hasAsFound: false,
    referenceLimit: 500,
    minutes: 35,
    hints: [
      'A body has to reach the range, and its accuracy is a part of its limit: more body is more error.',
      'A body that was mounted anew has a zero of its own.',
    ],
    reasoning:
      'No setting makes a body reach further. One of 250 kPa does not reach either; one of 7000 kPa reaches and is off by nearly a per cent of this span. The one of 700 kPa does both. After the exchange the range is set, zero is trimmed at true zero, and all points are read.',
    causes: ['body too small'],
    swap: SWAP,
    make: (seed) => bodyBench(seed, 200, {}, 0.02),
  },
  {
    ...COMMON,
    id: 'wet leg',
    title: 'A wet leg brought back to service',
    brief:
      'The level of a vessel under 600 kPa reads far too high since the shift before; the glass says otherwise. Take the transmitter out of service, put right what is wrong, and bring it back. Mind the order of the valves.',
    ...WET_LEG,
    minutes: 20,
    hints: [
      'What stands in the leg pushes against the level: with none of it the level reads high.',
      'The leg is shut first, and opened last.',
    ],
    reasoning:
      'The equaliser was opened with both blocks open: the leg ran out. Nothing at the transmitter is wrong, so nothing is trimmed: the leg is shut off, filled, and comes back last, with the equaliser shut.',
    causes: ['leg lost'],
    make: (seed) => legBench(seed, [{ fault: 'drained leg', size: makeChance(seed + 13).uniform(60, 95) }]),
  },
  {
    ...COMMON,
    id: 'vacuum gauge',
    title: 'A vacuum gauge over two references',
    brief:
      'A heat-loss gauge from 1 to 10 000 Pa, within ±10 % of what it reads. The fine reference ends at 1 kPa; the other goes to the pressure of the air and is off by some tens of pascals. Read each point at the one that reaches there, up and down.',
    ...VACUUM,
    minutes: 60,
    hints: [
      'Zero is taken far below the lowest decade: the diffusion pump makes that, once the rotary pump has come below 20 Pa.',
      'Span is taken where a good reference reads and the curve still rises, never at the pressure of the air.',
    ],
    reasoning:
      'Far off at the bottom and by a share above: its zero was taken where there still was pressure, and its span is off. Zero goes first, below a tenth of the lowest decade; then the span in the middle of the decades.',
    causes: ['zero off', 'span off'],
    make: vacuumBench,
  },
];
