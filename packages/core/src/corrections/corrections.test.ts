import { describe, expect, it } from 'vitest';
import { expectAll, givenNumber, loadCases, type Case } from '../../test/fixtures';
import { convertPressure, type PressureUnit } from '../units';
import {
  airDensity,
  airDensitySimplified,
  deadweightPressure,
  gasHead,
  liquidHead,
  localGravity,
  manometerPressure,
  markedDeadweight,
  mercuryBarometer,
  mercuryDensity,
  waterDensity,
  type Deadweight,
  type ManometerShape,
} from './index';

const cases = (kind: RegExp) =>
  loadCases<Case>('corrections.json', kind).map((one) => [`${one.id} ${one.kind}`, one] as const);
const optional = (given: Case['given'], name: string): number | undefined => given[name]?.value;

const UNIT: Record<string, PressureUnit> = {
  kilopascals: 'kPa',
  bars: 'bar',
  'pounds-force per square inch': 'psi',
};
const unitNamed = (text: string): PressureUnit => {
  const unit = UNIT[text.replace(/ (gauge|absolute)$/, '')];
  if (unit === undefined) throw new Error(`no unit of ours for "${text}"`);
  return unit;
};

it('a gas column is a straight line only as long as that is good, and never below nothing', () => {
  const given = { pressurePa: 1e5, molarMassGPerMol: 28.9655, temperatureC: 20, gravityMPerS2: 9.80665 };
  const low = gasHead({ ...given, heightM: 50 });
  expect(low.leading).toBe('linear');
  expect(low.value).toBe(1e5 + low.linearCorrectionPa);
  const high = gasHead({ ...given, heightM: 1000 });
  expect(high.leading).toBe('exponential');
  // p exp(-M g h / (R T)), the barometric formula.
  expect(high.value).toBeCloseTo(1e5 * Math.exp((-0.0289655 * 9.80665 * 1000) / (8.314462618 * 293.15)), 6);
  for (const heightM of [1e4, 1e5]) {
    expect(gasHead({ ...given, heightM }).value).toBeGreaterThan(0);
    const gauge = gasHead({ ...given, heightM, barometerPa: 101325, airDensityKgPerM3: 1.2 });
    expect(gauge.value + 101325).toBeGreaterThan(0);
  }
});

