import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose, loadCases, type Case } from '../../test/fixtures';
import {
  convert,
  convertKind,
  convertPressure,
  densityFromRelative,
  isPressureUnit,
  parseUnit,
  PRESSURE_UNITS,
  QUANTITIES,
  relativeFromApi,
  unitsOf,
  type PressureKind,
  type PressureUnit,
  type Quantity,
  type Unit,
} from './index';

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
  it.each(loadCases<Case>('units.json', /^pressure unit/).map((one) => [one.id, one] as const))(
    '%s',
    (_id, one) => {
      const from = one.given['pressure'];
      if (from === undefined) throw new Error('a case without a pressure');
      for (const [name, wanted] of Object.entries(one.expect)) {
        expectClose(convertPressure(from.value, unitOf(from.unit), unitOf(wanted.unit ?? '')), wanted, name);
      }
    },
  );
});

/** Names of the other quantities in the outside cases. */
const OTHER: Record<string, Unit> = {
  'cubic metres per hour': 'm3PerH',
  'litres per minute': 'lPerMin',
  'litres per second': 'lPerS',
  'US gallons per minute': 'usGalPerMin',
  'imperial gallons per minute': 'impGalPerMin',
  'cubic feet per minute': 'ft3PerMin',
  'barrels (42 US gallons) per day': 'barrelPerD',
  'million US gallons per day': 'millionUsGalPerD',
  'pounds per cubic foot': 'lbPerFt3',
  'kilograms per cubic metre': 'kgPerM3',
  'grams per cubic centimetre': 'gPerCm3',
  'pounds per US gallon': 'lbPerUsGal',
  'degrees Celsius': 'degC',
  'degrees Fahrenheit': 'degF',
  kelvins: 'K',
  'Celsius degrees (difference)': 'degCDifference',
  'Fahrenheit degrees (difference)': 'degFDifference',
  'kelvins (difference)': 'KDifference',
};

