import { describe, expect, it } from 'vitest';
import { analogOf, gaugeAt, stepGauge, type LevelGauge, type LevelGaugeState } from './index';

const SOUND: LevelGauge = {
  start: 0,
  end: 250,
  contacts: [
    { name: 'make-up on', on: 60, off: 90 },
    { name: 'high', on: 230, off: 215 },
  ],
  dampingS: 0,
  displayDampingS: 0,
  offset: 0,
  gain: 0,
};

describe('a level gauge', () => {
  it('without a fault puts out the level between its start and its end', () => {
    for (const [level, milliamp] of [
      [0, 4],
      [125, 12],
      [250, 20],
    ] as const)
      expect(analogOf(SOUND, stepGauge(SOUND, gaugeAt(SOUND), level, 1))).toBe(milliamp);
  });

  it('switches where it should and back where it should, up as down', () => {
    let state: LevelGaugeState = gaugeAt(SOUND, 120);
    const course = [120, 61, 60, 75, 89, 90, 229, 230, 220, 215].map(
      (level) => (state = stepGauge(SOUND, state, level, 1)).switched,
    );
    expect(course.map(([low]) => low)).toEqual([
      false,
      false,
      true,
      true,
      true,
      false,
      false,
      false,
      false,
      false,
    ]);
    expect(course.map(([, high]) => high)).toEqual([
      false,
      false,
      false,
      false,
      false,
      false,
      false,
      true,
      true,
      false,
    ]);
  });

  it('damps display and output apart, and its contacts follow the output', () => {
    const damped = { ...SOUND, dampingS: 2, displayDampingS: 8 };
    const state = stepGauge(damped, gaugeAt(damped, 0), 250, 2);
    expect(state.output).toBeCloseTo(250 * (1 - Math.exp(-1)), 9);
    expect(state.display).toBeCloseTo(250 * (1 - Math.exp(-0.25)), 9);
    expect(state.switched[1]).toBe(false);
  });
});
