export { workBudget, workPooled, workSpecification, workStandardUncertainty } from './working';
export {
  coverageFactor,
  uncertaintyBudget,
  type Budget,
  type BudgetModel,
  type BudgetOptions,
  type Component,
} from './budget';
export type { Correlation } from './correlation';
export {
  pooledStandardDeviation,
  standardUncertainty,
  type Distribution,
  type Pooled,
  type StandardUncertainty,
  type UncertainInput,
} from './input';
export type { Interval } from './interval';
export {
  monteCarlo,
  runToEnd,
  type MonteCarloOptions,
  type MonteCarloResult,
  type Progress,
} from './monte-carlo';
export { roundResult, type RoundedResult } from './round';
export { specificationHalfWidth, type Specification } from './specification';
