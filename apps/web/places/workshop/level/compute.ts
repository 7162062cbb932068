/** What the fields of Level come to, in the units that they are shown in. */
import {
  ARRANGEMENTS,
  levelIndication,
  levelOfLimit,
  levelRange,
  shiftOfLostLeg,
  zeroShiftOf,
  type LevelMeasurement,
  type LevelRange,
  type ZeroShift,
} from '@barys/core/level';
import type { DisplayScale, SignalRange } from '@barys/core/signal';
import { decimalsForResolution, formatFixed, formatSigned, resolutionForSpan } from '@barys/core/text';
import { convert, unitLabel } from '@barys/core/units';
import Papa from 'papaparse';
import { asksFor, measurementOfFields, readerOf, unitsOfFields, type LevelFields } from './fields';
import { numberAt } from '../typed';
import type { Volumes } from './volume';

/** Shows figures as finely as a span justifies. */
const fineness = (span: number) => {
  const decimals = decimalsForResolution(resolutionForSpan(span));
  return (value: number) => formatFixed(value, decimals);
};

export interface LevelResult {
  readonly measurement: LevelMeasurement;
  readonly range: LevelRange;
  readonly zero: ZeroShift;
  /** Differential into 4 to 20 mA, in the units of the fields and as finely as it is shown. */
  readonly signal: SignalRange;
  readonly display: DisplayScale;
  /** Where the liquid stands, above the lower tap. */
  readonly levelM: number;
  /** The same as a differential. */
  readonly markerPressure: number;
  readonly showPressure: (pascals: number) => string;
  readonly showHeight: (metres: number) => string;
}

/** @throws CoreError at the field that is wrong */
export function computeLevel(fields: LevelFields): LevelResult {
  const measurement = measurementOfFields(fields);
  const units = unitsOfFields(fields);
  const range = levelRange(measurement);
  const level = readerOf(fields).metres('level', 'The level');
  const pressureOf = (pascals: number) => convert(pascals, 'Pa', units.pressure);
  const heightOf = (metres: number) => convert(metres, 'm', units.height);
  const [pressure, height] = [
    fineness(pressureOf(range.spanPa)),
    fineness(heightOf(measurement.fullM - measurement.zeroM)),
  ];
  return {
    measurement,
    range,
    levelM: level,
    zero: zeroShiftOf(range),
    signal: {
      lrv: Number(pressure(pressureOf(range.lrvPa)).replace('\u2212', '-')),
      urv: Number(pressure(pressureOf(range.urvPa)).replace('\u2212', '-')),
      outputLow: 4,
      outputHigh: 20,
      transferFunction: { kind: 'linear' },
    },
    display: {
      low: numberAt(fields, 'displayLow', 'The display at 0 %'),
      high: numberAt(fields, 'displayHigh', 'The display at 100 %'),
    },
    markerPressure: pressureOf(levelIndication(measurement, {}, level).differentialPa),
    showPressure: (pascals) => pressure(pressureOf(pascals)),
    showHeight: (metres) => height(heightOf(metres)),
  };
}

/** What 0 % lies at, in words: elevation and suppression are used both ways, so neither is said alone. */
export const ZERO_WORDS: Readonly<Record<ZeroShift, string>> = {
  none: '0 % is no differential at all.',
  suppressed:
    '0 % lies above zero: the transmitter already feels a head there. Some call this a suppressed, some an elevated zero; the two figures say it.',
  elevated:
    '0 % lies below zero: the leg pushes on the low side. Some call this an elevated, some a suppressed zero; the two figures say it.',
  reversed:
    'The differential falls as the level rises: set 4 mA at the higher figure, or exchange the two sides.',
};

export interface Forgotten {
  readonly what: string;
  readonly effect: string;
}

const percent = (share: number): string => `${formatSigned(share, 1)} %`;

/** What the level would show if one thing were not as it was ranged for. @throws CoreError at the field */
export function forgotten(fields: LevelFields, result: LevelResult): Forgotten[] {
  const { measurement, display, showHeight } = result;
  const { metres, density } = readerOf(fields);
  const units = unitsOfFields(fields);
  const level = metres('level', 'The level');
  const height = unitLabel(units.height);
  const span = measurement.fullM - measurement.zeroM;
  const rows: Forgotten[] = [];
  const now = density('liquidNow', 'The density that it may have');
  const at = (trueM: number) => levelIndication(measurement, { liquidKgPerM3: now }, trueM);
  rows.push({
    what: `liquid at ${fields.liquidNow} ${unitLabel(units.density)}`,
    effect: `${percent(at(level).errorPercentOfSpan)} here, ${percent(at(measurement.fullM).errorPercentOfSpan)} when full`,
  });
  if (ARRANGEMENTS[measurement.arrangement].leg === 'fill' && measurement.tapsM !== undefined) {
    const shift = shiftOfLostLeg(measurement, measurement.tapsM);
    rows.push({
      what: measurement.arrangement === 'two-seals' ? 'upper capillary empty' : 'leg empty',
      effect: `${percent((shift / span) * 100)}${Math.abs(shift) > span ? ', beyond the range' : ''}`,
    });
  }
  if (asksFor(measurement.arrangement).drop && measurement.dropM !== 0) {
    const without = { ...measurement, dropM: 0 };
    const { lrvPa, urvPa } = levelRange(without);
    const shown =
      measurement.zeroM +
      ((levelIndication(measurement, {}, level).differentialPa - lrvPa) / (urvPa - lrvPa)) * span;
    if (Math.abs(shown - level) > 1e-9 * span)
      rows.push({
        what: 'height of the transmitter left out',
        effect: `${showHeight(shown)} for ${showHeight(level)} ${height}`,
      });
  }
  const share = (level - measurement.zeroM) / span;
  const left = display.low + share * (display.high - display.low);
  rows.push({
    what: `display at ${fields.displayLow} … ${fields.displayHigh} ${fields.displayUnit}`,
    effect: `${fineness(display.high - display.low)(left)} ${fields.displayUnit} for ${showHeight(level)} ${height}`,
  });
  return rows;
}

