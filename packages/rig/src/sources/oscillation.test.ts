import { describe, expect, it } from 'vitest';
import { swung, type Swing } from './oscillation';

/** The same equation in steps of a hundred-thousandth, by the midpoint rule. */
function integrated(begun: Swing, to: number, omega: number, zeta: number, seconds: number): Swing {
  const step = 1e-5;
  const accelerated = ({ x, v }: Swing) => omega * omega * (to - x) - 2 * zeta * omega * v;
  let { x, v } = begun;
  for (let t = 0; t < seconds - step / 2; t += step) {
    const middle = { x: x + (v * step) / 2, v: v + (accelerated({ x, v }) * step) / 2 };
    x += middle.v * step;
    v += accelerated(middle) * step;
  }
  return { x, v };
}

describe('what swings to rest', () => {
  it.each([0, 0.3, 0.85, 0.999999, 1, 1.000001, 1.5, 4])('at a damping ratio of %s', (zeta) => {
    const begun = { x: 3, v: -2 };
    const exact = swung(begun, 10, 2.5, zeta, 1.7);
    const small = integrated(begun, 10, 2.5, zeta, 1.7);
    expect(exact.x).toBeCloseTo(small.x, 5);
    expect(exact.v).toBeCloseTo(small.v, 5);
    // In one step as in many.
    let many: Swing = begun;
    for (let count = 0; count < 17; count += 1) many = swung(many, 10, 2.5, zeta, 0.1);
    expect(many.x).toBeCloseTo(exact.x, 9);
  });
});
