/** How well each reference serves an instrument, and why another one does not. */
import {
  accuracyRatio,
  convertPressure,
  formatPlain,
  isPressureUnit,
  PRESSURE_UNITS,
  spanTolerance,
  specificationHalfWidth,
  type PressureKind,
  type PressureUnit,
} from '@barys/core';
import dayjs from 'dayjs';
import { toleranceOf, type Instrument } from './instruments';
import type { Reference, ReferenceQuantity } from './references';

/**
 * Half width of the specification at a value, in the reference's unit: the sum of its terms, drift counted from the day
 * of calibration. The temperature term counts only where the distance from the temperature of calibration is known.
 */
export function accuracyAt(
  reference: Reference,
  value: number,
  { today, awayK = 0 }: { readonly today: string; readonly awayK?: number },
): number {
  const years =
    reference.calibratedOn === null
      ? 0
      : Math.max(0, dayjs(today).diff(dayjs(reference.calibratedOn), 'year', true));
  return specificationHalfWidth({
    reading: value,
    percentOfReading: reference.percentOfReading,
    percentOfRange: reference.percentOfRange,
    range: reference.rangeHigh - reference.rangeLow,
    floor: reference.floor,
    driftPercentOfReadingPerYear: reference.driftPercentOfReadingPerYear,
    years,
    percentOfReadingPerK: reference.percentOfReadingPerK,
    temperatureDifferenceK: awayK,
  });
}

/**
 * Expanded uncertainty (k = 2) of a reference at a value, in its unit: the certificate's uncertainty and the
 * specification as a rectangular distribution, as a root sum of squares (JCGM 100:2008, 4.3.7 and 5.1.2). Null where the
 * certificate does not say its uncertainty.
 */
export function uncertaintyAt(
  reference: Reference,
  value: number,
  conditions: { readonly today: string; readonly awayK?: number },
): number | null {
  if (reference.uncertaintyPercentOfRange === null) return null;
  const certificate =
    ((reference.uncertaintyPercentOfRange / 100) * (reference.rangeHigh - reference.rangeLow)) / 2;
  const specification = accuracyAt(reference, value, conditions) / Math.sqrt(3);
  return 2 * Math.hypot(certificate, specification);
}

/** The unit of a pressure reference, checked: its column is free text because meters share it. */
function pressureUnitOf(reference: Reference): PressureUnit {
  if (!isPressureUnit(reference.unit))
    throw new Error(`${reference.tag} has no pressure unit: ${reference.unit}`);
  return reference.unit;
}

/** Smallest step of a pressure reference in another unit. */
export function resolutionIn(reference: Reference, unit: PressureUnit): number {
  return convertPressure(reference.resolution, pressureUnitOf(reference), unit);
}

/** The reference's unit as it is shown. */
export const unitOf = (reference: Pick<Reference, 'unit'>): string =>
  isPressureUnit(reference.unit) ? PRESSURE_UNITS[reference.unit].label : reference.unit;

export type Side = 'input' | 'output';

/** What a reference for one side of an instrument has to measure; null where nothing is measured there. */
export function quantityWanted(instrument: Instrument, side: Side): ReferenceQuantity | null {
  if (side === 'input') return 'pressure';
  const { outputUnit } = instrument.configuration;
  if (outputUnit === 'mA') return 'current';
  if (outputUnit === 'V' || outputUnit === 'mV') return 'voltage';
  // A gauge is read by eye, also where its scale is in bar.
  if (instrument.configuration.signal === 'indication' || instrument.configuration.signal === 'digital')
    return null;
  return isPressureUnit(outputUnit) ? 'pressure' : null;
}

export interface Fit {
  readonly reference: Reference;
  /** Tolerance over accuracy at the end of the range where the reference is weakest; null where it does not reach. */
  readonly ratio: number | null;
  /** Tolerance over expanded uncertainty there; null where the certificate does not say its uncertainty. */
  readonly uncertaintyRatio: number | null;
  /** Why it does not fit, in words; null when it does. */
  readonly unfit: string | null;
  /** What to know before using it all the same, in words; null when nothing. */
  readonly caution: string | null;
}

/** A value of the side in the reference's unit. */
function inUnitOf(reference: Reference, value: number, unit: string): number {
  if (reference.quantity === 'pressure' && isPressureUnit(unit))
    return convertPressure(value, unit, pressureUnitOf(reference));
  return reference.quantity === 'voltage' && unit === 'mV' ? value / 1000 : value;
}

