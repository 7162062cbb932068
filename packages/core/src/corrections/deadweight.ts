/**
 * Deadweight testers. Masses are true masses; the area is stated at 20 degC and zero pressure. Common practice,
 * after the usual equation of pressure balances (from memory).
 */
import { CoreError, requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';
import { Working, type Worked } from '../working';

export interface Deadweight {
  /** True masses on the piston with the piston itself, kg. */
  readonly massesKg: readonly number[];
  readonly massDensityKgPerM3: number;
  readonly airDensityKgPerM3: number;
  /** Effective area at 20 degC and zero pressure, m². */
  readonly areaM2: number;
  /** Thermal expansion of the area, per K. */
  readonly areaExpansionPerK: number;
  readonly temperatureC: number;
  /** Growth of the area with pressure, per Pa. */
  readonly distortionPerPa: number;
  readonly gravityMPerS2: number;
  /** Of the liquid at the piston, N/m; with the piston's diameter. */
  readonly surfaceTensionNPerM?: number | undefined;
  readonly pistonDiameterM?: number | undefined;
  /** Ambient pressure, for the absolute one. */
  readonly barometerPa?: number | undefined;
}

/** The distortion is so small that a handful of passes settles every digit. */
const MOST_PASSES = 50;

function checkDeadweight(given: Deadweight): void {
  if (given.massesKg.length === 0)
    throw new CoreError(
      { code: 'missing', name: 'A mass', why: 'without one there is no pressure' },
      'massesKg',
    );
  if (given.massesKg.length > 100)
    throw new CoreError(
      { code: 'too-many', name: 'Masses', count: given.massesKg.length, most: 100 },
      'massesKg',
    );
  given.massesKg.forEach((mass) => requirePositive('A mass', mass, 'massesKg'));
  requirePositive('The density of the masses', given.massDensityKgPerM3, 'massDensityKgPerM3');
  requireNotNegative('The density of the air', given.airDensityKgPerM3, 'airDensityKgPerM3');
  requirePositive('The area of the piston', given.areaM2, 'areaM2');
  requireNotNegative('The expansion of the area', given.areaExpansionPerK, 'areaExpansionPerK');
  requireBetween('The temperature', given.temperatureC, [-50, 150, '°C'], 'temperatureC');
  requireFinite('The distortion', given.distortionPerPa, 'distortionPerPa');
  requireBetween('Gravity', given.gravityMPerS2, [9.7, 9.9, 'm/s²'], 'gravityMPerS2');
  requireNotNegative('The surface tension', given.surfaceTensionNPerM ?? 0, 'surfaceTensionNPerM');
  requireNotNegative('The diameter of the piston', given.pistonDiameterM ?? 0, 'pistonDiameterM');
  if ((given.surfaceTensionNPerM ?? 0) > 0 && (given.pistonDiameterM ?? 0) === 0)
    throw new CoreError(
      { code: 'missing', name: 'The diameter of the piston', why: 'the surface tension pulls along it' },
      'pistonDiameterM',
    );
  if (given.airDensityKgPerM3 >= given.massDensityKgPerM3)
    throw new CoreError(
      {
        code: 'reversed-limits',
        name: 'The densities of air and masses',
        lower: given.airDensityKgPerM3,
        upper: given.massDensityKgPerM3,
      },
      'airDensityKgPerM3',
    );
}

/** The p of p (1 + lambda p) = p_0, by repetition. @throws CoreError `undefined-result` */
function distortedPressure(undistorted: number, distortionPerPa: number): number {
  let settled = undistorted;
  for (let pass = 0; pass < MOST_PASSES && distortionPerPa !== 0; pass += 1) {
    const next = undistorted / (1 + distortionPerPa * settled);
    const isSettled = Math.abs(next - settled) <= 1e-15 * Math.abs(next);
    settled = next;
    if (isSettled) break;
  }
  if (
    !(settled > 0) ||
    Math.abs(settled * (1 + distortionPerPa * settled) - undistorted) > 1e-9 * undistorted
  )
    throw new CoreError(
      { code: 'undefined-result', name: 'The pressure', why: 'the distortion is too large to be solved for' },
      'distortionPerPa',
    );
  return settled;
}

/**
 * Gauge pressure at the piston's reference level:
 * [sum m g (1 - rho_air / rho_mass) + surface tension x circumference] / [A (1 + alpha (t - 20)) (1 + lambda p)].
 * With distortion the equation holds p on both sides and is solved by repetition.
 * @returns Pa
 * @throws CoreError `missing`, `too-many`, `not-positive`, `negative`, `out-of-bounds`, `undefined-result`
 */
export function deadweightPressure(given: Deadweight): Worked & { readonly absolutePa: number | null } {
  checkDeadweight(given);
  const work = new Working();
  const source = 'pressure balance equation, common practice';
  work.step({
    what: 'All masses with the piston',
    symbol: 'm',
    formula: given.massesKg.map((_, index) => `m_${index + 1}`).join(' + '),
    given: Object.fromEntries(
      given.massesKg.map((value, index) => [`m_${index + 1}`, { value, unit: 'kg' }]),
    ),
    unit: 'kg',
    source,
  });
  work.step({
    what: 'Force on the piston, with the buoyancy of the air and the pull of the liquid',
    symbol: 'F',
    formula: 'm * g * (1 - rho_air / rho_mass) + sigma * pi * d',
    given: {
      g: { value: given.gravityMPerS2, unit: 'm/s²' },
      rho_air: { value: given.airDensityKgPerM3, unit: 'kg/m³' },
      rho_mass: { value: given.massDensityKgPerM3, unit: 'kg/m³' },
      sigma: { value: given.surfaceTensionNPerM ?? 0, unit: 'N/m' },
      d: { value: given.pistonDiameterM ?? 0, unit: 'm' },
    },
    unit: 'N',
    source,
  });
  const undistorted = work.step({
    what: 'Pressure with the area at its temperature',
    symbol: 'p_0',
    formula: 'F / (A * (1 + alpha * (t - 20)))',
    given: {
      A: { value: given.areaM2, unit: 'm²' },
      alpha: { value: given.areaExpansionPerK, unit: '1/K' },
      t: { value: given.temperatureC, unit: '°C' },
    },
    unit: 'Pa',
    source,
  });
  const settled = distortedPressure(undistorted, given.distortionPerPa);
  const value = work.step({
    what: 'Pressure at the reference level, with the area grown under it',
    symbol: 'p',
    formula: 'p_0 / (1 + lambda * p_solved)',
    given: {
      lambda: { value: given.distortionPerPa, unit: '1/Pa' },
      p_solved: { value: settled, unit: 'Pa' },
    },
    unit: 'Pa',
    source: `${source}; solved by repetition`,
  });
  if (given.barometerPa === undefined) return { value, absolutePa: null, working: work.steps };
  requirePositive('The barometer', given.barometerPa, 'barometerPa');
  return { value, absolutePa: value + given.barometerPa, working: work.steps };
}

/**
 * True pressure of a tester whose masses are marked in pressure for a stated gravity:
 * marked x (g / g_marked) / (1 + alpha (t - 20)). Air buoyancy is in the marking.
 * @param marked in any unit; the result has the same
 * @throws CoreError `not-finite`, `out-of-bounds`, `negative`
 */
export function markedDeadweight(given: {
  readonly marked: number;
  readonly unit: string;
  readonly markingGravityMPerS2: number;
  readonly gravityMPerS2: number;
  readonly areaExpansionPerK: number;
  readonly temperatureC: number;
}): Worked & { readonly correctionPercent: number } {
  requireFinite('The marked pressure', given.marked, 'marked');
  requireBetween(
    'The gravity of the marking',
    given.markingGravityMPerS2,
    [9.7, 9.9, 'm/s²'],
    'markingGravityMPerS2',
  );
  requireBetween('Gravity', given.gravityMPerS2, [9.7, 9.9, 'm/s²'], 'gravityMPerS2');
  requireNotNegative('The expansion of the area', given.areaExpansionPerK, 'areaExpansionPerK');
  requireBetween('The temperature', given.temperatureC, [-50, 150, '°C'], 'temperatureC');
  const work = new Working();
  const factor = work.step({
    what: 'Local gravity and warm piston against the marking',
    symbol: 'f',
    formula: 'g / g_marked / (1 + alpha * (t - 20))',
    given: {
      g: { value: given.gravityMPerS2, unit: 'm/s²' },
      g_marked: { value: given.markingGravityMPerS2, unit: 'm/s²' },
      alpha: { value: given.areaExpansionPerK, unit: '1/K' },
      t: { value: given.temperatureC, unit: '°C' },
    },
    unit: '',
    source: 'common practice',
  });
  const value = work.step({
    what: 'True pressure',
    symbol: 'p',
    formula: 'p_marked * f',
    given: { p_marked: { value: given.marked, unit: given.unit } },
    unit: given.unit,
    source: 'common practice',
  });
  return { value, correctionPercent: (factor - 1) * 100, working: work.steps };
}
