/**
 * Water and steam after IAPWS R7-97(2012), IAPWS-IF97: properties by temperature and pressure in regions 1 and 2, density
 * in region 3, the saturation line (region 4). Kelvins, megapascals absolute, kilojoules and kilograms.
 */
import { REGION_1, REGION_2, REGION_2_IDEAL, REGION_3, REGION_3_LOG, type Term } from './coefficients';

/** Specific gas constant of the formulation, kJ/(kg K) (IF97, eq. 1). */
const R = 0.461526;
export const CRITICAL = { temperatureK: 647.096, pressureMPa: 22.064, densityKgPerM3: 322 } as const;

export interface Properties {
  /** m³/kg */
  readonly volume: number;
  /** kJ/kg */
  readonly enthalpy: number;
  readonly internalEnergy: number;
  /** kJ/(kg K) */
  readonly entropy: number;
  readonly isobaricHeat: number;
  /** m/s */
  readonly speedOfSound: number;
}

/** A Gibbs energy, dimensionless, with its derivatives by reduced pressure and by inverse reduced temperature. */
interface Gibbs {
  g: number;
  p: number;
  pp: number;
  t: number;
  tt: number;
  pt: number;
}

/** IF97, tables 3 and 12: from the Gibbs energy to what it says. */
function propertiesOf(
  gibbs: Gibbs,
  {
    temperatureK,
    pressureMPa,
    pi,
    tau,
  }: { temperatureK: number; pressureMPa: number; pi: number; tau: number },
): Properties {
  const { g, p, pp, t, tt, pt } = gibbs;
  const rt = R * temperatureK;
  const volume = ((pi * p * rt) / pressureMPa) * 1e-3;
  const enthalpy = tau * t * rt;
  const soundSquared = (p * p) / ((p - tau * pt) ** 2 / (tau * tau * tt) - pp);
  return {
    volume,
    enthalpy,
    internalEnergy: rt * (tau * t - pi * p),
    entropy: R * (tau * t - g),
    isobaricHeat: -R * tau * tau * tt,
    speedOfSound: Math.sqrt(rt * 1000 * soundSquared),
  };
}

/** Adds up n x^I y^J with its derivatives by x and y; both are well away from zero in every region. */
function sum(terms: readonly Term[], x: number, y: number): Gibbs {
  const total: Gibbs = { g: 0, p: 0, pp: 0, t: 0, tt: 0, pt: 0 };
  for (const [i, j, n] of terms) {
    const value = n * x ** i * y ** j;
    total.g += value;
    total.p += (value * i) / x;
    total.pp += (value * i * (i - 1)) / (x * x);
    total.t += (value * j) / y;
    total.tt += (value * j * (j - 1)) / (y * y);
    total.pt += (value * i * j) / (x * y);
  }
  return total;
}

/** Water, up to 623.15 K and 100 MPa (IF97, eq. 7: reduced by 16.53 MPa and 1386 K). */
export function region1(temperatureK: number, pressureMPa: number): Properties {
  const [pi, tau] = [pressureMPa / 16.53, 1386 / temperatureK];
  const { g, p, pp, t, tt, pt } = sum(REGION_1, 7.1 - pi, tau - 1.222);
  return propertiesOf({ g, p: -p, pp, t, tt, pt: -pt }, { temperatureK, pressureMPa, pi, tau });
}

/** Steam, up to 1073.15 K (IF97, eq. 15 to 17: reduced by 1 MPa and 540 K). */
export function region2(temperatureK: number, pressureMPa: number): Properties {
  const [pi, tau] = [pressureMPa, 540 / temperatureK];
  const total = sum(REGION_2, pi, tau - 0.5);
  total.g += Math.log(pi);
  total.p += 1 / pi;
  total.pp -= 1 / (pi * pi);
  for (const [j, n] of REGION_2_IDEAL) {
    const value = n * tau ** j;
    total.g += value;
    total.t += (value * j) / tau;
    total.tt += (value * j * (j - 1)) / (tau * tau);
  }
  return propertiesOf(total, { temperatureK, pressureMPa, pi, tau });
}

/** Pressure in region 3 and its derivative by density, MPa and MPa m³/kg (IF97, eq. 28 and table 31). */
export function region3(temperatureK: number, density: number): { pressure: number; slope: number } {
  const delta = density / CRITICAL.densityKgPerM3;
  const { p, pp } = sum(REGION_3, delta, CRITICAL.temperatureK / temperatureK);
  const [first, second] = [p + REGION_3_LOG / delta, pp - REGION_3_LOG / (delta * delta)];
  const rt = R * temperatureK * 1e-3;
  return {
    pressure: density * rt * delta * first,
    slope: rt * (2 * delta * first + delta * delta * second),
  };
}
