export { dampedFlow, type DampedFlow, type NoisyFlow } from './damping';
export {
  betaOf,
  brokenLimits,
  coefficientUncertainty,
  dischargeCoefficient,
  expansibility,
  expansibilityUncertainty,
  flowUncertainty,
  leastReynolds,
  orificeBore,
  orificeDifferential,
  orificeFlow,
  reynoldsOf,
  TAPS,
  type BrokenLimit,
  type Fluid,
  type OrificeFlow,
  type OrificeUncertainties,
  type Plate,
  type Taps,
} from './orifice';
export {
  checkScale,
  densityFactor,
  differentialAt,
  flowAt,
  flowErrorAt,
  rangeability,
  uncompensatedPercent,
  type FlowError,
  type FlowScale,
  type GasState,
} from './root';
export {
  totalsOf,
  totalsOfDifferential,
  totaliserFactor,
  type DifferentialSample,
  type FlowSample,
  type Totals,
} from './total';
export { workDensity, workFlow, workFlowError, workOrifice } from './working';
