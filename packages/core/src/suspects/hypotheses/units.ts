/** Units that are mistaken for each other. */
import { toNumber } from '../../exact';
import { PRESSURE_UNITS, type PressureUnit } from '../../units';
import type { Variant } from '../evidence';
import { alike, type Case } from './case';

const WATER_KG_PER_M3 = 1000;
const GRAVITY = 9.80665;

/** Pascals in a unit. */
export const factorOf = (unit: PressureUnit): number => toNumber(PRESSURE_UNITS[unit].factor);

/** Head of a metre of a liquid in the input unit. */
export const headOfMetre = (unit: PressureUnit, densityKgPerM3 = WATER_KG_PER_M3): number =>
  (densityKgPerM3 * GRAVITY) / factorOf(unit);

/** A column of water of another temperature with the same length. */
export function waterUnits(unit: PressureUnit): PressureUnit[] {
  const column = PRESSURE_UNITS[unit].column;
  if (column === undefined || toNumber(column.densityKgPerM3) > 2000) return [];
  return (Object.keys(PRESSURE_UNITS) as PressureUnit[]).filter((other) => {
    const one = PRESSURE_UNITS[other].column;
    return (
      other !== unit &&
      one !== undefined &&
      toNumber(one.densityKgPerM3) < 2000 &&
      one.lengthM.equals(column.lengthM)
    );
  });
}

/** Farther than this two units are not mistaken for each other: the output would stand at an end. */
const FARTHEST_UNIT = 30;
/** Nearer than this nobody could tell them apart. */
const NEAREST_UNIT = 0.0004;

/** Units that one may stand in by mistake; of those that look alike the first. */
export function otherUnits(unit: PressureUnit): PressureUnit[] {
  const water = new Set(waterUnits(unit));
  const factors = new Set<string>();
  return (Object.keys(PRESSURE_UNITS) as PressureUnit[]).filter((other) => {
    const ratio = factorOf(other) / factorOf(unit);
    const far = Math.abs(Math.log(ratio));
    if (water.has(other) || far < NEAREST_UNIT || far > Math.log(FARTHEST_UNIT)) return false;
    // Units of one size, and water of one length, look alike: the first stands for them.
    const key = ratio.toPrecision(3);
    if (factors.has(key)) return false;
    factors.add(key);
    return true;
  });
}

/** A range set up in another unit than it says. */
export function unitVariants(of: Case, units: readonly PressureUnit[]): Variant[] {
  const { range, inputUnit } = of;
  if (inputUnit === null) return [];
  return alike(
    units.map((unit) => {
      const by = factorOf(unit) / factorOf(inputUnit);
      return {
        name: unit,
        parameters: [],
        condition: () => ({ lrv: range.lrv * by, urv: range.urv * by }),
      };
    }),
  );
}
