/** A maker's specification of a reference or a meter, as a sum of terms; all lengths in the unit of the reading. */
import { CoreError, requireFinite, requireNotNegative } from '../errors';

export interface Specification {
  /** What the instrument reads. */
  readonly reading: number;
  readonly percentOfReading?: number | undefined;
  readonly percentOfRange?: number | undefined;
  /** Size of the range that `percentOfRange` counts of. */
  readonly range?: number | undefined;
  /** The least that the accuracy can be, added to the terms: digits, counts. */
  readonly floor?: number | undefined;
  /** Per year since the last calibration, in per cent of reading. */
  readonly driftPercentOfReadingPerYear?: number | undefined;
  readonly years?: number | undefined;
  /** Per kelvin away from the temperature of calibration, in per cent of reading. */
  readonly percentOfReadingPerK?: number | undefined;
  readonly temperatureDifferenceK?: number | undefined;
}

/**
 * Half width of a specification: the plain sum of its terms (common practice; makers who mean a root sum of squares say so).
 * @returns in the unit of the reading
 * @throws CoreError `negative`, `not-finite`, `missing` where a term counts in a figure that is not given
 * @example specificationHalfWidth({ reading: 50, percentOfReading: 0.02, percentOfRange: 0.01, range: 200 }) // 0.03
 */
export function specificationHalfWidth(specification: Specification): number {
  const { reading, percentOfReading, percentOfRange, range, floor, years } = specification;
  const { driftPercentOfReadingPerYear: drift, percentOfReadingPerK: perK } = specification;
  const { temperatureDifferenceK } = specification;
  requireFinite('The reading', reading, 'reading');
  const size = Math.abs(reading);
  const warmth = Math.abs(temperatureDifferenceK ?? 0);
  requireFinite('The temperature difference', warmth, 'temperatureDifferenceK');
  requireCounterpart(percentOfRange, range, 'range', 'The range');
  requireCounterpart(drift, years, 'years', 'The time since the calibration, in years,');
  requireCounterpart(perK, temperatureDifferenceK, 'temperatureDifferenceK', 'The temperature difference');
  return (
    (amountOf('% of reading', percentOfReading, 'percentOfReading') / 100) * size +
    (amountOf('% of range', percentOfRange, 'percentOfRange') / 100) * amountOf('The range', range, 'range') +
    amountOf('The floor', floor, 'floor') +
    (amountOf('The drift', drift, 'driftPercentOfReadingPerYear') / 100) *
      size *
      amountOf('The years', years, 'years') +
    (amountOf('The temperature term', perK, 'percentOfReadingPerK') / 100) * size * warmth
  );
}

function amountOf(name: string, value: number | undefined, field: keyof Specification): number {
  if (value === undefined) return 0;
  requireNotNegative(name, value, field);
  return value;
}

/** Refuses a term that says nothing without another figure. */
function requireCounterpart(
  term: number | undefined,
  needed: number | undefined,
  field: keyof Specification,
  name: string,
): void {
  if (needed === undefined && (term ?? 0) !== 0)
    throw new CoreError({ code: 'missing', name, why: 'a term of the specification counts in it' }, field);
}
