/** How good a reference is at a value: its specification, and its uncertainty with the certificate's. */
import { between, pointsAround } from '@barys/core/run';
import { specificationHalfWidth, type Specification } from '@barys/core/uncertainty';
import { convertPressure, isPressureUnit } from '@barys/core/units';
import dayjs from 'dayjs';
import type { Reference } from '../registers/reference';

/** What the accuracy of a reference is made of; a run keeps a copy. */
export type Accuracy = Pick<
  Reference,
  | 'rangeLow'
  | 'rangeHigh'
  | 'percentOfReading'
  | 'percentOfRange'
  | 'floor'
  | 'driftPercentOfReadingPerYear'
  | 'percentOfReadingPerK'
  | 'calibratedOn'
  | 'uncertaintyPercentOfRange'
  | 'results'
>;

/** On which day, and how far from the temperature of calibration; the latter counts only where it is known. */
export interface Conditions {
  readonly today: string;
  readonly awayK?: number;
}

/** Days come again for every reading of a run, and a calendar takes longer than all the rest of its uncertainty. */
const knownYears = new Map<string, Map<string, number>>();
const MOST_DAYS_KNOWN = 1000;

/** Years from one ISO date to a later one, 0 where it is earlier. */
function yearsBetween(from: string, to: string): number {
  const known = knownYears.get(to)?.get(from);
  if (known !== undefined) return known;
  const years = Math.max(0, dayjs(to).diff(dayjs(from), 'year', true));
  if (knownYears.size >= MOST_DAYS_KNOWN) knownYears.clear();
  knownYears.set(to, (knownYears.get(to) ?? new Map<string, number>()).set(from, years));
  return years;
}

export function specificationAt(
  reference: Accuracy,
  value: number,
  { today, awayK = 0 }: Conditions,
): Specification {
  return {
    reading: value,
    percentOfReading: reference.percentOfReading,
    percentOfRange: reference.percentOfRange,
    range: reference.rangeHigh - reference.rangeLow,
    floor: reference.floor,
    driftPercentOfReadingPerYear: reference.driftPercentOfReadingPerYear,
    years: reference.calibratedOn === null ? 0 : yearsBetween(reference.calibratedOn, today),
    percentOfReadingPerK: reference.percentOfReadingPerK,
    temperatureDifferenceK: awayK,
  };
}

/**
 * Half width of the specification at a value, in the reference's unit: the sum of its terms, drift counted from the day
 * of calibration.
 */
export const accuracyAt = (reference: Accuracy, value: number, conditions: Conditions): number =>
  specificationHalfWidth(specificationAt(reference, value, conditions));

/**
 * What is added to a reading of a reference to correct it, in its unit: a recognized systematic effect is corrected for
 * (JCGM 100:2008, 3.2.3 and 3.2.4). On the straight line between the points of the certificate and that of the nearest
 * point beyond them, which is common practice; 0 where it has none.
 */
export const correctionAt = ({ results }: Pick<Accuracy, 'results'>, value: number): number =>
  results.length === 0 ? 0 : between(pointsAround(results, value), value, ({ correction }) => correction);

/** The expanded uncertainty (k = 2) that a certificate states at a value, in the reference's unit; null where it is silent. */
export function statedAt(reference: Accuracy, value: number): number | null {
  const { results, uncertaintyPercentOfRange: percent } = reference;
  if (results.length > 0)
    return between(pointsAround(results, value), value, ({ uncertainty }) => uncertainty);
  return percent === null ? null : (percent / 100) * (reference.rangeHigh - reference.rangeLow);
}

/**
 * Expanded uncertainty (k = 2) of a reference at a value, in its unit: the certificate's uncertainty and the
 * specification as a rectangular distribution, as a root sum of squares (JCGM 100:2008, 4.3.7 and 5.1.2). Null where the
 * certificate does not say its uncertainty.
 */
export function uncertaintyAt(reference: Accuracy, value: number, conditions: Conditions): number | null {
  const stated = statedAt(reference, value);
  if (stated === null) return null;
  const specification = accuracyAt(reference, value, conditions) / Math.sqrt(3);
  return 2 * Math.hypot(stated / 2, specification);
}

/** The same, with the specification to stand for it where the certificate does not say its uncertainty. */
export const expandedAt = (reference: Accuracy, value: number, conditions: Conditions): number =>
  uncertaintyAt(reference, value, conditions) ??
  (2 * accuracyAt(reference, value, conditions)) / Math.sqrt(3);

/** From a unit to a reference's own, and back. */
export function betweenUnits(
  unit: string,
  reference: Pick<Reference, 'unit'>,
): readonly [to: (value: number) => number, from: (value: number) => number] {
  const own = reference.unit;
  if (isPressureUnit(unit) && isPressureUnit(own))
    return [(value) => convertPressure(value, unit, own), (value) => convertPressure(value, own, unit)];
  const milli = unit === 'mV' && own === 'V' ? 1000 : 1;
  return [(value) => value / milli, (value) => value * milli];
}

/** What an amount in a reference's own unit is multiplied by to stand in another unit; for widths, not for readings. */
export const widthFactor = (unit: string, reference: Pick<Reference, 'unit'>): number =>
  betweenUnits(unit, reference)[1](1);
