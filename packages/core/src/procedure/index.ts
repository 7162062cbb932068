export {
  evenPoints,
  plannedPoints,
  upAndDown,
  type Direction,
  type PlannedPoint,
  type Points,
  type Procedure,
  type TestPoint,
} from './points';
export { isSettled, waitForDamping, type Sample, type SettleRule } from './settle';
export { workWait } from './working';
