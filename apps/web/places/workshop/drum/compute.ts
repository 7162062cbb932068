/** What the fields of Boiler drum come to. */
import { CoreError } from '@barys/core/errors';
import {
  drumIndication,
  drumMeasurement,
  drumRange,
  hotCheck,
  levelFromDifferential,
  workHotCheck,
  type DrumState,
  type DrumTaps,
  type LevelMeasurement,
} from '@barys/core/level';
import type { SignalRange } from '@barys/core/signal';
import {
  decimalsForResolution,
  formatFixed,
  formatPlain,
  resolutionForSpan,
  formatSignificant,
} from '@barys/core/text';
import { convert, unitLabel } from '@barys/core/units';
import type { Step } from '@barys/core/working';
import Papa from 'papaparse';
import {
  nowOfFields,
  rangedOfFields,
  shownPressure,
  tapsOfFields,
  unitsOfDrum,
  type DrumFields,
} from './fields';
import { numberAt } from '../typed';

const AIR_KG_PER_M3 = 1.2;
const COLD_C = 20;
const ATMOSPHERE_PA = 101325;
/** The drum before it is fired: water and leg at 20 °C, air above. */
const COLD: DrumState = {
  pressurePa: ATMOSPHERE_PA,
  legTemperatureC: COLD_C,
  cold: { waterTemperatureC: COLD_C, gasKgPerM3: AIR_KG_PER_M3 },
};

/** True levels, % of the range, at which it is shown what would be read. */
export const LEVELS = [0, 25, 50, 75, 100] as const;
/** Pressures over the one that the range is made for. */
const SHARES = [0.1, 0.25, 0.5, 0.75, 1, 1.1] as const;

export interface DrumRow {
  /** In words, such as 20 bar. */
  readonly at: string;
  /** Shown at each of the levels, % of the range. */
  readonly shown: readonly number[];
}

export interface DrumResult {
  readonly taps: DrumTaps;
  readonly measurement: LevelMeasurement;
  readonly densities: readonly (readonly [what: string, kgPerM3: number])[];
  /** The hot range into 4 to 20 mA, as finely as it is shown. */
  readonly signal: SignalRange;
  readonly hot: readonly [lrv: string, urv: string];
  readonly cold: readonly [lrv: string, urv: string];
  readonly rows: readonly DrumRow[];
}

const levelOf = ({ zeroM, fullM }: DrumTaps, percent: number): number =>
  zeroM + (percent / 100) * (fullM - zeroM);
const percentOf = ({ zeroM, fullM }: DrumTaps, levelM: number): number =>
  ((levelM - zeroM) / (fullM - zeroM)) * 100;

