export { type MeasuredWithIt, type SuspectReading, type Suspected } from './condition';
export { SUSPICIONS, type Suspicion } from './hypotheses';
export { canWeigh, TELLS_FROM, weigh, type Suspect, type Weighed } from './suspects';
export { workWeighing } from './working';
export { leftWords, SUSPICION_NAMES, suspectWords, type SuspectUnits, type SuspectWords } from './words';
