/** How good a reference is at a value: its specification, and its uncertainty with the certificate's. */
import {
  convertPressure,
  isPressureUnit,
  specificationHalfWidth,
  Working,
  workSpecification,
  type Specification,
  type Step,
} from '@barys/core';
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

/** On which day, and how far from the temperature of calibration; the latter counts only where it is known. */
interface Conditions {
  readonly today: string;
  readonly awayK?: number;
}

function specificationAt(
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
    years:
      reference.calibratedOn === null
        ? 0
        : Math.max(0, dayjs(today).diff(dayjs(reference.calibratedOn), 'year', true)),
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
 * Expanded uncertainty (k = 2) of a reference at a value, in its unit: the certificate's uncertainty and the
 * specification as a rectangular distribution, as a root sum of squares (JCGM 100:2008, 4.3.7 and 5.1.2). Null where the
 * certificate does not say its uncertainty.
 */
export function uncertaintyAt(reference: Accuracy, value: number, conditions: Conditions): number | null {
  if (reference.uncertaintyPercentOfRange === null) return null;
  const certificate =
    ((reference.uncertaintyPercentOfRange / 100) * (reference.rangeHigh - reference.rangeLow)) / 2;
  const specification = accuracyAt(reference, value, conditions) / Math.sqrt(3);
  return 2 * Math.hypot(certificate, specification);
}

/** The same, with the specification to stand for it where the certificate does not say its uncertainty. */
export const expandedAt = (reference: Accuracy, value: number, conditions: Conditions): number =>
  uncertaintyAt(reference, value, conditions) ??
  (2 * accuracyAt(reference, value, conditions)) / Math.sqrt(3);

/** The working of `expandedAt`, in the reference's unit; ends in U_ref. */
export function workExpandedAt(
  reference: Accuracy,
  value: number,
  conditions: Conditions,
  unit: string,
): readonly Step[] {
  const { working } = workSpecification(specificationAt(reference, value, conditions), unit);
  const work = new Working(working);
  const percent = reference.uncertaintyPercentOfRange;
  if (percent !== null)
    work.step({
      what: 'Expanded uncertainty of the certificate, k = 2',
      symbol: 'U_cert',
      formula: 'p / 100 * R',
      given: {
        p: { value: percent, unit: '%' },
        R: { value: reference.rangeHigh - reference.rangeLow, unit },
      },
      unit,
      source: 'the certificate of the reference',
    });
  work.step({
    what:
      percent === null
        ? 'Expanded uncertainty of the reference, k = 2: its specification, for want of one on its certificate'
        : 'Expanded uncertainty of the reference, k = 2: certificate and specification',
    symbol: 'U_ref',
    formula: percent === null ? '2 * a / sqrt(3)' : '2 * sqrt((U_cert / 2)^2 + (a / sqrt(3))^2)',
    unit,
    source: '4.3.7 and 5.1.2, JCGM 100:2008, from memory',
  });
  return work.steps;
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
