import { expect, it } from 'vitest';
import { TEST_CONFIGURATION, TEST_STANDARD } from '@/test/configuration';
import { corridorPoints, corridorReach } from './corridor';

const run = {
  madeWith: {
    configuration: TEST_CONFIGURATION,
    tolerance: {
      percentOfSpan: 0.25,
      middlePercentOfSpan: null,
      percentOfReading: 0,
      adjustAbovePercentOfLimit: 70,
    },
    decisionRule: { kind: 'simple' as const },
    pressureReference: TEST_STANDARD,
    secondReference: null,
    meter: null,
    head: 0,
    takenOn: '2026-05-04',
    points: [
      {
        position: 1,
        cycle: 1,
        direction: 'up' as const,
        nominalPercent: 0,
        nominalApplied: 120,
        standard: 'first' as const,
      },
      {
        position: 2,
        cycle: 1,
        direction: 'up' as const,
        nominalPercent: 100,
        nominalApplied: 620,
        standard: 'first' as const,
      },
      {
        position: 3,
        cycle: 1,
        direction: 'down' as const,
        nominalPercent: 0,
        nominalApplied: 120,
        standard: 'first' as const,
      },
    ],
  },
  readings: [
    { position: 1, applied: 120, output: 4.04 },
    { position: 2, applied: 595, output: 19.2 },
    { position: 3, applied: 120, output: 3.96 },
  ],
};

it('an error of the whole limit lies on the wall of the corridor, either way', () => {
  const places = corridorPoints(run).map(({ y }) => y);
  expect(places).toHaveLength(3);
  [1, 0, -1].forEach((wall, i) => expect(places[i]).toBeCloseTo(wall, 12));
});

it('a reading stands at the input applied, not at the nominal one', () => {
  expect(corridorPoints(run).map(({ x, direction }) => [x, direction])).toEqual([
    [0, 'up'],
    [95, 'up'],
    [0, 'down'],
  ]);
});

it('the axis reaches a little past the limit, and as far as the worst reading needs', () => {
  expect(corridorReach([])).toBe(1.35);
  expect(corridorReach([{ x: 0, y: -1.1, direction: 'up', reach: null }])).toBe(1.35);
  expect(corridorReach([{ x: 0, y: -20, direction: 'up', reach: null }])).toBeCloseTo(22.4, 12);
});

it('the uncertainty of an error reaches as far as it is of the limit', () => {
  const [first] = corridorPoints(run);
  // 0.1 mbar of 500 as a rectangle is 0.11547 mbar with k = 2; the limit is 1.25 mbar.
  expect(first?.reach).toBeCloseTo(0.2 / Math.sqrt(3) / 1.25, 9);
});
