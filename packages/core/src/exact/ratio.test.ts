import fc from 'fast-check';
import Fraction from 'fraction.js';
import { describe, expect, it } from 'vitest';
import { Ratio } from './ratio';

// Short terms, and such as are brought to lowest terms on the way.
const whole = fc.oneof(fc.bigInt(-1000n, 1000n), fc.bigInt(-(1n << 260n), 1n << 260n));
const terms = fc.tuple(
  whole,
  whole.filter((d) => d !== 0n),
);
type Terms = [bigint, bigint];

/** As the library of fractions, which is always in lowest terms, has it. */
const same = (ratio: Ratio, fraction: Fraction): void => {
  const { n, d } = ratio.inLowestTerms();
  expect([n, d]).toEqual([fraction.s * fraction.n, fraction.d]);
};
const both = ([n, d]: Terms) => [new Ratio(n, d), new Fraction(n, d)] as const;

describe('a ratio, beside a library of fractions', () => {
  it.each(['add', 'sub', 'mul'] as const)('%s', (operation) => {
    fc.assert(
      fc.property(terms, terms, (a, b) => {
        const [[x, fx], [y, fy]] = [both(a), both(b)];
        same(x[operation](y), fx[operation](fy));
      }),
    );
  });

  it('is divided, inverted and compared', () => {
    fc.assert(
      fc.property(terms, terms, (a, b) => {
        const [[x, fx], [y, fy]] = [both(a), both(b)];
        expect(x.compare(y)).toBe(Math.sign(fx.compare(fy)));
        expect(x.equals(y)).toBe(fx.equals(fy));
        if (y.n === 0n) {
          expect(() => x.div(y)).toThrow('division by zero');
          expect(() => y.inverse()).toThrow('division by zero');
          return;
        }
        same(x.div(y), fx.div(fy));
        same(y.inverse(), fy.inverse());
      }),
    );
  });

  it('has a sign, a size, a power and a whole part', () => {
    fc.assert(
      fc.property(terms, fc.nat(4), (a, power) => {
        const [x, fx] = both(a);
        same(x.neg(), fx.neg());
        same(x.abs(), fx.abs());
        same(x.pow(power), fx.pow(power));
        expect(x.floor()).toBe(fx.floor().s * fx.floor().n);
        expect(x.sign()).toBe(fx.n === 0n ? 0 : Number(fx.s));
      }),
    );
  });

  it('stays short however long it is reckoned with', () => {
    let sum = new Ratio(0n, 1n);
    for (let k = 0; k < 2000; k += 1) sum = sum.add(new Ratio(1n, 3n)).sub(new Ratio(1n, 7n));
    same(sum, new Fraction(8000, 21));
    expect(sum.d.toString().length).toBeLessThan(70);
  });
});
