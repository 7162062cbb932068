/** Acceptance limits inside the tolerance, and decisions on them. A value on a limit is inside; decided in decimals. */
import { requireFinite, requireNotNegative, requirePositive } from '../errors';
import { exact, toNumber } from '../exact';
import { checkLimits, methodSixMultiplier, testUncertaintyRatio, type Limits } from './ratio';

export interface Acceptance extends Limits {
  /** Width of the guard band w, from the tolerance inwards. */
  readonly guardBand: number;
}

/**
 * Acceptance limits with the guard band w = r U (ILAC-G8:09/2019, from memory). With w over half the tolerance the
 * limits cross, and nothing can be accepted.
 * @param r 0 for simple acceptance, 1 for w = U
 * @throws CoreError `missing`, `reversed-limits`, `negative`, `not-finite`
 */
export function acceptanceWithGuardBand(limits: Limits, expandedUncertainty: number, r: number): Acceptance {
  checkLimits(limits);
  requireNotNegative('The expanded uncertainty', expandedUncertainty, 'expandedUncertainty');
  requireNotNegative('The guard band factor r', r, 'r');
  return inside(limits, exact(expandedUncertainty).mul(exact(r)));
}

function inside({ lower, upper }: Limits, width: ReturnType<typeof exact>): Acceptance {
  return {
    guardBand: toNumber(width),
    lower: lower === null ? null : toNumber(exact(lower).add(width)),
    upper: upper === null ? null : toNumber(exact(upper).sub(width)),
  };
}

/**
 * Acceptance limits of method 6, tolerance less M U.
 * @throws CoreError as `testUncertaintyRatio`
 */
export function acceptanceByMethodSix(
  limits: Limits,
  expandedUncertainty: number,
): Acceptance & { readonly multiplier: number } {
  const multiplier = methodSixMultiplier(testUncertaintyRatio(limits, expandedUncertainty));
  return { ...inside(limits, exact(multiplier * expandedUncertainty)), multiplier };
}

/** Whether a value lies inside limits, both ends taken. */
export function isInside({ lower, upper }: Limits, measured: number): boolean {
  requireFinite('The measured value', measured, 'measured');
  const value = exact(measured);
  return (
    (lower === null || value.compare(exact(lower)) >= 0) &&
    (upper === null || value.compare(exact(upper)) <= 0)
  );
}

export type Statement = 'pass' | 'conditional pass' | 'conditional fail' | 'fail';

/**
 * The non-binary statement of ILAC-G8:09/2019 (from memory) with guard band w = U. A value exactly w beyond the
 * tolerance is still a conditional fail; the guide does not fix that end.
 * @throws CoreError `missing`, `reversed-limits`, `not-positive`, `not-finite`
 */
export function statementOf(limits: Limits, expandedUncertainty: number, measured: number): Statement {
  requirePositive('The expanded uncertainty', expandedUncertainty, 'expandedUncertainty');
  const width = exact(expandedUncertainty);
  checkLimits(limits);
  if (isInside(limits, measured))
    return isInside(inside(limits, width), measured) ? 'pass' : 'conditional pass';
  return isInside(inside(limits, width.neg()), measured) ? 'conditional fail' : 'fail';
}
