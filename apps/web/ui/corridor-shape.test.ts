import { expect, it } from 'vitest';
import { TEST_CONFIGURATION, TEST_STANDARD } from '@/test/configuration';
import { corridorOf, corridorReach } from './corridor-shape';

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
    judgesBeyondUncertainty: false,
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
  const places = corridorOf(run).asFound.map(({ y }) => y);
  expect(places).toHaveLength(3);
  [1, 0, -1].forEach((wall, i) => expect(places[i]).toBeCloseTo(wall, 12));
});

it('a reading stands at the input applied, not at the nominal one', () => {
  expect(corridorOf(run).asFound.map(({ x, direction }) => [x, direction])).toEqual([
    [0, 'up'],
    [95, 'up'],
    [0, 'down'],
  ]);
  expect(corridorOf(run).axis.ticks.map(({ word }) => word)).toEqual([
    '0 %',
    '25 %',
    '50 %',
    '75 %',
    '100 %',
  ]);
});

it('the axis reaches a little past the limit, and as far as the worst reading needs', () => {
  const reachFor = (y: number) =>
    corridorReach({ asFound: [{ x: 0, y, direction: 'up', reach: null, accepted: 1 }], asLeft: [] });
  expect(corridorReach({ asFound: [], asLeft: [] })).toBe(1.35);
  expect(reachFor(-1.1)).toBe(1.35);
  expect(reachFor(-20)).toBeCloseTo(22.4, 12);
});

it('the uncertainty of an error reaches as far as it is of the limit', () => {
  const [first] = corridorOf(run).asFound;
  // 0.1 mbar of 500 as a rectangle is 0.11547 mbar with k = 2; the limit is 1.25 mbar.
  expect(first?.reach).toBeCloseTo(0.2 / Math.sqrt(3) / 1.25, 9);
});

it('the guard band leaves of the limit what the rule accepts, from left to right, and none without one', () => {
  expect(corridorOf(run).guard).toEqual([]);
  const decisionRule = { kind: 'guard-band' as const, r: 0.5, isUndecidedAllowed: true };
  const { guard } = corridorOf({ ...run, madeWith: { ...run.madeWith, decisionRule } });
  expect(guard.map(({ x }) => x)).toEqual([0, 0, 95]);
  expect(guard[0]?.accepted).toBeCloseTo(1 - (0.5 * 0.2) / Math.sqrt(3) / 1.25, 9);
});

it('as left stands beside as found, each with its own range', () => {
  const stretched = {
    ...run,
    madeWith: { ...run.madeWith, configuration: { ...TEST_CONFIGURATION, urv: 1120 } },
  };
  const both = corridorOf(run, stretched);
  expect([both.asFound[1]?.x, both.asLeft[1]?.x]).toEqual([95, 47.5]);
});

it('a gauge limited by its reading over decades has one tick a decade', () => {
  const nominal = [0.001, 0.01, 0.1, 1, 10];
  const shape = corridorOf({
    madeWith: {
      ...run.madeWith,
      configuration: {
        ...TEST_CONFIGURATION,
        lrv: 0,
        urv: 10,
        outputUnit: 'mbar',
        outputLow: 0,
        outputHigh: 10,
      },
      tolerance: { ...run.madeWith.tolerance, percentOfSpan: 0, percentOfReading: 30 },
      points: nominal.map((nominalApplied, index) => ({
        position: index + 1,
        cycle: 1,
        direction: 'up' as const,
        nominalPercent: nominalApplied * 10,
        nominalApplied,
        standard: 'first' as const,
      })),
    },
    readings: [
      { position: 1, applied: 0.001, output: 0.0012 },
      { position: 4, applied: 1, output: 0.7 },
    ],
  });
  expect(shape.axis).toMatchObject({ from: -3, to: 1 });
  expect(shape.axis.ticks.map(({ word }) => word)).toEqual(['0.001', '0.01', '0.1', '1', '10 mbar']);
  expect(shape.asFound.map(({ x }) => x)).toEqual([-3, 0]);
  expect(shape.asFound[1]?.y).toBeCloseTo(-1, 12);
});
