/** Whether a body can be set to a range, what holds it up, and what else would do. */
export {
  type BodyReach,
  type Candidate,
  greatestSpanOf,
  judgeRange,
  leastSpanOfStamp,
  rankBodies,
  type RangeBreach,
  type RangeJudgement,
  type SpanClass,
  spanOverlap,
} from './judge';
export { workRange } from './working';