/** What is shown at true levels, %; null at a pressure beyond the critical one, or where the water of the leg would boil. */
function shownAt(
  taps: DrumTaps,
  ranged: DrumState,
  state: DrumState,
  levels: readonly number[],
): number[] | null {
  try {
    return levels.map((percent) =>
      percentOf(taps, drumIndication(taps, ranged, state, levelOf(taps, percent)).indicatedM),
    );
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

const pressureWord = (fields: DrumFields, pascals: number): string =>
  `${formatPlain(Number(shownPressure(fields, pascals).toPrecision(3)))} ${unitLabel(unitsOfDrum(fields).steam)}`;

/** @throws CoreError at the field that is wrong */
export function computeDrum(fields: DrumFields): DrumResult {
  const [taps, ranged] = [tapsOfFields(fields), rangedOfFields(fields)];
  const units = unitsOfDrum(fields);
  const [hot, cold] = [drumRange(taps, ranged), drumRange(taps, COLD)];
  const inUnit = (pascals: number) => convert(pascals, 'Pa', units.range);
  const decimals = decimalsForResolution(resolutionForSpan(inUnit(hot.spanPa)));
  const show = (pascals: number) => formatFixed(inUnit(pascals), decimals);
  const rowAt = (at: string, state: DrumState): DrumRow[] => {
    const shown = shownAt(taps, ranged, state, LEVELS);
    return shown === null ? [] : [{ at, shown }];
  };
  const states = SHARES.map((share) => ({
    ...ranged,
    pressurePa: ATMOSPHERE_PA + share * (ranged.pressurePa - ATMOSPHERE_PA),
  }));
  return {
    taps,
    measurement: drumMeasurement(taps, ranged),
    densities: [
      ['water in the drum', hot.waterKgPerM3],
      ['steam above it', hot.steamKgPerM3],
      ['water in the leg', hot.legKgPerM3],
    ],
    signal: {
      lrv: Number(show(hot.lrvPa).replace('\u2212', '-')),
      urv: Number(show(hot.urvPa).replace('\u2212', '-')),
      outputLow: 4,
      outputHigh: 20,
    },
    hot: [show(hot.lrvPa), show(hot.urvPa)],
    cold: [show(cold.lrvPa), show(cold.urvPa)],
    rows: [
      ...rowAt('cold', COLD),
      ...states.flatMap((state) => rowAt(pressureWord(fields, state.pressurePa), state)),
    ],
  };
}

export interface HotResult {
  readonly truePercent: number;
  readonly expectedPercent: number;
  readonly glassPercent: number;
  readonly shownPercent: number;
  readonly explainedPercent: number;
  readonly unexplainedPercent: number;
  /** Absolute, Pa. */
  readonly pressurePa: number;
  /** What would make the transmitter right here: for the true level, and for the glass. */
  readonly biasForTrue: number;
  readonly biasForGlass: number;
  /** The one that is typed, or else that for the true level. */
  readonly bias: number;
}

/** What the fields say of a hot check: the drum as it was ranged for and as it is, and the two readings. */
function hotOfFields(fields: DrumFields, taps: DrumTaps): Parameters<typeof hotCheck> {
  const metres = (name: 'glass' | 'shown', what: string) => levelOf(taps, numberAt(fields, name, what));
  const temperatureC = numberAt(fields, 'glassTemperature', 'The temperature of the glass');
  return [
    taps,
    rangedOfFields(fields),
    nowOfFields(fields),
    {
      glass: { bottomM: 0, temperatureC },
      glassM: metres('glass', 'What the glass shows'),
      shownM: metres('shown', 'What the transmitter shows'),
    },
  ];
}

/** @throws CoreError at the field that is wrong */
export const workingOfHotCheck = (fields: DrumFields, { taps }: DrumResult): readonly Step[] =>
  workHotCheck(...hotOfFields(fields, taps)).working;

/** @throws CoreError at the field that is wrong */
export function computeHotCheck(fields: DrumFields, { taps }: DrumResult): HotResult {
  const hot = hotOfFields(fields, taps);
  const { pressurePa } = hot[2];
  const found = hotCheck(...hot);
  const glassPercent = numberAt(fields, 'glass', 'What the glass shows');
  const shownPercent = numberAt(fields, 'shown', 'What the transmitter shows');
  const span = taps.fullM - taps.zeroM;
  const truePercent = percentOf(taps, found.trueM);
  return {
    truePercent,
    expectedPercent: percentOf(taps, found.expectedM),
    glassPercent,
    shownPercent,
    explainedPercent: (found.explainedM / span) * 100,
    unexplainedPercent: (found.unexplainedM / span) * 100,
    pressurePa,
    biasForTrue: truePercent - shownPercent,
    biasForGlass: glassPercent - shownPercent,
    bias: fields.bias.trim() === '' ? truePercent - shownPercent : numberAt(fields, 'bias', 'The bias'),
  };
}

export interface BiasMap {
  readonly pressures: readonly { readonly pascals: number; readonly at: string }[];
  readonly levels: readonly number[];
  /** Error that the bias leaves, % of the range: by pressure, then by level. */
  readonly errors: readonly (readonly number[])[];
  /** The largest of them either way. */
  readonly largest: number;
}

const MAP_PRESSURES = 12;
const MAP_LEVELS = [0, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100] as const;

/**
 * Where a bias is wrong: what it leaves of the error at other pressures and levels, with what the densities do not explain
 * taken to stay the same.
 * @throws CoreError at the field that is wrong
 */
export function computeBiasMap(fields: DrumFields, { taps }: DrumResult, hot: HotResult): BiasMap {
  const ranged = rangedOfFields(fields);
  // A drum that is hardly above the air has a map up to one bar.
  const highest = Math.max(ranged.pressurePa - ATMOSPHERE_PA, hot.pressurePa - ATMOSPHERE_PA, 1e5);
  const rows = Array.from({ length: MAP_PRESSURES }, (_, index) => {
    const pascals = ATMOSPHERE_PA + (highest * (index + 1)) / MAP_PRESSURES;
    const state = { ...ranged, pressurePa: pascals };
    const shown = shownAt(taps, ranged, state, MAP_LEVELS);
    if (shown === null) return [];
    const errors = shown.map(
      (percent, place) => percent + hot.unexplainedPercent + hot.bias - (MAP_LEVELS[place] ?? 0),
    );
    return [{ pascals, at: pressureWord(fields, pascals), errors }];
  }).flat();
  return {
    pressures: rows.map(({ pascals, at }) => ({ pascals, at })),
    levels: MAP_LEVELS,
    errors: rows.map(({ errors }) => errors),
    largest: Math.max(0, ...rows.flatMap(({ errors }) => errors.map(Math.abs))),
  };
}

/** The level at 0 or at 100 % follows an end of the stave that was moved. */
export function drumLevelForEnd(
  fields: DrumFields,
  { measurement }: DrumResult,
  end: 'low' | 'high',
  pressure: number,
): Partial<DrumFields> {
  const { range, height } = unitsOfDrum(fields);
  const metres = levelFromDifferential(measurement, convert(pressure, range, 'Pa'));
  const text = formatSignificant(convert(metres, 'm', height), 4).replace('\u2212', '-');
  return end === 'low' ? { zero: text } : { full: text };
}

/** The hot range as the form of an instrument's next configuration takes it. */
export function configurationOfDrum(fields: DrumFields): Record<string, string> {
  const { range } = unitsOfDrum(fields);
  const hot = drumRange(tapsOfFields(fields), rangedOfFields(fields));
  const fine = (pascals: number) => String(Number(convert(pascals, 'Pa', range).toPrecision(6)));
  return {
    lrv: fine(hot.lrvPa),
    urv: fine(hot.urvPa),
    inputUnit: range,
    reason: `Boiler drum, ranged for ${fields.pressure} ${unitLabel(unitsOfDrum(fields).steam)} ${fields.kind}, leg at ${fields.leg} °C`,
  };
}

export const noteOfDrum = (fields: DrumFields, { hot: [low, high] }: DrumResult): string =>
  `Boiler drum at ${fields.pressure} ${unitLabel(unitsOfDrum(fields).steam)} ${fields.kind}: ${low} … ${high} ${unitLabel(unitsOfDrum(fields).range)}.`;

export const csvOfDrum = (rows: readonly DrumRow[]): string =>
  Papa.unparse({
    fields: ['Drum', ...LEVELS.map((level) => `Shown at a true level of ${level} %`)],
    data: rows.map(({ at, shown }) => [at, ...shown.map((percent) => percent.toFixed(2))]),
  });
