/** Density of moist air. */
import { requireBetween } from '../errors';
import { Working, type Worked } from '../working';

export interface Air {
  readonly temperatureC: number;
  /** Absolute. */
  readonly pressurePa: number;
  readonly relativeHumidityPercent: number;
  /** Mole fraction; 0.0004 where nothing is measured. */
  readonly carbonDioxide?: number | undefined;
}

/**
 * CIPM-2007 (Picard et al., Metrologia 45 (2008) 149, coefficients from memory): density of moist air from
 * 600 to 1100 hPa and 15 to 27 degC; computed here from 0 to 40 degC with a little less certainty.
 * @returns kg/m³
 * @throws CoreError `out-of-bounds`
 * @example airDensity({ temperatureC: 20, pressurePa: 101325, relativeHumidityPercent: 50 }).value // 1.19931
 */
export function airDensity(given: Air): Worked & { readonly saturationPressurePa: number } {
  const { temperatureC, pressurePa, relativeHumidityPercent, carbonDioxide = 0.0004 } = given;
  requireBetween('The temperature of the air', temperatureC, [0, 40, '°C'], 'temperatureC');
  requireBetween('The pressure of the air', pressurePa, [60000, 110000, 'Pa'], 'pressurePa');
  requireBetween('The humidity', relativeHumidityPercent, [0, 100, '%'], 'relativeHumidityPercent');
  requireBetween('The carbon dioxide', carbonDioxide, [0, 0.01, ''], 'carbonDioxide');
  const source = 'CIPM-2007, Metrologia 45 (2008) 149, from memory';
  const work = new Working();
  const t = { value: temperatureC, unit: '°C' };
  const p = { value: pressurePa, unit: 'Pa' };
  work.step({
    what: 'Temperature',
    symbol: 'T',
    formula: 't + 273.15',
    given: { t },
    unit: 'K',
    source: 'definition',
  });
  const saturationPressurePa = work.step({
    what: 'Saturation pressure of water vapour',
    symbol: 'p_sv',
    formula: 'exp(1.2378847e-5 * T^2 - 1.9121316e-2 * T + 33.93711047 - 6343.1645 / T)',
    unit: 'Pa',
    source,
  });
  work.step({
    what: 'Mole fraction of water vapour',
    symbol: 'x_v',
    formula: 'H / 100 * (1.00062 + 3.14e-8 * p + 5.6e-7 * t^2) * p_sv / p',
    given: { H: { value: relativeHumidityPercent, unit: '%' }, p, t },
    unit: '',
    source,
  });
  work.step({
    what: 'Compressibility',
    symbol: 'Z',
    formula:
      '1 - p / T * (1.58123e-6 - 2.9331e-8 * t + 1.1043e-10 * t^2 + (5.707e-6 - 2.051e-8 * t) * x_v + (1.9898e-4 - 2.376e-6 * t) * x_v^2)' +
      ' + (p / T)^2 * (1.83e-11 - 0.765e-8 * x_v^2)',
    given: { p, t },
    unit: '',
    source,
  });
  const value = work.step({
    what: 'Density of the air',
    symbol: 'rho_air',
    formula: '(3.483740e-3 + 1.4446e-3 * (x_c - 0.0004)) * p / (Z * T) * (1 - 0.3780 * x_v)',
    given: { x_c: { value: carbonDioxide, unit: '' }, p },
    unit: 'kg/m³',
    source,
  });
  return { value, saturationPressurePa, working: work.steps };
}

/**
 * The short formula: (0.34848 p - 0.009 h exp(0.061 t)) / (273.15 + t), p in hPa; good to 2e-4 from 900 to 1100 hPa,
 * 10 to 30 degC, below 80 % (OIML R 111-1, from memory), and refused outside.
 * @returns kg/m³
 * @throws CoreError `out-of-bounds`
 */
export function airDensitySimplified(given: Omit<Air, 'carbonDioxide'>): Worked {
  requireBetween('The temperature of the air', given.temperatureC, [10, 30, '°C'], 'temperatureC');
  requireBetween('The pressure of the air', given.pressurePa, [90000, 110000, 'Pa'], 'pressurePa');
  requireBetween('The humidity', given.relativeHumidityPercent, [0, 80, '%'], 'relativeHumidityPercent');
  const work = new Working();
  const value = work.step({
    what: 'Density of the air',
    symbol: 'rho_air',
    formula: '(0.34848 * p / 100 - 0.009 * H * exp(0.061 * t)) / (273.15 + t)',
    given: {
      p: { value: given.pressurePa, unit: 'Pa' },
      H: { value: given.relativeHumidityPercent, unit: '%' },
      t: { value: given.temperatureC, unit: '°C' },
    },
    unit: 'kg/m³',
    source: 'OIML R 111-1, from memory',
  });
  return { value, working: work.steps };
}
