/** What the fields of Boiler drum come to. */
import { CoreError } from '@barys/core/errors';
import {
  drumIndication,
  drumMeasurement,
  drumRange,
  hotCheck,
  type DrumState,
  type DrumTaps,
  type LevelMeasurement,
} from '@barys/core/level';
import {
  decimalsForResolution,
  formatFixed,
  formatPlain,
  formatSigned,
  resolutionForSpan,
} from '@barys/core/text';
import { convert, unitLabel } from '@barys/core/units';
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
  readonly hot: readonly [lrv: string, urv: string];
  readonly cold: readonly [lrv: string, urv: string];
  readonly rows: readonly DrumRow[];
}

const levelOf = ({ zeroM, fullM }: DrumTaps, percent: number): number =>
  zeroM + (percent / 100) * (fullM - zeroM);
const percentOf = ({ zeroM, fullM }: DrumTaps, levelM: number): number =>
  ((levelM - zeroM) / (fullM - zeroM)) * 100;

/** @throws CoreError at the field that is wrong */
export function computeDrum(fields: DrumFields): DrumResult {
  const [taps, ranged] = [tapsOfFields(fields), rangedOfFields(fields)];
  const units = unitsOfDrum(fields);
  const [hot, cold] = [drumRange(taps, ranged), drumRange(taps, COLD)];
  const inUnit = (pascals: number) => convert(pascals, 'Pa', units.range);
  const decimals = decimalsForResolution(resolutionForSpan(inUnit(hot.spanPa)));
  const show = (pascals: number) => formatFixed(inUnit(pascals), decimals);
  const rowAt = (at: string, state: DrumState): DrumRow[] => {
    try {
      const shown = LEVELS.map((percent) =>
        percentOf(taps, drumIndication(taps, ranged, state, levelOf(taps, percent)).indicatedM),
      );
      return [{ at, shown }];
    } catch (error) {
      // A pressure beyond the critical one, or one at which the water of the leg would boil, has no row.
      if (error instanceof CoreError) return [];
      throw error;
    }
  };
  const word = (pascals: number) =>
    `${formatPlain(Number(shownPressure(fields, pascals).toPrecision(3)))} ${unitLabel(units.steam)}`;
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
    hot: [show(hot.lrvPa), show(hot.urvPa)],
    cold: [show(cold.lrvPa), show(cold.urvPa)],
    rows: [...rowAt('cold', COLD), ...states.flatMap((state) => rowAt(word(state.pressurePa), state))],
  };
}

export interface HotResult {
  readonly truePercent: string;
  readonly expectedPercent: string;
  readonly explained: string;
  readonly unexplained: string;
  /** What would be left of the error with that offset entered, by pressure and level, % of the range. */
  readonly left: readonly DrumRow[];
}

/** @throws CoreError at the field that is wrong */
export function computeHotCheck(fields: DrumFields, { taps, rows }: DrumResult): HotResult {
  const [ranged, now] = [rangedOfFields(fields), nowOfFields(fields)];
  const glassM = levelOf(taps, numberAt(fields, 'glass', 'What the glass shows'));
  const shown = numberAt(fields, 'shown', 'What the transmitter shows');
  const found = hotCheck(taps, ranged, now, {
    glass: { bottomM: 0, temperatureC: numberAt(fields, 'glassTemperature', 'The temperature of the glass') },
    glassM,
    shownM: levelOf(taps, shown),
  });
  const span = taps.fullM - taps.zeroM;
  // Made right here, it takes away what the densities do here, at every other pressure and level too.
  const taken = percentOf(taps, found.expectedM) - percentOf(taps, found.trueM);
  return {
    truePercent: formatFixed(percentOf(taps, found.trueM), 1),
    expectedPercent: formatFixed(percentOf(taps, found.expectedM), 1),
    explained: formatSigned((found.explainedM / span) * 100, 1),
    unexplained: formatSigned((found.unexplainedM / span) * 100, 1),
    left: rows.map(({ at, shown: each }) => ({
      at,
      shown: each.map((percent, index) => percent - taken - (LEVELS[index] ?? 0)),
    })),
  };
}

export const csvOfDrum = (rows: readonly DrumRow[]): string =>
  Papa.unparse({
    fields: ['Drum', ...LEVELS.map((level) => `Shown at a true level of ${level} %`)],
    data: rows.map(({ at, shown }) => [at, ...shown.map((percent) => percent.toFixed(2))]),
  });
