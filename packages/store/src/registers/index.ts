/** What is kept of instruments, bodies, configurations, procedures and references. */
export { type Body, type BodyLimits, type NewBody, rangeMisfit, turndownOf } from './body';
export { accuracyOfBody, addBody, bodySchema, changeBody, findBody, listBodies } from './bodies';
export {
  type Configuration,
  configurationSchema,
  type ConfigurationVersion,
  isSameRange,
  type NewConfiguration,
  setupReadSchema,
  transferSchema,
  wantedSetup,
} from './configuration';
export { addConfiguration, configurationsOf } from './configurations';
export {
  addFinding,
  decideFinding,
  decideFindingFor,
  type Decision,
  DECISIONS,
  type DoubtfulRun,
  doubtsOfJob,
  findFinding,
  type Finding,
  findingSchema,
  findingsOf,
  type JobDoubt,
  type OpenFinding,
  openFindings,
  releaseReference,
  runsInDoubt,
} from './findings';
export {
  allInstruments,
  type InstrumentLine,
  type InstrumentPage,
  listFacets,
  listInstruments,
  type ListOrder,
  type ListQuery,
  listQuerySchema,
  PAGE_SIZES,
} from './instrument-list';
export {
  CRITICALITIES,
  entryOf,
  HAZARDS,
  type Instrument,
  instrumentSchema,
  MEASURES,
  type NewInstrument,
  type SpanTolerance,
  STATES,
  toleranceOf,
  usualHookUp,
} from './instrument';
export {
  addInstrument,
  assignOwner,
  changeInstrument,
  dueBy,
  type DueLine,
  findInstrument,
  instrumentsDueNext,
  instrumentsOf,
  tagToday,
} from './instruments';
export {
  judgeChecks,
  SETUP_MOMENTS,
  type SetupChecks,
  setupChecksSchema,
  type SetupMoment,
  setupTolerance,
  type CheckResult,
} from './setup';
export { keepSetupReading, type NewSetupReading, type SetupReading, setupReadingsOf } from './setup-readings';
export { findLiquid, keepLiquid, type Liquid, liquidSchema, listLiquids, type NewLiquid } from './liquids';
export {
  keepVessel,
  type NewVessel,
  VESSEL_TOOLS,
  vesselSchema,
  vesselsOf,
  type VesselVersion,
} from './vessels';
export { keepLoop, loopSchema, loopsOf, type LoopVersion, type NewLoop, withLoop } from './loops';
export { itemsOf, type LoopContent, loopContentSchema, loopWith, tapsToRead } from './loop-content';
export {
  addNote,
  type Bias,
  biasesOf,
  biasSchema,
  type InstrumentNote,
  keepBias,
  noteSchema,
  notesOf,
} from './notes';
export {
  findProcedure,
  keepProcedure,
  listProcedures,
  type NewProcedure,
  type ProcedureContent,
  procedureContentSchema,
  type ProcedureInForce,
  type ProcedureLine,
  procedureNameSchema,
  type ProcedureVersion,
  settleWaitS,
} from './procedures';
export { addCertificate, type AttachedFile, fileOfCertificate } from './certificates';
export {
  type Certificate,
  type CertificateResult,
  certificateSchema,
  moduleSchema,
  type NewCertificate,
  type NewModule,
  type Reference,
  REFERENCE_STATES,
  type ReferenceQuantity,
  type Standard,
  standardSchema,
} from './reference';
export {
  addStandard,
  changeStandard,
  findReference,
  findStandard,
  keepModule,
  listReferences,
  referencesDueBy,
} from './references';
