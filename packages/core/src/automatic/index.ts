/** The automatic run: what it has to do, what it sees, what it does, and what it is told. */
export {
  OVERSHOOT_PERCENT,
  PATIENCE_S,
  STALE_S,
  USUAL_APPROACH,
  type Plan,
  type PlannedStop,
  type Seen,
  type Value,
} from './plan';
export {
  advance,
  begin,
  PHASES,
  type Act,
  type AutoState,
  type Phase,
  type Step,
  type Taken,
  type Why,
} from './advance';
export { obey, ORDERS, type Order } from './orders';
