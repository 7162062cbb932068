/**
 * What the valves of a hook-up do. Each space is at line pressure or has none; spaces that open valves join are alike.
 * Where the process is among them it sets the pressure, where only the atmosphere is they are empty, and a space shut off
 * from both keeps what it had: that is trapped pressure.
 */
import { CoreError } from '../errors';
import {
  HOOK_UPS,
  type Arrangement,
  type HookUp,
  type Space,
  type Valve,
  type ValveId,
  type ValveMove,
  type ValvePosition,
} from './arrangement';

export interface HookUpState {
  readonly valves: Readonly<Partial<Record<ValveId, ValvePosition>>>;
  /** Spaces at line pressure. */
  readonly pressurised: ReadonlySet<Space>;
  /** Whether the fill of a wet leg has been let go. */
  readonly isLegLost: boolean;
}

/** What is wrong with a state. */
export type HookUpFault =
  /** An open vent has the process behind it. */
  | 'process-open'
  /** The body has the line pressure on one side and none on the other. */
  | 'one-sided'
  /** Both process lines meet through the manifold. */
  | 'through-flow'
  /** A filled leg is open to the other side or to a vent. */
  | 'leg-open';

/** What keeps an instrument from being isolated, or from being in service. */
export type HookUpLack =
  | { readonly kind: 'valve'; readonly valve: ValveId; readonly to: ValvePosition }
  | { readonly kind: 'trapped'; readonly side: 'high' | 'low' | 'middle' };

export type HookUpGoal = 'isolated' | 'in-service';

const spacesOf = ({ valves }: HookUp): Set<Space> => new Set(valves.flatMap(({ joins }) => joins));

const isProcess = (space: Space): boolean => space === 'process-high' || space === 'process-low';

/** Groups of spaces that open valves join. */
function joined(hookUp: HookUp, valves: HookUpState['valves']): Set<Space>[] {
  let groups = [...spacesOf(hookUp)].map((space) => new Set([space]));
  for (const { id, joins } of hookUp.valves) {
    if (valves[id] !== 'open') continue;
    const [meeting, apart] = [
      groups.filter((group) => joins.some((space) => group.has(space))),
      groups.filter((group) => !joins.some((space) => group.has(space))),
    ];
    groups = [...apart, new Set(meeting.flatMap((group) => [...group]))];
  }
  return groups;
}

/** The valve positions from which a return begins, and those of an instrument in service. */
const endOf = (moves: readonly ValveMove[]): HookUpState['valves'] =>
  Object.fromEntries(moves.map(({ valve, to }) => [valve, to]));

/** An instrument in service: open to its process, nothing else. */
export function inService(arrangement: Arrangement): HookUpState {
  const hookUp = HOOK_UPS[arrangement];
  return {
    valves: Object.fromEntries(
      hookUp.valves.map(({ id, role }): [ValveId, ValvePosition] => [
        id,
        role === 'block' ? 'open' : 'closed',
      ]),
    ),
    pressurised: new Set(
      [...spacesOf(hookUp)].filter((space) => space !== 'atmosphere' && space !== 'middle'),
    ),
    isLegLost: false,
  };
}

/**
 * The state after a valve was moved, and what is wrong with it now that was not wrong before.
 * @throws CoreError `missing` for a valve that the arrangement does not have
 */
export function moveValve(
  arrangement: Arrangement,
  state: HookUpState,
  move: ValveMove,
): { readonly state: HookUpState; readonly faults: readonly HookUpFault[] } {
  const hookUp = HOOK_UPS[arrangement];
  valveOf(hookUp, move.valve);
  const valves = { ...state.valves, [move.valve]: move.to };
  const groups = joined(hookUp, valves);
  const pressurised = new Set<Space>();
  for (const group of groups) {
    const spaces = [...group];
    const hasProcess = spaces.some(isProcess);
    const isEmptied = !hasProcess && group.has('atmosphere');
    if (hasProcess || (!isEmptied && spaces.some((space) => state.pressurised.has(space))))
      for (const space of spaces) if (space !== 'atmosphere') pressurised.add(space);
  }
  const before = faultsOf(hookUp, joined(hookUp, state.valves), state.pressurised);
  const after = faultsOf(hookUp, groups, pressurised);
  return {
    state: { valves, pressurised, isLegLost: state.isLegLost || after.has('leg-open') },
    faults: [...after].filter((fault) => !before.has(fault)),
  };
}

function faultsOf(
  hookUp: HookUp,
  groups: readonly ReadonlySet<Space>[],
  pressurised: ReadonlySet<Space>,
): Set<HookUpFault> {
  const faults = new Set<HookUpFault>();
  const together = (...spaces: Space[]) => groups.some((group) => spaces.every((space) => group.has(space)));
  if (together('process-high', 'atmosphere') || together('process-low', 'atmosphere'))
    faults.add('process-open');
  if (together('process-high', 'process-low')) faults.add('through-flow');
  if (hookUp.hasWetLeg && (together('process-low', 'high') || together('process-low', 'atmosphere')))
    faults.add('leg-open');
  if (!hookUp.toleratesOneSide && pressurised.has('high') !== pressurised.has('low')) faults.add('one-sided');
  return faults;
}

/** Faults that a state has. */
export function faultsIn(arrangement: Arrangement, state: HookUpState): readonly HookUpFault[] {
  const hookUp = HOOK_UPS[arrangement];
  return [...faultsOf(hookUp, joined(hookUp, state.valves), state.pressurised)];
}

/**
 * The state after several moves from where they began.
 * @throws CoreError `missing`
 */
export function afterMoves(
  arrangement: Arrangement,
  start: HookUpState,
  moves: readonly ValveMove[],
): HookUpState {
  return moves.reduce((state, move) => moveValve(arrangement, state, move).state, start);
}

/** What is still to be done before an instrument is isolated or in service; nothing when it is. */
export function lacksOf(
  arrangement: Arrangement,
  state: HookUpState,
  goal: HookUpGoal,
): readonly HookUpLack[] {
  const hookUp = HOOK_UPS[arrangement];
  const wanted = goal === 'isolated' ? endOf(hookUp.isolate) : inService(arrangement).valves;
  const lacks: HookUpLack[] = hookUp.valves.flatMap(({ id }) => {
    const to = wanted[id];
    return to === undefined || state.valves[id] === to ? [] : [{ kind: 'valve' as const, valve: id, to }];
  });
  if (goal === 'isolated')
    for (const side of ['high', 'low', 'middle'] as const)
      if (state.pressurised.has(side)) lacks.push({ kind: 'trapped', side });
  return lacks;
}

/** @throws CoreError `missing` */
export function valveOf(hookUp: HookUp, id: ValveId): Valve {
  const found = hookUp.valves.find((valve) => valve.id === id);
  if (found === undefined)
    throw new CoreError(
      {
        code: 'missing',
        name: `The valve ${id}`,
        why: `this hook-up has ${hookUp.valves.map((valve) => valve.id).join(', ')}`,
      },
      'valve',
    );
  return found;
}
