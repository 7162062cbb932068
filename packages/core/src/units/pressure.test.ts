import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose, loadCases, type Case } from '../../test/fixtures';
import { convertCurrent } from './current';
import { convertPressure, isPressureUnit, PRESSURE_UNITS, type PressureUnit } from './pressure';

/** The unit names that the outside cases use. */
const UNIT: Record<string, PressureUnit> = {
  pascals: 'Pa',
  hectopascals: 'hPa',
  kilopascals: 'kPa',
  megapascals: 'MPa',
  millibars: 'mbar',
  bars: 'bar',
  'pounds-force per square inch': 'psi',
  'ounces-force per square inch': 'ozfPerIn2',
  'kilograms-force per square centimetre': 'kgfPerCm2',
  'grams-force per square centimetre': 'gfPerCm2',
  'standard atmospheres': 'atm',
  torr: 'Torr',
  millitorr: 'mTorr',
  'millimetres of mercury at 0 degrees Celsius': 'mmHgAt0C',
  'microns of mercury (micrometres of mercury column at 0 degrees Celsius)': 'micronHgAt0C',
  'inches of mercury at 0 degrees Celsius': 'inHgAt0C',
  'inches of mercury at 60 degrees Fahrenheit': 'inHgAt60F',
  'inches of water at 4 degrees Celsius': 'inH2OAt4C',
  'inches of water at 60 degrees Fahrenheit': 'inH2OAt60F',
  'inches of water at 68 degrees Fahrenheit': 'inH2OAt68F',
  'inches of water, conventional (1000 kg/m3)': 'inH2OConventional',
  'millimetres of water at 4 degrees Celsius': 'mmH2OAt4C',
  'millimetres of water at 68 degrees Fahrenheit': 'mmH2OAt68F',
  'millimetres of water, conventional (1000 kg/m3)': 'mmH2OConventional',
  'centimetres of water at 4 degrees Celsius': 'cmH2OAt4C',
  'metres of water at 4 degrees Celsius': 'mH2OAt4C',
  'metres of water, conventional (1000 kg/m3)': 'mH2OConventional',
  'feet of water at 4 degrees Celsius': 'ftH2OAt4C',
  'feet of water at 60 degrees Fahrenheit': 'ftH2OAt60F',
  'feet of water at 68 degrees Fahrenheit': 'ftH2OAt68F',
};

function unitOf(name: string): PressureUnit {
  const unit = UNIT[name];
  if (unit === undefined) throw new Error(`no unit of ours for "${name}"`);
  return unit;
}

describe('pressure units against figures computed outside Barys (each case names its source)', () => {
  it.each(loadCases<Case>('pressure-units.json').map((one) => [one.id, one] as const))('%s', (_id, one) => {
    const from = one.given['pressure'];
    if (from === undefined) throw new Error('a case without a pressure');
    for (const [name, wanted] of Object.entries(one.expect)) {
      expectClose(convertPressure(from.value, unitOf(from.unit), unitOf(wanted.unit ?? '')), wanted, name);
    }
  });
});

describe('pressure units', () => {
  const units = Object.keys(PRESSURE_UNITS) as PressureUnit[];
  // NIST SP 811 (2008) Appendix B.8, from memory, to the digits printed there.
  it.each([
    ['psi', 6.894757e3, 5e-4],
    ['inHgAt0C', 3.386389e3, 5e-4],
    ['inH2OConventional', 2.490889e2, 5e-5],
    ['mmHgAt0C', 1.333224e2, 5e-5],
  ] as const)('one %s in pascals is the printed figure', (unit, pascals, halfLastDigit) => {
    expect(Math.abs(convertPressure(1, unit, 'Pa') - pascals)).toBeLessThanOrEqual(halfLastDigit);
  });

  it('come back unchanged from any other unit', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.constantFrom(...units),
        fc.constantFrom(...units),
        (value, from, to) => {
          const back = convertPressure(convertPressure(value, from, to), to, from);
          expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-15 * Math.abs(value) * 4 + 1e-300);
        },
      ),
    );
  });

  it('keep water of different temperatures apart by up to 0.18 %', () => {
    const spread = convertPressure(1, 'inH2OConventional', 'inH2OAt68F') - 1;
    expect(spread).toBeGreaterThan(0.0017);
    expect(spread).toBeLessThan(0.0019);
  });

  it('refuse a column without its temperature, and numbers that are none', () => {
    expect(isPressureUnit('inH2O')).toBe(false);
    expect(isPressureUnit('toString')).toBe(false);
    expect(() => convertPressure(Number.NaN, 'bar', 'Pa')).toThrow('finite');
  });
});

describe('current units', () => {
  it('move the decimal point exactly', () => {
    expect(convertCurrent(0.02, 'A', 'mA')).toBe(20);
    expect(convertCurrent(4.04, 'mA', 'uA')).toBe(4040);
  });
});
