import { describe, expect, it } from 'vitest';
import type { SignalRange } from '../signal';
import { evenPoints, isSettled, plannedPoints, upAndDown, waitForDamping, type Procedure } from './index';

const linear: SignalRange = { lrv: 0, urv: 250, outputLow: 4, outputHigh: 20 };
const root: SignalRange = { ...linear, transferFunction: { kind: 'square-root' } };
const climb: Procedure = { points: evenPoints(5, linear), direction: 'up-and-down', cycles: 1 };

describe('points up and down', () => {
  it('approach the top once and every other point from both sides', () => {
    const points = upAndDown([0, 25, 50, 75, 100]);
    expect(points.map(({ nominalPercent }) => nominalPercent)).toEqual([0, 25, 50, 75, 100, 75, 50, 25, 0]);
    expect(points.map(({ direction }) => direction).filter((one) => one === 'down')).toHaveLength(4);
    expect(points.at(-1)?.position).toBe(9);
  });

  it('refuse a climb without height', () => {
    expect(() => upAndDown([50, 50])).toThrow('At least 2 test points are needed, not 1.');
    expect(() => upAndDown([0, Number.NaN])).toThrow('finite');
  });
});

describe('a procedure', () => {
  it('repeats the climb in each cycle, the top once or twice', () => {
    const twice = plannedPoints({ ...climb, cycles: 2 }, linear);
    expect(twice).toHaveLength(18);
    expect(twice[9]).toMatchObject({ position: 10, cycle: 2, applied: 0, direction: 'up' });
    expect(plannedPoints({ ...climb, isTopRepeated: true }, linear)).toHaveLength(10);
    expect(plannedPoints({ ...climb, direction: 'down' }, linear).map(({ applied }) => applied)).toEqual([
      250, 187.5, 125, 62.5, 0,
    ]);
  });

  it('may be one point alone, read once a cycle', () => {
    const points = { in: 'percent-of-input', values: [50] } as const;
    expect(plannedPoints({ ...climb, points, cycles: 2 }, linear)).toMatchObject([
      { position: 1, cycle: 1, direction: 'up', applied: 125 },
      { position: 2, cycle: 2, direction: 'up', applied: 125 },
    ]);
    expect(() => plannedPoints({ ...climb, points: { ...points, values: [] } }, linear)).toThrow(
      'At least 1',
    );
  });

  it('spaces a square-root instrument evenly in flow, or in differential where that is asked for', () => {
    const applied = (points: Procedure['points']) =>
      plannedPoints({ ...climb, points, direction: 'up' }, root).map((point) => point.applied);
    expect(applied(evenPoints(5, root))).toEqual([0, 15.625, 62.5, 140.625, 250]);
    expect(applied(evenPoints(5, root, 'differential'))).toEqual([0, 62.5, 125, 187.5, 250]);
  });

  it('takes absolute values, and keeps off the stops', () => {
    const points = { in: 'absolute', values: [0, 100, 250] } as const;
    const planned = plannedPoints({ points, direction: 'up', cycles: 1, offStopsPercent: 2 }, linear);
    expect(planned.map(({ nominalPercent }) => nominalPercent)).toEqual([2, 40, 98]);
    expect(planned.map(({ applied }) => applied)).toEqual([5, 100, 245]);
  });

  it('refuses no cycle, too many points and a range without span', () => {
    expect(() => plannedPoints({ ...climb, cycles: 0 }, linear)).toThrow('whole number of at least 1');
    expect(() => plannedPoints({ ...climb, cycles: 1000 }, linear)).toThrow('at most 1000');
    expect(() => plannedPoints(climb, { ...linear, urv: 0 })).toThrow('no span');
    expect(() => plannedPoints({ ...climb, offStopsPercent: 30 }, linear)).toThrow('from 0 to 20');
  });
});

describe('settling', () => {
  it('waits as long as the damping needs', () => {
    // First-order response: 63.2 % after one time constant, from the definition.
    expect(waitForDamping(2, 100 / Math.E)).toBeCloseTo(2, 12);
    expect(waitForDamping(2, 0.1)).toBeCloseTo(13.8155, 4);
    expect(() => waitForDamping(-1, 1)).toThrow('must not be negative');
  });

  const rule = { waitS: 5, holdS: 3, band: 0.01 };
  const steady = (seconds: number[], values: number[]) =>
    seconds.map((s, i) => ({ s, value: values[i] ?? values.at(-1) ?? 0 }));

  it('needs the wait, the hold time and the band', () => {
    expect(isSettled(steady([5, 6, 7, 8], [12.001, 12.004, 12.006, 12.002]), rule)).toBe(true);
    expect(isSettled(steady([5, 6, 7, 8], [12.001, 12.004, 12.02, 12.002]), rule)).toBe(false);
    expect(isSettled(steady([4, 5, 6, 7], [12.001]), rule)).toBe(false);
    expect(isSettled(steady([7, 8], [12.001]), rule)).toBe(false);
    expect(isSettled([], rule)).toBe(false);
  });
});