/** The offset of a range taken in the range, or in the display: the same instrument, set in two ways. */
export interface Offsets {
  readonly range: readonly [string, string];
  readonly display: readonly [string, string];
}

/** The second way needs a head at 0 %: with none, or a leg that pushes the other way, a range from zero on would be blind. */
export function waysOfOffset({
  measurement,
  range,
  showPressure,
  showHeight,
}: LevelResult): readonly [Offsets, Offsets | null] {
  const inRange: Offsets = {
    range: [showPressure(range.lrvPa), showPressure(range.urvPa)],
    display: [showHeight(measurement.zeroM), showHeight(measurement.fullM)],
  };
  if (range.lrvPa <= 0 || range.lrvPa > range.urvPa) return [inRange, null];
  const perPascal = (measurement.fullM - measurement.zeroM) / (range.urvPa - range.lrvPa);
  return [
    inRange,
    {
      range: [showPressure(0), showPressure(range.urvPa)],
      display: [showHeight(measurement.zeroM - range.lrvPa * perPascal), showHeight(measurement.fullM)],
    },
  ];
}

/** How far the level may be off by the limit of the transmitter. @throws CoreError at the field */
export const levelLimit = (fields: LevelFields, { measurement, range, showHeight }: LevelResult): string =>
  showHeight(
    levelOfLimit(measurement, (numberAt(fields, 'limit', 'The limit of error') / 100) * range.spanPa),
  );

const STEPS = [0, 10, 20, 25, 30, 40, 50, 60, 70, 75, 80, 90, 100];

export interface LevelRow {
  readonly percent: string;
  readonly level: string;
  readonly pressure: string;
  readonly output: string;
  /** Empty where no shape is chosen. */
  readonly volume: string;
}

/** @param volumes null where no shape is chosen */
export function levelRows(
  { measurement, range, showPressure, showHeight }: LevelResult,
  volumes: Volumes | null = null,
): LevelRow[] {
  const levelAt = (step: number) =>
    measurement.zeroM + (step / 100) * (measurement.fullM - measurement.zeroM);
  return STEPS.map((step) => ({
    percent: formatFixed(step, 0),
    level: showHeight(levelAt(step)),
    pressure: showPressure(range.lrvPa + (step / 100) * (range.urvPa - range.lrvPa)),
    output: formatFixed(4 + (16 * step) / 100, 3),
    volume: volumes === null ? '' : volumes.at(levelAt(step)),
  }));
}

export const csvOfLevel = (
  rows: readonly LevelRow[],
  { height, pressure, volume }: { height: string; pressure: string; volume: string | null },
): string =>
  Papa.unparse({
    fields: [
      'Level, %',
      `Level, ${height}`,
      `Differential, ${pressure}`,
      'Output, mA',
      ...(volume === null ? [] : [`Volume, ${volume}`]),
    ],
    data: rows.map((row) =>
      [row.percent, row.level, row.pressure, row.output, ...(volume === null ? [] : [row.volume])].map(
        (text) => text.replace('\u2212', '-'),
      ),
    ),
  });

/** What was worked out, in a sentence for a note. */
export const noteOfLevel = (fields: LevelFields, { measurement, range, showPressure }: LevelResult): string =>
  `${ARRANGEMENTS[measurement.arrangement].name}: ${showPressure(range.lrvPa)} … ${showPressure(range.urvPa)} ${unitLabel(unitsOfFields(fields).pressure)}.`;

/** The range as the form of an instrument's next configuration takes it from its address. */
export function configurationOfLevel(fields: LevelFields, result: LevelResult): Record<string, string> {
  const { measurement, range, showHeight } = result;
  const units = unitsOfFields(fields);
  const plain = (text: string) => text.replace('\u2212', '-');
  const fine = (pascals: number) => String(Number(convert(pascals, 'Pa', units.pressure).toPrecision(6)));
  return {
    // Finer than it is shown: the instrument's range shall not carry the rounding of a page.
    lrv: fine(range.lrvPa),
    urv: fine(range.urvPa),
    inputUnit: units.pressure,
    // The signal stays the instrument's own.
    transfer: 'linear',
    displayLow: fields.displayLow,
    displayHigh: fields.displayHigh,
    displayUnit: fields.displayUnit,
    reason: `Level, ${ARRANGEMENTS[measurement.arrangement].name.toLowerCase()}: 0 % at ${plain(showHeight(measurement.zeroM))}, 100 % at ${plain(showHeight(measurement.fullM))} ${unitLabel(units.height)}`,
  };
}
