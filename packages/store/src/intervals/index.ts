/** How often instruments are calibrated: what the site asks, what is advised, and what was decided. */
export { adviseOn, type Advised, anomaliesIn, followedVisits } from './advise';
export {
  adviseNow,
  askCalculation,
  calculate,
  type Calculation,
  lastCalculation,
  lastFinished,
  type NamedDifference,
  stopCalculation,
} from './calculation';
export { changeIntervalOf, type IntervalChange, intervalChangeSchema, intervalChangesOf } from './change';
export {
  countFamilies,
  Families,
  FAMILY_PARTS,
  type FamilyKey,
  type FamilyPart,
  type FamilySum,
  familySums,
  loadFamilies,
  type NamedFamily,
} from './families';
export {
  ADVICE_KINDS,
  ADVICE_PAGE,
  type AdviceLine,
  type AdviceQuery,
  adviceQuerySchema,
  countAdvice,
  listAdvice,
} from './list';
export { type IntervalPolicy, intervalPolicySchema, listPolicies, policyOf, setPolicy } from './policy';
