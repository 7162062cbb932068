export { airDensity, airDensitySimplified, type Air } from './air';
export { deadweightPressure, markedDeadweight, type Deadweight } from './deadweight';
export { localGravity, STANDARD_GRAVITY_M_PER_S2 } from './gravity';
export { atInstrument } from './at-instrument';
export { gasHead, liquidHead, MOLAR_MASS, type GasHead, type GasHeadResult, type LiquidHead } from './head';
export {
  manometerPressure,
  mercuryBarometer,
  mercuryDensity,
  waterDensity,
  type Manometer,
  type ManometerResult,
  type ManometerShape,
} from './manometer';
