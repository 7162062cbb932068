export {
  ARRANGEMENTS,
  HOOK_UPS,
  type Arrangement,
  type HookUp,
  type Space,
  type Valve,
  type ValveId,
  type ValveMove,
  type ValvePosition,
} from './arrangement';
export {
  afterMoves,
  faultsIn,
  inService,
  lacksOf,
  moveValve,
  valveOf,
  type HookUpFault,
  type HookUpGoal,
  type HookUpLack,
  type HookUpState,
} from './state';
export { faultInWords, lackInWords, moveInWords } from './words';
export { wayTo } from './way';
