export {
  acceptedOutput,
  accuracyRatio,
  evaluateRun,
  type JudgedReading,
  type RunEvaluation,
  type RunReading,
} from './evaluate';
export {
  checkTolerance,
  judgeReading,
  VERDICTS,
  worstVerdict,
  type Tolerance,
  type Verdict,
} from './verdict';
