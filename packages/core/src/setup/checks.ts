/** Checks that belong to the set-up of a transmitter. */
import { requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';
import { toNumber } from '../exact';
import { NAMUR_LIMITS } from '../signal';
import { STANDARD_GRAVITY } from '../units';

export type RestVerdict = 'shows' | 'at saturation' | 'failure';

/**
 * Whether an output at rest says anything: at the low saturation, or below, all lower pressures read the same, so that zero
 * cannot be judged there. NAMUR NE 43 (from memory) where an instrument's own limits are not known.
 * @param outputMilliamp what stands at the output with nothing applied
 * @param resolutionMilliamp of the meter: what is this near to the saturation cannot be told from it
 * @example outputAtRest(3.8, 0.001) // 'at saturation'
 */
export function outputAtRest(
  outputMilliamp: number,
  resolutionMilliamp: number,
  { saturationLow, saturationHigh, failureLow, failureHigh } = NAMUR_LIMITS,
): RestVerdict {
  requireFinite('The output at rest', outputMilliamp, 'outputMilliamp');
  requireNotNegative('The resolution', resolutionMilliamp, 'resolutionMilliamp');
  if (outputMilliamp <= failureLow || outputMilliamp >= failureHigh) return 'failure';
  // A hair of rounding does not tell two currents apart.
  const reach = resolutionMilliamp * (1 + 1e-9) + 1e-12;
  return outputMilliamp <= saturationLow + reach || outputMilliamp >= saturationHigh - reach
    ? 'at saturation'
    : 'shows';
}

/**
 * What a tilted body reads with nothing applied: the fill between its diaphragms stands as a head,
 * p = rho g d sin(tilt). Common practice; zero is trimmed in the position that the body keeps.
 * @param fillDensity kg/m3
 * @param distanceM between the diaphragms, or from the diaphragm to the sensor
 * @param tiltDegrees from the position of the last zero trim, either way
 * @returns Pa
 * @example positionHead(1000, 0.05, 0) // 0
 */
export function positionHead(fillDensity: number, distanceM: number, tiltDegrees: number): number {
  requirePositive('The density of the fill', fillDensity, 'fillDensity');
  requireNotNegative('The distance of the diaphragms', distanceM, 'distanceM');
  requireBetween('The tilt', tiltDegrees, [-180, 180, '°'], 'tiltDegrees');
  return fillDensity * toNumber(STANDARD_GRAVITY) * distanceM * Math.sin((tiltDegrees / 180) * Math.PI);
}

/**
 * Terminal voltage where it is least: at the highest current, over the same resistance of the loop (Ohm's law).
 * @param voltage measured at the terminals, V
 * @param atMilliamp the current while it was measured
 * @param loopOhm all that lies in the loop besides the transmitter
 * @param highestMilliamp the failure current of the transmitter
 * @returns V
 * @example leastTerminalVoltage(18, 4, 250, 22) // 13.5
 */
export function leastTerminalVoltage(
  voltage: number,
  atMilliamp: number,
  loopOhm: number,
  highestMilliamp: number,
): number {
  requirePositive('The terminal voltage', voltage, 'voltage');
  requirePositive('The current', atMilliamp, 'atMilliamp');
  requireNotNegative('The resistance of the loop', loopOhm, 'loopOhm');
  requirePositive('The highest current', highestMilliamp, 'highestMilliamp');
  return voltage - ((highestMilliamp - atMilliamp) / 1000) * loopOhm;
}
