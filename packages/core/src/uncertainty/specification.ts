/** A maker's specification of a reference or a meter, as a sum of terms; all lengths in the unit of the reading. */
import { requireFinite, requireNotNegative } from '../errors';

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
 * @throws CoreError `negative`, `not-finite`
 * @example specificationHalfWidth({ reading: 50, percentOfReading: 0.02, percentOfRange: 0.01, range: 200 }) // 0.03
 */
export function specificationHalfWidth(specification: Specification): number {
  const of = (name: string, value: number | undefined): number => {
    if (value !== undefined) requireNotNegative(name, value, 'inputs');
    return value ?? 0;
  };
  requireFinite('The reading', specification.reading, 'inputs');
  const size = Math.abs(specification.reading);
  const warmth = Math.abs(specification.temperatureDifferenceK ?? 0);
  requireFinite('The temperature difference', warmth, 'inputs');
  return (
    (of('% of reading', specification.percentOfReading) / 100) * size +
    (of('% of range', specification.percentOfRange) / 100) * of('The range', specification.range) +
    of('The floor', specification.floor) +
    (of('The drift', specification.driftPercentOfReadingPerYear) / 100) *
      size *
      of('The years', specification.years) +
    (of('The temperature term', specification.percentOfReadingPerK) / 100) * size * warmth
  );
}
