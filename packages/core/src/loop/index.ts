export { diagnose, type Diagnosis, type NextTap, type Suspicion, type TapReading } from './diagnose';
export {
  addUp,
  ITEM_KINDS,
  resistorItem,
  rootsTo,
  tapsOf,
  toleranceAt,
  wayTo,
  type Contribution,
  type ItemKind,
  type LoopItem,
  type LoopTolerance,
  type Scale,
} from './chain';
export {
  areaOfGauge,
  badConnectionOhm,
  COMMUNICATION_OHM,
  FAILURE_MILLIAMP,
  receiverVoltage,
  supplyBudget,
  wireOhm,
  type LoopSupply,
  type ReceiverVoltage,
  type SupplyBudget,
  type Wire,
} from './supply';
export {
  judgeTap,
  limitOfTap,
  rangeOfTap,
  segmentOf,
  TOLERANCE_SUMS,
  trimEffectOn,
  type ToleranceSum,
  type TrimEffect,
} from './tap';
export { workSupply } from './working';
