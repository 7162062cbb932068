/**
 * Exact rational arithmetic where a verdict hangs on the last digit.
 *
 * A number that came from at most 15 typed digits is given back unchanged by the shortest decimal text of its
 * double (IEEE 754-2019, 5.12.2), so `exact(4.04)` is 404/100 and not the binary neighbour of it.
 */
import { requireFinite } from '../errors';
import { Ratio } from './ratio';

export type Exact = Ratio;

/** Ends of ranges, limits and round readings come again and again, and parsing them costs more than the rest. */
const known = new Map<number, Exact>();
const MOST_KNOWN = 5000;

/**
 * The decimal that a person meant by a number, as a ratio of two integers.
 * @throws CoreError `not-finite`
 * @example exact(4.04).sub(exact(4)).equals(exact(0.04)) // true, where 4.04 - 4 === 0.04 is false
 */
export function exact(value: number): Exact {
  const found = known.get(value);
  if (found !== undefined) return found;
  requireFinite('value', value);
  const ratio = fromDecimal(String(value));
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(value, ratio);
  return ratio;
}

function fromDecimal(text: string): Exact {
  const [mantissa = '', exponent = '0'] = text.split('e');
  const [whole = '', places = ''] = mantissa.split('.');
  const digits = BigInt(whole + places);
  const power = Number(exponent) - places.length;
  return power < 0 ? new Ratio(digits, 10n ** BigInt(-power)) : new Ratio(digits * 10n ** BigInt(power), 1n);
}

const bitLength = (n: bigint): number => n.toString(2).length;

/**
 * The double nearest to a ratio, rounded once. Dividing the two parts as doubles would round three times, and
 * parts above 1e308 would give NaN.
 */
export function toNumber(ratio: Exact): number {
  if (ratio.n === 0n) return 0;
  const size = ratio.n < 0n ? -ratio.n : ratio.n;
  const shift = 66 + bitLength(ratio.d) - bitLength(size);
  const n = shift > 0 ? size << BigInt(shift) : size;
  const d = shift < 0 ? ratio.d << BigInt(-shift) : ratio.d;
  // The lowest bit stands for all that the division drops, so that a tie is not taken for one.
  const quotient = (n / d) | (n % d === 0n ? 0n : 1n);
  const half = Math.trunc(shift / 2);
  return ratio.sign() * Number(quotient) * 2 ** -half * 2 ** -(shift - half);
}

const HALF = new Ratio(1n, 2n);

/**
 * A computed value without the rounding noise of its computation, which lies beyond the twelfth significant digit:
 * 0.07749999999999702, computed from decimals that make exactly 0.0775, rounds as 0.0775 does.
 */
export const withoutNoise = (value: number): number => Number(value.toPrecision(12));

/**
 * Rounds half away from zero at a decimal place, deciding on the decimal value and not on its binary neighbour.
 * Never gives a negative zero.
 * @param decimals places after the decimal point, 0 to 15
 * @example roundDecimal(1.005, 2) // '1.01'
 * @example roundDecimal(-0.0004, 3) // '0.000'
 */
export function roundDecimal(value: number, decimals: number): string {
  const scaled = exact(value).mul(10n ** BigInt(decimals));
  const magnitude = scaled.abs().add(HALF).floor();
  const digits = magnitude.toString().padStart(decimals + 1, '0');
  const whole = digits.slice(0, digits.length - decimals);
  const rest = decimals === 0 ? '' : `.${digits.slice(-decimals)}`;
  const negative = value < 0 && magnitude !== 0n;
  return `${negative ? '-' : ''}${whole}${rest}`;
}

/** Powers of ten for the decimals of readings; numbers with more of them go the slow way. */
const POWERS = Array.from({ length: 10 }, (_, power) => 10 ** power);
const MOST_EXACT = 1e15;

/**
 * The least power of ten that makes a number whole where it is a decimal of at most 15 digits, of which each has a double
 * of its own; null where it is none, or has more than nine places.
 */
function wholeFrom(value: number): number | null {
  for (const power of POWERS) {
    const whole = Math.round(value * power);
    if (whole / power === value) return Math.abs(whole) < MOST_EXACT ? power : null;
  }
  return null;
}

/** The sum of two numbers as they are written, to the last digit: 0.1 and 0.2 make 0.3. */
export function exactSum(a: number, b: number): number {
  const [ofA, ofB] = [wholeFrom(a), wholeFrom(b)];
  if (ofA !== null && ofB !== null) {
    const power = Math.max(ofA, ofB);
    const [wholeA, wholeB] = [Math.round(a * power), Math.round(b * power)];
    // Sums of such wholes are exact, and one division rounds once. Zero is added so that none comes out negative.
    if (Math.abs(wholeA) < MOST_EXACT && Math.abs(wholeB) < MOST_EXACT) return (wholeA + wholeB) / power + 0;
  }
  return toNumber(exact(a).add(exact(b)));
}

/** A number as it is written times a ratio, rounded once. */
export function exactProduct(value: number, ratio: Exact): number {
  const power = wholeFrom(value);
  if (power !== null) {
    const over = Number(ratio.n) * Math.round(value * power);
    const under = Number(ratio.d) * power;
    if (Math.abs(over) <= Number.MAX_SAFE_INTEGER && under <= Number.MAX_SAFE_INTEGER)
      return over / under + 0;
  }
  return toNumber(exact(value).mul(ratio));
}
