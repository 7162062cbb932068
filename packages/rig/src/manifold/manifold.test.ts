import { describe, expect, it } from 'vitest';
import { manifoldAt, pumped, pumpOf, type Manifold, type ManifoldState } from './index';

const MANIFOLD: Manifold = {
  volumeM3: 0.002,
  outgassing: 2e-5,
  bleed: 0.02,
  rotary: { speedM3PerS: 0.001, endPa: 1 },
  diffusion: { speedM3PerS: 0.02, endPa: 1e-4 },
  stallsPa: 10,
};
const at = (pressurePa: number, more: Partial<ManifoldState> = {}): ManifoldState => ({
  ...manifoldAt(pressurePa),
  ...more,
});
const after = (state: ManifoldState, seconds: number, step = 0.1): ManifoldState => {
  let now = state;
  for (let t = 0; t < seconds - 1e-9; t += step) now = pumped(MANIFOLD, now, step);
  return now;
};

describe('a vacuum manifold', () => {
  it('is pumped down as the balance of gas says, solved by small steps', () => {
    const open = at(101325, { rotary: true, valve: 1 });
    let p = open.pressurePa;
    for (let step = 0; step < 100_000; step += 1) p += ((2e-5 - 0.001 * (p - 1)) / 0.002) * 0.0001;
    expect(pumped(MANIFOLD, open, 10).pressurePa / p).toBeCloseTo(1, 3);
    expect(after(open, 10).pressurePa).toBeCloseTo(pumped(MANIFOLD, open, 10).pressurePa, 6);
  });

  it('ends near 1 Pa with the rotary pump, and far below only with the diffusion pump after it', () => {
    const rotary = after(at(101325, { rotary: true, valve: 1 }), 120);
    expect(rotary.pressurePa).toBeCloseTo(1.02, 2);
    expect(after({ ...rotary, diffusion: true }, 60).pressurePa).toBeLessThan(2e-3);
    // Too early it stalls, and alone it does nothing.
    expect(pumpOf(MANIFOLD, at(500, { rotary: true, diffusion: true, valve: 1 }))).toBe(MANIFOLD.rotary);
    expect(pumpOf(MANIFOLD, at(1, { diffusion: true, valve: 1 }))).toBeNull();
  });

  it('creeps up in a straight line when it is shut in, and is held up by the bleed', () => {
    const shut = at(1, { rotary: true });
    const rise = (seconds: number) => after(shut, seconds).pressurePa - 1;
    expect(rise(60)).toBeCloseTo(0.6, 9);
    expect(rise(120)).toBeCloseTo(2 * rise(60), 9);
    // What the bleed lets in and the pump takes out are the same at rest: 0.01 Pa m3/s over 0.001 m3/s, above 1 Pa.
    const bled = after(at(1, { rotary: true, valve: 1, bleed: 0.5 }), 60);
    expect(bled.pressurePa).toBeCloseTo(11.02, 2);
  });
});
