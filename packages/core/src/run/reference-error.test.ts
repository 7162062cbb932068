import { describe, expect, it } from 'vitest';
import { spanTolerance } from './tolerance';
import { evaluateRun, type RunReading } from './evaluate';
import { referenceErrorAt, withoutReferenceError } from './reference-error';

const POINTS = [
  { at: 0, error: 0 },
  { at: 4, error: 0.008 },
  { at: 10, error: 0.02 },
];

describe('the error of a reference', () => {
  it.each([
    [-1, 0],
    [0, 0],
    [2, 0.004],
    [4, 0.008],
    [7, 0.014],
    [10, 0.02],
    [12, 0.02],
  ])('at %d is %d: along a straight line, and beyond the points that of the nearest', (reading, error) => {
    expect(referenceErrorAt(POINTS, reading)).toBeCloseTo(error, 12);
  });

  it('is refused where the points are none, do not rise or are no numbers', () => {
    expect(() => referenceErrorAt([], 1)).toThrow('A point of the finding is needed');
    expect(() => referenceErrorAt([...POINTS, { at: 9, error: 0 }], 1)).toThrow('must rise');
    expect(() => referenceErrorAt([{ at: NaN, error: 0 }], 1)).toThrow('finite');
  });
});

describe('a run judged again', () => {
  const range = { lrv: 0, urv: 10, outputLow: 4, outputHigh: 20 };
  const up = (applied: number, output: number): RunReading => ({
    cycle: 1,
    direction: 'up',
    nominalPercent: applied * 10,
    applied,
    output,
  });
  const same = (value: number) => value;

  it('turns on the error by hand: 10 bar read high by 0.02 bar hides +0.032 mA', () => {
    // True input 9.98 bar, ideal 19.968 mA; 20.030 mA is then +0.062 mA and not +0.030 mA.
    const readings = [up(0, 4), up(10, 20.03)];
    const again = withoutReferenceError(readings, POINTS, 'applied', same, same);
    const then = evaluateRun(range, spanTolerance(0.25), readings);
    const now = evaluateRun(range, spanTolerance(0.25), again);
    expect(then.verdict).toBe('within');
    expect(now.readings[1]?.errorOutput).toBeCloseTo(0.062, 12);
    expect(now.verdict).toBe('outside');
  });

  it('does not depend on the unit of the finding', () => {
    const inMbar = POINTS.map(({ at, error }) => ({ at: at * 1000, error: error * 1000 }));
    const readings = [up(3, 8.8), up(9, 18.4)];
    const bar = withoutReferenceError(readings, POINTS, 'applied', same, same);
    const mbar = withoutReferenceError(
      readings,
      inMbar,
      'applied',
      (value) => value * 1000,
      (difference) => difference / 1000,
    );
    bar.forEach(({ applied }, index) => expect(mbar[index]?.applied).toBeCloseTo(applied, 12));
  });

  it('takes the error of a meter out of the output', () => {
    const [again] = withoutReferenceError([up(5, 12)], [{ at: 4, error: 0.01 }], 'output', same, same);
    expect(again?.output).toBeCloseTo(11.99, 12);
    expect(again?.applied).toBe(5);
  });
});
