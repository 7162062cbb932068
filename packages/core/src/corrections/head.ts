/**
 * Head between the reference plane of the standard and that of the instrument. An instrument above the standard sees
 * less. For gauge pressure the air outside has a head too, so the density that counts is fluid less air.
 * Hydrostatics, common practice; R from CODATA 2018 (from memory).
 */
import { CoreError, requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';
import { Working, type Worked } from '../working';

/** Height of the instrument above the standard, m; negative below it. */
export interface LiquidHead {
  readonly pressurePa: number;
  readonly liquidDensityKgPerM3: number;
  /** Zero for absolute or differential pressure. */
  readonly airDensityKgPerM3: number;
  readonly heightM: number;
  readonly gravityMPerS2: number;
}

const checkSite = (heightM: number, gravityMPerS2: number): void => {
  requireFinite('The height difference', heightM, 'heightM');
  requireBetween('Gravity', gravityMPerS2, [9.7, 9.9, 'm/s²'], 'gravityMPerS2');
};

/**
 * Pressure at the instrument: p - (rho_liquid - rho_air) g h.
 * @returns Pa
 * @throws CoreError `not-positive`, `negative`, `out-of-bounds`, `not-finite`
 */
export function liquidHead(given: LiquidHead): Worked & { readonly correctionPa: number } {
  requireFinite('The pressure', given.pressurePa, 'pressurePa');
  requirePositive('The density of the liquid', given.liquidDensityKgPerM3, 'liquidDensityKgPerM3');
  requireNotNegative('The density of the air', given.airDensityKgPerM3, 'airDensityKgPerM3');
  if (given.airDensityKgPerM3 >= given.liquidDensityKgPerM3)
    throw new CoreError(
      {
        code: 'reversed-limits',
        name: 'The densities of air and liquid',
        lower: given.airDensityKgPerM3,
        upper: given.liquidDensityKgPerM3,
      },
      'airDensityKgPerM3',
    );
  checkSite(given.heightM, given.gravityMPerS2);
  const work = new Working();
  const correctionPa = work.step({
    what: 'Head from the standard up to the instrument',
    symbol: 'dp',
    formula: '-(rho_liquid - rho_air) * g * h',
    given: {
      rho_liquid: { value: given.liquidDensityKgPerM3, unit: 'kg/m³' },
      rho_air: { value: given.airDensityKgPerM3, unit: 'kg/m³' },
      g: { value: given.gravityMPerS2, unit: 'm/s²' },
      h: { value: given.heightM, unit: 'm' },
    },
    unit: 'Pa',
    source: 'hydrostatics, common practice; air outside counted for gauge pressure',
  });
  const value = work.step({
    what: 'Pressure at the instrument',
    symbol: 'p_instrument',
    formula: 'p_standard + dp',
    given: { p_standard: { value: given.pressurePa, unit: 'Pa' } },
    unit: 'Pa',
    source: 'hydrostatics, common practice',
  });
  return { value, correctionPa, working: work.steps };
}

/** Molar masses, g/mol (from memory): nitrogen 2 x 14.0067; dry air after CIPM-2007 with 0.04 % carbon dioxide. */
export const MOLAR_MASS = { nitrogen: 28.0134, air: 28.9655 } as const;

export interface GasHead {
  /** At the standard: absolute, or gauge where `barometerPa` is given. */
  readonly pressurePa: number;
  readonly molarMassGPerMol: number;
  readonly temperatureC: number;
  readonly heightM: number;
  readonly gravityMPerS2: number;
  /** Ambient pressure, absolute; with it the pressure is gauge and the air outside is counted. */
  readonly barometerPa?: number | undefined;
  /** Density of the air outside; used with a barometer. */
  readonly airDensityKgPerM3?: number | undefined;
}

/** Up to this part of the absolute pressure the straight line leads: it then differs by less than 0.005 % of it. */
const LINEAR_UP_TO = 0.01;

export interface GasHeadResult extends Worked {
  /** Which column the value was computed with: the straight line where it is good, else the isothermal one. */
  readonly leading: 'linear' | 'exponential';
  readonly gasDensityKgPerM3: number;
  /** - rho g h, Pa */
  readonly linearCorrectionPa: number;
  /** p (exp(-M g h / (R T)) - 1), Pa: an isothermal column */
  readonly exponentialCorrectionPa: number;
  /** Pressure at the instrument by the head of the gas alone, Pa. */
  readonly gasOnlyPa: number;
}

/** What has to be so; the absolute pressure at the standard, Pa, and the density of the air outside that counts. */
function checkGas(given: GasHead): { readonly absolutePa: number; readonly airDensity: number } {
  requireFinite('The pressure', given.pressurePa, 'pressurePa');
  requirePositive('The molar mass', given.molarMassGPerMol, 'molarMassGPerMol');
  requireBetween('The temperature', given.temperatureC, [-200, 1000, '°C'], 'temperatureC');
  checkSite(given.heightM, given.gravityMPerS2);
  if (given.barometerPa !== undefined) requirePositive('The barometer', given.barometerPa, 'barometerPa');
  const airDensity = given.barometerPa === undefined ? 0 : (given.airDensityKgPerM3 ?? 0);
  requireNotNegative('The density of the air', airDensity, 'airDensityKgPerM3');
  const absolutePa = given.pressurePa + (given.barometerPa ?? 0);
  requirePositive('The absolute pressure', absolutePa, 'pressurePa');
  return { absolutePa, airDensity };
}

/**
 * Pressure at the instrument through a column of ideal gas (Z = 1; at several MPa real gases differ by tenths of a
 * per cent of the head), less that of the air outside for gauge pressure. The straight line leads while the head is at
 * most 1 % of the absolute pressure (some 85 m of air); beyond it the isothermal column does.
 * @returns Pa, in the kind given
 * @throws CoreError `not-positive`, `out-of-bounds`, `not-finite`
 */
export function gasHead(given: GasHead): GasHeadResult {
  const { absolutePa, airDensity } = checkGas(given);
  const isGauge = given.barometerPa !== undefined;
  const work = new Working();
  work.step({
    what: 'Absolute pressure at the standard',
    symbol: 'p_abs',
    formula: isGauge ? 'p_standard + p_barometer' : 'p_standard',
    given: {
      p_standard: { value: given.pressurePa, unit: 'Pa' },
      p_barometer: { value: given.barometerPa ?? 0, unit: 'Pa' },
    },
    unit: 'Pa',
    source: 'definition',
  });
  const gasDensityKgPerM3 = work.step({
    what: 'Density of the gas',
    symbol: 'rho_gas',
    formula: 'p_abs * M / 1000 / (R * (t + 273.15))',
    given: {
      M: { value: given.molarMassGPerMol, unit: 'g/mol' },
      R: { value: 8.314462618, unit: 'J/(mol K)' },
      t: { value: given.temperatureC, unit: '°C' },
    },
    unit: 'kg/m³',
    source: 'ideal gas; R of CODATA 2018, from memory',
  });
  const site = {
    g: { value: given.gravityMPerS2, unit: 'm/s²' },
    h: { value: given.heightM, unit: 'm' },
  };
  const exponentialCorrectionPa = work.step({
    what: 'Head of an isothermal column',
    symbol: 'dp_exp',
    formula: 'p_abs * (exp(-rho_gas * g * h / p_abs) - 1)',
    given: site,
    unit: 'Pa',
    source: 'barometric formula, common practice',
  });
  const linearCorrectionPa = work.step({
    what: 'Head as a straight line',
    symbol: 'dp',
    formula: '-rho_gas * g * h',
    given: site,
    unit: 'Pa',
    source: 'hydrostatics, common practice',
  });
  const isLinear = Math.abs(linearCorrectionPa) <= LINEAR_UP_TO * absolutePa;
  const outside = isLinear
    ? ' + rho_air * g * h'
    : ' - p_barometer * (exp(-rho_air * g * h / p_barometer) - 1)';
  const value = work.step({
    what: `Pressure at the instrument, by the ${isLinear ? 'straight line' : 'isothermal column'}`,
    symbol: 'p_instrument',
    formula: `p_standard + ${isLinear ? 'dp' : 'dp_exp'}${isGauge ? outside : ''}`,
    given: {
      ...site,
      p_standard: { value: given.pressurePa, unit: 'Pa' },
      p_barometer: { value: given.barometerPa ?? 0, unit: 'Pa' },
      rho_air: { value: airDensity, unit: 'kg/m³' },
    },
    unit: 'Pa',
    source: isGauge ? 'hydrostatics; the head of the air outside counts for gauge pressure' : 'hydrostatics',
  });
  return {
    value,
    leading: isLinear ? 'linear' : 'exponential',
    gasDensityKgPerM3,
    linearCorrectionPa,
    exponentialCorrectionPa,
    gasOnlyPa: given.pressurePa + (isLinear ? linearCorrectionPa : exponentialCorrectionPa),
    working: work.steps,
  };
}
