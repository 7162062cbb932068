export { workGuardBand, workMethodSix, workSpecificRisk, workUncertaintyRatio } from './working';
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