describe('other units against figures computed outside Barys', () => {
  const cases = loadCases<Case>(
    'units.json',
    /^(volume flow|density|temperature|temperature difference) (unit )?conversion$/,
  );
  it.each(cases.map((one) => [one.id, one] as const))('%s', (_id, one) => {
    const [from] = Object.values(one.given);
    if (from === undefined) throw new Error('nothing given');
    for (const [name, wanted] of Object.entries(one.expect))
      expectClose(convert(from.value, OTHER[from.unit] ?? '', OTHER[wanted.unit ?? ''] ?? ''), wanted, name);
  });

  it.each(loadCases<Case>('units.json', /absolute/).map((one) => [one.id, one] as const))(
    '%s',
    (_id, one) => {
      const split = (unit: string): [PressureUnit, PressureKind] => {
        const [, name = '', kind] = /^(.*?)(?: (gauge|absolute))?$/.exec(unit) ?? [];
        return [unitOf(name), kind === 'gauge' ? 'gauge' : 'absolute'];
      };
      const [pressure, barometer] = Object.values(one.given);
      const [[name, wanted] = ['', undefined]] = Object.entries(one.expect);
      if (pressure === undefined || barometer === undefined || wanted === undefined)
        throw new Error('incomplete');
      const [unit, kind] = split(pressure.unit);
      const [toUnit, toKind] = split(wanted.unit ?? '');
      const got = convertKind(
        { value: pressure.value, unit, kind },
        { unit: toUnit, kind: toKind },
        { value: barometer.value, unit: split(barometer.unit)[0] },
      );
      expectClose(got, wanted, name);
    },
  );

  it('A-P36 and A-P38: relative density and API gravity', () => {
    const [relative, api] = [
      ...loadCases<Case>('units.json', /^relative density/),
      ...loadCases<Case>('units.json', /^API/),
    ];
    const wanted = Object.values(relative?.expect ?? {});
    [999.972, 999.017, 1000].forEach((water, i) => {
      const figure = wanted[i];
      if (figure === undefined) throw new Error('no figure');
      expectClose(densityFromRelative(0.85, water), figure, `water of ${water}`);
    });
    const [ratio, density] = Object.values(api?.expect ?? {});
    if (ratio === undefined || density === undefined) throw new Error('no figure');
    expectClose(relativeFromApi(35), ratio, 'relative density');
    expectClose(densityFromRelative(relativeFromApi(35), 999.017), density, 'density');
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

describe('units of every quantity', () => {
  const quantities = Object.keys(QUANTITIES) as Quantity[];
  it('come back unchanged from any other of their kind', () => {
    fc.assert(
      fc.property(
        fc
          .constantFrom(...quantities)
          .chain((quantity) =>
            fc.tuple(
              fc.double({ min: quantity === 'temperature' ? 0 : -1e6, max: 1e6, noNaN: true }),
              fc.constantFrom(...unitsOf(quantity)),
              fc.constantFrom(...unitsOf(quantity)),
            ),
          ),
        ([value, from, to]) => {
          const back = convert(convert(value, from, to), to, from);
          // A temperature scale's zero is up to 460 away, whose last digit then counts.
          expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-15 * (4 * Math.abs(value) + 2000));
        },
      ),
    );
  });

  it('go down to absolute zero and no further', () => {
    expect(convert(-273.15, 'degC', 'K')).toBe(0);
    expect(() => convert(-273.16, 'degC', 'K')).toThrow('at least -273.15 °C');
    expect(() => convert(-459.68, 'degF', 'degC')).toThrow('at least -459.67 °F');
  });

  it('have keys that stand in one quantity only', () => {
    const keys = quantities.flatMap((quantity) => unitsOf(quantity));
    expect(new Set(keys).size).toBe(keys.length);
  });

  it('refuse units of the wrong kind, saying which they are', () => {
    expect(() => convert(1, 'kPa', 'm3PerH')).toThrow('m³/h is a unit of volume flow, not of pressure.');
    expect(() => convert(1, 'degC', 'degCDifference')).toThrow('not of temperature');
    expect(() => convert(1, 'furlong', 'm')).toThrow('"furlong" is not a unit that Barys knows.');
  });

  it('move the decimal point of a current exactly', () => {
    expect(convert(0.02, 'A', 'mA')).toBe(20);
    expect(convert(4.04, 'mA', 'uA')).toBe(4040);
  });
});

describe('kinds of pressure', () => {
  const bar = (value: number) => ({ value, unit: 'bar' as const });
  it('need a barometer between gauge and absolute only', () => {
    const gauge = { value: 2, unit: 'bar', kind: 'gauge' } as const;
    expect(() => convertKind(gauge, { unit: 'bar', kind: 'absolute' })).toThrow(
      'barometric pressure is needed',
    );
    expect(convertKind(gauge, { unit: 'kPa', kind: 'compound' })).toBe(200);
    expect(convertKind(gauge, { unit: 'bar', kind: 'absolute' }, bar(1))).toBe(3);
  });

  it('count vacuum downwards from the air', () => {
    const vacuum = { value: 25, unit: 'inHgAt0C', kind: 'vacuum' } as const;
    expect(convertKind(vacuum, { unit: 'inHgAt0C', kind: 'gauge' })).toBe(-25);
    expect(
      convertKind(vacuum, { unit: 'inHgAt0C', kind: 'absolute' }, { value: 29.92, unit: 'inHgAt0C' }),
    ).toBeCloseTo(4.92, 12);
  });

  it('refuse a difference as a pressure, and less than nothing', () => {
    const difference = { value: 5, unit: 'bar', kind: 'differential' } as const;
    expect(() => convertKind(difference, { unit: 'bar', kind: 'gauge' })).toThrow(
      'a difference of two pressures',
    );
    const deep = { value: -2, unit: 'bar', kind: 'gauge' } as const;
    expect(() => convertKind(deep, { unit: 'bar', kind: 'absolute' }, bar(1))).toThrow(
      'no absolute pressure is below zero',
    );
  });
});

describe('units as people type them', () => {
  it.each([
    ['in H2O @ 68F', 'inH2OAt68F', null],
    ['inH2O (60 °F)', 'inH2OAt60F', null],
    ['in. w.c. at 4°C', 'inH2OAt4C', null],
    ['"H2O @ 39.2 deg F', 'inH2OAt4C', null],
    ['mmH2O @ 20 °C', 'mmH2OAt68F', null],
    ['inH2O, conventional', 'inH2OConventional', null],
    ['mmHg', 'mmHgAt0C', null],
    ['inHg @ 0C', 'inHgAt0C', null],
    ['MPa', 'MPa', null],
    ['KPA', 'kPa', null],
    ['psig', 'psi', 'gauge'],
    ['bar(a)', 'bar', 'absolute'],
    ['kPa abs', 'kPa', 'absolute'],
    ['mbar vacuum', 'mbar', 'vacuum'],
    ['m³/h', 'm3PerH', null],
    ['°F', 'degF', null],
    ['deg C', 'degC', null],
    ['kg/cm²', 'kgfPerCm2', null],
  ] as const)('"%s"', (text, unit, kind) => {
    expect(parseUnit(text)).toEqual({ unit, kind });
  });

  it.each([
    ['inWC', 'inH2O at 4 °C, inH2O at 60 °F, inH2O at 68 °F, inH2O, conventional'],
    ['inH2O', 'inH2O at 4 °C'],
    ['mmH2O @ 60F', 'mmH2O at 4 °C, mmH2O at 68 °F, mmH2O, conventional'],
    ['inHg', 'inHg at 0 °C, inHg at 60 °F'],
    ['gpm', 'US gal/min, imperial gal/min'],
    ['Mgal/d', 'million US gal/d, million imperial gal/d'],
    ['mpa', 'MPa, Pa'],
    ['SG', 'relative to 1000 kg/m³'],
  ])('"%s" asks which', (text, choices) => {
    expect(() => parseUnit(text)).toThrow(`"${text}" can mean more than one unit. Say which: ${choices}`);
  });

  it('refuse what is no unit, and MM for a million', () => {
    expect(() => parseUnit('furlong')).toThrow('not a unit that Barys knows');
    expect(() => parseUnit('MMgal/d')).toThrow('not a unit that Barys knows');
    expect(() => parseUnit('constructor')).toThrow('not a unit that Barys knows');
    expect(() => parseUnit('')).toThrow('not a unit');
  });
});
