import { describe, expect, it } from 'vitest';
import { dialAt, press, readDial, tap, type Dial } from './index';

const SOUND: Dial = { low: 0, high: 10, division: 0.2, friction: 0, loop: 0, zero: 0, gain: 0, parallax: 0 };

describe('a dial gauge', () => {
  it('without a fault reads what is applied, to half a division', () => {
    const read = (applied: number) => readDial(SOUND, press(SOUND, dialAt(SOUND), applied));
    expect([0, 5, 10].map(read)).toEqual([0, 5, 10]);
    expect(read(5.04)).toBeCloseTo(5, 12);
    expect(read(5.06)).toBeCloseTo(5.1, 12);
  });

  it('sticks until it is tapped, and the tap goes towards the truth', () => {
    const rough = { ...SOUND, friction: 0.02 };
    const up = press(rough, dialAt(rough), 5);
    expect(up.needle).toBeCloseTo(0.49, 12);
    expect(tap(rough, up).needle).toBeCloseTo(0.5, 12);
    const down = press(rough, press(rough, up, 9), 5);
    expect(down.needle).toBeCloseTo(0.51, 12);
    for (const state of [up, down])
      expect(Math.abs(tap(rough, state).needle - 0.5)).toBeLessThan(Math.abs(state.needle - 0.5));
    // Within the band nothing moves.
    expect(press(rough, up, 4.95).needle).toBe(up.needle);
  });

  it('has its loop at half, and none at the ends', () => {
    const looped = { ...SOUND, loop: 0.003 };
    const up = press(looped, dialAt(looped), 5);
    const down = press(looped, press(looped, up, 10), 5);
    expect(down.needle - up.needle).toBeCloseTo(0.003, 12);
    expect(press(looped, up, 10).needle).toBeCloseTo(1, 12);
  });

  it('is read with the eye’s parallax, and stands at its stop below zero', () => {
    expect(readDial({ ...SOUND, parallax: 0.5 }, press(SOUND, dialAt(SOUND), 5))).toBeCloseTo(5.1, 12);
    const off = { ...SOUND, zero: -0.05 };
    expect(readDial(off, press(off, dialAt(off), 0))).toBe(0);
  });
});