describe('corrections against figures computed outside Barys (each case names its source)', () => {
  it.each(cases(/^liquid head/))('%s', (_id, { given, expect: wanted }) => {
    const stated = given['pressure at the reference plane of the standard'];
    if (stated === undefined) throw new Error('no pressure');
    const unit = unitNamed(stated.unit);
    const head = (airDensityKgPerM3: number) =>
      liquidHead({
        pressurePa: convertPressure(stated.value, unit, 'Pa'),
        liquidDensityKgPerM3: givenNumber(given, 'liquid density'),
        airDensityKgPerM3,
        heightM: givenNumber(given, 'device under test above the reference plane of the standard by'),
        gravityMPerS2: givenNumber(given, 'gravity'),
      });
    const [without, withAir] = [head(0), head(givenNumber(given, 'ambient air density'))];
    const back = (pascals: number) => convertPressure(pascals, 'Pa', unit);
    expectAll(wanted, {
      'head correction without air buoyancy': back(without.correctionPa),
      'pressure at the device under test without air buoyancy': back(without.value),
      'head correction with air buoyancy': back(withAir.correctionPa),
      'pressure at the device under test with air buoyancy': back(withAir.value),
    });
  });

  it.each(cases(/^gas head/))('%s', (_id, { given, expect: wanted }) => {
    const barometerKPa = optional(given, 'barometric pressure');
    const got = gasHead({
      pressurePa: givenNumber(given, 'pressure at the reference plane of the standard') * 1000,
      molarMassGPerMol: givenNumber(given, 'molar mass'),
      temperatureC: givenNumber(given, 'gas temperature'),
      heightM: givenNumber(given, 'device under test above the reference plane of the standard by'),
      gravityMPerS2: givenNumber(given, 'gravity'),
      barometerPa: barometerKPa === undefined ? undefined : barometerKPa * 1000,
      airDensityKgPerM3: optional(given, 'ambient air density'),
    });
    expectAll(wanted, {
      'gas density': got.gasDensityKgPerM3,
      'head correction (linear)': got.linearCorrectionPa,
      'head correction (exponential, isothermal)': got.exponentialCorrectionPa,
      'pressure at the device under test': got.value / 1000,
      'pressure at the device under test, head of gas only': got.gasOnlyPa / 1000,
      'pressure at the device under test, gas minus ambient air': got.value / 1000,
    });
  });

  it.each(cases(/^local gravity/))('%s', (_id, { given, expect: wanted }) => {
    const got = localGravity(givenNumber(given, 'latitude'), givenNumber(given, 'height above sea level'));
    expectAll(wanted, {
      'normal gravity at sea level': got.seaLevelMPerS2,
      'local gravity': got.value,
      'ratio to standard gravity': got.ratioToStandard,
    });
  });

  it.each(cases(/^deadweight tester, /))('%s', (_id, { given, expect: wanted }) => {
    const masses = given['masses on the piston (including piston, true mass)'] as unknown as {
      value: number;
    }[];
    const barometerKPa = optional(given, 'barometric pressure');
    const stated: Deadweight = {
      massesKg: masses.map(({ value }) => value),
      massDensityKgPerM3: givenNumber(given, 'density of the masses'),
      airDensityKgPerM3: givenNumber(given, 'ambient air density'),
      areaM2: givenNumber(given, 'piston-cylinder effective area at 20 degrees Celsius and zero pressure'),
      areaExpansionPerK: givenNumber(given, 'thermal expansion of the area (piston plus cylinder)'),
      temperatureC: givenNumber(given, 'piston temperature'),
      distortionPerPa: givenNumber(given, 'pressure distortion coefficient of the area'),
      gravityMPerS2: givenNumber(given, 'local gravity'),
      surfaceTensionNPerM: optional(given, 'surface tension of the liquid'),
      pistonDiameterM: optional(given, 'piston diameter'),
      barometerPa: barometerKPa === undefined ? undefined : barometerKPa * 1000,
    };
    const got = deadweightPressure(stated);
    expectAll(wanted, {
      'pressure at the piston reference level': got.value / 1000,
      'pressure if gravity were taken as standard':
        deadweightPressure({ ...stated, gravityMPerS2: 9.80665 }).value / 1000,
      'absolute pressure': got.absolutePa === null ? null : got.absolutePa / 1000,
    });
  });

  it.each(cases(/^deadweight tester marked/))('%s', (_id, { given, expect: wanted }) => {
    const marked = given['marked (nominal) pressure'];
    if (marked === undefined) throw new Error('no pressure');
    const got = markedDeadweight({
      marked: marked.value,
      unit: marked.unit,
      markingGravityMPerS2: givenNumber(given, 'marking valid for gravity'),
      gravityMPerS2: givenNumber(given, 'local gravity'),
      areaExpansionPerK: givenNumber(given, 'thermal expansion of the area'),
      temperatureC: givenNumber(given, 'piston temperature'),
    });
    expectAll(wanted, {
      'true pressure': got.value,
      'correction in percent of marked pressure': got.correctionPercent,
    });
  });

  it.each(cases(/manometer/))('%s', (_id, { kind, given, expect: wanted }) => {
    const liquid = kind.includes('mercury') ? 'mercury' : 'water';
    const reading = given['reading'];
    if (reading === undefined) throw new Error('no reading');
    const readingM = reading.value * (reading.unit.startsWith('inches') ? 0.0254 : 0.001);
    const shape: ManometerShape = kind.startsWith('well')
      ? {
          kind: 'well',
          tubeDiameterM: givenNumber(given, 'tube inside diameter') / 1000,
          wellDiameterM: givenNumber(given, 'well inside diameter') / 1000,
        }
      : kind.startsWith('inclined')
        ? { kind: 'inclined', angleDegrees: givenNumber(given, 'inclination of the tube from horizontal') }
        : { kind: 'u-tube' };
    const got = manometerPressure({
      liquid,
      readingM,
      temperatureC: givenNumber(given, `${liquid} temperature`),
      gravityMPerS2: givenNumber(given, 'local gravity'),
      densityAboveKgPerM3:
        optional(given, 'density of the gas above the water') ??
        optional(given, 'density of the fluid above the mercury') ??
        0,
      shape,
    });
    const conventional = convertPressure(got.value, 'Pa', 'mmH2OConventional');
    expectAll(wanted, {
      'water density': got.liquidDensityKgPerM3,
      'mercury density': got.liquidDensityKgPerM3,
      'true pressure difference': liquid === 'water' ? got.value : got.value / 1000,
      'true pressure difference in conventional millimetres of water (1000 kg/m3, 9.80665 m/s2)':
        conventional,
      'true pressure difference in millimetres of mercury at 0 degrees Celsius, standard gravity':
        convertPressure(got.value, 'Pa', 'mmHgAt0C'),
      'correction to add to the reading': conventional - readingM * 1000,
    });
  });

  it.each(cases(/^mercury barometer/))('%s', (_id, { given, expect: wanted }) => {
    const got = mercuryBarometer({
      readingM: givenNumber(given, 'reading') / 1000,
      temperatureC: givenNumber(given, 'instrument temperature'),
      gravityMPerS2: givenNumber(given, 'local gravity'),
    });
    expectAll(wanted, { 'corrected reading': got.correctedM * 1000, pressure: got.value / 1000 });
  });

  it.each(cases(/^air density/))('%s', (_id, { given, expect: wanted }) => {
    const air = {
      temperatureC: givenNumber(given, 'air temperature'),
      pressurePa: givenNumber(given, 'air pressure'),
      relativeHumidityPercent: givenNumber(given, 'relative humidity'),
      carbonDioxide: givenNumber(given, 'carbon dioxide mole fraction'),
    };
    const full = airDensity(air);
    expectAll(wanted, {
      'air density (full formula)': full.value,
      'air density (simplified formula)': airDensitySimplified(air).value,
      'saturation vapour pressure used by the full formula': full.saturationPressurePa,
    });
  });
});

