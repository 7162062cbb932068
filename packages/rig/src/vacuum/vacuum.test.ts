import { describe, expect, it } from 'vitest';
import { bridgeOf, capacitanceOf, shownOf, type HeatLoss } from './index';

const GAUGE: HeatLoss = { v0: 0.4, v0PerK: 0.0004, k: 0.01, p1: 2000, excitation: 1 };
const AIRY = { gas: 'nitrogen', temperatureC: 20 } as const;
const shown = (gauge: HeatLoss, pressure: number, around: Parameters<typeof bridgeOf>[2] = AIRY) =>
  shownOf(gauge, bridgeOf(gauge, pressure, around), gauge.v0);

describe('a heat-loss gauge', () => {
  it('without a fault shows what is there over its decades', () => {
    for (const pressure of [0.1, 1, 10, 100, 1000])
      expect(shown(GAUGE, pressure) / pressure).toBeCloseTo(1, 9);
    expect(shown(GAUGE, 0)).toBe(0);
  });

  it('is flat towards the pressure of the air: a microvolt there is worth far more than below', () => {
    const slope = (pressure: number) =>
      (bridgeOf(GAUGE, pressure * 1.01, AIRY) - bridgeOf(GAUGE, pressure, AIRY)) /
      bridgeOf(GAUGE, pressure, AIRY);
    expect(slope(100) / slope(100_000)).toBeGreaterThan(20);
    // The curve ends at V0² + k p1.
    expect(bridgeOf(GAUGE, 1e12, AIRY)).toBeCloseTo(Math.sqrt(0.16 + 20), 6);
    expect(shownOf(GAUGE, 10, GAUGE.v0)).toBe(Infinity);
  });

  it('reads low in argon and high in helium', () => {
    expect(shown(GAUGE, 10, { ...AIRY, gas: 'argon' })).toBeLessThan(7);
    expect(shown(GAUGE, 10, { ...AIRY, gas: 'helium' })).toBeGreaterThan(12);
  });

  it('has a zero that drifts with the room, which hurts in the lowest decade and not above', () => {
    const warm = { ...AIRY, temperatureC: 25 };
    expect(shown(GAUGE, 0.1, warm) / 0.1 - 1).toBeGreaterThan(1);
    expect(shown(GAUGE, 100, warm) / 100 - 1).toBeLessThan(0.01);
  });

  it('has a gain by its excitation: brought to no error by who knows it', () => {
    const strong = { ...GAUGE, excitation: 1.08 };
    expect(shown(strong, 10) / 10).toBeGreaterThan(1.07);
    expect(shown({ ...strong, excitation: 1 }, 10) / 10).toBeCloseTo(1, 9);
  });
});

it('a capacitance gauge is linear, drifts until it is warm, and ends at its full scale', () => {
  const gauge = { fullPa: 1000, gain: 0.002, zeroPa: 0.1, coldPa: 2, warmUpS: 1800 };
  expect(capacitanceOf(gauge, 500, Infinity)).toBeCloseTo(501.1, 9);
  expect(capacitanceOf(gauge, 0, 0)).toBeCloseTo(2.1, 12);
  expect(capacitanceOf(gauge, 0, 1800)).toBeCloseTo(0.1 + 2 / Math.E, 12);
  expect(capacitanceOf(gauge, 1e5, 0)).toBe(1050);
});
