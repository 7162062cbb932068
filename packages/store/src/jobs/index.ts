/** A job from the brief to the closed record. */
export {
  type AdviceCopy,
  type KeptAdvice,
  MADE_OF_IT,
  type MadeOfIt,
  type Outcome,
  outcomesOf,
} from './advice';
export { type Adjustment, type AdvisedSetting, logAdjustment, type NewAdjustment } from './adjust';
export { type HandedOver, handOver, type OutOfService } from './hand-over';
export { type JobPage, listJobs } from './job-list';
export { amendJob, type NewAmendment, recordSays, reviewAmendment } from './amend';
export {
  AMENDABLE,
  AMENDABLE_FIELDS,
  type AmendableField,
  amendedRun,
  type Amendment,
  amendmentsOfJob,
} from './amendments';
export {
  attach,
  type Attachment,
  attachmentsOfJob,
  fileOfAttachment,
  LARGEST_ATTACHMENT_BYTES,
  MEDIA_TYPES,
} from './attachments';
export { type Cause, chooseCause, type ChosenCause, takeBackCause } from './causes';
export { knownBeside } from './known-beside';
export { connectJob, type NewConnection } from './connect';
export {
  type Ambient,
  CONNECT_CHECKS,
  type ConnectCheck,
  type Connection,
  SECOND_INDICATIONS,
  WORK_PLACES,
  type WorkPlace,
} from './connection';
export {
  adjustAgain,
  backToJudge,
  beginAsLeft,
  decideOnRun,
  type DecisionOnRun,
  DECISIONS_ON_RUN,
  finishRun,
  openJob,
  openJobsFor,
  passAsked,
  reopenAsFound,
  throwRunAway,
  whyNotWalkable,
} from './decide';
export { type Desk, sitDown } from './desk';
export {
  asFoundRun,
  asLeftRun,
  closedJobs,
  countOpenJobs,
  hasSamePoints,
  type JobFile,
  type JobLine,
  jobsOfInstrument,
  jobsSentBack,
  jobsToReview,
  lastDay,
  loadJob,
  openJobs,
  type StageRecord,
} from './file';
export { ADJUSTMENT_KINDS, type AdjustmentKind, guardedAct } from './adjustment-kinds';
export { guardedJob } from './guards';
export { type InstrumentCopy, type Since } from './instrument-copy';
export { type Leak, type LeakBasis, leakLimit } from './leak';
export { type JobListLine, type JobList, tickLine } from './lists';
export { whyNotFor } from './checklists';
export { type RangePlan, rangePlanOf } from './plan-kept';
export { openRangeChange } from './range-plan';
export { stageOfJob } from './move';
export { type Answer, circumstancesOf, type Question, questionsAt, unanswered } from './questions';
export { backToReturn, isOwnWork, reasonToLeave, reviewJob, signJob } from './sign';
export {
  ASKING_STAGES,
  type AskingStage,
  JOB_REASONS,
  type JobReason,
  type Stage,
  STAGES,
  type Standing,
} from './stages';
export { cancelJob, connectAgain } from './turns';
export { keepMove, type MadeMove, movesOfJob, VALVE_STAGES, valvesOfJob, type ValveStage } from './valves';
