/** Local gravity. A measured value is better: local anomalies reach 1e-4 m/s². */
import { requireBetween } from '../errors';
import { Working, type Worked } from '../working';

export const STANDARD_GRAVITY_M_PER_S2 = 9.80665;

/**
 * Normal gravity by latitude (International Gravity Formula 1980, series form) and height (free air), coefficients from memory.
 * @param latitudeDegrees either hemisphere, -90 to 90
 * @param heightM above sea level, -500 to 9000
 * @returns m/s²
 * @throws CoreError `out-of-bounds`, `not-finite`
 * @example localGravity(45, 0).value // 9.80620
 */
export function localGravity(
  latitudeDegrees: number,
  heightM: number,
): Worked & { readonly seaLevelMPerS2: number; readonly ratioToStandard: number } {
  requireBetween('The latitude', latitudeDegrees, [-90, 90, 'degrees'], 'latitudeDegrees');
  requireBetween('The height', heightM, [-500, 9000, 'm'], 'heightM');
  const work = new Working();
  const seaLevelMPerS2 = work.step({
    what: 'Normal gravity at sea level',
    symbol: 'g_0',
    formula: '9.780327 * (1 + 0.0053024 * sin(L * pi / 180)^2 - 0.0000058 * sin(2 * L * pi / 180)^2)',
    given: { L: { value: latitudeDegrees, unit: '°' } },
    unit: 'm/s²',
    source: 'International Gravity Formula 1980, from memory',
  });
  const value = work.step({
    what: 'Gravity at this height',
    symbol: 'g',
    formula: 'g_0 - 3.086e-6 * h',
    given: { h: { value: heightM, unit: 'm' } },
    unit: 'm/s²',
    source: 'free-air gradient, from memory',
  });
  return { value, seaLevelMPerS2, ratioToStandard: value / STANDARD_GRAVITY_M_PER_S2, working: work.steps };
}
