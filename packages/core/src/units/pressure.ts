/**
 * Pressure units, each as its exact definition in pascals.
 *
 * Sources: NIST SP 811 (2008), Appendix B.8 and B.9, from memory, and the definitions it rests on (exact: inch 0.0254 m,
 * pound 0.45359237 kg, standard gravity 9.80665 m/s2, atmosphere 101325 Pa). A column of water or mercury is a length
 * times a density at a stated temperature times standard gravity; the density is part of the unit, and a column
 * without one is no unit. "conventional" is 1000 kg/m3 of water, which is not the water of 4 degC (28 ppm apart).
 */
import { exact, toNumber, type Exact } from '../exact';

const STANDARD_GRAVITY = exact(9.80665);
const INCH_M = exact(0.0254);
const POUND_KG = exact(0.45359237);
const PSI_PA = POUND_KG.mul(STANDARD_GRAVITY).div(INCH_M.mul(INCH_M));
const ATM_PA = exact(101325);
const TORR_PA = ATM_PA.div(760);
const KGF_PER_CM2_PA = STANDARD_GRAVITY.mul(10000);

/** Densities behind the column units, kg/m3. Derived: rounded to the digits at which sources agree. */
const COLUMN_DENSITY = {
  // SP 811: 1 inch of water at 39.2 degF is 249.082 Pa.
  water4C: exact(999.972),
  // IAPWS-95 999.0171 and Tanaka 2001 999.0170 at 15.5556 degC and 101.325 kPa.
  water60F: exact(999.017),
  // IAPWS-95 998.2071 and Tanaka 2001 998.2067 at 20 degC and 101.325 kPa.
  water68F: exact(998.207),
  // Exact by convention.
  waterConventional: exact(1000),
  // SP 811, conventional mercury at 0 degC: 1 inch is 3386.389 Pa.
  mercury0C: exact(13595.1),
  // SP 811: 1 inch of mercury at 60 degF is 3376.85 Pa.
  mercury60F: exact(13556.8),
} as const;

const columnPa = (lengthM: Exact, fluid: keyof typeof COLUMN_DENSITY): Exact =>
  lengthM.mul(COLUMN_DENSITY[fluid]).mul(STANDARD_GRAVITY);

const MM = exact(0.001);
const CM = exact(0.01);
const M = exact(1);
const FT = exact(0.3048);

interface PressureUnitDefinition {
  /** How the unit is written for people. */
  readonly label: string;
  /** Pascals in one of the unit, exact. */
  readonly pascals: Exact;
}

const define = <K extends string>(table: Record<K, [label: string, pascals: Exact]>) =>
  Object.fromEntries(
    Object.entries<[string, Exact]>(table).map(([key, [label, pascals]]) => [key, { label, pascals }]),
  ) as Record<K, PressureUnitDefinition>;

export const PRESSURE_UNITS = define({
  Pa: ['Pa', exact(1)],
  hPa: ['hPa', exact(100)],
  kPa: ['kPa', exact(1000)],
  MPa: ['MPa', exact(1000000)],
  mbar: ['mbar', exact(100)],
  bar: ['bar', exact(100000)],
  psi: ['psi', PSI_PA],
  ozfPerIn2: ['ozf/in²', PSI_PA.div(16)],
  kgfPerCm2: ['kgf/cm²', KGF_PER_CM2_PA],
  gfPerCm2: ['gf/cm²', KGF_PER_CM2_PA.div(1000)],
  atm: ['atm', ATM_PA],
  Torr: ['Torr', TORR_PA],
  mTorr: ['mTorr', TORR_PA.div(1000)],
  mmHgAt0C: ['mmHg at 0 °C', columnPa(MM, 'mercury0C')],
  micronHgAt0C: ['micron Hg at 0 °C', columnPa(MM.div(1000), 'mercury0C')],
  inHgAt0C: ['inHg at 0 °C', columnPa(INCH_M, 'mercury0C')],
  inHgAt60F: ['inHg at 60 °F', columnPa(INCH_M, 'mercury60F')],
  inH2OAt4C: ['inH2O at 4 °C', columnPa(INCH_M, 'water4C')],
  inH2OAt60F: ['inH2O at 60 °F', columnPa(INCH_M, 'water60F')],
  inH2OAt68F: ['inH2O at 68 °F', columnPa(INCH_M, 'water68F')],
  inH2OConventional: ['inH2O, conventional', columnPa(INCH_M, 'waterConventional')],
  mmH2OAt4C: ['mmH2O at 4 °C', columnPa(MM, 'water4C')],
  mmH2OAt68F: ['mmH2O at 68 °F', columnPa(MM, 'water68F')],
  mmH2OConventional: ['mmH2O, conventional', columnPa(MM, 'waterConventional')],
  cmH2OAt4C: ['cmH2O at 4 °C', columnPa(CM, 'water4C')],
  mH2OAt4C: ['mH2O at 4 °C', columnPa(M, 'water4C')],
  mH2OConventional: ['mH2O, conventional', columnPa(M, 'waterConventional')],
  ftH2OAt4C: ['ftH2O at 4 °C', columnPa(FT, 'water4C')],
  ftH2OAt60F: ['ftH2O at 60 °F', columnPa(FT, 'water60F')],
  ftH2OAt68F: ['ftH2O at 68 °F', columnPa(FT, 'water68F')],
});

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
  return toNumber(exact(value).mul(PRESSURE_UNITS[from].pascals).div(PRESSURE_UNITS[to].pascals));
}
