/** What all calibrations together say, and the list behind each figure. */
export {
  CALIBRATIONS_PAGE,
  type CalibrationLine,
  type CalibrationQuery,
  calibrationQuerySchema,
  listCalibrations,
} from './calibrations';
export {
  adjustmentsByKind,
  causesByName,
  type Costs,
  costsOfIntervals,
  foundByMonth,
  minutesByModel,
  type MonthCount,
  type MonthRate,
  monthBefore,
  type Named,
  overdueByMonth,
  type ReferenceUse,
  referencesUsed,
  type Workload,
  workloadAhead,
} from './figures';
