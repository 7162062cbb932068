/** What calibrations came to, kept for history, intervals and insight. */
export { adjustmentsOf, type AdjustmentMark, historyOf } from './history';
export { rangeKeyOf, type ResultKind } from './figures';
export {
  followedPoints,
  followedSpan,
  followedZero,
  isOut,
  type KeptRun,
  presentVisits,
  resultsOf,
  type Visit,
  visitsOf,
} from './visits';
