/** What entries look like and what can be chosen in them. Free of PostgreSQL, so that a browser's forms say the same. */
export { CONNECT_CHECKS, SECOND_INDICATIONS, WORK_PLACES } from './jobs/connection';
export { isTooFast, leakLimit, leakOf, type Leak, type LeakBasis } from './jobs/leak';
export { bodySchema, TECHNOLOGIES, TRIMS } from './registers/bodies';
export {
  configurationSchema,
  RANGE_QUESTIONS,
  transferSchema,
  type RangeQuestion,
} from './registers/configurations';
export { listQuerySchema, type ListQuery } from './registers/instrument-list';
export { IMPORT_KINDS } from './imports/columns';
export { instrumentSchema } from './registers/instruments';
export { ROLES } from './people/people';
export { DECISIONS, findingSchema, type Decision } from './registers/findings';
export {
  certificateResultSchema,
  moduleSchema,
  REFERENCE_QUANTITIES,
  REFERENCE_STATES,
} from './registers/references';
export { secondScaleSchema, type SecondScale } from './runs/copy';
export { STAGES } from './jobs/stages';
export { valvesOfJob } from './jobs/valves';
export { procedureContentSchema } from './registers/procedures';
