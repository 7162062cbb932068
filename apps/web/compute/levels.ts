import {
  ARRANGEMENTS,
  densityFromTable,
  drumIndication,
  drumLevel,
  drumRange,
  fullVolume,
  glassReading,
  hotCheck,
  levelForVolume,
  levelFromDifferential,
  levelIndication,
  levelOfLimit,
  levelRange,
  reachOfVessel,
  shiftOfLostLeg,
  volumeAt,
  workLevelRange,
  zeroShiftOf,
  type ArrangementName,
} from '@barys/core/level';
import { saturatedAt, compressedWaterDensity } from '@barys/core/steam';
import { z } from 'zod';
import { calculation } from './calculation';
import { number, working } from './schemas';

const gravityMPerS2 = number.default(9.80665);
const highSide = z.enum(['lower tap', 'leg']).default('lower tap');

const measurement = z
  .strictObject({
    arrangement: z.enum(Object.keys(ARRANGEMENTS) as ArrangementName[]),
    liquidKgPerM3: number,
    aboveKgPerM3: number.optional(),
    fillKgPerM3: number.optional(),
    lineKgPerM3: number.optional(),
    zeroM: number.default(0),
    fullM: number,
    tapsM: number.optional(),
    dropM: number.default(0),
    purgeLossPa: number.optional(),
    highSide,
    gravityMPerS2,
  })
  .meta({
    id: 'LevelMeasurement',
    description:
      'Heights above the lower tap, the transmitter below it by dropM. Above: gas, or the light liquid of an interface. Fill: of a wet leg or of capillaries. The line below the tap holds what the arrangement has there unless lineKgPerM3 says otherwise.',
  });
const contents = z.strictObject({
  liquidKgPerM3: number.optional(),
  aboveKgPerM3: number.optional(),
  fillKgPerM3: number.optional(),
  lineKgPerM3: number.optional(),
});
const rangeValues = { lrvPa: number, urvPa: number, spanPa: number };
const indication = z.object({
  differentialPa: number,
  indicatedM: number,
  errorM: number,
  errorPercentOfSpan: number,
});

const vessel = z
  .discriminatedUnion('shape', [
    z.strictObject({ shape: z.literal('vertical cylinder'), diameterM: number, heightM: number }),
    z.strictObject({
      shape: z.literal('horizontal cylinder'),
      diameterM: number,
      lengthM: number,
      headDepthM: number.default(0),
    }),
    z.strictObject({ shape: z.literal('sphere'), diameterM: number }),
    z.strictObject({
      shape: z.literal('cone'),
      bottomDiameterM: number,
      topDiameterM: number,
      heightM: number,
    }),
    z.strictObject({
      shape: z.literal('strapping table'),
      table: z.array(z.strictObject({ levelM: number, volumeM3: number })).max(5000),
    }),
  ])
  .meta({ id: 'Vessel', description: 'Inside dimensions; a level counts from the lowest point.' });

const drumTaps = z
  .strictObject({
    tapsM: number,
    zeroM: number.default(0),
    fullM: number,
    dropM: number.default(0),
    highSide,
    gravityMPerS2,
  })
  .meta({ id: 'DrumTaps' });
const drumState = z
  .strictObject({
    pressurePa: number,
    legTemperatureC: number,
    cold: z.strictObject({ waterTemperatureC: number, gasKgPerM3: number }).optional(),
  })
  .meta({
    id: 'DrumState',
    description: 'Absolute pressure; water and steam are saturated unless the drum is said to be cold.',
  });
const glass = z.strictObject({ bottomM: number.default(0), temperatureC: number });
const densities = { waterKgPerM3: number, steamKgPerM3: number, legKgPerM3: number };

