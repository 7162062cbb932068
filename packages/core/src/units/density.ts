/** Relative density (specific gravity) and API gravity. The reference water is a convention and travels with the value. */
import { CoreError, requireFinite, requirePositive } from '../errors';
import { exact, toNumber } from '../exact';

/**
 * Density from relative density.
 * @param relativeDensity density over that of the reference water
 * @param waterDensityKgPerM3 density of the reference water, kg/m3; 1000 is Barys's default
 * @returns kg/m3
 * @throws CoreError `not-positive`, `not-finite`
 * @example densityFromRelative(0.85, 999.972) // 849.9762
 */
export function densityFromRelative(relativeDensity: number, waterDensityKgPerM3: number): number {
  requirePositive('The relative density', relativeDensity, 'relativeDensity');
  requirePositive('The density of the reference water', waterDensityKgPerM3, 'waterDensityKgPerM3');
  return toNumber(exact(relativeDensity).mul(exact(waterDensityKgPerM3)));
}

/**
 * Relative density 60/60 degF from API gravity: 141.5 / (API + 131.5) (API MPMS, ASTM D1250, from memory).
 * @param apiGravity degrees API, above -131.5
 * @throws CoreError `out-of-bounds`, `not-finite`
 * @example relativeFromApi(35) // 0.84984984984985
 */
export function relativeFromApi(apiGravity: number): number {
  requireFinite('The API gravity', apiGravity, 'apiGravity');
  if (apiGravity <= -131.5)
    throw new CoreError(
      { code: 'undefined-result', name: 'The relative density', why: 'API gravity must be above -131.5' },
      'apiGravity',
    );
  return toNumber(exact(141.5).div(exact(apiGravity).add(exact(131.5))));
}
