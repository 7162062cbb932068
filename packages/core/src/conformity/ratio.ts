/** How good a measurement is against the tolerance that it judges. */
import { CoreError, requireFinite, requireNotNegative, requirePositive } from '../errors';

/** A lower limit, an upper one, or both; null is no limit on that side. One unit throughout. */
export interface Limits {
  readonly lower: number | null;
  readonly upper: number | null;
}

/** @throws CoreError `missing`, `reversed-limits`, `not-finite` */
export function checkLimits({ lower, upper }: Limits): void {
  if (lower === null && upper === null)
    throw new CoreError(
      { code: 'missing', name: 'A limit', why: 'there is nothing to judge against' },
      'upper',
    );
  if (lower !== null) requireFinite('The lower limit', lower, 'lower');
  if (upper !== null) requireFinite('The upper limit', upper, 'upper');
  if (lower !== null && upper !== null && lower >= upper)
    throw new CoreError({ code: 'reversed-limits', name: 'The tolerance', lower, upper }, 'upper');
}

/**
 * Test accuracy ratio: tolerance of the instrument over the accuracy of the standard, in one unit. At least 4 is
 * common practice.
 * @throws CoreError `not-positive`
 * @example testAccuracyRatio(0.25, 0.05) // 5
 */
export function testAccuracyRatio(tolerance: number, standardAccuracy: number): number {
  requirePositive('The tolerance', tolerance, 'tolerance');
  requirePositive('The accuracy of the standard', standardAccuracy, 'standardAccuracy');
  return tolerance / standardAccuracy;
}

/**
 * Test uncertainty ratio: (upper - lower) / (2 U) with the expanded uncertainty at 95 % (ANSI/NCSL Z540.3, from memory).
 * @throws CoreError `missing` where a limit is one-sided, `reversed-limits`, `not-positive`
 * @example testUncertaintyRatio({ lower: -0.02, upper: 0.06 }, 0.008) // 5
 */
export function testUncertaintyRatio(limits: Limits, expandedUncertainty: number): number {
  checkLimits(limits);
  requirePositive('The expanded uncertainty', expandedUncertainty, 'expandedUncertainty');
  if (limits.lower === null || limits.upper === null)
    throw new CoreError(
      {
        code: 'missing',
        name: 'The other limit',
        why: 'the uncertainty ratio compares a two-sided tolerance',
      },
      limits.lower === null ? 'lower' : 'upper',
    );
  return (limits.upper - limits.lower) / (2 * expandedUncertainty);
}

/**
 * Guard band multiplier of method 6 for a false accept risk of 2 %: 1.04 - exp(0.38 ln TUR - 0.54), and no band where
 * it is negative, above a ratio of about 4.6 (handbook to ANSI/NCSL Z540.3, from memory).
 * @returns M of the guard band M U
 * @example methodSixMultiplier(2) // 0.28
 */
export function methodSixMultiplier(uncertaintyRatio: number): number {
  requireNotNegative('The uncertainty ratio', uncertaintyRatio, 'uncertaintyRatio');
  return Math.max(0, 1.04 - Math.exp(0.38 * Math.log(uncertaintyRatio) - 0.54));
}
