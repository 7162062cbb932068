/** What a unit is, and the exact definitions that the tables of units are built from. */
import { exact, type Exact } from '../exact';

export interface UnitDefinition {
  /** How the unit is written for people. */
  readonly label: string;
  /** How many of the quantity's base unit make one of this unit, exact. */
  readonly factor: Exact;
  /** Value in the base unit where this unit reads zero, exact; only temperatures have one. */
  readonly offset: Exact;
  /** A column's length, m, and density, kg/m3, whose product with standard gravity the factor is. */
  readonly column?: { readonly lengthM: Exact; readonly densityKgPerM3: Exact };
}

/** A table of units, written as label, factor and, where the scale does not start at zero, offset. */
export function defineUnits<K extends string>(
  table: Record<K, readonly [label: string, factor: Exact, offset?: Exact]>,
): Record<K, UnitDefinition> {
  const entries = Object.entries<readonly [string, Exact, Exact?]>(table);
  return Object.fromEntries(
    entries.map(([key, [label, factor, offset = exact(0)]]) => [key, { label, factor, offset }]),
  ) as Record<K, UnitDefinition>;
}

/** Exact by definition: international yard and pound (1959), CGPM 1901, US gallon of 231 in3, UK gallon (1985). */
export const STANDARD_GRAVITY = exact(9.80665);
export const INCH_M = exact(0.0254);
export const FOOT_M = exact(0.3048);
export const POUND_KG = exact(0.45359237);
export const US_GALLON_M3 = exact(231).mul(INCH_M.pow(3));
export const IMPERIAL_GALLON_M3 = exact(0.00454609);
/** The barrel of 42 US gallons, as crude oil is traded. */
export const BARREL_M3 = US_GALLON_M3.mul(42);

/** Densities behind the column units and relative density, kg/m3. Derived: rounded to the digits at which sources agree. */
export const REFERENCE_DENSITY = {
  // SP 811: 1 inch of water at 39.2 degF is 249.082 Pa.
  water4C: exact(999.972),
  // IAPWS-95 999.0171 and Tanaka 2001 999.0170 at 15.5556 degC and 101.325 kPa.
  water60F: exact(999.017),
  // IAPWS-95 998.2071 and Tanaka 2001 998.2067 at 20 degC and 101.325 kPa.
  water68F: exact(998.207),
  // Exact by convention.
  waterConventional: exact(1000),
  // SP 811, conventional mercury at 0 degC: 1 inch is 3386.389 Pa.
  mercury0C: exact(13595.1),
  // SP 811: 1 inch of mercury at 60 degF is 3376.85 Pa.
  mercury60F: exact(13556.8),
} as const;
