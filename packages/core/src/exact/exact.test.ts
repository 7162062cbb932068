import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exact, exactProduct, exactSum, roundDecimal, toNumber } from './index';

describe('exact numbers', () => {
  it('are the decimal that was typed', () => {
    expect(4.04 - 4 === 0.04).toBe(false);
    expect(exact(4.04).sub(exact(4)).equals(exact(0.04))).toBe(true);
  });

  it('come back as the double they came from, whatever its size', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (value) => {
        expect(toNumber(exact(value))).toBe(value + 0);
      }),
    );
  });

  it('divide as IEEE 754 does: rounded once, to nearest', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e9, max: 1e9 }), fc.integer({ min: 1, max: 1e9 }), (a, b) => {
        expect(toNumber(exact(a).div(exact(b)))).toBe(a / b + 0);
      }),
    );
  });

  it('round half away from zero and never to a negative zero', () => {
    expect(['1.005', '2.675', '-0.125'].map((text) => roundDecimal(Number(text), 2))).toEqual([
      '1.01',
      '2.68',
      '-0.13',
    ]);
    expect([roundDecimal(-0.0004, 3), roundDecimal(1e21, 0), roundDecimal(9.995, 2)]).toEqual([
      '0.000',
      '1000000000000000000000',
      '10.00',
    ]);
  });

  // Readings have few decimals and take a quick way; the slow one has to give the same.
  const typed = fc.oneof(
    fc
      .tuple(fc.integer({ min: -1e9, max: 1e9 }), fc.integer({ min: 0, max: 12 }))
      .map(([digits, places]) => Number(`${digits}e-${places}`)),
    fc.double({ noNaN: true, min: -1e300, max: 1e300 }),
  );

  it('are added to the last digit that was typed', () => {
    expect([exactSum(0.1, 0.2), exactSum(-0.3, 0.3), exactSum(1e15, 0.1)]).toEqual([
      0.3, 0, 1000000000000000.1,
    ]);
    fc.assert(
      fc.property(typed, typed, (a, b) => {
        expect(exactSum(a, b)).toBe(toNumber(exact(a).add(exact(b))));
      }),
    );
  });

  it('are multiplied by a ratio and rounded once', () => {
    expect(exactProduct(0.07, exact(1000))).toBe(70);
    fc.assert(
      fc.property(typed, typed, typed, (a, n, d) => {
        const ratio = exact(n).div(exact(d === 0 ? 1 : d));
        expect(exactProduct(a, ratio)).toBe(toNumber(exact(a).mul(ratio)));
      }),
    );
  });
});
