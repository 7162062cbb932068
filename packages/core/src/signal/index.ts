export {
  appliedAtOutputPercent,
  appliedAtPercent,
  appliedForOutput,
  checkRange,
  displayedValue,
  exactAppliedForOutput,
  exactExpectedOutput,
  exactInputShare,
  exactOutputOf,
  expectedOutput,
  inputSpan,
  outputAtPercent,
  outputSensitivity,
  outputSpan,
  transferOf,
  type DisplayScale,
  type SignalRange,
} from './range';
export {
  NAMUR_LIMITS,
  saturatedCurrent,
  signalRegion,
  type SignalLimits,
  type SignalRegion,
} from './regions';
export { SIGNALS, unitsOfSignal, type SignalName } from './signals';
export { expectedTable, type ExpectedRow } from './table';
export {
  expectedSteps,
  shareFormula,
  workApplied,
  workDisplayed,
  workExpected,
  workSensitivity,
  type RangeUnits,
} from './working';
export { inverseShare, LINEAR, share, type TablePoint, type Transfer } from './transfer';
