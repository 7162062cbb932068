/** Planning: what is to be done when, by whom, in which walk and with which references. */
export { fixPlanned, keepPlan, type Put, putPlanned, putSchema, takeOutOfPlan } from './change';
export { askPlan, askPlanSchema, lastMaking, type MakePlan, type Making, stopPlan, workPlan } from './making';
export { type DayCount, dueByDay, type DueOn, dueOn, type DueStanding, dueStanding, dueWithin } from './due';
export { type Candidate, daysFrom, planGround, type PlanGround, type Planned, withFixed } from './problem';
export {
  absenceSchema,
  addAbsence,
  addShutdown,
  planSiteSchema,
  removeAbsence,
  removeShutdown,
  setHours,
  setPlanSite,
  shutdownSchema,
} from './settings';
export {
  absencesIn,
  type Away,
  planSite,
  type PlanSite,
  type Shutdown,
  shutdownsIn,
  type Worker,
  workersOn,
} from './site';
export {
  loadWeek,
  type NotPlaced,
  type OnTheWay,
  plannedWalks,
  waysOf,
  type Week,
  type WhyNot,
} from './week';
