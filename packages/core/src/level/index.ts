/** Levels by differential pressure. */
export {
  type ArrangementName,
  ARRANGEMENTS,
  balanceOf,
  differentialOf,
  type HighSide,
  type LevelMeasurement,
} from './arrangement';
export {
  drumDensities,
  type DrumDensities,
  drumIndication,
  drumLevel,
  drumMeasurement,
  drumRange,
  type DrumState,
  type DrumTaps,
  type GaugeGlass,
  glassReading,
  type HotCheck,
  type HotReading,
  hotCheck,
} from './drum';
export {
  type Contents,
  levelFromDifferential,
  type LevelIndication,
  levelIndication,
  levelOfLimit,
  levelRange,
  type LevelRange,
  shiftOfLostLeg,
  type ZeroShift,
  zeroShiftOf,
} from './range';
export { workDifferential, workHotCheck, workLevelRange } from './working';
export { fullVolume, levelForVolume, reachOfVessel, type Vessel, VESSEL_SHAPES, volumeAt } from './volume';
export { checkDensityTable, densityFromTable, densityOfWater, type DensityPoint } from './density';
