/**
 * A pneumatic force balance: the moment of the capsule, A p a, is held by that of the feedback bellows, B y b, and of the zero
 * spring. The range wheel moves b, so that gain and zero change together; the nozzle has a finite gain, so that the output
 * droops with the air supply and never quite balances; friction is a band, and a burr on the wheel is a step of b at one angle.
 * Shares of span throughout; common practice, from memory; sizes are inventions.
 */
import { dragged, lagged } from '../lag';

export interface ForceBalance {
  /** Change of b for a turn of the range wheel, and of the spring for a turn of the zero screw, share of span. */
  readonly wheelPerTurn: number;
  readonly zeroPerTurn: number;
  /** Where the spring pulls, so that a move of the wheel moves zero too: share of span at zero. */
  readonly springAtZero: number;
  /** Open-loop gain of nozzle and relay at the usual supply. */
  readonly nozzleGain: number;
  readonly friction: number;
  readonly settlingS: number;
  /** The wheel jumps here: angle in turns, and by how much b jumps; null where it is clean. */
  readonly burr: { readonly atTurns: number; readonly jump: number } | null;
  /** Output at 0 and at 100 %, and least and greatest, such as 3 and 15 psi. */
  readonly low: number;
  readonly high: number;
}

export interface ForceBalanceState {
  readonly wheel: number;
  readonly zeroScrew: number;
  readonly force: number;
  readonly output: number;
}

export const forceBalanceAtRest = (): ForceBalanceState => ({ wheel: 0, zeroScrew: 0, force: 0, output: 0 });

export const turnWheel = (
  state: ForceBalanceState,
  { wheel = 0, zero = 0 }: { readonly wheel?: number; readonly zero?: number },
): ForceBalanceState => ({ ...state, wheel: state.wheel + wheel, zeroScrew: state.zeroScrew + zero });

/** The arm of the feedback, 1 as it came. */
export function armOf({ wheelPerTurn, burr }: ForceBalance, { wheel }: ForceBalanceState): number {
  const jump = burr !== null && wheel >= burr.atTurns ? burr.jump : 0;
  return 1 + wheelPerTurn * wheel + jump;
}

/**
 * The balance after a time.
 * @param x share of the input span that is applied
 * @param supply over the usual one: the gain of the nozzle goes with it, and the output ends at it
 */
export function stepForceBalance(
  balance: ForceBalance,
  state: ForceBalanceState,
  { x, stepS, supply = 1 }: { readonly x: number; readonly stepS: number; readonly supply?: number },
): ForceBalanceState {
  const force = dragged(state.force, x, balance.friction);
  const arm = armOf(balance, state);
  const spring = balance.springAtZero + balance.zeroPerTurn * state.zeroScrew;
  // Force plus spring, over the arm with what the nozzle has to be off its seat for: y = K (f + s - arm y).
  const gain = balance.nozzleGain * supply;
  const moment = force + spring;
  const y = (gain * moment) / (1 + gain * arm) - balance.springAtZero;
  return {
    ...state,
    force,
    output: lagged(state.output, Math.min(supply * 1.2, y), balance.settlingS, stepS),
  };
}

/** In the unit of the output. */
export const signalOf = ({ low, high }: ForceBalance, { output }: ForceBalanceState): number =>
  Math.max(0, low + output * (high - low));
