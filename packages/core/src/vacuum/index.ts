/**
 * Gauges that read over decades: errors in per cent of the reference and in decades, limits of one kind as the other, and
 * an output that follows the logarithm of the pressure. Common practice, without a source that fixes it.
 */
import { CoreError, requireFinite, requirePositive } from '../errors';
import { Working, type Worked } from '../working';

const SOURCE = 'common practice';

export interface VacuumError {
  /** Indicated less reference, in their unit. */
  readonly error: number;
  /** Of the reference; null where nothing is there to take a per cent of. */
  readonly percentOfReference: number | null;
  /** log10(indicated / reference); null where either is zero. */
  readonly decades: number | null;
}

/**
 * The error of a vacuum gauge.
 * @param reference absolute pressure, one unit for both
 * @throws CoreError `not-finite`, `not-positive` for an absolute pressure below zero
 * @example vacuumError(100, 112).decades // 0.04922
 */
export function vacuumError(reference: number, indicated: number): VacuumError {
  for (const [name, value, field] of [
    ['The reference', reference, 'reference'],
    ['The indication', indicated, 'indicated'],
  ] as const) {
    requireFinite(name, value, field);
    if (value !== 0) requirePositive(name, value, field);
  }
  const error = indicated - reference;
  return {
    error,
    percentOfReference: reference === 0 ? null : (error / reference) * 100,
    decades: reference === 0 || indicated === 0 ? null : Math.log10(indicated / reference),
  };
}

/**
 * A limit in decades as per cent of reading; the two sides are not the same: 0.1 decade is +25.9 % and -20.6 %.
 * @throws CoreError `not-positive`
 */
export function decadeLimit(decades: number): { upperPercent: number; lowerPercent: number; factor: number } {
  requirePositive('The limit', decades, 'decades');
  const factor = 10 ** decades;
  return { upperPercent: 100 * (factor - 1), lowerPercent: 100 * (1 / factor - 1), factor };
}

/**
 * A limit in per cent of reading as decades; lower is null from 100 % on, where nothing is left of the reading.
 * @throws CoreError `not-positive`
 */
export function percentLimitInDecades(percent: number): {
  upperDecades: number;
  lowerDecades: number | null;
} {
  requirePositive('The limit', percent, 'percent');
  return {
    upperDecades: Math.log10(1 + percent / 100),
    lowerDecades: percent < 100 ? Math.log10(1 - percent / 100) : null,
  };
}

/** Pressures and signals that belong together at both ends. */
export interface DecadeRange {
  readonly low: number;
  readonly high: number;
  readonly outputLow: number;
  readonly outputHigh: number;
}

function checkDecades({ low, high, outputLow, outputHigh }: DecadeRange): void {
  requirePositive('The pressure at the start of the signal', low, 'low');
  requirePositive('The pressure at the end of the signal', high, 'high');
  requireFinite('The signal at its start', outputLow, 'outputLow');
  requireFinite('The signal at its end', outputHigh, 'outputHigh');
  if (low === high)
    throw new CoreError({ code: 'zero-span', name: 'The pressure range', value: low }, 'high');
  if (outputLow === outputHigh)
    throw new CoreError({ code: 'zero-span', name: 'The signal', value: outputLow }, 'outputHigh');
}

const endsOf = (range: DecadeRange, units: { pressure: string; output: string }) => ({
  p_0: { value: range.low, unit: units.pressure },
  p_100: { value: range.high, unit: units.pressure },
  y_0: { value: range.outputLow, unit: units.output },
  y_100: { value: range.outputHigh, unit: units.output },
});

/**
 * The signal of a gauge whose output is linear in the logarithm of the pressure:
 * y_0 + (y_100 - y_0) log10(p / p_0) / log10(p_100 / p_0). Not limited to the signal range.
 * @throws CoreError `not-positive`, `zero-span`, `not-finite`
 */
export function workLogarithmicOutput(
  range: DecadeRange,
  pressure: number,
  units: { readonly pressure: string; readonly output: string },
): Worked {
  checkDecades(range);
  requirePositive('The pressure', pressure, 'pressure');
  const work = new Working();
  const value = work.step({
    what: 'Signal, linear in the logarithm of the pressure',
    symbol: 'y',
    formula: 'y_0 + (y_100 - y_0) * ln(p / p_0) / ln(p_100 / p_0)',
    given: { ...endsOf(range, units), p: { value: pressure, unit: units.pressure } },
    unit: units.output,
    source: SOURCE,
  });
  return { value, working: work.steps };
}

/**
 * The pressure that such a signal stands for.
 * @throws CoreError as `workLogarithmicOutput`; `undefined-result` where it is beyond all numbers
 */
export function workLogarithmicPressure(
  range: DecadeRange,
  output: number,
  units: { readonly pressure: string; readonly output: string },
): Worked {
  checkDecades(range);
  requireFinite('The signal', output, 'output');
  const work = new Working();
  const value = work.step({
    what: 'Pressure that the signal stands for',
    symbol: 'p',
    formula: 'p_0 * exp((y - y_0) / (y_100 - y_0) * ln(p_100 / p_0))',
    given: { ...endsOf(range, units), y: { value: output, unit: units.output } },
    unit: units.pressure,
    source: SOURCE,
  });
  return { value, working: work.steps };
}
