/**
 * Ratios of two whole numbers, for verdicts on a limit: a dozen operations on numbers of a few digits. They are not brought
 * to lowest terms after each, which would take longer than the operation; only where the terms have grown long.
 */

/** A denominator of more digits than this is worth the search for a common divisor. */
const LONG = 1n << 192n;

const commonDivisor = (a: bigint, b: bigint): bigint => {
  while (b !== 0n) [a, b] = [b, a % b];
  return a < 0n ? -a : a;
};

type Operand = Ratio | number | bigint;

/** A number that is whole, as a ratio of itself to one. */
const ratioOf = (value: Operand): Ratio => (value instanceof Ratio ? value : new Ratio(BigInt(value), 1n));

export class Ratio {
  /** Has the sign of the whole. */
  readonly n: bigint;
  /** Above zero. */
  readonly d: bigint;

  /** @throws RangeError where the denominator is zero */
  constructor(n: bigint, d: bigint) {
    if (d === 0n) throw new RangeError('division by zero');
    if (d < 0n) [n, d] = [-n, -d];
    if (d > LONG) {
      const divisor = commonDivisor(n, d);
      [n, d] = [n / divisor, d / divisor];
    }
    this.n = n;
    this.d = d;
  }

  add(other: Operand): Ratio {
    const { n, d } = ratioOf(other);
    return d === this.d ? new Ratio(this.n + n, d) : new Ratio(this.n * d + n * this.d, this.d * d);
  }

  sub(other: Operand): Ratio {
    const { n, d } = ratioOf(other);
    return d === this.d ? new Ratio(this.n - n, d) : new Ratio(this.n * d - n * this.d, this.d * d);
  }

  mul(other: Operand): Ratio {
    const { n, d } = ratioOf(other);
    return new Ratio(this.n * n, this.d * d);
  }

  /** @throws RangeError by zero */
  div(other: Operand): Ratio {
    const { n, d } = ratioOf(other);
    return new Ratio(this.n * d, this.d * n);
  }

  /** @param exponent a whole number, not negative */
  pow(exponent: number): Ratio {
    return new Ratio(this.n ** BigInt(exponent), this.d ** BigInt(exponent));
  }

  neg(): Ratio {
    return new Ratio(-this.n, this.d);
  }

  abs(): Ratio {
    return this.n < 0n ? this.neg() : this;
  }

  /** @throws RangeError of zero */
  inverse(): Ratio {
    return new Ratio(this.d, this.n);
  }

  /** The largest whole number that is not above it. */
  floor(): bigint {
    const whole = this.n / this.d;
    return this.n < 0n && whole * this.d !== this.n ? whole - 1n : whole;
  }

  /** The same ratio, its two numbers as small as they can be. */
  inLowestTerms(): Ratio {
    const divisor = commonDivisor(this.n, this.d);
    return new Ratio(this.n / divisor, this.d / divisor);
  }

  sign(): -1 | 0 | 1 {
    return this.n === 0n ? 0 : this.n < 0n ? -1 : 1;
  }

  compare(other: Operand): -1 | 0 | 1 {
    const { n, d } = ratioOf(other);
    const [left, right] = d === this.d ? [this.n, n] : [this.n * d, n * this.d];
    return left < right ? -1 : left > right ? 1 : 0;
  }

  equals(other: Operand): boolean {
    return this.compare(other) === 0;
  }
}
