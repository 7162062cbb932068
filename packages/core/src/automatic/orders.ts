/** What a person tells an automatic run. */
import { begin, type Act, type AutoState } from './advance';
import type { Plan } from './plan';

export const ORDERS = ['hold', 'go on', 'one point', 'repeat', 'vent', 'take'] as const;
export type Order = (typeof ORDERS)[number];

/**
 * The run as it was told, and what to do at once.
 * @param order `go on` from where it stands, `one point` and then wait, `repeat` the last point that was read, `take`
 *   the point in hand as soon as it stands, where a person works the pressure
 * @param s now
 * @param lastPosition of the point that was read last by itself; null where there is none
 */
export function obey(
  plan: Plan,
  state: AutoState,
  order: Order,
  s: number,
  lastPosition: number | null,
): { readonly state: AutoState; readonly act: Act | null } {
  switch (order) {
    case 'hold':
    case 'vent': {
      if (state.phase === 'finished') return { state, act: null };
      const words = order === 'vent' ? 'Vented by hand.' : 'Held by hand.';
      return {
        state: { ...state, phase: 'held', held: { why: 'by hand', words } },
        act: plan.isByHand ? null : { kind: order },
      };
    }
    case 'go on':
    case 'one point': {
      if (state.phase !== 'held')
        return { state: { ...state, isStepping: order === 'one point' }, act: null };
      // The point is come to again: what happened meanwhile nobody has seen.
      return { state: begin(state.index, s, order === 'one point'), act: null };
    }
    case 'take':
      return { state: plan.isByHand ? { ...state, isWanted: true } : state, act: null };
    case 'repeat': {
      const last = plan.stops.findIndex(({ position }) => position === lastPosition);
      return { state: begin(last === -1 ? state.index : last, s, state.isStepping), act: null };
    }
  }
}
