/**
 * Level in a boiler drum with a condensate pot: a closed tank whose liquid is saturated water, whose gas is saturated
 * steam, and whose leg is filled with cooler water, all at the pressure of the drum. Densities by IAPWS-IF97; hydrostatics
 * is common practice. It helps to set a range and to understand a difference; boiler rules and licensed people come first.
 */
import { requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';
import { saturatedAt, compressedWaterDensity } from '../steam';
import type { HighSide, LevelMeasurement } from './arrangement';
import { levelIndication, levelRange, type LevelIndication, type LevelRange } from './range';

export interface DrumTaps {
  readonly tapsM: number;
  /** Levels at 0 and at 100 %, above the lower tap, m. */
  readonly zeroM: number;
  readonly fullM: number;
  /** Transmitter below the lower tap, m; both lines run there side by side and are as warm as the leg. */
  readonly dropM: number;
  readonly highSide: HighSide;
  readonly gravityMPerS2: number;
}

/** What the drum and its leg are like. */
export interface DrumState {
  /** Absolute, Pa. */
  readonly pressurePa: number;
  /** Mean temperature of the water in the leg, °C. */
  readonly legTemperatureC: number;
  /**
   * Of a drum that does not boil: the temperature of its water, °C, and the density of the gas above it, kg/m³. Without it
   * water and steam are saturated.
   */
  readonly cold?: { readonly waterTemperatureC: number; readonly gasKgPerM3: number } | undefined;
}

export interface DrumDensities {
  readonly waterKgPerM3: number;
  readonly steamKgPerM3: number;
  readonly legKgPerM3: number;
}

/** @throws CoreError `out-of-bounds`, `undefined-result` where the water of the leg would boil */
export function drumDensities({ pressurePa, legTemperatureC, cold }: DrumState): DrumDensities {
  const legKgPerM3 = compressedWaterDensity(legTemperatureC, pressurePa, 'legTemperatureC');
  if (cold !== undefined) {
    requireNotNegative('The density of the gas', cold.gasKgPerM3, 'gasKgPerM3');
    return {
      waterKgPerM3: compressedWaterDensity(cold.waterTemperatureC, pressurePa, 'waterTemperatureC'),
      steamKgPerM3: cold.gasKgPerM3,
      legKgPerM3,
    };
  }
  const { waterKgPerM3, steamKgPerM3 } = saturatedAt(pressurePa);
  return { waterKgPerM3, steamKgPerM3, legKgPerM3 };
}

/** A drum in a state as a closed tank with a wet leg. */
export const drumMeasurement = (taps: DrumTaps, state: DrumState): LevelMeasurement =>
  measurementOf(taps, drumDensities(state));

const measurementOf = (taps: DrumTaps, densities: DrumDensities): LevelMeasurement => ({
  arrangement: 'wet-leg',
  liquidKgPerM3: densities.waterKgPerM3,
  aboveKgPerM3: densities.steamKgPerM3,
  fillKgPerM3: densities.legKgPerM3,
  lineKgPerM3: densities.legKgPerM3,
  ...taps,
});

/**
 * The range of a transmitter at a drum in a state.
 * @throws CoreError with the field that is wrong
 */
export function drumRange(taps: DrumTaps, state: DrumState): LevelRange & DrumDensities {
  const densities = drumDensities(state);
  return { ...levelRange(measurementOf(taps, densities)), ...densities };
}

/**
 * What a transmitter shows whose range was made for one state while the drum is in another.
 * @throws CoreError with the field that is wrong
 */
export function drumIndication(
  taps: DrumTaps,
  ranged: DrumState,
  now: DrumState,
  trueLevelM: number,
): LevelIndication {
  const { liquidKgPerM3, aboveKgPerM3, fillKgPerM3, lineKgPerM3 } = measurementOf(taps, drumDensities(now));
  return levelIndication(
    measurementOf(taps, drumDensities(ranged)),
    { liquidKgPerM3, aboveKgPerM3, fillKgPerM3, lineKgPerM3 },
    trueLevelM,
  );
}

/**
 * Level from a measured differential, whose magnitude is that of the leg less that of the lower tap, Pa.
 * @returns m above the lower tap
 * @throws CoreError with the field that is wrong
 */
export function drumLevel(
  tapsM: number,
  gravityMPerS2: number,
  state: DrumState,
  differentialPa: number,
): number {
  requirePositive('The distance between the taps', tapsM, 'tapsM');
  requireFinite('The differential', differentialPa, 'differentialPa');
  requireBetween('Gravity', gravityMPerS2, [9.7, 9.9, 'm/s²'], 'gravityMPerS2');
  const { waterKgPerM3: water, steamKgPerM3: steam, legKgPerM3: leg } = drumDensities(state);
  return ((leg - steam) * tapsM - differentialPa / gravityMPerS2) / (water - steam);
}

export interface GaugeGlass {
  /** Its lower connection above the lower tap, m. */
  readonly bottomM: number;
  /** Mean temperature of the water in it, °C, which is colder than the drum. */
  readonly temperatureC: number;
}

/** How much of the height above its lower connection the colder, denser water of a glass shows. */
function shareInGlass(
  { temperatureC }: GaugeGlass,
  state: DrumState,
): { share: number; glassKgPerM3: number } {
  const glassKgPerM3 = compressedWaterDensity(temperatureC, state.pressurePa);
  const { waterKgPerM3: water, steamKgPerM3: steam } = drumDensities(state);
  return { share: (water - steam) / (glassKgPerM3 - steam), glassKgPerM3 };
}

/**
 * What a gauge glass shows at a level: true level x (water - steam) / (glass - steam), from its lower connection.
 * @returns m above the lower connection
 * @throws CoreError with the field that is wrong
 */
export function glassReading(
  glass: GaugeGlass,
  state: DrumState,
  trueLevelM: number,
): { readonly readingM: number; readonly lowByM: number; readonly glassKgPerM3: number } {
  requireFinite('The height of the lower connection', glass.bottomM, 'bottomM');
  const height = trueLevelM - glass.bottomM;
  requireNotNegative('The true level above the lower connection of the glass', height, 'trueLevelM');
  const { share, glassKgPerM3 } = shareInGlass(glass, state);
  return { readingM: height * share, lowByM: height * (1 - share), glassKgPerM3 };
}

/** Glass and transmitter, read at the same time. */
export interface HotReading {
  readonly glass: GaugeGlass;
  /** What the glass shows above its lower connection, m. */
  readonly glassM: number;
  /** What the transmitter shows, m above the lower tap. */
  readonly shownM: number;
}

export interface HotCheck {
  /** The level that the glass stands for, m above the lower tap. */
  readonly trueM: number;
  /** What the transmitter has to show there, ranged as it is. */
  readonly expectedM: number;
  /** Expected less what the glass shows: what the densities explain. */
  readonly explainedM: number;
  /** Shown less expected: what is left for an offset, or for a fault. */
  readonly unexplainedM: number;
}

/**
 * The hot check: glass and transmitter read at the same time. How much of their difference the densities explain, before
 * anybody enters an offset.
 * @throws CoreError with the field that is wrong
 */
export function hotCheck(
  taps: DrumTaps,
  ranged: DrumState,
  now: DrumState,
  { glass, glassM, shownM }: HotReading,
): HotCheck {
  requireNotNegative('What the glass shows', glassM, 'glassM');
  requireFinite('What the transmitter shows', shownM, 'shownM');
  const trueM = glass.bottomM + glassM / shareInGlass(glass, now).share;
  const { indicatedM } = drumIndication(taps, ranged, now, trueM);
  return {
    trueM,
    expectedM: indicatedM,
    explainedM: indicatedM - (glass.bottomM + glassM),
    unexplainedM: shownM - indicatedM,
  };
}
