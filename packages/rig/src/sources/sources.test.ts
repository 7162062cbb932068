import { describe, expect, it } from 'vitest';
import {
  column,
  control,
  controllerAtRest,
  isStable,
  madeBy,
  readColumn,
  regulated,
  sunk,
  weighed,
  type Controller,
} from './index';
import { swung, timeToPeak } from './oscillation';

describe('what swings', () => {
  it('is the closed form of the second order, however time is cut', () => {
    const [omega, zeta] = [6, 0.2];
    // From rest at 0 towards 1: x = 1 - e^(-z w t) (cos wd t + z / sqrt(1 - z²) sin wd t).
    const closed = (t: number) => {
      const wd = omega * Math.sqrt(1 - zeta ** 2);
      return (
        1 -
        Math.exp(-zeta * omega * t) *
          (Math.cos(wd * t) + (zeta / Math.sqrt(1 - zeta ** 2)) * Math.sin(wd * t))
      );
    };
    let state = { x: 0, v: 0 };
    for (let step = 1; step <= 30; step += 1) {
      state = swung(state, 1, omega, zeta, 0.1);
      expect(state.x).toBeCloseTo(closed(step * 0.1), 9);
    }
    // The same in one step, and against a fine integration by Euler's rule.
    expect(swung({ x: 0, v: 0 }, 1, omega, zeta, 3).x).toBeCloseTo(closed(3), 9);
    let [x, v] = [0, 0];
    for (let step = 0; step < 1_000_000; step += 1) {
      v += (omega ** 2 * (1 - x) - 2 * zeta * omega * v) * 1e-6;
      x += v * 1e-6;
    }
    expect(x).toBeCloseTo(closed(1), 4);
    // It turns where its speed is nothing: from rest after half a period.
    const top = timeToPeak({ x: 0, v: 1e-9 }, 1, omega, zeta);
    expect(top).toBeCloseTo(Math.PI / (omega * Math.sqrt(1 - zeta ** 2)), 6);
    expect(swung({ x: 0, v: 0 }, 1, omega, zeta, top).v).toBeCloseTo(0, 6);
    expect(timeToPeak({ x: 0, v: -1 }, 1, omega, zeta)).toBe(0);
  });
});

it('a regulator does nothing at its low end, then jumps; it droops with flow and creeps where it is worn', () => {
  const knob = { perTurn: 1, deadTurns: 1.5, jump: 0.4, droop: 0.1, creepPerS: 0.001 };
  expect([1, 1.5, 1.6, 2.5].map((turns) => regulated(knob, turns))).toEqual([0, 0, 0.4, 1]);
  expect(regulated(knob, 2.5, { flow: 2 })).toBeCloseTo(0.8, 12);
  expect(regulated(knob, 2.5, { shutForS: 60 })).toBeCloseTo(1.06, 12);
});

describe('a pressure controller', () => {
  const controller: Controller = {
    omega: 3,
    zeta: 0.8,
    ratePerS: 2,
    band: 0.005,
    holdS: 3,
    offset: 0,
    gain: 0,
  };
  const run = (of: Controller, set: number, seconds: number) => {
    let state = controllerAtRest;
    const course: number[] = [];
    for (let step = 0; step < seconds * 10; step += 1) course.push((state = control(of, state, set, 0.1)).x);
    return { state, course };
  };

  it('comes to the point by its rate, over it by less than a per cent, and says so when it stands', () => {
    const { state, course } = run(controller, 10, 20);
    expect(Math.max(...course)).toBeLessThan(10.1);
    expect(course[19]).toBeLessThan(2 * 2);
    expect(state.x).toBeCloseTo(10, 6);
    expect(isStable(controller, state)).toBe(true);
    expect(isStable(controller, run(controller, 10, 5).state)).toBe(false);
  });

  it('overshoots where it is tuned badly, and is stable by its own sensor’s word', () => {
    expect(Math.max(...run({ ...controller, zeta: 0.15, ratePerS: 100 }, 10, 20).course)).toBeGreaterThan(15);
    const wrong = { ...controller, offset: 0.02, gain: 0.001 };
    const { state } = run(wrong, 10, 20);
    expect(state.x).toBeCloseTo(10, 6);
    expect(madeBy(wrong, state)).toBeCloseTo(9.98 / 1.001, 6);
    expect(isStable(wrong, state)).toBe(true);
  });
});

it('a manometer swings before it rests, is read at its meniscus, and spills past its end', () => {
  const tube = { perUnit: 10.2, length: 1000, omega: 5, zeta: 0.1, parallax: 0.5 };
  let state = { x: 0, v: 0 };
  let highest = 0;
  for (let step = 0; step < 300; step += 1)
    highest = Math.max(highest, (state = column(tube, state, 40, 0.1)).x);
  expect(highest).toBeGreaterThan(408 * 1.5);
  expect(readColumn(tube, state)).toBeCloseTo((408 + 0.5) / 10.2, 4);
  expect(column(tube, { x: 990, v: 1500 }, 40, 0.2)).toEqual({ x: 1000, v: 0, isSpilt: true });
});

it('a deadweight tester holds while it floats and turns, and is wrong while it does not', () => {
  const tester = { float: 10, sinkPerS: 0.05, friction: 0.002, spinS: 60 };
  const spun = { height: 5, spin: 1 };
  expect(weighed(tester, spun, 20, 1)).toBe(20);
  const later = sunk(tester, spun, 90);
  expect(later.height).toBeCloseTo(0.5, 12);
  expect(later.spin).toBeCloseTo(Math.exp(-1.5), 12);
  expect(weighed(tester, { height: 5, spin: 0 }, 20, 1)).toBeCloseTo(19.96, 12);
  expect(weighed(tester, { height: 5, spin: 0 }, 20, -1)).toBeCloseTo(20.04, 12);
  expect(weighed(tester, sunk(tester, spun, 200), 20, 1)).toBeNull();
});