function sideOf({ configuration: range }: Instrument, side: Side): { ends: [number, number]; unit: string } {
  return side === 'input'
    ? { ends: [range.lrv, range.urv], unit: range.inputUnit }
    : { ends: [range.outputLow, range.outputHigh], unit: range.outputUnit };
}

const measuresAbsolute = (kind: PressureKind): boolean => kind === 'absolute';

function whyWrongKind(reference: Reference, instrument: Instrument, side: Side): string | null {
  if (side !== 'input' || measuresAbsolute(reference.kind) === measuresAbsolute(instrument.kind)) return null;
  return measuresAbsolute(reference.kind)
    ? 'it reads absolute pressure, which this instrument does not'
    : 'it does not read absolute pressure, as this instrument does, unless a barometer is read beside it';
}

/**
 * Tolerance over accuracy and over expanded uncertainty at one value of the side; null where the reference cannot be
 * wrong by its specification, such as one in % of reading at zero, or where the certificate does not say its uncertainty.
 */
export function ratiosAt(
  reference: Reference,
  instrument: Instrument,
  side: Side,
  value: number,
  today: string,
): { readonly ratio: number | null; readonly uncertaintyRatio: number | null } {
  const { ends, unit } = sideOf(instrument, side);
  const [from, to] = ends.map((end) => inUnitOf(reference, end, unit)) as [number, number];
  const range = instrument.configuration;
  const at = inUnitOf(reference, value, unit);
  // As a part of its own span, so that pressure and current are compared with the tolerance in the same way.
  const scale = Math.abs(range.urv - range.lrv) / Math.abs(to - from);
  const tolerance = spanTolerance(toleranceOf(instrument).percentOfSpan);
  const ratioFor = (width: number): number | null =>
    width === 0 ? null : accuracyRatio(range, tolerance, width * scale);
  const uncertainty = uncertaintyAt(reference, at, { today });
  return {
    ratio: ratioFor(accuracyAt(reference, at, { today })),
    uncertaintyRatio: uncertainty === null ? null : ratioFor(uncertainty),
  };
}

export function fitOf(reference: Reference, instrument: Instrument, side: Side, today: string): Fit {
  const { leastRatio } = instrument.procedure.content;
  const { ends, unit } = sideOf(instrument, side);
  const own = ends.map((end) => inUnitOf(reference, end, unit));
  const [low, high] = [Math.min(...own), Math.max(...own)];
  const covers = low >= reference.rangeLow && high <= reference.rangeHigh;
  const ratios = covers ? ends.map((end) => ratiosAt(reference, instrument, side, end, today)) : [];
  const least = (all: readonly (number | null)[]): number | null => {
    const known = all.filter((one) => one !== null);
    return known.length === 0 ? null : Math.min(...known);
  };
  const ratio = least(ratios.map((one) => one.ratio));
  const reasons = [
    covers
      ? null
      : `its range of ${formatPlain(reference.rangeLow)} to ${formatPlain(reference.rangeHigh)} ${unitOf(reference)} does not cover the points`,
    whyWrongKind(reference, instrument, side),
    reference.state === 'in use'
      ? null
      : `it is ${reference.state}${reference.location === '' ? '' : ` (${reference.location})`}`,
    reference.dueOn === null ? 'it has no certificate' : null,
    reference.dueOn !== null && reference.dueOn < today
      ? `its certificate ran out on ${dayjs(reference.dueOn).format('D MMM YYYY')}`
      : null,
  ].filter((one) => one !== null);
  return {
    reference,
    ratio,
    uncertaintyRatio: least(ratios.map((one) => one.uncertaintyRatio)),
    unfit: reasons.length === 0 ? null : reasons.join('; '),
    caution:
      ratio !== null && ratio < leastRatio
        ? `accuracy ratio below ${formatPlain(leastRatio)}:1, which the procedure asks for`
        : null,
  };
}

/**
 * All references that measure what one side of an instrument asks for: those that serve first, the best ratio leading.
 * @param today ISO date; a reference may be used up to and including its due date
 */
export function rankReferences(
  references: readonly Reference[],
  instrument: Instrument,
  side: Side,
  today: string,
): Fit[] {
  const quantity = quantityWanted(instrument, side);
  return references
    .filter((reference) => reference.quantity === quantity)
    .map((reference) => fitOf(reference, instrument, side, today))
    .sort((a, b) => Number(a.unfit !== null) - Number(b.unfit !== null) || (b.ratio ?? 0) - (a.ratio ?? 0));
}
