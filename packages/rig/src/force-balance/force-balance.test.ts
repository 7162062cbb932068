import { describe, expect, it } from 'vitest';
import {
  armOf,
  forceBalanceAtRest,
  signalOf,
  stepForceBalance,
  turnWheel,
  type ForceBalance,
  type ForceBalanceState,
} from './index';

const SOUND: ForceBalance = {
  wheelPerTurn: 0.1,
  zeroPerTurn: 0.05,
  springAtZero: 0.25,
  nozzleGain: 1e9,
  friction: 0,
  settlingS: 0,
  burr: null,
  low: 3,
  high: 15,
};
const at = (balance: ForceBalance, state: ForceBalanceState, x: number, supply = 1) =>
  stepForceBalance(balance, state, { x, stepS: 60, supply });

describe('a pneumatic force balance', () => {
  it('without a fault puts out 3 to 15, and its moments balance', () => {
    for (const [x, psi] of [
      [0, 3],
      [0.5, 9],
      [1, 15],
    ] as const)
      expect(signalOf(SOUND, at(SOUND, forceBalanceAtRest(), x))).toBeCloseTo(psi, 6);
    const turned = turnWheel(forceBalanceAtRest(), { wheel: 1, zero: 0.3 });
    const { output, force } = at(SOUND, turned, 0.7);
    // Capsule and spring on the one side, the bellows on its arm on the other.
    expect(force + 0.25 + 0.05 * 0.3).toBeCloseTo((output + 0.25) * armOf(SOUND, turned), 6);
  });

  it('has a wheel that moves gain and zero together', () => {
    const turned = turnWheel(forceBalanceAtRest(), { wheel: 1 });
    const [zero, full] = [at(SOUND, turned, 0).output, at(SOUND, turned, 1).output];
    expect(full - zero).toBeCloseTo(1 / 1.1, 6);
    expect(zero).toBeCloseTo(0.25 / 1.1 - 0.25, 6);
  });

  it('is brought to no error by who knows its wheel and screw', () => {
    const found = turnWheel(forceBalanceAtRest(), { wheel: -0.4, zero: 1.2 });
    const back = turnWheel(found, { wheel: 0.4, zero: -1.2 });
    expect(at(SOUND, back, 0.3).output).toBeCloseTo(0.3, 6);
  });

  it('droops with the supply as its nozzle’s gain is finite, and ends at the supply', () => {
    const soft = { ...SOUND, nozzleGain: 200 };
    const [usual, low] = [
      at(soft, forceBalanceAtRest(), 0.5).output,
      at(soft, forceBalanceAtRest(), 0.5, 0.7).output,
    ];
    expect(usual).toBeLessThan(0.5);
    expect(low).toBeLessThan(usual);
    // y = K m / (1 + K) - s with K = 200 and m = 0.75.
    expect(usual).toBeCloseTo((200 * 0.75) / 201 - 0.25, 12);
    expect(at(SOUND, forceBalanceAtRest(), 5).output).toBe(1.2);
  });

  it('sticks within its friction, jumps at a burr, and settles in its time', () => {
    const rough = { ...SOUND, friction: 0.01 };
    const up = at(rough, forceBalanceAtRest(), 0.5);
    expect(up.output).toBeCloseTo(0.495, 6);
    expect(at(rough, up, 0.497).output).toBeCloseTo(0.495, 6);
    const burred = { ...SOUND, burr: { atTurns: 0.5, jump: 0.03 } };
    const arm = (wheel: number) => armOf(burred, turnWheel(forceBalanceAtRest(), { wheel }));
    expect(arm(0.5) - arm(0.499)).toBeCloseTo(0.0301, 9);
    const slow = { ...SOUND, settlingS: 1.5 };
    const after = stepForceBalance(slow, forceBalanceAtRest(), { x: 1, stepS: 1.5 });
    expect(after.output).toBeCloseTo(1 - Math.exp(-1), 6);
  });
});
