export { convertCurrent, type CurrentUnit } from './current';
export { convertPressure, isPressureUnit, PRESSURE_UNITS, type PressureUnit } from './pressure';
