/** How good a reference is at a value: its specification, and its uncertainty with the certificate's. */
import { between, pointsAround } from '@barys/core/run';
import { formatPlain } from '@barys/core/text';
import { specificationHalfWidth, workSpecification, type Specification } from '@barys/core/uncertainty';
import { convertPressure, isPressureUnit } from '@barys/core/units';
import { Working, type Step } from '@barys/core/working';
import dayjs from 'dayjs';
import type { CertificateResult, Reference } from '../registers/references';

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
interface Conditions {
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
function statedAt(reference: Accuracy, value: number): number | null {
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

const CERTIFICATE = 'the certificate of the reference';

const FROM_CERTIFICATE = {
  correction: { what: 'Correction', symbol: 'c_cert' },
  uncertainty: { what: 'Expanded uncertainty of the certificate, k = 2', symbol: 'U_cert' },
} as const;

/** A figure of the certificate at a value, between the two points around it; `c_cert` or `U_cert`. */
function workBetween(
  work: Working,
  { results }: Accuracy,
  value: number,
  unit: string,
  figure: keyof typeof FROM_CERTIFICATE,
): void {
  const [low, high] = pointsAround(results, value);
  const { what, symbol } = FROM_CERTIFICATE[figure];
  const isPoint = low.at === high.at;
  const given = (name: string, point: CertificateResult) => ({
    [`y_${name}`]: { value: point[figure], unit },
    ...(isPoint ? {} : { [`v_${name}`]: { value: point.at, unit } }),
  });
  work.step({
    what: isPoint
      ? `${what}: that of its point at ${formatPlain(low.at)} ${unit}`
      : `${what}: between its points at ${formatPlain(low.at)} and ${formatPlain(high.at)} ${unit}`,
    symbol,
    formula: isPoint ? 'y_1' : 'y_1 + (y_2 - y_1) * (v - v_1) / (v_2 - v_1)',
    given: isPoint ? given('1', low) : { ...given('1', low), ...given('2', high), v: { value, unit } },
    unit,
    source: CERTIFICATE,
  });
}

/** The working of `correctionAt`, in the reference's unit; ends in c_cert, and is empty where there is none. */
export function workCorrectionAt(reference: Accuracy, value: number, unit: string): readonly Step[] {
  const work = new Working();
  if (reference.results.length > 0) workBetween(work, reference, value, unit, 'correction');
  return work.steps;
}

/** The working of `expandedAt`, in the reference's unit; ends in U_ref. */
export function workExpandedAt(
  reference: Accuracy,
  value: number,
  conditions: Conditions,
  unit: string,
): readonly Step[] {
  const { working } = workSpecification(specificationAt(reference, value, conditions), unit);
  const work = new Working(working);
  const isSilent = statedAt(reference, value) === null;
  if (reference.results.length > 0) workBetween(work, reference, value, unit, 'uncertainty');
  else if (!isSilent)
    work.step({
      what: 'Expanded uncertainty of the certificate, k = 2',
      symbol: 'U_cert',
      formula: 'p / 100 * R',
      given: {
        p: { value: reference.uncertaintyPercentOfRange ?? 0, unit: '%' },
        R: { value: reference.rangeHigh - reference.rangeLow, unit },
      },
      unit,
      source: CERTIFICATE,
    });
  work.step({
    what: isSilent
      ? 'Expanded uncertainty of the reference, k = 2: its specification, for want of one on its certificate'
      : 'Expanded uncertainty of the reference, k = 2: certificate and specification',
    symbol: 'U_ref',
    formula: isSilent ? '2 * a / sqrt(3)' : '2 * sqrt((U_cert / 2)^2 + (a / sqrt(3))^2)',
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

/** What an amount in a reference's own unit is multiplied by to stand in another unit; for widths, not for readings. */
export const widthFactor = (unit: string, reference: Pick<Reference, 'unit'>): number =>
  betweenUnits(unit, reference)[1](1);