describe('corrections', () => {
  const head = {
    pressurePa: 100000,
    liquidDensityKgPerM3: 1000,
    airDensityKgPerM3: 1.2,
    heightM: 1,
    gravityMPerS2: 9.80665,
  };
  it('lose pressure upwards and gain it downwards, by the same amount', () => {
    expect(liquidHead(head).correctionPa).toBe(-liquidHead({ ...head, heightM: -1 }).correctionPa);
    expect(liquidHead({ ...head, heightM: 0 }).correctionPa).toBe(0);
  });

  it('come with a density of water that is highest at 4 °C', () => {
    // Tanaka 2001: 999.97495 at 3.983035 degC, from memory.
    expect(waterDensity(3.983035).value).toBeCloseTo(999.97495, 8);
    expect(waterDensity(0).value).toBeLessThan(waterDensity(4).value);
  });

  it('refuse what cannot be', () => {
    expect(() => liquidHead({ ...head, gravityMPerS2: 9.8e3 })).toThrow(
      'Gravity must be from 9.7 to 9.9 m/s²',
    );
    expect(() => liquidHead({ ...head, liquidDensityKgPerM3: 0 })).toThrow('greater than zero');
    expect(() => localGravity(91, 0)).toThrow('from -90 to 90 degrees');
    expect(() => waterDensity(60)).toThrow('from 0 to 40 °C');
    expect(() => mercuryDensity(Number.NaN)).toThrow('finite');
    expect(() =>
      airDensitySimplified({ temperatureC: 35, pressurePa: 101325, relativeHumidityPercent: 50 }),
    ).toThrow('from 10 to 30 °C');
    const manometer = {
      liquid: 'water',
      readingM: 0.5,
      temperatureC: 20,
      gravityMPerS2: 9.80665,
      densityAboveKgPerM3: 1.2,
    } as const;
    expect(() =>
      manometerPressure({ ...manometer, shape: { kind: 'well', tubeDiameterM: 0.1, wellDiameterM: 0.05 } }),
    ).toThrow('tube and well');
    expect(() =>
      manometerPressure({ ...manometer, densityAboveKgPerM3: 2000, shape: { kind: 'u-tube' } }),
    ).toThrow('above and below the surface');
    const tester: Deadweight = {
      massesKg: [1],
      massDensityKgPerM3: 7920,
      airDensityKgPerM3: 1.2,
      areaM2: 8e-5,
      areaExpansionPerK: 0,
      temperatureC: 20,
      distortionPerPa: 0,
      gravityMPerS2: 9.80665,
    };
    expect(() => deadweightPressure({ ...tester, massesKg: [] })).toThrow('A mass is needed');
    expect(() => deadweightPressure({ ...tester, distortionPerPa: -1 })).toThrow(
      'too large to be solved for',
    );
  });
});
