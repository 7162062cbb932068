/** Runs: their own copy, their readings, and what is judged from them. */
export { accuracyAt, uncertaintyAt } from './accuracy';
export { adviceOnRun, bodyOfRun, isOverDecades, type LoggedMove, screwsAfter } from './advice';
export {
  type Beside,
  type BesideFigure,
  besideOf,
  type BesideReading,
  besideVerdicts,
  secondScaleOf,
  tapOfColumn,
} from './beside';
export {
  EXTRA_COLUMNS,
  type ExtraColumn,
  type MadeWith,
  type Reading,
  type Run,
  type RunKind,
  type SecondScale,
  secondScaleSchema,
  TAP_COLUMNS,
  type TapColumn,
} from './copy';
export {
  evaluateStoredRun,
  limitsOf,
  missingPoints,
  openPoints,
  standardAt,
  type StoredRun,
} from './evaluation';
export {
  appliedPoints,
  betterStandard,
  type Fit,
  fitOf,
  measuresSide,
  quantityWanted,
  rankReferences,
  ratiosAt,
  resolutionIn,
  type Side,
  unitOf,
} from './fit';
export {
  checkLoop,
  type CheckedTap,
  type LoopCheck,
  type ReceiverTrim,
  receiverTrims,
  type Segment,
  verdictOfCheck,
  weighSegment,
} from './loop-check';
export { keepMark, MARK_KINDS, type MarkKind, type NewMark, type PointMark } from './marks';
export { runsById as runsOf } from './load';
export { saveReading, saveReadings, type TypedReading } from './reading';
export { writingTogether, type WriteReading } from './write';
export { type KnownBeside, suspectUnitsOf, weighRun } from './suspects';
export { workSeen, workUncertainty } from './working';
