export {
  ACTS,
  actsOf,
  hasScrews,
  TECHNOLOGIES,
  TRIMS,
  isZeroTrimmed,
  trimsOf,
  type Act,
  type AdjustableBody,
  type Technology,
  type Trim,
} from './acts';
export { bestByZero, bestByZeroAndSpan } from './bound';
export {
  adviseOn,
  FURTHER_THAN_DRIFT,
  SCHOOLS,
  worstOf,
  type ActOutlook,
  type Advice,
  type AdviceRequest,
  type Incurable,
  type Outlook,
  type ReadingWithDigital,
  type School,
  type Stages,
  type Suffices,
} from './advice';
export { portraitOf, type Estimate, type Portrait, type Scatter } from './portrait';
export { predict, type LoopTest, type Predicted, type TrimPoint } from './predict';
export {
  isDeviation,
  keptDeviation,
  NULL_UNITS,
  outputOfDeviation,
  parseOutput,
  type NullAt,
  type NullUnit,
} from './null-meter';
export {
  adviseScrews,
  movesLeft,
  plainAlternation,
  turnsFor,
  type Coupling,
  type Ends,
  type NextSetting,
  type Screw,
  type ScrewAdvice,
  type ScrewMove,
  type ScrewSituation,
  type TurnEffects,
} from './screws';
export {
  guardsAt,
  guardsOf,
  isAtAtmosphere,
  type Circumstances,
  type Guard,
  type GuardCode,
  type GuardedAct,
  type GuardedJob,
} from './guards';
export { sequenceOf, WAIT_BEFORE_TAKEN_S, type SequenceStep } from './sequence';
export { actWords, doWords, headline, incurableWords, portraitWords, remarkOf } from './words';
export { workAdvice, workNextSetting, workOutlook } from './working';
