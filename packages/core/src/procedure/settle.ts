/** When a reading has settled. */
import { requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';

export interface SettleRule {
  /** Seconds to wait after a step before anything is looked at. */
  readonly waitS: number;
  /** Seconds over which the reading has to stand still. */
  readonly holdS: number;
  /** Full width inside which it counts as standing still, in the unit of the reading. */
  readonly band: number;
}

/**
 * The wait that a damping asks for: a first-order response is within a share of its step after tau ln(1 / share).
 * @param dampingS time constant tau, the damping that is set
 * @param sharePercent what may be left of the step, per cent of it
 * @returns seconds
 * @throws CoreError `negative`, `out-of-bounds`
 * @example waitForDamping(2, 0.1) // 13.8
 */
export function waitForDamping(dampingS: number, sharePercent: number): number {
  requireNotNegative('The damping', dampingS, 'dampingS');
  requireBetween('What may be left of the step', sharePercent, [0.0001, 100, '%'], 'sharePercent');
  return dampingS * Math.log(100 / sharePercent);
}

export interface Sample {
  /** Seconds since the step. */
  readonly s: number;
  readonly value: number;
}

/**
 * Whether the last samples have settled: the wait is over, they cover the hold time, and none leaves the band.
 * @param samples in order of time
 * @throws CoreError `not-positive`, `negative`, `not-finite`
 */
export function isSettled(samples: readonly Sample[], rule: SettleRule): boolean {
  requireNotNegative('The wait', rule.waitS, 'waitS');
  requirePositive('The hold time', rule.holdS, 'holdS');
  requirePositive('The stability band', rule.band, 'band');
  const last = samples.at(-1);
  const from = last === undefined ? Infinity : last.s - rule.holdS;
  if (from < rule.waitS) return false;
  const held = samples.filter(({ s }) => s >= from).map(({ value }) => value);
  held.forEach((value) => requireFinite('A sample', value, 'samples'));
  const isCovered = samples.some(({ s }) => s <= from);
  return isCovered && held.length > 1 && Math.max(...held) - Math.min(...held) <= rule.band;
}
