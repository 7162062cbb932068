import { describe, expect, it } from 'vitest';
import { atInstrument, carried, restOf, shutIn, type Line } from './index';

const LINE: Line = { fillS: 2, leakS: 600, head: 0, bubble: 0, ambient: 1013.25 };

describe('a line', () => {
  it('balances what flows in and what leaks out, solved by small steps of the balance itself', () => {
    let p = 0;
    for (let step = 0; step < 100_000; step += 1) p += ((250 - p) / LINE.fillS - p / LINE.leakS) * 0.0001;
    expect(carried(LINE, 0, 250, 10)).toBeCloseTo(p, 2);
    expect(restOf(LINE, 250).rest).toBeCloseTo((250 * 600) / 602, 9);
  });

  it('comes to the same in one step and in many, and gives all of it where it is tight', () => {
    let many = 40;
    for (let step = 0; step < 50; step += 1) many = carried(LINE, many, 250, 0.1);
    expect(many).toBeCloseTo(carried(LINE, 40, 250, 5), 9);
    expect(restOf({ ...LINE, leakS: Infinity }, 250)).toEqual({ rest: 250, tauS: 2 });
    expect(carried({ ...LINE, fillS: 0, leakS: Infinity }, 0, 250, 0.1)).toBeCloseTo(250, 9);
  });

  it('loses a leak more slowly as the pressure falls', () => {
    const [high, low] = [250 - shutIn(LINE, 250, 60), 50 - shutIn(LINE, 50, 60)];
    expect(high).toBeCloseTo(5 * low, 9);
  });

  it('adds the head of its liquid, less where a bubble stands that shrinks by Boyle', () => {
    const wet = { ...LINE, head: 30, bubble: 8 };
    expect(atInstrument(wet, 0)).toBeCloseTo(22, 9);
    // At twice the absolute pressure the bubble is half as high.
    expect(atInstrument(wet, 1013.25)).toBeCloseTo(1013.25 + 30 - 4, 9);
  });
});
