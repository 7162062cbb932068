/** Density of a liquid by its temperature: water by formula, others by a table that a plant keeps. */
import { CoreError, requireBetween, requireFinite, requirePositive } from '../errors';
import { compressedWaterDensity } from '../steam';

export interface DensityPoint {
  readonly temperatureC: number;
  readonly densityKgPerM3: number;
}

const MOST_POINTS = 500;

/** @throws CoreError `too-few-points`, `too-many`, `not-rising`, `not-positive`, `not-finite` */
export function checkDensityTable(points: readonly DensityPoint[]): void {
  if (points.length === 0) throw new CoreError({ code: 'too-few-points', count: 0, least: 1 }, 'points');
  if (points.length > MOST_POINTS)
    throw new CoreError(
      { code: 'too-many', name: 'The table', count: points.length, most: MOST_POINTS },
      'points',
    );
  points.forEach(({ temperatureC, densityKgPerM3 }, index) => {
    requireFinite('A temperature of the table', temperatureC, `points.${index}`);
    requirePositive('A density of the table', densityKgPerM3, `points.${index}`);
    const before = points[index - 1];
    if (before !== undefined && temperatureC <= before.temperatureC)
      throw new CoreError({ code: 'not-rising', name: 'The table' }, `points.${index}`);
  });
}

/**
 * Density from a table, linear between its temperatures; one point holds at its own temperature alone.
 * @returns kg/m³
 * @throws CoreError `out-of-bounds` for a temperature that the table does not have, and as `checkDensityTable`
 * @example densityFromTable([{ temperatureC: 20, densityKgPerM3: 1040 }, { temperatureC: 60, densityKgPerM3: 1020 }], 30) // 1035
 */
export function densityFromTable(points: readonly DensityPoint[], temperatureC: number): number {
  checkDensityTable(points);
  const [lowest, highest] = [points[0]?.temperatureC ?? NaN, points.at(-1)?.temperatureC ?? NaN];
  requireBetween('The temperature', temperatureC, [lowest, highest, '°C'], 'temperatureC');
  const above = points.findIndex((one) => one.temperatureC >= temperatureC);
  const [low, high] = [points[Math.max(0, above - 1)], points[above]];
  if (low === undefined || high === undefined) return NaN;
  if (low === high) return high.densityKgPerM3;
  const share = (temperatureC - low.temperatureC) / (high.temperatureC - low.temperatureC);
  return low.densityKgPerM3 + share * (high.densityKgPerM3 - low.densityKgPerM3);
}

const ATMOSPHERE_PA = 101_325;

/**
 * Density of water at the pressure of the atmosphere, by IAPWS-IF97, region 1.
 * @param temperatureC above freezing and below boiling
 * @returns kg/m³
 * @throws CoreError `out-of-bounds`, `undefined-result` where it would boil
 * @example Math.round(densityOfWater(20) * 10) / 10 // 998.2
 */
export const densityOfWater = (temperatureC: number): number =>
  compressedWaterDensity(temperatureC, ATMOSPHERE_PA, 'temperatureC');
