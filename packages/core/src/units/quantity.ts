/** All units by the quantity that they measure, and conversion within one quantity. */
import { CoreError } from '../errors';
import { exact, toNumber } from '../exact';
import type { UnitDefinition } from './definition';
import { CURRENT_UNITS, RATIO_UNITS, RESISTANCE_UNITS, VOLTAGE_UNITS } from './electric';
import { MASS_FLOW_UNITS, VOLUME_FLOW_UNITS } from './flow';
import { DENSITY_UNITS, LENGTH_UNITS, TEMPERATURE_DIFFERENCE_UNITS, TEMPERATURE_UNITS } from './matter';
import { PRESSURE_UNITS } from './pressure';

/** Every quantity with its name and its units; a unit's key stands in one quantity only. */
export const QUANTITIES = {
  pressure: { name: 'pressure', units: PRESSURE_UNITS },
  volumeFlow: { name: 'volume flow', units: VOLUME_FLOW_UNITS },
  massFlow: { name: 'mass flow', units: MASS_FLOW_UNITS },
  length: { name: 'length', units: LENGTH_UNITS },
  density: { name: 'density', units: DENSITY_UNITS },
  temperature: { name: 'temperature', units: TEMPERATURE_UNITS },
  temperatureDifference: { name: 'temperature difference', units: TEMPERATURE_DIFFERENCE_UNITS },
  current: { name: 'current', units: CURRENT_UNITS },
  voltage: { name: 'voltage', units: VOLTAGE_UNITS },
  resistance: { name: 'resistance', units: RESISTANCE_UNITS },
  ratio: { name: 'ratio', units: RATIO_UNITS },
} as const;

export type Quantity = keyof typeof QUANTITIES;
type UnitsOf<Q extends Quantity> = keyof (typeof QUANTITIES)[Q]['units'];
export type Unit = { [Q in Quantity]: UnitsOf<Q> }[Quantity];

const BY_UNIT: ReadonlyMap<string, readonly [Quantity, UnitDefinition]> = new Map(
  (Object.keys(QUANTITIES) as Quantity[]).flatMap((quantity) =>
    Object.entries<UnitDefinition>(QUANTITIES[quantity].units).map(
      ([unit, definition]) => [unit, [quantity, definition]] as const,
    ),
  ),
);

/** Keys of all units, or of one quantity's. */
export function unitsOf(quantity: Quantity): readonly Unit[] {
  return Object.keys(QUANTITIES[quantity].units) as Unit[];
}

/** Whether a text is the key of a unit. */
export function isUnit(text: string): text is Unit {
  return BY_UNIT.has(text);
}

function lookUp(unit: string): readonly [Quantity, UnitDefinition] {
  const found = BY_UNIT.get(unit);
  if (found === undefined) throw new CoreError({ code: 'unknown-unit', text: unit });
  return found;
}

/** @throws CoreError `unknown-unit` */
export function quantityOf(unit: string): Quantity {
  return lookUp(unit)[0];
}

/** How a unit is written for people. */
export function unitLabel(unit: string): string {
  return lookUp(unit)[1].label;
}

/** A unit's factor to the base unit of its quantity (Pa, m3/s, kg/s, m, kg/m3, K, A, V, ohm, 1) and its offset. */
export function unitDefinition(unit: string): UnitDefinition {
  return lookUp(unit)[1];
}

/**
 * Converts a value between two units of one quantity; computed in exact rationals and rounded once.
 * Volume to mass flow, and a temperature to a difference, are refused: they are different quantities.
 * @throws CoreError `not-finite`, `unknown-unit`, `wrong-unit-kind`, `too-small` below absolute zero, `undefined-result`
 * @example convert(100, 'm3PerH', 'usGalPerMin') // 440.28675393025
 * @example convert(25, 'degC', 'degF') // 77
 */
export function convert(value: number, from: string, to: string): number {
  const [quantity, source] = lookUp(from);
  const [wanted, target] = lookUp(to);
  if (quantity !== wanted)
    throw new CoreError(
      {
        code: 'wrong-unit-kind',
        unit: target.label,
        is: QUANTITIES[wanted].name,
        wanted: QUANTITIES[quantity].name,
      },
      'to',
    );
  const base = exact(value).mul(source.factor).add(source.offset);
  if (quantity === 'temperature' && base.compare(0) < 0)
    throw new CoreError(
      {
        code: 'too-small',
        name: 'A temperature',
        value,
        least: toNumber(source.offset.neg().div(source.factor)),
        unit: source.label,
      },
      'value',
    );
  const result = toNumber(base.sub(target.offset).div(target.factor));
  if (!Number.isFinite(result))
    throw new CoreError(
      {
        code: 'undefined-result',
        name: `The value in ${target.label}`,
        why: 'it is larger than any number here',
      },
      'value',
    );
  return result;
}
