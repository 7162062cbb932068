/** Degrees of freedom, which are often whole numbers that rounding has moved a hair. */
import { requireAtLeast } from '../errors';

/** Far above what a few roundings can do, far below any difference that matters. */
const NOISE_REL = 1e-9;

/**
 * A whole number where one is meant: 5.999999999999998 is 6. Anything else is given back as it is.
 * @example wholeWithinNoise(1 / (2 * 0.1 ** 2)) // 50, though binary arithmetic gives 49.99999999999999
 */
export function wholeWithinNoise(degreesOfFreedom: number): number {
  const whole = Math.round(degreesOfFreedom);
  return Math.abs(degreesOfFreedom - whole) <= NOISE_REL * whole ? whole : degreesOfFreedom;
}

/**
 * Refuses less than one degree of freedom: Student's t would have no bound that means anything.
 * @throws CoreError `too-small`, `not-finite`
 */
export function requireDegreesOfFreedom(of: string, degreesOfFreedom: number, field: string): void {
  requireAtLeast(`The degrees of freedom of ${of}`, degreesOfFreedom, [1, ''], field);
}
