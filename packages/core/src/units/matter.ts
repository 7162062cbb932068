/**
 * Units of length (m), density (kg/m3), temperature (K) and temperature difference (K). Exact by definition
 * (NIST SP 811 (2008) Appendix B, from memory), but for the water behind relative density: see REFERENCE_DENSITY.
 * A temperature and a difference of temperatures are two quantities: 28 degC is 82.4 degF, 28 degrees more are 50.4.
 */
import { exact } from '../exact';
import { defineUnits, FOOT_M, INCH_M, POUND_KG, REFERENCE_DENSITY, US_GALLON_M3 } from './definition';

export const LENGTH_UNITS = defineUnits({
  m: ['m', exact(1)],
  cm: ['cm', exact(0.01)],
  mm: ['mm', exact(0.001)],
  um: ['µm', exact(0.000001)],
  in: ['in', INCH_M],
  ft: ['ft', FOOT_M],
});

export const DENSITY_UNITS = defineUnits({
  kgPerM3: ['kg/m³', exact(1)],
  gPerCm3: ['g/cm³', exact(1000)],
  kgPerL: ['kg/L', exact(1000)],
  lbPerFt3: ['lb/ft³', POUND_KG.div(FOOT_M.pow(3))],
  lbPerUsGal: ['lb/US gal', POUND_KG.div(US_GALLON_M3)],
  relativeTo1000: ['relative to 1000 kg/m³', REFERENCE_DENSITY.waterConventional],
  relativeTo4C: ['relative to water at 4 °C', REFERENCE_DENSITY.water4C],
  // 999.016 as API and ASTM practice takes it (from memory), 1 ppm below the value behind inH2O at 60 degF.
  relativeTo60F: ['relative to water at 60 °F', exact(999.016)],
});

const FAHRENHEIT_K = exact(5).div(9);
export const TEMPERATURE_UNITS = defineUnits({
  K: ['K', exact(1)],
  degC: ['°C', exact(1), exact(273.15)],
  degF: ['°F', FAHRENHEIT_K, exact(273.15).sub(FAHRENHEIT_K.mul(32))],
  degR: ['°R', FAHRENHEIT_K],
});

export const TEMPERATURE_DIFFERENCE_UNITS = defineUnits({
  KDifference: ['K (difference)', exact(1)],
  degCDifference: ['°C (difference)', exact(1)],
  degFDifference: ['°F (difference)', FAHRENHEIT_K],
});
