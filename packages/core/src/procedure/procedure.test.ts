import { expect, it } from 'vitest';
import { upAndDown } from './index';

it('five points go up and four come down, the top one approached once', () => {
  const points = upAndDown([0, 25, 50, 75, 100]);
  expect(points.map((point) => point.nominalPercent)).toEqual([0, 25, 50, 75, 100, 75, 50, 25, 0]);
  expect(points.map((point) => point.direction).join(' ')).toBe('up up up up up down down down down');
  expect(points.map((point) => point.position)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9]);
});

it('points are climbed in rising order, each once, however they were listed', () => {
  expect(upAndDown([100, 0, 50, 50]).map((point) => point.nominalPercent)).toEqual([0, 50, 100, 50, 0]);
});

it('a climb needs two points, all of them numbers', () => {
  expect(() => upAndDown([50, 50])).toThrow('At least 2 test points');
  expect(() => upAndDown([0, Number.NaN])).toThrow('finite');
});
