/** How well each reference serves an instrument, and why another one does not. */
import { atInstrument } from '@barys/core/corrections';
import { plannedPoints } from '@barys/core/procedure';
import { accuracyRatioAt } from '@barys/core/run';
import { expectedOutput } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import {
  convertPressure,
  isPressureUnit,
  PRESSURE_UNITS,
  type PressureKind,
  type PressureUnit,
} from '@barys/core/units';
import dayjs from 'dayjs';
import { limitsOf } from './evaluation';
import { toleranceOf, type Instrument } from '../registers/instrument';
import { accuracyAt, betweenUnits, expandedAt, uncertaintyAt } from './accuracy';
import type { Reference, ReferenceQuantity } from '../registers/reference';

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
  /** Tolerance over accuracy, least of all planned points that it measures; null where it does not reach. */
  readonly ratio: number | null;
  /** Tolerance over expanded uncertainty likewise; null where the certificate does not say its uncertainty. */
  readonly uncertaintyRatio: number | null;
  /** Why using it needs a reason, one by one; none when it fits. */
  readonly reasons: readonly string[];
  /** The same in a sentence; null when it fits. */
  readonly unfit: string | null;
}

/** A value of the side in the reference's unit. */
function inUnitOf(reference: Reference, value: number, unit: string): number {
  if (reference.quantity === 'pressure' && isPressureUnit(unit))
    return convertPressure(value, unit, pressureUnitOf(reference));
  return reference.quantity === 'voltage' && unit === 'mV' ? value / 1000 : value;
}

/** A vacuum gauge counts from nothing, as an absolute one does. */
const measuresAbsolute = (kind: PressureKind): boolean => kind === 'absolute' || kind === 'vacuum';

/** Whether a reference measures what one side of an instrument asks for; a pneumatic output is a gauge pressure. */
export const measuresSide = (reference: Reference, instrument: Instrument, side: Side): boolean =>
  reference.quantity === quantityWanted(instrument, side) &&
  !(side === 'output' && reference.quantity === 'pressure' && measuresAbsolute(reference.kind));

function whyWrongKind(reference: Reference, instrument: Instrument, side: Side): string | null {
  if (side !== 'input' || measuresAbsolute(reference.kind) === measuresAbsolute(instrument.kind)) return null;
  return measuresAbsolute(reference.kind)
    ? 'it reads absolute pressure, which this instrument does not'
    : 'it does not read absolute pressure, as this instrument does, unless a barometer is read beside it';
}

/** When a reference is used, and what lies between it and the instrument. */
export interface Use {
  /** ISO date. */
  readonly today: string;
  /** What the instrument sees more than the standard, in the input unit; 0 where nothing is known. */
  readonly head?: number;
}

/** What a reference has to measure at a point, in its own unit: the standard sees the head less. */
function seenAt(
  reference: Reference,
  instrument: Instrument,
  side: Side,
  applied: number,
  head: number,
): number {
  const { configuration } = instrument;
  return side === 'input'
    ? inUnitOf(reference, atInstrument(applied, -head), configuration.inputUnit)
    : inUnitOf(reference, expectedOutput(configuration, applied), configuration.outputUnit);
}

const reaches = ({ rangeLow, rangeHigh }: Reference, value: number): boolean =>
  value >= rangeLow && value <= rangeHigh;

/**
 * Tolerance over accuracy and over expanded uncertainty at one applied value, along the real curve of the instrument;
 * null where the reference cannot be wrong there or that has no effect, or where the certificate does not say its
 * uncertainty.
 */
export function ratiosAt(
  reference: Reference,
  instrument: Instrument,
  side: Side,
  applied: number,
  { today, head = 0 }: Use,
): { readonly ratio: number | null; readonly uncertaintyRatio: number | null } {
  const { configuration } = instrument;
  const at = seenAt(reference, instrument, side, applied, head);
  const [, back] = betweenUnits(
    side === 'input' ? configuration.inputUnit : configuration.outputUnit,
    reference,
  );
  const tolerance = limitsOf(toleranceOf(instrument));
  // Twelve significant digits, so that a conversion leaves a decimal a decimal.
  const ratioFor = (width: number): number | null =>
    accuracyRatioAt(configuration, tolerance, applied, {
      side,
      size: Math.abs(Number(back(width).toPrecision(12))),
    });
  const uncertainty = uncertaintyAt(reference, at, { today });
  return {
    ratio: ratioFor(accuracyAt(reference, at, { today })),
    uncertaintyRatio: uncertainty === null ? null : ratioFor(uncertainty),
  };
}

/** The applied values at which an instrument is tested. */
export const appliedPoints = ({ procedure, configuration }: Instrument): readonly number[] => [
  ...new Set(plannedPoints({ ...procedure.content, cycles: 1 }, configuration).map(({ applied }) => applied)),
];

