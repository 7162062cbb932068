/** What entries look like and what can be chosen in them. Free of PostgreSQL, so that a browser's forms say the same. */
export { CONNECT_CHECKS, SECOND_INDICATIONS, WORK_PLACES } from './connections';
export { isTooFast, leakLimit, leakOf, type Leak, type LeakBasis } from './leak';
export { bodySchema, TECHNOLOGIES, TRIMS } from './bodies';
export { configurationSchema, RANGE_QUESTIONS, transferSchema, type RangeQuestion } from './configurations';
export { listQuerySchema, type ListQuery } from './instrument-list';
export { IMPORT_KINDS } from './imports/columns';
export { instrumentSchema } from './instruments';
export { ROLES } from './people';
export { DECISIONS, findingSchema, type Decision } from './findings';
export { certificateResultSchema, moduleSchema, REFERENCE_QUANTITIES, REFERENCE_STATES } from './references';
export { secondScaleSchema, type SecondScale } from './runs';
export { STAGES } from './job-stages';
export { valvesOfJob } from './valve-moves';
export { procedureContentSchema } from './procedures';
