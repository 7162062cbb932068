import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectAll, givenNumber, loadCases, type Case } from '../../test/fixtures';
import {
  CRITICAL,
  region1,
  region2,
  region3,
  saturatedAt,
  saturationPressureMPa,
  saturationTemperatureK,
  compressedWaterDensity,
} from './index';

const cases = (kind: RegExp) =>
  loadCases<Case>('boiler-drum.json', kind).map((one): [string, Case] => [one.id, one]);

describe('IAPWS-IF97, against the verification tables of the release and figures computed outside Barys', () => {
  it.each([
    ...cases(/region 1$/).map(([id, one]) => [id, one, region1] as const),
    ...cases(/region 2$/).map(([id, one]) => [id, one, region2] as const),
  ])('%s', (_id, { given, expect: wanted }, region) => {
    const got = region(givenNumber(given, 'temperature'), givenNumber(given, 'pressure'));
    expectAll(wanted, {
      'specific volume': got.volume,
      'specific enthalpy': got.enthalpy,
      'specific internal energy': got.internalEnergy,
      'specific entropy': got.entropy,
      'specific isobaric heat capacity': got.isobaricHeat,
      'speed of sound': got.speedOfSound,
    });
  });

  // IAPWS R7-97(2012), Table 33, from memory: 650 K at 500 and 200 kg/m3, 750 K at 500 kg/m3.
  it.each([
    [650, 500, 25.5837018],
    [650, 200, 22.2930643],
    [750, 500, 78.3095639],
  ])('region 3 at %d K and %d kg/m3', (temperature, density, pressure) => {
    expect(region3(temperature, density).pressure).toBeCloseTo(pressure, 6);
    const beside =
      region3(temperature, density + 1e-3).pressure - region3(temperature, density - 1e-3).pressure;
    expect(region3(temperature, density).slope).toBeCloseTo(beside / 2e-3, 7);
  });

  it.each(cases(/region 4$/))('%s', (_id, { given, expect: wanted }) => {
    const of = (name: string) => givenNumber(given, name);
    expectAll(wanted, {
      'saturation pressure 1': saturationPressureMPa(of('temperature 1')),
      'saturation pressure 2': saturationPressureMPa(of('temperature 2')),
      'saturation temperature 1': saturationTemperatureK(of('pressure 1')),
      'saturation temperature 2': saturationTemperatureK(of('pressure 2')),
    });
  });

  it.each(cases(/^saturated water and steam density$/))('%s', (_id, { given, expect: wanted }) => {
    const got = saturatedAt(givenNumber(given, 'pressure') * 1e5);
    expectAll(wanted, {
      'saturation temperature': got.temperatureC,
      'saturated water density': got.waterKgPerM3,
      'saturated steam density': got.steamKgPerM3,
    });
  });

  it.each(cases(/^compressed water density/))('%s', (_id, { given, expect: wanted }) => {
    expectAll(wanted, {
      density: compressedWaterDensity(
        givenNumber(given, 'temperature'),
        givenNumber(given, 'pressure') * 1e5,
      ),
    });
  });
});

describe('the whole saturation line', () => {
  const { rows } = JSON.parse(
    readFileSync(new URL('../../test/reference/saturation-line.json', import.meta.url), 'utf8'),
  ) as { rows: [celsius: number, pressureMPa: number, water: number, steam: number][] };

  it('is what python3-iapws makes it, into region 3', () => {
    expect(rows.length).toBeGreaterThan(120);
    for (const [celsius, pressureMPa, water, steam] of rows) {
      expect(saturationPressureMPa(celsius + 273.15) / pressureMPa, `${celsius}`).toBeCloseTo(1, 9);
      const got = saturatedAt(pressureMPa * 1e6);
      expect(got.temperatureC, `${celsius}`).toBeCloseTo(celsius, 5);
      // Close to the critical point a hair of pressure is much density.
      const digits = celsius > 373 ? 4 : 7;
      expect(got.waterKgPerM3 / water, `water at ${celsius}`).toBeCloseTo(1, digits);
      expect(got.steamKgPerM3 / steam, `steam at ${celsius}`).toBeCloseTo(1, digits);
    }
  });

  it('ends where water and steam are one', () => {
    const top = saturatedAt(CRITICAL.pressureMPa * 1e6);
    expect([top.waterKgPerM3, top.steamKgPerM3]).toEqual([322, 322]);
    let before = saturatedAt(16.5e6);
    for (let pressure = 16.6e6; pressure < 22.064e6; pressure += 0.05e6) {
      const now = saturatedAt(pressure);
      expect(now.waterKgPerM3).toBeLessThan(before.waterKgPerM3);
      expect(now.steamKgPerM3).toBeGreaterThan(before.steamKgPerM3);
      before = now;
    }
  });

  it('refuses what is not on it, and water that would boil', () => {
    expect(() => saturatedAt(22.1e6)).toThrow('must be from');
    expect(() => saturatedAt(600)).toThrow('must be from');
    expect(() => saturatedAt(NaN)).toThrow('finite');
    expect(() => compressedWaterDensity(180, 9e5)).toThrow('at 180 °C it boils below 10.03 bar absolute');
    expect(compressedWaterDensity(179.885, 10e5)).toBeCloseTo(887.128, 2);
    expect(() => compressedWaterDensity(-1, 1e5)).toThrow('must be from 0 to 350 °C');
  });
});
