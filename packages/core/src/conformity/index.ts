export {
  workAcceptanceForRisk,
  workAcceptanceForSpecificRisk,
  workGlobalRisk,
  workPosterior,
  workPrior,
} from './risk-working';
export {
  workGuardBand,
  workMethodSix,
  workSpecificRisk,
  workTestAccuracyRatio,
  workUncertaintyRatio,
} from './working';
export {
  acceptanceByMethodSix,
  acceptanceWithGuardBand,
  isInside,
  statementOf,
  type Acceptance,
  type Statement,
} from './guard';
export { methodSixMultiplier, testAccuracyRatio, testUncertaintyRatio, type Limits } from './ratio';
export {
  acceptanceForRisk,
  acceptanceForSpecificRisk,
  globalRisk,
  posterior,
  priorFromReliability,
  specificRisk,
  type AcceptanceForRisk,
  type GlobalRisk,
  type Normal,
} from './risk';
