import { describe, expect, it } from 'vitest';
import { adjust, afterwards, lineAtRest, pressureOf, stroke, type Line } from './index';

const AIR = 101_325;
const LINE: Line = {
  volumeM3: 100e-6,
  strokeM3: 5e-6,
  perTurnM3: 0.5e-6,
  turns: 20,
  warmth: 0.2,
  coolingS: 30,
  leakS: Infinity,
  ventS: 0.5,
};
const pumped = (line: Line, strokes: number) => {
  let state = lineAtRest(line, AIR);
  for (let count = 0; count < strokes; count += 1) state = stroke(line, state, AIR);
  return state;
};

describe('gas in a line', () => {
  it('stands at the pressure of the air, and a stroke adds what it holds', () => {
    expect(pressureOf(LINE, lineAtRest(LINE, AIR))).toBeCloseTo(AIR, 6);
    // By hand, once it is cool: 100 + 10 x 5 cm3 of air in 100 cm3.
    const cool = afterwards(LINE, pumped(LINE, 10), AIR, 1e6);
    expect(pressureOf(LINE, cool)).toBeCloseTo(1.5 * AIR, 3);
  });

  it('is warm after pumping, and falls by some per cent though nothing leaks', () => {
    const warm = pumped(LINE, 10);
    const fall = pressureOf(LINE, warm) / pressureOf(LINE, afterwards(LINE, warm, AIR, 1e6)) - 1;
    expect(fall).toBeGreaterThan(0.005);
    expect(fall).toBeLessThan(0.04);
    // 63 % of it is gone after the time of cooling.
    const later = afterwards(LINE, warm, AIR, 30);
    expect(later.warm / warm.warm).toBeCloseTo(Math.exp(-1), 12);
  });

  it('follows Boyle when the adjuster is turned, as far as its stops', () => {
    const cool = afterwards(LINE, pumped(LINE, 10), AIR, 1e6);
    const turned = adjust(LINE, cool, 4);
    // p V stays: 100 cm3 become 98.
    expect(pressureOf(LINE, turned) * 98).toBeCloseTo(pressureOf(LINE, cool) * 100, 3);
    expect(adjust(LINE, cool, 99).turned).toBe(10);
    expect(adjust(LINE, cool, -99).turned).toBe(-10);
  });

  it('leaks as its closed form says, whatever the step; what is lost is what the air gains', () => {
    const leaking = { ...LINE, leakS: 200, warmth: 0 };
    const start = pumped(leaking, 10);
    const inOne = afterwards(leaking, start, AIR, 60);
    let inMany = start;
    for (let step = 0; step < 600; step += 1) inMany = afterwards(leaking, inMany, AIR, 0.1);
    const wanted = AIR + (pressureOf(leaking, start) - AIR) * Math.exp(-60 / 200);
    expect(pressureOf(leaking, inOne)).toBeCloseTo(wanted, 6);
    expect(pressureOf(leaking, inMany)).toBeCloseTo(wanted, 4);
    // The flow through the leak, summed by the trapezium rule, is the loss of content (mass balance).
    let flowed = 0;
    let state = start;
    for (let step = 0; step < 6000; step += 1) {
      const next = afterwards(leaking, state, AIR, 0.01);
      const flow = (one: typeof state) => (one.content - AIR * leaking.volumeM3) / leaking.leakS;
      flowed += ((flow(state) + flow(next)) / 2) * 0.01;
      state = next;
    }
    expect(flowed / (start.content - inOne.content)).toBeCloseTo(1, 6);
  });

  it('is at the air through an open vent, and not quite through one that is half shut soon after', () => {
    const start = pumped(LINE, 10);
    const open = afterwards(LINE, { ...start, vent: 1 }, AIR, 10);
    expect(Math.abs(pressureOf(LINE, { ...open, warm: 0 }) - AIR)).toBeLessThan(1);
    const half = afterwards(LINE, { ...start, vent: 0.05 }, AIR, 10);
    expect(pressureOf(LINE, half)).toBeGreaterThan(AIR + 1000);
  });

  it('rises back to the air from a vacuum', () => {
    const leaking = { ...LINE, leakS: 100 };
    const vacuum = { ...lineAtRest(leaking, AIR), content: 1000 * leaking.volumeM3 };
    expect(pressureOf(leaking, afterwards(leaking, vacuum, AIR, 50))).toBeCloseTo(
      AIR + (1000 - AIR) * Math.exp(-0.5),
      3,
    );
  });
});
