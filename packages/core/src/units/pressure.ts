/**
 * Pressure units, each as its exact definition in pascals.
 *
 * Sources: NIST SP 811 (2008), Appendix B.8 and B.9, from memory, and the definitions it rests on (exact: inch 0.0254 m,
 * pound 0.45359237 kg, standard gravity 9.80665 m/s2, atmosphere 101325 Pa). A column of water or mercury is a length
 * times a density at a stated temperature times standard gravity; the density is part of the unit, and a column
 * without one is no unit. "conventional" is 1000 kg/m3 of water, which is not the water of 4 degC (28 ppm apart).
 * Water of 60 degF is used with inches and feet only.
 */
import { exact, exactProduct, type Exact } from '../exact';
import {
  defineUnits,
  FOOT_M,
  INCH_M,
  POUND_KG,
  REFERENCE_DENSITY,
  STANDARD_GRAVITY,
  type UnitDefinition,
} from './definition';

const PSI_PA = POUND_KG.mul(STANDARD_GRAVITY).div(INCH_M.mul(INCH_M));
const ATM_PA = exact(101325);
const TORR_PA = ATM_PA.div(760);
const KGF_PER_CM2_PA = STANDARD_GRAVITY.mul(10000);

const MM = exact(0.001);
const CM = exact(0.01);
const M = exact(1);

const PLAIN_UNITS = defineUnits({
  Pa: ['Pa', exact(1)],
  hPa: ['hPa', exact(100)],
  kPa: ['kPa', exact(1000)],
  MPa: ['MPa', exact(1000000)],
  microbar: ['µbar', exact(0.1)],
  mbar: ['mbar', exact(100)],
  bar: ['bar', exact(100000)],
  psi: ['psi', PSI_PA],
  ozfPerIn2: ['ozf/in²', PSI_PA.div(16)],
  kgfPerCm2: ['kgf/cm²', KGF_PER_CM2_PA],
  gfPerCm2: ['gf/cm²', KGF_PER_CM2_PA.div(1000)],
  atm: ['atm', ATM_PA],
  Torr: ['Torr', TORR_PA],
  mTorr: ['mTorr', TORR_PA.div(1000)],
});

/** Columns of liquid: a length of one of the reference densities under standard gravity. */
const columns = <K extends string>(
  table: Record<K, readonly [label: string, lengthM: Exact, fluid: keyof typeof REFERENCE_DENSITY]>,
): Record<K, UnitDefinition> =>
  Object.fromEntries(
    Object.entries<(typeof table)[K]>(table).map(([key, [label, lengthM, fluid]]) => {
      const densityKgPerM3 = REFERENCE_DENSITY[fluid];
      const factor = lengthM.mul(densityKgPerM3).mul(STANDARD_GRAVITY);
      return [key, { label, factor, offset: exact(0), column: { lengthM, densityKgPerM3 } }];
    }),
  ) as Record<K, UnitDefinition>;

const COLUMN_UNITS = columns({
  mmHgAt0C: ['mmHg at 0 °C', MM, 'mercury0C'],
  micronHgAt0C: ['micron Hg at 0 °C', MM.div(1000), 'mercury0C'],
  inHgAt0C: ['inHg at 0 °C', INCH_M, 'mercury0C'],
  inHgAt60F: ['inHg at 60 °F', INCH_M, 'mercury60F'],
  inH2OAt4C: ['inH2O at 4 °C', INCH_M, 'water4C'],
  inH2OAt60F: ['inH2O at 60 °F', INCH_M, 'water60F'],
  inH2OAt68F: ['inH2O at 68 °F', INCH_M, 'water68F'],
  inH2OConventional: ['inH2O, conventional', INCH_M, 'waterConventional'],
  mmH2OAt4C: ['mmH2O at 4 °C', MM, 'water4C'],
  mmH2OAt68F: ['mmH2O at 68 °F', MM, 'water68F'],
  mmH2OConventional: ['mmH2O, conventional', MM, 'waterConventional'],
  cmH2OAt4C: ['cmH2O at 4 °C', CM, 'water4C'],
  cmH2OAt68F: ['cmH2O at 68 °F', CM, 'water68F'],
  cmH2OConventional: ['cmH2O, conventional', CM, 'waterConventional'],
  mH2OAt4C: ['mH2O at 4 °C', M, 'water4C'],
  mH2OAt68F: ['mH2O at 68 °F', M, 'water68F'],
  mH2OConventional: ['mH2O, conventional', M, 'waterConventional'],
  ftH2OAt4C: ['ftH2O at 4 °C', FOOT_M, 'water4C'],
  ftH2OAt60F: ['ftH2O at 60 °F', FOOT_M, 'water60F'],
  ftH2OAt68F: ['ftH2O at 68 °F', FOOT_M, 'water68F'],
  ftH2OConventional: ['ftH2O, conventional', FOOT_M, 'waterConventional'],
});

export const PRESSURE_UNITS = { ...PLAIN_UNITS, ...COLUMN_UNITS };

export type PressureUnit = keyof typeof PRESSURE_UNITS;

/** Whether a text is the key of a pressure unit; a bare "inH2O" is not. */
export function isPressureUnit(text: string): text is PressureUnit {
  return Object.hasOwn(PRESSURE_UNITS, text);
}

/**
 * Converts a pressure, keeping its sign and its kind (gauge stays gauge).
 * Computed in exact rationals and rounded once, at the end.
 * @throws CoreError `not-finite`
 * @example convertPressure(1, 'psi', 'Pa') // 6894.757293168361 (SP 811: 6.894 757 E+03)
 * @example convertPressure(25, 'kPa', 'inH2OAt4C') // 100.36857931411
 */
export function convertPressure(value: number, from: PressureUnit, to: PressureUnit): number {
  return exactProduct(value, ratioOf(from, to));
}

/** Ratios of units that were asked for; there are few, and making one takes longer than the rest. */
const ratios = new Map<PressureUnit, Map<PressureUnit, Exact>>();

function ratioOf(from: PressureUnit, to: PressureUnit): Exact {
  const known = ratios.get(from)?.get(to);
  if (known !== undefined) return known;
  const ratio = PRESSURE_UNITS[from].factor.div(PRESSURE_UNITS[to].factor);
  ratios.set(from, (ratios.get(from) ?? new Map<PressureUnit, Exact>()).set(to, ratio));
  return ratio;
}
