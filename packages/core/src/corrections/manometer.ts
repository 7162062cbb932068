/**
 * Liquid manometers and the mercury barometer. The expansion of a manometer's own scale is neglected; the barometer's
 * brass scale is not. Where tubes are narrow the meniscus is drawn up or down: see MENISCUS_HINT.
 */
import { CoreError, requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';
import { Working, type Worked } from '../working';

/** Said beside every column read by eye. Common practice. */
const MENISCUS_HINT =
  'Read water at the bottom of its meniscus and mercury at the top, with the eye level. In tubes under about 10 mm ' +
  'take both limbs of the same bore, so that the capillary rise cancels. A well scale that is not foreshortened needs the ' +
  'well factor; a foreshortened one must not get it twice.';

/**
 * Density of air-free water at 101.325 kPa after Tanaka et al., Metrologia 38 (2001) 301 (coefficients from memory).
 * @param temperatureC 0 to 40
 * @returns kg/m³
 * @throws CoreError `out-of-bounds`
 * @example waterDensity(20).value // 998.2067
 */
export function waterDensity(temperatureC: number): Worked {
  requireBetween('The temperature of the water', temperatureC, [0, 40, '°C'], 'temperatureC');
  const work = new Working();
  const value = work.step({
    what: 'Density of water at its temperature',
    symbol: 'rho_water',
    formula: '999.97495 * (1 - (t - 3.983035)^2 * (t + 301.797) / (522528.9 * (t + 69.34881)))',
    given: { t: { value: temperatureC, unit: '°C' } },
    unit: 'kg/m³',
    source: 'Tanaka et al., Metrologia 38 (2001) 301, from memory; air-free water at 101.325 kPa',
  });
  return { value, working: work.steps };
}

/**
 * Density of mercury from that at 0 degC: 13595.1 / (1 + 1.818e-4 t) (common practice; SP 811's 60 degF value is 3 ppm off).
 * @param temperatureC -30 to 60
 * @returns kg/m³
 */
export function mercuryDensity(temperatureC: number): Worked {
  requireBetween('The temperature of the mercury', temperatureC, [-30, 60, '°C'], 'temperatureC');
  const work = new Working();
  const value = work.step({
    what: 'Density of mercury at its temperature',
    symbol: 'rho_mercury',
    formula: '13595.1 / (1 + 0.0001818 * t)',
    given: { t: { value: temperatureC, unit: '°C' } },
    unit: 'kg/m³',
    source: 'common practice; 13595.1 kg/m³ at 0 °C is the conventional mercury of NIST SP 811',
  });
  return { value, working: work.steps };
}

export type ManometerShape =
  /** Reading is the vertical distance of the two surfaces. */
  | { readonly kind: 'u-tube' }
  /** Plain length scale on the tube, zeroed; the level of the well sinks. */
  | { readonly kind: 'well'; readonly tubeDiameterM: number; readonly wellDiameterM: number }
  /** Reading is a length along a tube at an angle from horizontal. */
  | { readonly kind: 'inclined'; readonly angleDegrees: number };

export interface Manometer {
  readonly liquid: 'water' | 'mercury';
  readonly readingM: number;
  readonly temperatureC: number;
  readonly gravityMPerS2: number;
  /** Density of what stands above the liquid, kg/m³: gas, or water above mercury. */
  readonly densityAboveKgPerM3: number;
  readonly shape: ManometerShape;
}

function geometry(work: Working, shape: ManometerShape): void {
  const source = 'geometry';
  const symbol = 'f';
  if (shape.kind === 'u-tube') {
    work.step({ what: 'The reading is the vertical distance', symbol, formula: '1', unit: '', source });
    return;
  }
  if (shape.kind === 'inclined') {
    requireBetween('The angle', shape.angleDegrees, [0.5, 90, 'degrees'], 'shape.angleDegrees');
    work.step({
      what: 'Vertical part of a length along the tube',
      symbol,
      formula: 'sin(angle * pi / 180)',
      given: { angle: { value: shape.angleDegrees, unit: '°' } },
      unit: '',
      source,
    });
    return;
  }
  requirePositive('The diameter of the tube', shape.tubeDiameterM, 'shape.tubeDiameterM');
  requirePositive('The diameter of the well', shape.wellDiameterM, 'shape.wellDiameterM');
  if (shape.tubeDiameterM >= shape.wellDiameterM)
    throw new CoreError(
      {
        code: 'reversed-limits',
        name: 'The diameters of tube and well',
        lower: shape.tubeDiameterM,
        upper: shape.wellDiameterM,
      },
      'shape.wellDiameterM',
    );
  work.step({
    what: 'The well sinks as the tube rises',
    symbol,
    formula: '1 + (d / D)^2',
    given: { d: { value: shape.tubeDiameterM, unit: 'm' }, D: { value: shape.wellDiameterM, unit: 'm' } },
    unit: '',
    source: 'geometry; for a plain scale only',
  });
}

export interface ManometerResult extends Worked {
  /** What to mind when reading the column by eye. */
  readonly hint: string;
  readonly liquidDensityKgPerM3: number;
}

/**
 * Pressure difference of a liquid manometer: (rho - rho_above) g x reading x geometry.
 * @returns Pa
 * @throws CoreError `not-finite`, `out-of-bounds`, `negative`, `not-positive`, `reversed-limits`
 */
export function manometerPressure(given: Manometer): ManometerResult {
  requireFinite('The reading', given.readingM, 'readingM');
  requireBetween('Gravity', given.gravityMPerS2, [9.7, 9.9, 'm/s²'], 'gravityMPerS2');
  requireNotNegative('The density above the liquid', given.densityAboveKgPerM3, 'densityAboveKgPerM3');
  const density =
    given.liquid === 'water' ? waterDensity(given.temperatureC) : mercuryDensity(given.temperatureC);
  if (given.densityAboveKgPerM3 >= density.value)
    throw new CoreError(
      {
        code: 'reversed-limits',
        name: 'The densities above and below the surface',
        lower: given.densityAboveKgPerM3,
        upper: density.value,
      },
      'densityAboveKgPerM3',
    );
  const work = new Working();
  work.steps.push(...density.working);
  geometry(work, given.shape);
  const value = work.step({
    what: 'True pressure difference',
    symbol: 'p',
    formula: `(rho_${given.liquid} - rho_above) * g * l * f`,
    given: {
      rho_above: { value: given.densityAboveKgPerM3, unit: 'kg/m³' },
      g: { value: given.gravityMPerS2, unit: 'm/s²' },
      l: { value: given.readingM, unit: 'm' },
    },
    unit: 'Pa',
    source: 'hydrostatics',
  });
  return { value, liquidDensityKgPerM3: density.value, hint: MENISCUS_HINT, working: work.steps };
}

/**
 * Pressure by a mercury barometer with a brass scale true at 0 degC:
 * reading (1 + 1.84e-5 t) / (1 + 1.818e-4 t) g / 9.80665, as mercury at 0 degC.
 * @returns Pa, absolute
 * @throws CoreError `out-of-bounds`, `not-positive`
 */
export function mercuryBarometer(given: {
  readonly readingM: number;
  readonly temperatureC: number;
  readonly gravityMPerS2: number;
}): Worked & { readonly correctedM: number } {
  requirePositive('The reading', given.readingM, 'readingM');
  requireBetween('The temperature', given.temperatureC, [-30, 60, '°C'], 'temperatureC');
  requireBetween('Gravity', given.gravityMPerS2, [9.7, 9.9, 'm/s²'], 'gravityMPerS2');
  const work = new Working();
  const correctedM = work.step({
    what: 'Reading as mercury at 0 °C under standard gravity',
    symbol: 'l_0',
    formula: 'l * (1 + 0.0000184 * t) / (1 + 0.0001818 * t) * g / 9.80665',
    given: {
      l: { value: given.readingM, unit: 'm' },
      t: { value: given.temperatureC, unit: '°C' },
      g: { value: given.gravityMPerS2, unit: 'm/s²' },
    },
    unit: 'm',
    source: 'common practice; expansion of brass 1.84e-5 and of mercury 1.818e-4 per kelvin',
  });
  const value = work.step({
    what: 'Pressure of that column',
    symbol: 'p',
    formula: 'l_0 * 13595.1 * 9.80665',
    unit: 'Pa',
    source: 'NIST SP 811, conventional mercury, from memory',
  });
  return { value, correctedM, working: work.steps };
}
