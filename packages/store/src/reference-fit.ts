/** How well each reference serves an instrument, and why another one does not. */
import {
  acceptedOutput,
  accuracyRatio,
  appliedForOutput,
  convertPressure,
  formatPlain,
  inputSpan,
  isPressureUnit,
  outputSpan,
  plannedPoints,
  PRESSURE_UNITS,
  type PressureKind,
  type PressureUnit,
} from '@barys/core';
import dayjs from 'dayjs';
import { limitsOf } from './evaluation';
import { toleranceOf, type Instrument } from './instruments';
import { accuracyAt, uncertaintyAt } from './reference-accuracy';
import type { Reference, ReferenceQuantity } from './references';

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

/** A vacuum gauge counts from nothing, as an absolute one does. */
const measuresAbsolute = (kind: PressureKind): boolean => kind === 'absolute' || kind === 'vacuum';

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
  const tolerance = limitsOf(toleranceOf(instrument));
  const applied = side === 'input' ? value : appliedForOutput(range, value);
  const ratioFor = (width: number): number | null => {
    if (width === 0) return null;
    if (toleranceOf(instrument).percentOfReading === 0) return accuracyRatio(range, tolerance, width * scale);
    // A limit that follows the reading is compared where it is read.
    const { lowest, highest } = acceptedOutput(range, tolerance, applied);
    return (highest - lowest) / 2 / (width * scale * Math.abs(outputSpan(range) / inputSpan(range)));
  };
  const uncertainty = uncertaintyAt(reference, at, { today });
  return {
    ratio: ratioFor(accuracyAt(reference, at, { today })),
    uncertaintyRatio: uncertainty === null ? null : ratioFor(uncertainty),
  };
}

/** What is measured on one side: the test points where they reach less far than the range, as a gauge off its stops. */
function pointsOf(instrument: Instrument, side: Side, ends: readonly number[]): readonly number[] {
  if (side === 'output') return ends;
  return plannedPoints(instrument.procedure.content, instrument.configuration).map(({ applied }) => applied);
}

/**
 * @param isShared whether another reference takes the points that this one does not reach
 */
export function fitOf(
  reference: Reference,
  instrument: Instrument,
  side: Side,
  today: string,
  isShared = false,
): Fit {
  const { leastRatio } = instrument.procedure.content;
  const { ends, unit } = sideOf(instrument, side);
  const own = pointsOf(instrument, side, ends).map((value) => inUnitOf(reference, value, unit));
  const [low, high] = [Math.min(...own), Math.max(...own)];
  const covers = low >= reference.rangeLow && high <= reference.rangeHigh;
  const ratios = covers ? ends.map((end) => ratiosAt(reference, instrument, side, end, today)) : [];
  const least = (all: readonly (number | null)[]): number | null => {
    const known = all.filter((one) => one !== null);
    return known.length === 0 ? null : Math.min(...known);
  };
  const ratio = least(ratios.map((one) => one.ratio));
  const reasons = [
    covers || isShared
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

/**
 * Which of two standards measures a value, in the instrument's input unit: one that reaches it, and of two that do the
 * one that is more accurate there. Null where neither reaches it.
 */
export function betterStandard(
  first: Reference,
  second: Reference | null,
  value: number,
  unit: PressureUnit,
  today: string,
): 'first' | 'second' | null {
  const accuracyOf = (reference: Reference): number => {
    const at = inUnitOf(reference, value, unit);
    if (at < reference.rangeLow || at > reference.rangeHigh) return Infinity;
    return convertPressure(accuracyAt(reference, at, { today }), pressureUnitOf(reference), unit);
  };
  const ofFirst = accuracyOf(first);
  const ofSecond = second === null ? Infinity : accuracyOf(second);
  if (ofFirst === Infinity && ofSecond === Infinity) return null;
  return ofSecond < ofFirst ? 'second' : 'first';
}
