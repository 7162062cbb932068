/** What the errors of an instrument did over the years, and where they lead. */
export { dateOfDay, dayNumber, MONTH_DAYS, YEAR_DAYS } from './days';
export {
  type Calibration,
  daysLeft,
  driftRates,
  type DriftRates,
  type DriftStep,
  driftSteps,
  unadjusted,
  type Unadjusted,
} from './adjusted';
export {
  type Band,
  type DatedError,
  daysToLimit,
  type DriftLine,
  driftLine,
  isBeyond,
  lineAt,
  outsideProbability,
  predictAt,
  type Prediction,
  scatterAt,
  type Sides,
  studentOf,
} from './regression';
export { anomaliesOf, type Anomaly, type Visited } from './anomalies';
export { chanceOf, Changes, type Difference } from './compare';
