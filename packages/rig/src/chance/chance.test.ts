import { expect, it } from 'vitest';
import { dragged, lagged } from '../lag';
import { makeChance, nextNoise } from './index';

const spread = (values: readonly number[]): number => {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1));
};

it('the same seed gives the same, another one something else', () => {
  const draw = (seed: number) => {
    const chance = makeChance(seed);
    return [chance.normal(), chance.uniform(2, 3), chance.normal()];
  };
  expect(draw(7)).toEqual(draw(7));
  expect(draw(8)).not.toEqual(draw(7));
  expect(draw(7)[1]).toBeGreaterThanOrEqual(2);
  expect(draw(7)[1]).toBeLessThan(3);
});

it('noise has the same spread however finely time is cut, and is correlated over its time', () => {
  const noise = { sigma: 2, tauS: 1 };
  const run = (stepS: number, count: number) => {
    const chance = makeChance(3);
    let x = 0;
    return Array.from({ length: count }, () => (x = nextNoise(x, noise, stepS, chance.normal())));
  };
  // Steps of ten correlation times are as good as independent: 20,000 draws give the spread to 2.5 % (five sigma).
  expect(Math.abs(spread(run(10, 20_000)) / 2 - 1)).toBeLessThan(0.025);
  const fine = run(0.1, 200_000);
  expect(Math.abs(spread(fine) / 2 - 1)).toBeLessThan(0.06);
  const products = fine.slice(10).map((value, index) => value * (fine[index] ?? 0));
  const correlation = products.reduce((sum, value) => sum + value, 0) / products.length / 4;
  expect(correlation).toBeCloseTo(Math.exp(-1), 1);
  // Without a correlation time it is white.
  expect(nextNoise(5, { sigma: 1, tauS: 0 }, 0.1, 0.3)).toBe(0.3);
});

it('a lag is the closed form, whatever the step', () => {
  let y = 0;
  for (let step = 0; step < 20; step += 1) y = lagged(y, 1, 2, 0.1);
  expect(y).toBeCloseTo(1 - Math.exp(-1), 12);
  expect(lagged(0, 1, 2, 2)).toBeCloseTo(1 - Math.exp(-1), 12);
  expect(lagged(0, 1, 0, 2)).toBe(1);
});

it('play is used up before anything follows', () => {
  expect([dragged(0, 0.4, 1), dragged(0, 0.6, 1), dragged(0.1, -0.2, 1), dragged(0.1, -0.9, 1)]).toEqual([
    0, 0.09999999999999998, 0.1, -0.4,
  ]);
});
