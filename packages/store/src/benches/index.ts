/** Benches: links with what their instruments say, and the runs that go by themselves there. */
export {
  BENCH_CHANNEL,
  benchOfToken,
  benchValueSchema,
  keepValues,
  listBenches,
  type Bench,
  type BenchValue,
  type ShownBench,
  type ShownValue,
} from './benches';
export {
  addressOf,
  askForTrial,
  driverSchema,
  dropAddress,
  endsOf,
  keepAddress,
  wireSchema,
  type ReferenceAddress,
} from './addresses';
export {
  assignmentOf,
  automaticOf,
  automaticSchema,
  endAutomatic,
  keepState,
  keepTaken,
  orderAutomatic,
  standingOf,
  startAutomatic,
  stateSchema,
  takenSchema,
  type Automatic,
  type AutomaticRun,
  type StateOfLink,
  type TakenReading,
} from './automatic';
export {
  askForSetup,
  keepAnswer,
  requestAnswerSchema,
  requestById,
  takeRequests,
  type AnswerOfLink,
  type AskedRequest,
} from './requests';
export { askForWrite, instrumentActSchema, logWrite, writeSchema, writeWords, type NewWrite } from './write';
export { planOf, whyNotAutomatic } from './plan';
