/** The saturation line of water, and the densities that a boiler drum has to do with. */
import { CoreError, requireBetween } from '../errors';
import { REGION_4 } from './coefficients';
import { CRITICAL, region1, region2, region3 } from './properties';

/** Where regions 1 and 2 end and region 3 begins, K. */
const REGION_3_FROM_K = 623.15;
/** The saturation line begins at 273.15 K, MPa. */
const LOWEST_MPA = 611.212677e-6;
const ZERO_C_K = 273.15;

const [n1, n2, n3, n4, n5, n6, n7, n8, n9, n10] = REGION_4;

/** Saturation pressure, MPa (IF97, eq. 30). */
export function saturationPressureMPa(temperatureK: number): number {
  const theta = temperatureK + n9 / (temperatureK - n10);
  const a = theta * theta + n1 * theta + n2;
  const b = n3 * theta * theta + n4 * theta + n5;
  const c = n6 * theta * theta + n7 * theta + n8;
  return ((2 * c) / (-b + Math.sqrt(b * b - 4 * a * c))) ** 4;
}

/** Saturation temperature, K (IF97, eq. 31). */
export function saturationTemperatureK(pressureMPa: number): number {
  const beta = pressureMPa ** 0.25;
  const e = beta * beta + n3 * beta + n6;
  const f = n1 * beta * beta + n4 * beta + n7;
  const g = n2 * beta * beta + n5 * beta + n8;
  const d = (2 * g) / (-f - Math.sqrt(f * f - 4 * e * g));
  return (n10 + d - Math.sqrt((n10 + d) ** 2 - 4 * (n9 + n10 * d))) / 2;
}

/**
 * Densities of saturated water and steam to begin with (IAPWS SR1-86(1992), equations 2 and 3, from memory); region 3 then
 * says them exactly.
 */
function nearDensities(temperatureK: number): { water: number; steam: number } {
  const third = Math.max(0, 1 - temperatureK / CRITICAL.temperatureK) ** (1 / 3);
  const water =
    1 +
    1.99274064 * third +
    1.09965342 * third ** 2 -
    0.510839303 * third ** 5 -
    1.75493479 * third ** 16 -
    45.5170352 * third ** 43 -
    674694.45 * third ** 110;
  const sixth = Math.sqrt(third);
  const steam = Math.exp(
    -2.0315024 * third -
      2.6830294 * third ** 2 -
      5.38626492 * third ** 4 -
      17.2991605 * sixth ** 18 -
      44.7586581 * sixth ** 37 -
      63.9201063 * sixth ** 71,
  );
  return { water: water * CRITICAL.densityKgPerM3, steam: steam * CRITICAL.densityKgPerM3 };
}

const MOST_STEPS = 100;

/**
 * The density in region 3 at a pressure, on the side of water or of steam: Newton's steps, halved where one would leave
 * that side, where the isotherm no longer rises.
 */
function densityInRegion3(temperatureK: number, pressureMPa: number, begin: number, side: 1 | -1): number {
  let density = begin;
  for (let step = 0; step < MOST_STEPS; step += 1) {
    const { pressure, slope } = region3(temperatureK, density);
    let next = slope > 0 ? density - (pressure - pressureMPa) / slope : density + side;
    if (side * (next - CRITICAL.densityKgPerM3) <= 0) next = (density + CRITICAL.densityKgPerM3) / 2;
    if (Math.abs(next - density) < 1e-9 * density) return next;
    density = next;
  }
  return density;
}

export interface Saturated {
  readonly temperatureC: number;
  readonly pressurePa: number;
  readonly waterKgPerM3: number;
  readonly steamKgPerM3: number;
}

/**
 * Saturated water and steam at a pressure.
 * @param pressurePa absolute, from 611.213 Pa to 22.064 MPa
 * @throws CoreError `out-of-bounds`, `not-finite`
 * @example saturatedAt(4e6).waterKgPerM3 // 798.358
 */
export function saturatedAt(pressurePa: number): Saturated {
  requireBetween(
    'The absolute pressure of saturated water',
    pressurePa,
    [LOWEST_MPA * 1e6, CRITICAL.pressureMPa * 1e6, 'Pa'],
    'pressurePa',
  );
  const pressureMPa = pressurePa / 1e6;
  const temperatureK = saturationTemperatureK(pressureMPa);
  const at = (waterKgPerM3: number, steamKgPerM3: number): Saturated => ({
    temperatureC: temperatureK - ZERO_C_K,
    pressurePa,
    waterKgPerM3,
    steamKgPerM3,
  });
  if (temperatureK <= REGION_3_FROM_K)
    return at(1 / region1(temperatureK, pressureMPa).volume, 1 / region2(temperatureK, pressureMPa).volume);
  if (pressureMPa >= CRITICAL.pressureMPa) return at(CRITICAL.densityKgPerM3, CRITICAL.densityKgPerM3);
  const near = nearDensities(temperatureK);
  return at(
    densityInRegion3(temperatureK, pressureMPa, near.water, 1),
    densityInRegion3(temperatureK, pressureMPa, near.steam, -1),
  );
}

/**
 * Density of water that is colder than it boils at its pressure, as in a wet leg or a gauge glass (IF97, region 1).
 * @param temperatureC from 0 °C to 350 °C, at most the saturation temperature
 * @param pressurePa absolute, up to 100 MPa
 * @param field of whoever asks, at which a temperature is refused
 * @returns kg/m³
 * @throws CoreError `out-of-bounds`, `undefined-result` where it would boil
 * @example compressedWaterDensity(40, 4e6) // 993.9235
 */
export function compressedWaterDensity(
  temperatureC: number,
  pressurePa: number,
  field = 'temperatureC',
): number {
  requireBetween('The temperature of the water', temperatureC, [0, REGION_3_FROM_K - ZERO_C_K, '°C'], field);
  requireBetween(
    'The absolute pressure of the water',
    pressurePa,
    [LOWEST_MPA * 1e6, 100e6, 'Pa'],
    'pressurePa',
  );
  const temperatureK = temperatureC + ZERO_C_K;
  const boilsAtMPa = saturationPressureMPa(temperatureK);
  // A hair of rounding between the two forms of the line is no boiling.
  if (pressurePa / 1e6 < boilsAtMPa * (1 - 1e-9))
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The density of the water',
        why: `at ${temperatureC} °C it boils below ${(boilsAtMPa * 10).toPrecision(4)} bar absolute`,
      },
      field,
    );
  return 1 / region1(temperatureK, pressurePa / 1e6).volume;
}
