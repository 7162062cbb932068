/**
 * The way from any state of a hook-up to being isolated, or in service, by moves that its own model does not call wrong.
 * There are a few hundred states at most, so all ways are searched; of several as short the usual order leads.
 */
import { HOOK_UPS, type Arrangement, type ValveMove } from './arrangement';
import { faultsIn, lacksOf, moveValve, type HookUpGoal, type HookUpState } from './state';

const keyOf = ({ valves, pressurised, isLegLost }: HookUpState): string =>
  `${Object.entries(valves)
    .map(([id, position]) => `${id}=${position}`)
    .sort()
    .join()} ${[...pressurised].sort().join()} ${isLegLost}`;

/** All moves, those of the usual order first. */
function movesOf(arrangement: Arrangement, goal: HookUpGoal): readonly ValveMove[] {
  const { isolate, restore, valves } = HOOK_UPS[arrangement];
  const usual = goal === 'isolated' ? isolate : restore;
  const all = valves.flatMap(({ id }) =>
    (['open', 'closed'] as const).map((to): ValveMove => ({ valve: id, to })),
  );
  const isUsual = (move: ValveMove) => usual.some(({ valve, to }) => valve === move.valve && to === move.to);
  return [...usual, ...all.filter((move) => !isUsual(move))];
}

/** The shortest way to a state that is wanted, over moves without a new fault; null where there is none. */
function shortest(
  arrangement: Arrangement,
  from: HookUpState,
  moves: readonly ValveMove[],
  isWanted: (state: HookUpState) => boolean,
): readonly ValveMove[] | null {
  const seen = new Set([keyOf(from)]);
  let reached: { state: HookUpState; way: readonly ValveMove[] }[] = [{ state: from, way: [] }];
  while (reached.length > 0) {
    const found = reached.find(({ state }) => isWanted(state));
    if (found !== undefined) return found.way;
    reached = reached.flatMap(({ state, way }) =>
      moves.flatMap((move) => {
        if (state.valves[move.valve] === move.to) return [];
        const moved = moveValve(arrangement, state, move);
        const key = keyOf(moved.state);
        if (moved.faults.length > 0 || seen.has(key)) return [];
        seen.add(key);
        return [{ state: moved.state, way: [...way, move] }];
      }),
    );
  }
  return null;
}

/**
 * The moves still to be made, in their order: first out of what is wrong now, then to the goal.
 * @returns empty when the goal is reached; null where no way is without a fault
 */
export function wayTo(
  arrangement: Arrangement,
  state: HookUpState,
  goal: HookUpGoal,
): readonly ValveMove[] | null {
  const moves = movesOf(arrangement, goal);
  const isGood = (at: HookUpState) => faultsIn(arrangement, at).length === 0;
  const isThere = (at: HookUpState) => isGood(at) && lacksOf(arrangement, at, goal).length === 0;
  const onwards = (at: HookUpState) => shortest(arrangement, at, moves, isThere);
  if (isGood(state)) return onwards(state);
  const out = shortest(arrangement, state, moves, (at) => isGood(at) && onwards(at) !== null);
  if (out === null) return null;
  const mended = out.reduce((at, move) => moveValve(arrangement, at, move).state, state);
  return [...out, ...(onwards(mended) ?? [])];
}
