/** Units of current (A), voltage (V) and resistance (ohm), and of plain ratios. SI prefixes, exact. */
import { exact } from '../exact';
import { defineUnits } from './definition';

export const CURRENT_UNITS = defineUnits({
  A: ['A', exact(1)],
  mA: ['mA', exact(0.001)],
  uA: ['µA', exact(0.000001)],
});

export const VOLTAGE_UNITS = defineUnits({
  V: ['V', exact(1)],
  mV: ['mV', exact(0.001)],
  uV: ['µV', exact(0.000001)],
});

export const RESISTANCE_UNITS = defineUnits({
  ohm: ['Ω', exact(1)],
  mohm: ['mΩ', exact(0.001)],
  kohm: ['kΩ', exact(1000)],
  Mohm: ['MΩ', exact(1000000)],
});

export const RATIO_UNITS = defineUnits({
  one: ['1', exact(1)],
  percent: ['%', exact(0.01)],
  perMille: ['‰', exact(0.001)],
  ppm: ['ppm', exact(0.000001)],
});
