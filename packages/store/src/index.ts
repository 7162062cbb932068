export {
  ADJUSTMENT_KINDS,
  logAdjustment,
  type Adjustment,
  type AdjustmentKind,
  type NewAdjustment,
} from './adjustments';
export { firstBrokenEntry } from './audit';
export {
  CONNECT_CHECKS,
  connectJob,
  type Ambient,
  type ConnectCheck,
  type Connection,
  type NewConnection,
} from './connections';
export { openDatabase, type Database, type Queryable } from './database';
export { StoreError, type Refusal } from './errors';
export { evaluateStoredRun, missingPoints, type StoredRun } from './evaluation';
export {
  addBody,
  addConfiguration,
  addInstrument,
  findInstrument,
  listInstruments,
  type Body,
  type Configuration,
  type SpanTolerance,
  type Instrument,
  type NewInstrument,
} from './instruments';
export { STAGES, type Stage } from './job-stages';
export {
  adjustAgain,
  asFoundRun,
  asLeftRun,
  backToJudge,
  beginAsLeft,
  closedJobs,
  decideToAdjust,
  decideToLeave,
  finishRun,
  JOB_REASONS,
  jobsOfInstrument,
  loadJob,
  openJob,
  openJobs,
  passBrief,
  reopenAsFound,
  signJob,
  type JobFile,
  type JobLine,
  type JobReason,
  type StageRecord,
} from './jobs';
export { addPerson, findPerson, listPeople, type Actor, type Person, type Role } from './people';
export {
  accuracyAt,
  addReference,
  LEAST_ACCURACY_RATIO,
  listReferences,
  rankReferences,
  referencesDueBy,
  resolutionIn,
  type Fit,
  type Reference,
} from './references';
export { saveReading, type MadeWith, type Reading, type Run, type RunKind, type TypedReading } from './runs';
export { addSite, findSite, type Site } from './site';
