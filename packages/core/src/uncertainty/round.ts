/** A result and its expanded uncertainty, rounded as they are reported. */
import { requireFinite, requirePositive } from '../errors';
import { exact, roundDecimal, withoutNoise } from '../exact';

export interface RoundedResult {
  readonly value: string;
  readonly uncertainty: string;
  /** Places after the decimal point; negative where whole digits are rounded away. */
  readonly decimals: number;
}

/** Enough for a picopascal in pascals and far beyond. */
const MOST_DECIMALS = 30;

function roundAt(computed: number, decimals: number): string {
  const value = withoutNoise(computed);
  if (decimals >= 0) return roundDecimal(value, decimals).replace('-', '\u2212');
  const step = 10n ** BigInt(-decimals);
  const whole = exact(value).div(step).abs().add(exact(0.5)).floor() * step;
  return `${value < 0 && whole !== 0n ? '\u2212' : ''}${whole}`;
}

/**
 * Rounds the expanded uncertainty to two significant digits, half away from zero, and the result to the same place
 * (JCGM 100:2008, 7.2.6, from memory). 0.0995 goes to 0.10, whose two digits stand one place further left.
 * @throws CoreError `not-finite`, `not-positive`
 * @example roundResult(12.34567, 0.0995) // { value: '12.35', uncertainty: '0.10', decimals: 2 }
 */
export function roundResult(value: number, expandedUncertainty: number): RoundedResult {
  requireFinite('The result', value);
  requirePositive('The expanded uncertainty', expandedUncertainty);
  const place = (size: number) => 1 - Math.floor(Math.log10(size));
  let decimals = place(expandedUncertainty);
  const once = Number(roundAt(expandedUncertainty, Math.min(decimals, MOST_DECIMALS)).replace('\u2212', '-'));
  if (once > 0) decimals = place(once * (1 + 1e-12));
  decimals = Math.min(decimals, MOST_DECIMALS);
  return {
    value: roundAt(value, decimals),
    uncertainty: roundAt(expandedUncertainty, decimals),
    decimals,
  };
}
