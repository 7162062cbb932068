export { REFERENCE_DENSITY, STANDARD_GRAVITY, type UnitDefinition } from './definition';
export { densityFromRelative, relativeFromApi } from './density';
export { convertKind, PRESSURE_KINDS, type Pressure, type PressureKind } from './kind';
export { workApi, workConversion, workDensity, workKind } from './working';
export { parseUnit, type ParsedUnit } from './parse';
export { convertPressure, isPressureUnit, PRESSURE_UNITS, type PressureUnit } from './pressure';
export {
  convert,
  isUnit,
  quantityOf,
  QUANTITIES,
  unitDefinition,
  unitLabel,
  unitsOf,
  type Quantity,
  type Unit,
} from './quantity';
