/** How long an instrument may go until it is calibrated again. */
export {
  type AdviceKind,
  type AdviceReason,
  adviseInterval,
  type IntervalAdvice,
  type IntervalCase,
  type IntervalCost,
} from './advice';
export {
  type AtInterval,
  exponentialAt,
  type ExponentialFit,
  intervalFor,
  mostLikelyRate,
  outsidePart,
  reliabilityAt,
} from './exponential';
export {
  chanceOfShort,
  countOf,
  type Family,
  type FamilyFigures,
  familyOf,
  intervalShown,
  LEAST_OF_FAMILY,
} from './family';
export {
  type DriftFigures,
  type FollowedPoint,
  LEAST_OF_DRIFT,
  type PointDrift,
  pointDrifts,
} from './followed';
export { type Counted, probabilityOfSoMany, type ReliabilityBounds, reliabilityBounds } from './reliability';
export {
  balancedDecrease,
  type FactorRule,
  intervalsByFactor,
  intervalsByStaircase,
  type Staircase,
  type StaircaseResult,
  staircaseResult,
} from './rules';
export { INTERVALS, stepRule, usualInterval } from './usual';
export { workDrift, workFamily } from './working';
