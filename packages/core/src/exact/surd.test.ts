import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  exact,
  magnitude,
  minus,
  plus,
  rational,
  root,
  scaled,
  signOf,
  surdToNumber,
  times,
  withoutNoise,
  type Surd,
} from './index';

const small = fc.integer({ min: -999, max: 999 }).map((n) => n / 100);
const surd = (a: number, b: number, t: number): Surd => ({ a: exact(a), b: exact(b), t: exact(t) });

describe('a number a + b √t', () => {
  const parts = fc.tuple(
    small,
    small,
    fc.integer({ min: 0, max: 2000 }).map((n) => n / 10),
  );

  it('has the sign that its double has, wherever the double is clear', () => {
    fc.assert(
      fc.property(parts, ([a, b, t]) => {
        const value = a + b * Math.sqrt(t);
        fc.pre(Math.abs(value) > 1e-9);
        expect(signOf(surd(a, b, t))).toBe(Math.sign(value));
      }),
    );
  });

  it('is exactly zero where a double only nearly is', () => {
    // 0.3² is 0.09, so 0.3 - √0.09 is nothing; 0.1 + 0.2 misses 0.3 in doubles.
    expect(signOf(minus(rational(exact(0.3), exact(0.09)), root(exact(0.09))))).toBe(0);
    expect(signOf(surd(1, -0.1, 100))).toBe(0);
    expect(signOf(surd(-1.4142135623730951, 1, 2))).toBe(-1);
    expect(signOf(surd(-1.414213562373095, 1, 2))).toBe(1);
    expect(signOf(surd(0, -3, 2))).toBe(-1);
    expect(signOf(surd(5, -3, 0))).toBe(1);
  });

  it('adds, subtracts, scales and multiplies as its double does', () => {
    fc.assert(
      fc.property(parts, small, small, ([a, b, t], c, d) => {
        const [x, y] = [surd(a, b, t), surd(c, d, t)];
        const [p, q] = [a + b * Math.sqrt(t), c + d * Math.sqrt(t)];
        const near = (got: Surd, wanted: number) =>
          expect(Math.abs(surdToNumber(got) - wanted)).toBeLessThanOrEqual(1e-9 * (1 + Math.abs(wanted)));
        near(plus(x, y), p + q);
        near(minus(x, y), p - q);
        near(times(x, y), p * q);
        near(scaled(x, exact(c)), p * c);
        near(magnitude(x), Math.abs(p));
      }),
    );
  });
});

describe('a computed value', () => {
  it('keeps every typed decimal of up to twelve digits', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -999999999, max: 999999999 }),
        fc.integer({ min: 0, max: 9 }),
        (n, places) => {
          const typed = Number(`${n}e-${places}`);
          expect(withoutNoise(typed)).toBe(typed);
        },
      ),
    );
  });

  it('loses the noise of its computation', () => {
    expect(0.1 + 0.2).not.toBe(0.3);
    expect(withoutNoise(0.1 + 0.2)).toBe(0.3);
  });
});
