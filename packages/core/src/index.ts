export { CoreError, describeProblem, type Problem } from './errors';
export { upAndDown, type Direction, type TestPoint } from './procedure';
export {
  acceptedOutput,
  accuracyRatio,
  checkTolerance,
  evaluateRun,
  judgeReading,
  VERDICTS,
  worstVerdict,
  type JudgedReading,
  type RunEvaluation,
  type RunReading,
  type Tolerance,
  type Verdict,
} from './run';
export {
  appliedAtPercent,
  appliedForOutput,
  checkRange,
  expectedOutput,
  outputSpan,
  type LinearRange,
} from './signal';
export {
  decimalsForResolution,
  formatFixed,
  formatPlain,
  formatSigned,
  parseTyped,
  resolutionForSpan,
  typedDecimals,
  type TypedNumber,
} from './text';
export {
  convertCurrent,
  convertPressure,
  isPressureUnit,
  PRESSURE_UNITS,
  type CurrentUnit,
  type PressureUnit,
} from './units';
