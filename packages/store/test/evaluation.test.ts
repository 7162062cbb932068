import { describe, expect, it } from 'vitest';
import { evaluateStoredRun, missingPoints, type StoredRun } from '../src/evaluation';
import { StoreError } from '../src/errors';

const MADE_WITH: StoredRun['madeWith'] = {
  configuration: {
    version: 1,
    inputUnit: 'bar',
    lrv: 0,
    urv: 6,
    signal: 'mA-4-20',
    outputUnit: 'mA',
    outputLow: 4,
    outputHigh: 20,
    transferFunction: { kind: 'linear' },
    dampingS: 2,
    displayUnit: 'bar',
    displayLow: 0,
    displayHigh: 6,
  },
  tolerance: { percentOfSpan: 0.25, adjustAbovePercentOfLimit: 70 },
  points: [
    { position: 1, cycle: 1, direction: 'up', nominalPercent: 0, nominalApplied: 0 },
    { position: 2, cycle: 1, direction: 'up', nominalPercent: 100, nominalApplied: 6 },
    { position: 3, cycle: 1, direction: 'down', nominalPercent: 0, nominalApplied: 0 },
  ],
};

const stored = (...readings: [position: number, applied: number, output: number][]): StoredRun => ({
  madeWith: MADE_WITH,
  readings: readings.map(([position, applied, output]) => ({ position, applied, output })),
});

describe('a stored run', () => {
  it('is evaluated with the points that it was made with', () => {
    const figures = evaluateStoredRun(stored([1, 0, 4.016], [2, 6, 20.032], [3, 0, 4.032]));
    expect(figures.zeroErrorPercentSpan).toBeCloseTo(0.15, 12);
    expect(figures.spanErrorPercentSpan).toBeCloseTo(0.05, 12);
    expect(figures.hysteresisPercentSpan).toBeCloseTo(0.1, 12);
    expect(figures.readings.map(({ direction }) => direction)).toEqual(['up', 'up', 'down']);
    expect(figures.verdict).toBe('within-adjust');
  });

  it('keeps its figures in the order of its readings', () => {
    const figures = evaluateStoredRun(stored([3, 0, 4.001], [1, 0, 4.002]));
    expect(figures.readings.map(({ direction, output }) => [direction, output])).toEqual([
      ['down', 4.001],
      ['up', 4.002],
    ]);
  });

  it('judges exactly on the limit as the core does', () => {
    expect(evaluateStoredRun(stored([1, 0, 4.04])).verdict).toBe('within-adjust');
    expect(evaluateStoredRun(stored([1, 0, 4.0401])).verdict).toBe('outside');
  });

  it('knows how many points it lacks', () => {
    expect(missingPoints(stored())).toBe(3);
    expect(missingPoints(stored([1, 0, 4], [2, 6, 20], [3, 0, 4]))).toBe(0);
  });

  it('refuses a reading at a point that it does not have', () => {
    expect(() => evaluateStoredRun(stored([4, 0, 4]))).toThrow(StoreError);
    expect(() => evaluateStoredRun(stored([4, 0, 4]))).toThrow('The run has no point 4.');
  });
});
