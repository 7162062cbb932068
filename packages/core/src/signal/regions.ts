/** Where a current signal lies: measured value, saturation, or failure. */
import { CoreError, requireFinite } from '../errors';

/** Limits in mA; NAMUR NE 43 (from memory) where an instrument's own values are not known. */
export interface SignalLimits {
  /** A current at or below this says failure. */
  readonly failureLow: number;
  /** The lowest current that still carries a measured value. */
  readonly saturationLow: number;
  readonly saturationHigh: number;
  /** A current at or above this says failure. */
  readonly failureHigh: number;
}

export const NAMUR_LIMITS: SignalLimits = {
  failureLow: 3.6,
  saturationLow: 3.8,
  saturationHigh: 20.5,
  failureHigh: 21,
};

export type SignalRegion =
  | 'failure-low'
  | 'undefined-low'
  | 'under-range'
  | 'normal'
  | 'over-range'
  | 'undefined-high'
  | 'failure-high';

/** @throws CoreError `reversed-limits`, `not-finite` */
export function checkSignalLimits(limits: SignalLimits): void {
  const rising = [limits.failureLow, limits.saturationLow, 4, 20, limits.saturationHigh, limits.failureHigh];
  rising.forEach((value) => requireFinite('A signal limit', value, 'limits'));
  rising.forEach((upper, index) => {
    const lower = rising[index - 1];
    if (lower !== undefined && lower > upper)
      throw new CoreError({ code: 'reversed-limits', name: 'The signal limits', lower, upper }, 'limits');
  });
}

/**
 * The region of a 4-20 mA signal. The bands between saturation and failure are not defined by NE 43 and are named so.
 * @example signalRegion(3.7) // 'undefined-low'
 */
export function signalRegion(currentMilliamp: number, limits: SignalLimits = NAMUR_LIMITS): SignalRegion {
  requireFinite('The current', currentMilliamp, 'current');
  checkSignalLimits(limits);
  if (currentMilliamp <= limits.failureLow) return 'failure-low';
  if (currentMilliamp < limits.saturationLow) return 'undefined-low';
  if (currentMilliamp < 4) return 'under-range';
  if (currentMilliamp <= 20) return 'normal';
  if (currentMilliamp <= limits.saturationHigh) return 'over-range';
  return currentMilliamp < limits.failureHigh ? 'undefined-high' : 'failure-high';
}

/**
 * What a transmitter really puts out for an ideal current: it stops at its saturation limits.
 * @returns mA
 * @example saturatedCurrent(20.8) // 20.5
 */
export function saturatedCurrent(idealMilliamp: number, limits: SignalLimits = NAMUR_LIMITS): number {
  requireFinite('The current', idealMilliamp, 'current');
  checkSignalLimits(limits);
  return Math.min(limits.saturationHigh, Math.max(limits.saturationLow, idealMilliamp));
}
