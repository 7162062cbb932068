import { expectedOutput, type SignalRange } from '@barys/core/signal';
import { describe, expect, it } from 'vitest';
import {
  analogAtRest,
  outputOf,
  screwsOf,
  stepAnalog,
  turn,
  USUAL,
  type Analog,
  type AnalogState,
  type Surroundings,
} from './index';

const range: SignalRange = { lrv: -20, urv: 80, outputLow: 10, outputHigh: 50 };
const SOUND: Analog = {
  range,
  pivot: 0.25,
  zeroPerTurn: 0.05,
  spanPerTurn: 0.08,
  backlashTurns: 0,
  bend: 0,
  loop: 0,
  friction: 0,
  dampingS: 0,
  noise: { sigma: 0, tauS: 1 },
  zeroPer10K: 0,
  spanPer10K: 0,
  positionHead: 0,
  perVolt: 0,
  saturation: [8, 52],
};
const at = (analog: Analog, state: AnalogState, applied: number, around?: Surroundings) =>
  stepAnalog(analog, state, { applied, stepS: 60, normal: 0 }, around);
const read = (analog: Analog, state: AnalogState, applied: number, around?: Surroundings) =>
  outputOf(analog, at(analog, state, applied, around));

describe('an analog transmitter', () => {
  it('without a fault has no error, at any range and signal', () => {
    for (const applied of [-20, 0, 5, 30, 80])
      expect(read(SOUND, analogAtRest(), applied)).toBeCloseTo(expectedOutput(range, applied), 12);
    expect(read(SOUND, analogAtRest(), -100)).toBe(8);
    expect(read(SOUND, analogAtRest(), 200)).toBe(52);
  });

  it('has screws that disturb each other by where the pivot lies', () => {
    const spanned = turn(SOUND, analogAtRest(), { span: 0.25 });
    // y = b (x + c) + z: a quarter turn of 8 % moves 100 % by (1 + 0.25) x 2 % and 0 % by 0.25 x 2 %.
    expect(read(SOUND, spanned, -20)).toBeCloseTo(10 + 40 * 0.25 * 0.02, 12);
    expect(read(SOUND, spanned, 80)).toBeCloseTo(50 + 40 * 1.25 * 0.02, 12);
    expect(read(SOUND, turn(SOUND, analogAtRest(), { zero: -0.5 }), 30)).toBeCloseTo(30 - 40 * 0.025, 12);
  });

  it('is brought to no error by who knows its screws', () => {
    // Found with zero and span off; the equations are solved for the turns the other way round.
    const found = turn(SOUND, analogAtRest(), { zero: 0.7, span: -0.9 });
    const { gain, zero } = screwsOf(SOUND, found);
    const span = (1 - gain) / SOUND.spanPerTurn;
    const back = turn(SOUND, found, {
      span,
      zero: -(zero + SOUND.pivot * SOUND.spanPerTurn * span) / SOUND.zeroPerTurn,
    });
    for (const applied of [-20, 30, 80])
      expect(read(SOUND, back, applied)).toBeCloseTo(expectedOutput(range, applied), 9);
  });

  it('does not follow a screw that is turned back until the backlash is used up', () => {
    const loose = { ...SOUND, backlashTurns: 0.2 };
    const forth = turn(loose, analogAtRest(), { zero: 1 });
    expect(forth.zeroTaken).toBeCloseTo(0.9, 12);
    expect(turn(loose, forth, { zero: -0.2 }).zeroTaken).toBeCloseTo(0.9, 12);
    expect(turn(loose, forth, { zero: -0.3 }).zeroTaken).toBeCloseTo(0.8, 12);
  });

  it('bends by no more than it says, and not at the ends nor in the middle', () => {
    const bent = { ...SOUND, bend: 0.0015 };
    const errors = Array.from({ length: 1001 }, (_, index) => {
      const applied = -20 + index / 10;
      return (read(bent, analogAtRest(), applied) - expectedOutput(range, applied)) / 40;
    });
    expect(Math.max(...errors.map(Math.abs))).toBeCloseTo(0.0015, 8);
    for (const index of [0, 500, 1000]) expect(errors[index]).toBeCloseTo(0, 12);
  });

  it('reads less going up than coming down by its loop, and sticks within its friction', () => {
    const looped = { ...SOUND, loop: 0.004 };
    const up = at(looped, at(looped, analogAtRest(), 10), 30);
    const down = at(looped, at(looped, up, 80), 30);
    expect((outputOf(looped, down) - outputOf(looped, up)) / 40).toBeCloseTo(0.004, 12);
    const rough = { ...SOUND, friction: 0.002 };
    const there = at(rough, analogAtRest(), 30);
    // A tenth of the friction back moves nothing.
    expect(outputOf(rough, at(rough, there, 29.98))).toBe(outputOf(rough, there));
    expect(outputOf(rough, there)).toBeCloseTo(30 - 40 * 0.001, 12);
  });

  it('is damped as its time constant says, however time is cut', () => {
    const damped = { ...SOUND, dampingS: 2 };
    let many = at(SOUND, analogAtRest(), -20);
    for (let step = 0; step < 20; step += 1)
      many = stepAnalog(damped, many, { applied: 80, stepS: 0.1, normal: 0 });
    expect((outputOf(damped, many) - 10) / 40).toBeCloseTo(1 - Math.exp(-1), 12);
  });

  it('feels temperature, position and supply by what they do', () => {
    const feels = { ...SOUND, zeroPer10K: 0.001, spanPer10K: 0.002, perVolt: 0.0005 };
    const warm = { ...USUAL, temperatureC: 30 };
    expect((read(feels, analogAtRest(), -20, warm) - 10) / 40).toBeCloseTo(0.001, 12);
    expect((read(feels, analogAtRest(), 80, warm) - 50) / 40).toBeCloseTo(0.003, 12);
    expect((read(feels, analogAtRest(), 30, { ...USUAL, supplyV: 20 }) - 30) / 40).toBeCloseTo(-0.002, 12);
    // A head of 1 over a span of 100.
    expect((read({ ...SOUND, positionHead: 1 }, analogAtRest(), -20) - 10) / 40).toBeCloseTo(0.01, 12);
  });
});
