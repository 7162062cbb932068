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

/** Terms that say nothing without another figure. */
const NEEDED = [
  ['percentOfRange', 'range', 'The range'],
  ['driftPercentOfReadingPerYear', 'years', 'The time since the calibration, in years,'],
  ['percentOfReadingPerK', 'temperatureDifferenceK', 'The temperature difference'],
] as const satisfies readonly (readonly [keyof Specification, keyof Specification, string])[];

/**
 * Half width of a specification: the plain sum of its terms (common practice; makers who mean a root sum of squares say so).
 * @returns in the unit of the reading
 * @throws CoreError `negative`, `not-finite`, `missing` where a term counts in a figure that is not given
 * @example specificationHalfWidth({ reading: 50, percentOfReading: 0.02, percentOfRange: 0.01, range: 200 }) // 0.03
 */
export function specificationHalfWidth(specification: Specification): number {
  const of = (name: string, field: keyof Specification): number => {
    const value = specification[field];
    if (value !== undefined) requireNotNegative(name, value, field);
    return value ?? 0;
  };
  requireFinite('The reading', specification.reading, 'reading');
  const size = Math.abs(specification.reading);
  const warmth = Math.abs(specification.temperatureDifferenceK ?? 0);
  requireFinite('The temperature difference', warmth, 'temperatureDifferenceK');
  for (const [term, needed, name] of NEEDED)
    if ((specification[term] ?? 0) !== 0 && specification[needed] === undefined)
      throw new CoreError({ code: 'missing', name, why: 'a term of the specification counts in it' }, needed);
  return (
    (of('% of reading', 'percentOfReading') / 100) * size +
    (of('% of range', 'percentOfRange') / 100) * of('The range', 'range') +
    of('The floor', 'floor') +
    (of('The drift', 'driftPercentOfReadingPerYear') / 100) * size * of('The years', 'years') +
    (of('The temperature term', 'percentOfReadingPerK') / 100) * size * warmth
  );
}