const leastOf = (all: readonly (number | null)[]): number | null => {
  const known = all.filter((one) => one !== null);
  return known.length === 0 ? null : Math.min(...known);
};

function whyTooWeak(
  ratio: number | null,
  uncertaintyRatio: number | null,
  leastRatio: number,
): string | null {
  if (ratio !== null && ratio < leastRatio)
    return `its accuracy ratio is ${ratio < 1 ? 'below 1' : formatPlain(Math.floor(ratio * 10) / 10)} : 1, not the ${formatPlain(leastRatio)} : 1 that the procedure asks for`;
  return uncertaintyRatio !== null && uncertaintyRatio < 1
    ? 'its uncertainty exceeds the limit at a point, which could not be judged'
    : null;
}

/**
 * How well one reference serves one side of an instrument at the points of its procedure.
 * @param partner another standard that takes the points which it measures with the smaller uncertainty
 */
export function fitOf(
  reference: Reference,
  instrument: Instrument,
  side: Side,
  use: Use,
  partner: Reference | null = null,
): Fit {
  const { today, head = 0 } = use;
  const { leastRatio } = instrument.procedure.content;
  const all = appliedPoints(instrument);
  const own =
    partner === null
      ? all
      : all.filter((applied) => betterStandard(reference, partner, instrument, applied, use) === 'first');
  const covers = own.every((applied) =>
    reaches(reference, seenAt(reference, instrument, side, applied, head)),
  );
  const ratios = covers ? own.map((applied) => ratiosAt(reference, instrument, side, applied, use)) : [];
  const ratio = leastOf(ratios.map((one) => one.ratio));
  const uncertaintyRatio = leastOf(ratios.map((one) => one.uncertaintyRatio));
  const reasons = [
    covers
      ? null
      : `its range of ${formatPlain(reference.rangeLow)} to ${formatPlain(reference.rangeHigh)} ${unitOf(reference)} does not cover the points`,
    whyWrongKind(reference, instrument, side),
    reference.state === 'in use'
      ? null
      : `it is ${reference.state}${reference.location === '' ? '' : ` (${reference.location})`}`,
    reference.heldSince === null ? null : whyHeld(reference.heldSince),
    reference.dueOn === null ? 'it has no certificate' : null,
    reference.dueOn !== null && reference.dueOn < today
      ? `its certificate ran out on ${dayjs(reference.dueOn).format('D MMM YYYY')}`
      : null,
    whyTooWeak(ratio, uncertaintyRatio, leastRatio),
  ].filter((one) => one !== null);
  return {
    reference,
    ratio,
    uncertaintyRatio,
    reasons,
    unfit: reasons.length === 0 ? null : reasons.join('; '),
  };
}

/** Why a reference that was found wrong is not used, in words. */
export const whyHeld = (since: string): string =>
  `it is held: found out of tolerance on ${dayjs(since).format('D MMM YYYY')}, and nobody has released it`;

/** What a fit is ranked by: the weaker of its two ratios. */
const weight = ({ ratio, uncertaintyRatio }: Fit): number =>
  Math.min(ratio ?? 0, uncertaintyRatio ?? Infinity);

/**
 * All references that measure what one side of an instrument asks for: those that serve first, the best of the weaker ratios leading.
 * A reference may be used up to and including its due date.
 */
export function rankReferences(
  references: readonly Reference[],
  instrument: Instrument,
  side: Side,
  use: Use,
): Fit[] {
  return references
    .filter((reference) => measuresSide(reference, instrument, side))
    .map((reference) => fitOf(reference, instrument, side, use))
    .sort((a, b) => a.reasons.length - b.reasons.length || weight(b) - weight(a));
}

/**
 * Which of two standards measures a point: one that reaches it, and of two that do the one with the smaller expanded
 * uncertainty there. Null where neither reaches it.
 * @param applied at the instrument, in its input unit
 */
export function betterStandard(
  first: Reference,
  second: Reference | null,
  instrument: Instrument,
  applied: number,
  { today, head = 0 }: Use,
): 'first' | 'second' | null {
  const uncertaintyOf = (reference: Reference): number => {
    const at = seenAt(reference, instrument, 'input', applied, head);
    if (!reaches(reference, at)) return Infinity;
    const [, back] = betweenUnits(instrument.configuration.inputUnit, reference);
    return Math.abs(back(expandedAt(reference, at, { today })));
  };
  const ofFirst = uncertaintyOf(first);
  const ofSecond = second === null ? Infinity : uncertaintyOf(second);
  if (ofFirst === Infinity && ofSecond === Infinity) return null;
  return ofSecond < ofFirst ? 'second' : 'first';
}
