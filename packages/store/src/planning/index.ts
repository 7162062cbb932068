/** Planning: what is to be done when, by whom, in which walk and with which references. */
export { fixPlanned, keepPlan, type Put, putPlanned, putSchema, takeOutOfPlan } from './change';
export { askPlan, askPlanSchema, lastMaking, type MakePlan, type Making, stopPlan, workPlan } from './making';
export { type Candidate, daysFrom, planGround, type PlanGround, type Planned, withFixed } from './problem';
export {
  absencesIn,
  type Away,
  planSite,
  type PlanSite,
  type Shutdown,
  shutdownsIn,
  type Worker,
} from './site';
export { loadWeek, type NotPlaced, type Week, type WhyNot } from './week';
