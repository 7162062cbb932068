export { workFigures } from './figures-working';
export { workAcceptedOutput, workAccuracyRatio, workErrorTerms, workReading } from './working';
export {
  evaluateRun,
  judgeReading,
  verdictOfRun,
  type JudgedReading,
  type Missing,
  type RunEvaluation,
  type RunReading,
  type ZeroAndSpan,
} from './evaluate';
export { errorUncertainty, type ErrorSources } from './error-uncertainty';
export { workErrorUncertainty } from './error-uncertainty-working';
export {
  acceptedOutput,
  accuracyRatio,
  accuracyRatioAt,
  errorTerms,
  usualPoints,
  type Accuracy,
  type ErrorTerms,
  type RatioAt,
} from './limits';
export { independentDeviation, type Linearity } from './linearity';
export type { PointMeans } from './points';
export {
  between,
  checkReferenceErrors,
  pointsAround,
  referenceErrorAt,
  withoutReferenceError,
  type ReferenceErrorPoint,
} from './reference-error';
export { slipsOf, type Slip, type SlipContext, type TypedBefore } from './slip';
export { checkTolerance, limitAt, spanTolerance, type Tolerance, type ToleranceTerm } from './tolerance';
export {
  guardBand,
  SIMPLE_ACCEPTANCE,
  VERDICTS,
  worstVerdict,
  type DecisionRule,
  type Verdict,
} from './verdict';
