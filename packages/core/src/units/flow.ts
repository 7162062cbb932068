/**
 * Units of volume flow, in m3/s, and of mass flow, in kg/s. Volume flow is actual flow: flow at standard or normal
 * conditions needs a pressure and a temperature and is no unit. Factors are exact by definition (NIST SP 811 (2008)
 * Appendix B and NIST Handbook 44 Appendix C, from memory).
 */
import { exact } from '../exact';
import { BARREL_M3, defineUnits, FOOT_M, IMPERIAL_GALLON_M3, POUND_KG, US_GALLON_M3 } from './definition';

const LITRE_M3 = exact(0.001);
const CUBIC_FOOT_M3 = FOOT_M.pow(3);
const MINUTE_S = 60;
const HOUR_S = 3600;
const DAY_S = 86400;
const MILLION = 1000000;

export const VOLUME_FLOW_UNITS = defineUnits({
  m3PerS: ['m³/s', exact(1)],
  m3PerMin: ['m³/min', exact(1).div(MINUTE_S)],
  m3PerH: ['m³/h', exact(1).div(HOUR_S)],
  m3PerD: ['m³/d', exact(1).div(DAY_S)],
  lPerS: ['L/s', LITRE_M3],
  lPerMin: ['L/min', LITRE_M3.div(MINUTE_S)],
  lPerH: ['L/h', LITRE_M3.div(HOUR_S)],
  usGalPerMin: ['US gal/min', US_GALLON_M3.div(MINUTE_S)],
  usGalPerH: ['US gal/h', US_GALLON_M3.div(HOUR_S)],
  millionUsGalPerD: ['million US gal/d', US_GALLON_M3.mul(MILLION).div(DAY_S)],
  impGalPerMin: ['imperial gal/min', IMPERIAL_GALLON_M3.div(MINUTE_S)],
  impGalPerH: ['imperial gal/h', IMPERIAL_GALLON_M3.div(HOUR_S)],
  millionImpGalPerD: ['million imperial gal/d', IMPERIAL_GALLON_M3.mul(MILLION).div(DAY_S)],
  ft3PerS: ['ft³/s', CUBIC_FOOT_M3],
  ft3PerMin: ['ft³/min', CUBIC_FOOT_M3.div(MINUTE_S)],
  ft3PerH: ['ft³/h', CUBIC_FOOT_M3.div(HOUR_S)],
  barrelPerH: ['barrel (42 US gal)/h', BARREL_M3.div(HOUR_S)],
  barrelPerD: ['barrel (42 US gal)/d', BARREL_M3.div(DAY_S)],
});

export const MASS_FLOW_UNITS = defineUnits({
  kgPerS: ['kg/s', exact(1)],
  kgPerMin: ['kg/min', exact(1).div(MINUTE_S)],
  kgPerH: ['kg/h', exact(1).div(HOUR_S)],
  gPerS: ['g/s', exact(0.001)],
  tPerH: ['t/h', exact(1000).div(HOUR_S)],
  tPerD: ['t/d', exact(1000).div(DAY_S)],
  lbPerS: ['lb/s', POUND_KG],
  lbPerMin: ['lb/min', POUND_KG.div(MINUTE_S)],
  lbPerH: ['lb/h', POUND_KG.div(HOUR_S)],
  shortTonPerH: ['short ton/h', POUND_KG.mul(2000).div(HOUR_S)],
  longTonPerH: ['long ton/h', POUND_KG.mul(2240).div(HOUR_S)],
});
