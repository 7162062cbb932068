/**
 * A wet leg with its pot: what stands in it drains when the equaliser is opened with pressure on, and comes back by condensation
 * in an hour, or at once when it is filled by hand. The transmitter sees the head of what is there. Hydrostatics; times are
 * common practice, from memory.
 */
import { lagged } from '../lag';

export interface WetLeg {
  /** Height of the full leg, m, and density of its fill, kg/m³. */
  readonly heightM: number;
  readonly fillKgPerM3: number;
  readonly drainS: number;
  readonly condenseS: number;
}

/** Share of the height that is full. */
export type Filled = number;

/** After a time: it drains where the equaliser is open under pressure, and fills where there is steam to condense. */
export const legAfter = (
  { drainS, condenseS }: WetLeg,
  filled: Filled,
  {
    isEqualised,
    isSteaming,
    stepS,
  }: { readonly isEqualised: boolean; readonly isSteaming: boolean; readonly stepS: number },
): Filled =>
  isEqualised ? lagged(filled, 0, drainS, stepS) : isSteaming ? lagged(filled, 1, condenseS, stepS) : filled;

/** Pressure of the leg on the low side, Pa. */
export const legHead = ({ heightM, fillKgPerM3 }: WetLeg, filled: Filled, gravity = 9.80665): number =>
  filled * heightM * fillKgPerM3 * gravity;
