/** The working of a conversion: through the base unit of the quantity, with the columns of liquid taken apart. */
import { toNumber } from '../exact';
import { Working, type Worked } from '../working';
import { densityFromRelative, relativeFromApi } from './density';
import { convertKind, type Pressure } from './kind';
import type { PressureUnit } from './pressure';
import { convert, quantityOf, unitDefinition, type Quantity } from './quantity';

const BASE_UNIT: Record<Quantity, string> = {
  pressure: 'Pa',
  volumeFlow: 'm³/s',
  massFlow: 'kg/s',
  length: 'm',
  density: 'kg/m³',
  temperature: 'K',
  temperatureDifference: 'K',
  current: 'A',
  voltage: 'V',
  resistance: 'Ω',
  ratio: '',
};

const DEFINITIONS = 'definition of the unit; NIST SP 811 (2008), appendix B, from memory';

/** A step for the factor of a unit: a column from its parts, any other as it is defined. */
function factorStep(work: Working, unit: string, symbol: string): void {
  const { label, factor, column } = unitDefinition(unit);
  const base = BASE_UNIT[quantityOf(unit)];
  if (column === undefined) {
    work.step({
      what: `One ${label}`,
      symbol,
      formula: String(toNumber(factor)),
      unit: base,
      source: DEFINITIONS,
    });
    return;
  }
  work.step({
    what: `One ${label}: a column of liquid under standard gravity`,
    symbol,
    formula: 'l * rho * g_n',
    given: {
      l: { value: toNumber(column.lengthM), unit: 'm' },
      rho: { value: toNumber(column.densityKgPerM3), unit: 'kg/m³' },
      g_n: { value: 9.80665, unit: 'm/s²' },
    },
    unit: base,
    source: 'length times the density that the unit names times standard gravity; NIST SP 811, from memory',
  });
}

function convertSteps(work: Working, value: number, from: string, to: string): number {
  const [source, target] = [unitDefinition(from), unitDefinition(to)];
  const base = BASE_UNIT[quantityOf(from)];
  factorStep(work, from, 'f_1');
  factorStep(work, to, 'f_2');
  const hasOffset = source.offset.compare(0) !== 0 || target.offset.compare(0) !== 0;
  work.step({
    what: 'In the base unit',
    symbol: 'b',
    formula: hasOffset ? 'x * f_1 + o_1' : 'x * f_1',
    given: {
      x: { value, unit: source.label },
      o_1: { value: toNumber(source.offset), unit: base },
    },
    unit: base,
    source: 'definition',
  });
  return work.step({
    what: 'In the unit asked for',
    symbol: 'y',
    formula: hasOffset ? '(b - o_2) / f_2' : 'b / f_2',
    given: { o_2: { value: toNumber(target.offset), unit: base } },
    unit: target.label,
    source: 'definition',
  });
}

/**
 * A conversion with its working. The value is `convert`'s, rounded once; the steps round at each.
 * @throws CoreError as `convert`
 */
export function workConversion(value: number, from: string, to: string): Worked {
  const result = convert(value, from, to);
  const work = new Working();
  convertSteps(work, value, from, to);
  return { value: result, working: work.steps };
}

/**
 * A change of unit and kind with its working.
 * @throws CoreError as `convertKind`
 */
export function workKind(
  from: Pressure,
  to: { readonly unit: PressureUnit; readonly kind: Pressure['kind'] },
  barometer?: { readonly value: number; readonly unit: PressureUnit },
): Worked {
  const value = convertKind(from, to, barometer);
  const work = new Working();
  convertSteps(work, from.value, from.unit, to.unit);
  if (from.kind === to.kind) return { value, working: work.steps };
  const isDown = (kind: Pressure['kind']) => kind === 'vacuum';
  const label = unitDefinition(to.unit).label;
  const needsAir = from.kind === 'absolute' || to.kind === 'absolute';
  if (needsAir && barometer !== undefined) {
    work.step({
      what: 'The barometer in the unit asked for',
      symbol: 'p_air',
      formula: 'B * k_1 / k_2',
      given: {
        B: { value: barometer.value, unit: unitDefinition(barometer.unit).label },
        k_1: { value: toNumber(unitDefinition(barometer.unit).factor), unit: 'Pa' },
        k_2: { value: toNumber(unitDefinition(to.unit).factor), unit: 'Pa' },
      },
      unit: label,
      source: 'definition',
    });
  }
  const gauge = from.kind === 'absolute' ? 'y - p_air' : isDown(from.kind) ? '-y' : 'y';
  const wanted = to.kind === 'absolute' ? `(${gauge}) + p_air` : isDown(to.kind) ? `-(${gauge})` : gauge;
  work.step({
    what: `From ${from.kind} to ${to.kind}`,
    symbol: 'p',
    formula: wanted,
    unit: label,
    source: 'absolute = gauge + barometric pressure; vacuum = - gauge (definition)',
  });
  return { value, working: work.steps };
}

/**
 * Density from relative density, with its working.
 * @throws CoreError as `densityFromRelative`
 */
export function workDensity(relativeDensity: number, waterDensityKgPerM3: number): Worked {
  const value = densityFromRelative(relativeDensity, waterDensityKgPerM3);
  const work = new Working();
  work.step({
    what: 'Density',
    symbol: 'rho',
    formula: 'd * rho_w',
    given: {
      d: { value: relativeDensity, unit: '' },
      rho_w: { value: waterDensityKgPerM3, unit: 'kg/m³' },
    },
    unit: 'kg/m³',
    source: 'definition of relative density; the reference water is the one stated',
  });
  return { value, working: work.steps };
}

/**
 * Relative density from API gravity, with its working.
 * @throws CoreError as `relativeFromApi`
 */
export function workApi(apiGravity: number): Worked {
  const value = relativeFromApi(apiGravity);
  const work = new Working();
  work.step({
    what: 'Relative density 60/60 °F',
    symbol: 'd',
    formula: '141.5 / (G + 131.5)',
    given: { G: { value: apiGravity, unit: '°API' } },
    unit: '',
    source: 'API MPMS, ASTM D1250, from memory',
  });
  return { value, working: work.steps };
}
