import { expectedOutput, share } from '@barys/core/signal';
import { describe, expect, it } from 'vitest';
import {
  configure,
  currentOf,
  displayOf,
  fromFactory,
  hold,
  processValue,
  restoreFactory,
  stepSmart,
  trimOutput,
  trimSensor,
  trimZero,
  type Settings,
  type Smart,
  type SmartState,
  type Written,
} from './index';

const SETTINGS: Settings = {
  lrv: 0,
  urv: 250,
  transfer: { kind: 'linear' },
  dampingS: 0,
  displayDampingS: 0,
  displayLow: 0,
  displayHigh: 320,
  drivenBy: 'pressure',
  scaledTransfer: { kind: 'linear' },
  isProtected: false,
};
const SOUND: Smart = {
  sensor: { offset: 0, gain: 0, upperLimit: 600, trimLimit: 0.05, noise: { sigma: 0, tauS: 1 } },
  stage: { offset: 0, gain: 0, saturation: [3.8, 20.5], alarmMilliamp: 21.5 },
};
const WRONG: Smart = {
  sensor: { ...SOUND.sensor, offset: 1.5, gain: 0.004 },
  stage: { ...SOUND.stage, offset: 0.03, gain: -0.002 },
};
const at = (smart: Smart, state: SmartState, applied: number) =>
  stepSmart(smart, state, { applied, stepS: 60, normal: 0 });
const current = (smart: Smart, state: SmartState, applied: number) =>
  currentOf(smart, at(smart, state, applied));
const done = (found: Written): SmartState => {
  if (typeof found === 'string') throw new Error(found);
  return found;
};
const RANGE = { lrv: 0, urv: 250, outputLow: 4, outputHigh: 20 };

describe('a smart transmitter', () => {
  it('without a fault has no error, saturates, and says failure', () => {
    const state = fromFactory(SETTINGS);
    for (const applied of [0, 60, 250])
      expect(current(SOUND, state, applied)).toBeCloseTo(expectedOutput(RANGE, applied), 12);
    expect([current(SOUND, state, -50), current(SOUND, state, 400)]).toEqual([3.8, 20.5]);
    expect(currentOf(SOUND, { ...state, isFailed: true })).toBe(21.5);
    expect(displayOf(at(SOUND, state, 125))).toBe(160);
  });

  it('is brought to no error by the trims of both stages, each with what it needs', () => {
    const start = fromFactory(SETTINGS);
    const raw = (applied: number) => ({ raw: at(WRONG, start, applied).raw, applied });
    const sensed = done(trimSensor(WRONG, start, raw(0), raw(250)));
    expect(processValue(at(WRONG, sensed, 100))).toBeCloseTo(100, 10);
    const told = (milliamp: number) => currentOf(WRONG, hold(sensed, milliamp));
    const trimmed = done(trimOutput(sensed, told(4), told(20)));
    for (const applied of [0, 100, 250])
      expect(current(WRONG, trimmed, applied)).toBeCloseTo(expectedOutput(RANGE, applied), 9);
    // A second trim with nothing to put right changes nothing.
    const again = done(trimOutput(trimmed, 4, 20));
    expect(again.stageSlope).toBeCloseTo(trimmed.stageSlope, 12);
  });

  it('hides a wrong sensor behind a trim of the output: right in mA, wrong in the digital value', () => {
    const start = fromFactory(SETTINGS);
    const [low, high] = [current(WRONG, start, 0), current(WRONG, start, 250)];
    // At what should be 4 and 20 mA the output is measured with pressure on, not held: the fault is carried over.
    const hidden = done(trimOutput(start, low, high));
    expect(Math.abs(current(WRONG, hidden, 0) - 4)).toBeLessThan(0.002);
    expect(Math.abs(processValue(at(WRONG, hidden, 0)))).toBeCloseTo(1.5, 9);
  });

  it('re-ranged shifts what 4 and 20 mA mean and cures no sensor', () => {
    const state = done(configure(fromFactory(SETTINGS), { lrv: 1.5, urv: 1.5 + 250 * 1.004 }));
    const ideal = { ...WRONG, stage: SOUND.stage };
    expect(current(ideal, state, 0)).toBeCloseTo(4, 9);
    expect(processValue(at(ideal, state, 0))).toBeCloseTo(1.5, 9);
  });

  it('takes the root in the output, in the scaled variable, in both or in neither', () => {
    const root = { kind: 'square-root' } as const;
    const linear = { kind: 'linear' } as const;
    const output = (settings: Partial<Settings>) =>
      at(SOUND, done(configure(fromFactory(SETTINGS), { urv: 172.75, ...settings })), 0.2).output;
    // Common practice: 0.2 of 172.75 shows 3.4 with one root and about 18 with two.
    expect(output({ transfer: root }) * 100).toBeCloseTo(3.4, 1);
    expect(output({ drivenBy: 'scaled variable', scaledTransfer: root }) * 100).toBeCloseTo(3.4, 1);
    expect(output({ drivenBy: 'scaled variable', scaledTransfer: root, transfer: root }) * 100).toBeCloseTo(
      18.4,
      1,
    );
    expect(output({ drivenBy: 'scaled variable', transfer: linear })).toBeCloseTo(0.2 / 172.75, 12);
    const cut = { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 } as const;
    expect(output({ transfer: cut })).toBe(share(cut, 0.2 / 172.75));
  });

  it('damps output and display apart', () => {
    const state = done(configure(fromFactory(SETTINGS), { dampingS: 1, displayDampingS: 4 }));
    const after = stepSmart(SOUND, state, { applied: 250, stepS: 4, normal: 0 });
    expect(after.output).toBeCloseTo(1 - Math.exp(-4), 12);
    expect(after.display).toBeCloseTo(1 - Math.exp(-1), 12);
  });

  it('refuses what is protected, too far, or has no span', () => {
    const state = at(SOUND, fromFactory(SETTINGS), 40);
    expect(trimZero(SOUND, state)).toBe('beyond the trim limit');
    expect(processValue(done(trimZero(SOUND, at(SOUND, state, 2))))).toBe(0);
    const locked = done(configure(state, { isProtected: true }));
    expect(configure(locked, { urv: 100 })).toBe('write protected');
    expect([trimZero(SOUND, locked), trimOutput(locked, 4, 20), restoreFactory(locked)]).toEqual(
      Array<string>(3).fill('write protected'),
    );
    expect(typeof configure(locked, { isProtected: false })).toBe('object');
    expect(configure(state, { urv: 0 })).toBe('no span');
    expect(trimSensor(SOUND, state, { raw: 1, applied: 0 }, { raw: 1, applied: 5 })).toBe('no span');
    expect(trimSensor(SOUND, state, { raw: 0, applied: 0 }, { raw: 100, applied: 150 })).toBe(
      'beyond the trim limit',
    );
  });

  it('holds a current and lets it go, and forgets its trims at the factory’s', () => {
    const held = hold(at(SOUND, fromFactory(SETTINGS), 250), 12);
    expect(currentOf(SOUND, held)).toBe(12);
    expect(currentOf(SOUND, hold(held, null))).toBe(20);
    const trimmed = done(trimZero(SOUND, at(SOUND, fromFactory(SETTINGS), 3)));
    expect(done(restoreFactory(trimmed)).shift).toBe(0);
  });
});
