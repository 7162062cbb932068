/** Numbers as Barys shows them: rounded half away from zero, a true minus sign, never NaN, Infinity or -0. */
import { requireFinite, requirePositive } from '../errors';
import { roundDecimal, withoutNoise } from '../exact';

const MINUS = '\u2212';

/**
 * A value at a fixed number of decimals; one computed to within its noise of a half is taken as the half.
 * @throws CoreError `not-finite`
 * @example formatFixed(-0.0004, 3) // '0.000'
 */
export function formatFixed(value: number, decimals: number): string {
  return roundDecimal(withoutNoise(value), decimals).replace('-', MINUS);
}

/**
 * A value with its sign, as errors are shown; zero has none.
 * @throws CoreError `not-finite`
 * @example formatSigned(0.0376, 3) // '+0.038'
 */
export function formatSigned(value: number, decimals: number): string {
  const text = formatFixed(value, decimals);
  const isZero = !/[1-9]/.test(text);
  return value > 0 && !isZero ? `+${text}` : text;
}

/**
 * Decimal places that show a resolution and no more.
 * @param resolution smallest step worth showing, in the unit of the value
 * @throws CoreError `not-positive`, `not-finite`
 * @example decimalsForResolution(0.00625) // 3
 */
export function decimalsForResolution(resolution: number): number {
  requirePositive('resolution', resolution);
  return Math.max(0, Math.ceil(-Math.log10(resolution) - 1e-9));
}

/**
 * The step to show a range in where nothing better is known: a thousandth of the decade of its span.
 * @example decimalsForResolution(resolutionForSpan(500)) // 1
 */
export function resolutionForSpan(span: number): number {
  requirePositive('span', Math.abs(span));
  return 10 ** (Math.floor(Math.log10(Math.abs(span))) - 3);
}

/**
 * A value with as many digits as it needs, for ends of ranges and limits that were typed.
 * @example formatPlain(-160) // '−160'
 */
export function formatPlain(value: number): string {
  return roundDecimal(value, 12)
    .replace(/\.?0+$/, '')
    .replace('-', MINUS);
}

/**
 * A value to a number of significant digits, without the zeros that only fill; very large and very small ones with a
 * power of ten.
 * @param digits 1 to 15
 * @example formatSignificant(440.28675393025, 8) // '440.28675'
 * @example formatSignificant(0.000001234, 3) // '1.23e-6'
 */
export function formatSignificant(value: number, digits: number): string {
  requireFinite('value', value);
  if (value === 0) return '0';
  const [mantissa = '', power = '0'] = value.toExponential(digits - 1).split('e');
  const exponent = Number(power);
  const isWritten = exponent >= -5 && exponent < 12;
  const text = isWritten ? roundDecimal(value, Math.min(20, Math.max(0, digits - 1 - exponent))) : mantissa;
  const short = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return `${short}${isWritten ? '' : `e${exponent}`}`.replace(/^-/, MINUS);
}
