export {
  besideOf,
  besideVerdicts,
  secondScaleOf,
  type Beside,
  type BesideFigure,
  type BesideReading,
} from './beside';
export { leakLimit, type Leak, type LeakBasis } from './leak';
export {
  ADJUSTMENT_KINDS,
  logAdjustment,
  type Adjustment,
  type AdjustmentKind,
  type NewAdjustment,
} from './adjustments';
export { appendToTrail } from './audit';
export { lastSeal, sealOfJob, sealTrail, SealFolder, shortHash, type Anchor, type Seal } from './seals';
export { verifyTrail, type Progress, type Verified } from './verify';
export {
  accuracyOfBody,
  addBody,
  bodySchema,
  changeBody,
  findBody,
  listBodies,
  rangeMisfit,
  TECHNOLOGIES,
  TRIMS,
  turndownOf,
  type Body,
  type BodyLimits,
  type NewBody,
} from './bodies';
export {
  addConfiguration,
  configurationSchema,
  isSameRange,
  configurationsOf,
  transferSchema,
  type Configuration,
  type ConfigurationVersion,
  type NewConfiguration,
} from './configurations';
export {
  CONNECT_CHECKS,
  WORK_PLACES,
  connectJob,
  SECOND_INDICATIONS,
  type Ambient,
  type ConnectCheck,
  type WorkPlace,
  type Connection,
  type NewConnection,
} from './connections';
export {
  attach,
  attachmentsOfJob,
  fileOfAttachment,
  LARGEST_ATTACHMENT_BYTES,
  MEDIA_TYPES,
  type Attachment,
} from './attachments';
export {
  isDatabaseAway,
  isDiskFull,
  isNeverKept,
  openDatabase,
  type Database,
  type Queryable,
} from './database';
export { sitDown, type Desk } from './desks';
export { StoreError, type Refusal } from './errors';
export {
  evaluateStoredRun,
  limitsOf,
  missingPoints,
  openPoints,
  standardAt,
  type StoredRun,
} from './evaluation';
export {
  addFinding,
  decideFinding,
  decideFindingFor,
  doubtsOfJob,
  openFindings,
  releaseReference,
  type JobDoubt,
  type OpenFinding,
  DECISIONS,
  findFinding,
  findingSchema,
  findingsOf,
  runsInDoubt,
  type Decision,
  type DoubtfulRun,
  type Finding,
} from './findings';
export {
  allInstruments,
  listFacets,
  listInstruments,
  listQuerySchema,
  PAGE_SIZES,
  type InstrumentLine,
  type InstrumentPage,
  type ListOrder,
  type ListQuery,
} from './instrument-list';
export {
  addInstrument,
  assignOwner,
  changeInstrument,
  dueBy,
  CRITICALITIES,
  entryOf,
  findInstrument,
  HAZARDS,
  instrumentSchema,
  instrumentsDueNext,
  instrumentsOf,
  MEASURES,
  STATES,
  tagToday,
  toleranceOf,
  usualHookUp,
  type DueLine,
  type Instrument,
  type NewInstrument,
  type SpanTolerance,
} from './instruments';
export { ASKING_STAGES, STAGES, stageOfJob, type AskingStage, type Stage, type Standing } from './job-stages';
export {
  asFoundRun,
  asLeftRun,
  closedJobs,
  countOpenJobs,
  jobsSentBack,
  hasSamePoints,
  JOB_REASONS,
  jobsOfInstrument,
  jobsToReview,
  lastDay,
  loadJob,
  openJobs,
  type JobFile,
  type JobLine,
  type JobReason,
  type StageRecord,
} from './job-file';
export {
  adjustAgain,
  backToJudge,
  beginAsLeft,
  decideOnRun,
  DECISIONS_ON_RUN,
  finishRun,
  openJob,
  openJobsFor,
  passAsked,
  reopenAsFound,
  throwRunAway,
  whyNotWalkable,
  type DecisionOnRun,
} from './jobs';
export {
  requireAdministrator,
  addFirstPerson,
  addPerson,
  changePerson,
  findPerson,
  listEverybody,
  listPeople,
  personSchema,
  ROLES,
  type Actor,
  type NewPerson,
  type Person,
  type Role,
} from './people';
export {
  findProcedure,
  keepProcedure,
  listProcedures,
  procedureContentSchema,
  procedureNameSchema,
  settleWaitS,
  type NewProcedure,
  type ProcedureContent,
  type ProcedureInForce,
  type ProcedureLine,
  type ProcedureVersion,
} from './procedures';
export { accuracyAt, uncertaintyAt } from './reference-accuracy';
export {
  betterStandard,
  fitOf,
  measuresSide,
  quantityWanted,
  rankReferences,
  ratiosAt,
  resolutionIn,
  unitOf,
  type Fit,
  type Side,
} from './reference-fit';
export {
  addCertificate,
  addStandard,
  certificateSchema,
  type CertificateResult,
  changeStandard,
  fileOfCertificate,
  findReference,
  findStandard,
  keepModule,
  listReferences,
  moduleSchema,
  REFERENCE_STATES,
  referencesDueBy,
  standardSchema,
  type AttachedFile,
  type Certificate,
  type NewCertificate,
  type NewModule,
  type Reference,
  type ReferenceQuantity,
  type Standard,
} from './references';
export { keepMark, MARK_KINDS, type MarkKind, type NewMark, type PointMark } from './point-marks';
export {
  EXTRA_COLUMNS,
  saveReading,
  type ExtraColumn,
  type MadeWith,
  type Reading,
  type Run,
  type RunKind,
  secondScaleSchema,
  type SecondScale,
  type TypedReading,
} from './runs';
export {
  hasPassword,
  countPasswordTry,
  isPasswordOf,
  makeToken,
  passwordSchema,
  personOfSession,
  personOfToken,
  revokeToken,
  SCOPES,
  setPassword,
  signIn,
  signInToDemo,
  type SignInFrom,
  signOut,
  tokenSchema,
  tokensOf,
  type ApiToken,
  type Scope,
} from './sessions';
export {
  AMENDABLE_FIELDS,
  AMENDABLE,
  amendedRun,
  amendJob,
  amendmentsOfJob,
  recordSays,
  reviewAmendment,
  type AmendableField,
  type Amendment,
  type NewAmendment,
} from './amendments';
export { cancelJob, connectAgain } from './job-turns';
export { type InstrumentCopy, type Since } from './instrument-copy';
export { backToReturn, isOwnWork, reasonToLeave, reviewJob, signJob } from './signing';
export { workSeen, workUncertainty } from './uncertainty-working';
export {
  addSite,
  findSite,
  letterheadSchema,
  REVIEWS,
  setLetterhead,
  setReview,
  setTimeZone,
  timeZoneSchema,
  type Letterhead,
  type Review,
  type Site,
} from './site';
export { questionsAt, unanswered, type Answer, type Question } from './stage-questions';
export {
  keepMove,
  movesOfJob,
  valvesOfJob,
  VALVE_STAGES,
  type MadeMove,
  type ValveStage,
} from './valve-moves';
export { dropView, keepView, viewsOf, type SavedView } from './views';
export { exportEverything } from './export';
export {
  bringFile,
  checkImport,
  COLUMNS,
  IMPORT_KINDS,
  importChoiceSchema,
  LARGEST_IMPORT_BYTES,
  leftOutAsCsv,
  openImport,
  takeImport,
  toCsv,
  type Checked,
  type ImportChoice,
  type ImportKind,
} from './imports';
export { pastRunsOf, type PastRun } from './past-results';
export { trailEntries, trailFacets, trailQuerySchema, type TrailEntry, type TrailQuery } from './trail';
