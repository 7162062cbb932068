import { describe, expect, it } from 'vitest';
import { densityFromTable, densityOfWater } from './index';

const TABLE = [
  { temperatureC: 20, densityKgPerM3: 1040 },
  { temperatureC: 60, densityKgPerM3: 1020 },
  { temperatureC: 80, densityKgPerM3: 1006 },
];

describe('density by temperature', () => {
  it('is linear between the temperatures of a table, and has its own figures at them', () => {
    expect([20, 30, 60, 70, 80].map((t) => densityFromTable(TABLE, t))).toEqual([
      1040, 1035, 1020, 1013, 1006,
    ]);
    expect(densityFromTable([{ temperatureC: 20, densityKgPerM3: 934 }], 20)).toBe(934);
  });

  it('is not made up where the table has nothing', () => {
    expect(() => densityFromTable(TABLE, 19.9)).toThrow('20');
    expect(() => densityFromTable(TABLE, 80.1)).toThrow('80');
    expect(() => densityFromTable([], 20)).toThrow();
    expect(() => densityFromTable([...TABLE].reverse(), 50)).toThrow('rise');
    expect(() => densityFromTable([{ temperatureC: 20, densityKgPerM3: -1 }], 20)).toThrow(
      'greater than zero',
    );
    expect(() => densityFromTable(TABLE, NaN)).toThrow();
  });

  it('of water is that of common tables (kg/m3 at 101.325 kPa, from memory of the CRC Handbook)', () => {
    for (const [t, density] of [
      [4, 999.97],
      [20, 998.21],
      [50, 988.04],
      [80, 971.79],
    ] as const)
      expect(densityOfWater(t)).toBeCloseTo(density, 1);
    expect(() => densityOfWater(101)).toThrow();
    expect(() => densityOfWater(-5)).toThrow();
  });
});
