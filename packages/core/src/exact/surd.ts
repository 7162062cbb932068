/**
 * Numbers a + b √t with rational a, b and t >= 0. Errors and limits of a square-root instrument are of this form, so a
 * verdict on its limit can be decided exactly too. Two of them may be combined when they share t.
 */
import { exact, toNumber, type Exact } from './decimal';

export interface Surd {
  readonly a: Exact;
  readonly b: Exact;
  readonly t: Exact;
}

const ZERO = exact(0);

/** A rational number as a surd. */
export const rational = (a: Exact, t: Exact = ZERO): Surd => ({ a, b: ZERO, t });

/** √t itself. */
export const root = (t: Exact): Surd => ({ a: ZERO, b: exact(1), t });

// Most numbers here have no root at all; what is zero is not reckoned with.
const sum = (x: Exact, y: Exact): Exact => (y.n === 0n ? x : x.n === 0n ? y : x.add(y));
const difference = (x: Exact, y: Exact): Exact => (y.n === 0n ? x : x.sub(y));
const product = (x: Exact, y: Exact): Exact => (x.n === 0n || y.n === 0n ? ZERO : isOne(y) ? x : x.mul(y));
const isOne = ({ n, d }: Exact): boolean => n === d;

export const plus = (x: Surd, y: Surd): Surd => ({ a: sum(x.a, y.a), b: sum(x.b, y.b), t: x.t });
export const minus = (x: Surd, y: Surd): Surd => ({
  a: difference(x.a, y.a),
  b: difference(x.b, y.b),
  t: x.t,
});
export const scaled = (x: Surd, by: Exact): Surd => ({ a: product(x.a, by), b: product(x.b, by), t: x.t });
export const times = (x: Surd, y: Surd): Surd => ({
  a: sum(product(x.a, y.a), product(product(x.b, y.b), x.t)),
  b: sum(product(x.a, y.b), product(x.b, y.a)),
  t: x.t,
});

/**
 * Sign of a + b √t, exact: where a and b pull apart, a² is compared with b² t.
 * @returns -1, 0 or 1
 */
export function signOf({ a, b, t }: Surd): -1 | 0 | 1 {
  const signA = a.sign();
  const signB = t.n === 0n ? 0 : b.sign();
  if (signB === 0 || signA === signB) return signA;
  if (signA === 0) return signB;
  return (a.mul(a).compare(b.mul(b).mul(t)) * signA) as -1 | 0 | 1;
}

/** Sign of x - y, exact. */
export const compareSurds = (x: Surd, y: Surd): -1 | 0 | 1 =>
  x.b.n === 0n && y.b.n === 0n ? x.a.compare(y.a) : signOf({ ...minus(x, y), t: x.t.n === 0n ? y.t : x.t });

export const magnitude = (x: Surd): Surd =>
  signOf(x) < 0 ? { a: x.a.neg(), b: x.b.n === 0n ? ZERO : x.b.neg(), t: x.t } : x;

/** The nearest double to within a few units in the last place. */
export const surdToNumber = ({ a, b, t }: Surd): number =>
  toNumber(a) + (b.n === 0n ? 0 : toNumber(b) * Math.sqrt(toNumber(t)));
