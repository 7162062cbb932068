/** Plans of calibrations: the problem, when each job begins, whether a plan can be done, and what it is worth. */
export { type Clash, clashesOf } from './check';
export { firstCome, placeInOrder, referencesFor } from './first-come';
export {
  MOST_DAYS,
  MOST_JOBS,
  type Placed,
  type PlanJob,
  type PlanPerson,
  type PlanProblem,
  type PlanReference,
} from './problem';
export { type Assigned, startsOf, timed, walkOrder, wayMinutes } from './timeline';
export { isFor, type PlanUnit, unitsOf, WAY_COST, worthOn } from './units';
export { planWorth } from './worth';
export { type Way, waysOut } from './ways';