const LEVELS = [
  calculation(
    'level-range',
    'Range of a transmitter that measures a level by differential pressure',
    measurement,
    z.object({ ...rangeValues, zero: z.enum(['none', 'suppressed', 'elevated', 'reversed']), working }),
    (given) => {
      const range = levelRange(given);
      return { ...range, zero: zeroShiftOf(range), working: workLevelRange(given).working };
    },
  ),
  calculation(
    'level-indication',
    'What is shown at a true level while the contents differ from what the range was made for',
    z.strictObject({ measurement, contents, trueLevelM: number }),
    indication,
    ({ measurement: given, contents: now, trueLevelM }) => levelIndication(given, now, trueLevelM),
  ),
  calculation(
    'level-from-differential',
    'Level that a differential stands for',
    z.strictObject({ measurement, differentialPa: number }),
    z.object({ levelM: number }),
    ({ measurement: given, differentialPa }) => ({ levelM: levelFromDifferential(given, differentialPa) }),
  ),
  calculation(
    'level-of-limit',
    'Error of the level that a limit of error of the transmitter allows',
    z.strictObject({ measurement, limitPa: number }),
    z.object({ levelM: number }),
    ({ measurement: given, limitPa }) => ({ levelM: levelOfLimit(given, limitPa) }),
  ),
  calculation(
    'lost-leg',
    'Shift of the shown level when a filled leg has lost the upper part of its fill; positive where it reads high',
    z.strictObject({ measurement, lostM: number }),
    z.object({ shiftM: number }),
    ({ measurement: given, lostM }) => ({ shiftM: shiftOfLostLeg(given, lostM) }),
  ),
  calculation(
    'liquid-density',
    'Density of a liquid at a temperature, from a table',
    z.strictObject({
      points: z.array(z.strictObject({ temperatureC: number, densityKgPerM3: number })).max(500),
      temperatureC: number,
    }),
    z.object({ densityKgPerM3: number }),
    ({ points, temperatureC }) => ({ densityKgPerM3: densityFromTable(points, temperatureC) }),
  ),
  calculation(
    'vessel-volume',
    'Volume of the contents of a vessel at a level',
    z.strictObject({ vessel, levelM: number }),
    z.object({ volumeM3: number, fullM3: number, highestM: number }),
    ({ vessel: of, levelM }) => ({
      volumeM3: volumeAt(of, levelM),
      fullM3: fullVolume(of),
      highestM: reachOfVessel(of)[1],
    }),
  ),
  calculation(
    'vessel-level',
    'Level at which a vessel holds a volume',
    z.strictObject({ vessel, volumeM3: number }),
    z.object({ levelM: number }),
    ({ vessel: of, volumeM3 }) => ({ levelM: levelForVolume(of, volumeM3) }),
  ),
];

const STEAM = [
  calculation(
    'saturated-water',
    'Saturated water and steam at an absolute pressure (IAPWS-IF97)',
    z.strictObject({ pressurePa: number }),
    z.object({ temperatureC: number, pressurePa: number, waterKgPerM3: number, steamKgPerM3: number }),
    ({ pressurePa }) => saturatedAt(pressurePa),
  ),
  calculation(
    'compressed-water-density',
    'Density of water that is colder than it boils at its absolute pressure (IAPWS-IF97)',
    z.strictObject({ temperatureC: number, pressurePa: number }),
    z.object({ densityKgPerM3: number }),
    ({ temperatureC, pressurePa }) => ({ densityKgPerM3: compressedWaterDensity(temperatureC, pressurePa) }),
  ),
];

const DRUMS = [
  calculation(
    'drum-range',
    'Range of a transmitter at a boiler drum with a condensate pot, for one state of the drum',
    z.strictObject({ taps: drumTaps, state: drumState }),
    z.object({ ...rangeValues, ...densities }),
    ({ taps, state }) => drumRange(taps, state),
  ),
  calculation(
    'drum-indication',
    'What a transmitter shows that was ranged for one state of the drum while it is in another',
    z.strictObject({ taps: drumTaps, ranged: drumState, now: drumState, trueLevelM: number }),
    indication,
    ({ taps, ranged, now, trueLevelM }) => drumIndication(taps, ranged, now, trueLevelM),
  ),
  calculation(
    'drum-level',
    'Level from a measured differential (leg less lower tap), the densities of the drum as they are',
    z.strictObject({ tapsM: number, gravityMPerS2, state: drumState, differentialPa: number }),
    z.object({ levelM: number }),
    ({ tapsM, gravityMPerS2: gravity, state, differentialPa }) => ({
      levelM: drumLevel(tapsM, gravity, state, differentialPa),
    }),
  ),
  calculation(
    'gauge-glass',
    'What a gauge glass shows, whose water is colder than the drum',
    z.strictObject({ glass, state: drumState, trueLevelM: number }),
    z.object({ readingM: number, lowByM: number, glassKgPerM3: number }),
    ({ glass: of, state, trueLevelM }) => glassReading(of, state, trueLevelM),
  ),
  calculation(
    'hot-check',
    'How much of the difference between glass and transmitter the densities explain',
    z.strictObject({
      taps: drumTaps,
      ranged: drumState,
      now: drumState,
      glass,
      glassM: number,
      shownM: number,
    }),
    z.object({ trueM: number, expectedM: number, explainedM: number, unexplainedM: number }),
    ({ taps, ranged, now, ...read }) => hotCheck(taps, ranged, now, read),
  ),
];

export const LEVEL_CALCULATIONS = [...LEVELS, ...STEAM, ...DRUMS];
