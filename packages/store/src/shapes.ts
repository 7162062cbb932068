/** What entries look like and what can be chosen in them. Free of PostgreSQL, so that a browser's forms say the same. */
export { guardedAct } from './jobs/adjustment-kinds';
export { CONNECT_CHECKS, SECOND_INDICATIONS, WORK_PLACES } from './jobs/connection';
export { COLD_SET_UP, FOLLOWS, HOT_CHECK } from './jobs/checklists';
export { isTooFast, leakLimit, leakOf, type Leak, type LeakBasis } from './jobs/leak';
export { TECHNOLOGIES, TRIMS } from '@barys/core/adjust';
export { TORQUE_UNITS, type TorqueUnit, torqueWords } from './registers/body';
export {
  configurationSchema,
  RANGE_QUESTIONS,
  setupReadSchema,
  transferSchema,
  wantedSetup,
  type RangeQuestion,
} from './registers/configuration';
export {
  judgeChecks,
  SETUP_MOMENTS,
  setupChecksSchema,
  USUAL_CHECKS,
  workCheck,
  type CheckResult,
  type SetupChecks,
  type SetupMoment,
} from './registers/setup';
export { listQuerySchema, type ListQuery } from './registers/instrument-list';
export { IMPORT_KINDS } from './imports/columns';
export type { RegisterField } from './registers/fields';
export {
  ALL_INSTRUMENT_FIELDS,
  entryOfFlat,
  flatEntry,
  entryOf,
  instrumentSchema,
  type InstrumentField,
} from './registers/instrument';
export { ROLES } from './people/people';
export { DECISIONS, findingSchema, type Decision } from './registers/findings';
export {
  certificateResultSchema,
  moduleSchema,
  REFERENCE_QUANTITIES,
  REFERENCE_STATES,
} from './registers/reference';
export { secondScaleSchema, type SecondScale } from './runs/copy';
export { JOB_PLACES, type JobQuery, jobQuerySchema } from './jobs/job-list';
export { JOB_REASONS, STAGES } from './jobs/stages';
export { valvesOfJob } from './jobs/valves';
export { procedureContentSchema } from './registers/procedures';
