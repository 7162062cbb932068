/** How good a reference is at a value: its specification, and its uncertainty with the certificate's. */
import { convertPressure, isPressureUnit, specificationHalfWidth } from '@barys/core';
import dayjs from 'dayjs';
import type { Reference } from './references';

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
>;

/**
 * Half width of the specification at a value, in the reference's unit: the sum of its terms, drift counted from the day
 * of calibration. The temperature term counts only where the distance from the temperature of calibration is known.
 */
export function accuracyAt(
  reference: Accuracy,
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
  reference: Accuracy,
  value: number,
  conditions: { readonly today: string; readonly awayK?: number },
): number | null {
  if (reference.uncertaintyPercentOfRange === null) return null;
  const certificate =
    ((reference.uncertaintyPercentOfRange / 100) * (reference.rangeHigh - reference.rangeLow)) / 2;
  const specification = accuracyAt(reference, value, conditions) / Math.sqrt(3);
  return 2 * Math.hypot(certificate, specification);
}

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
