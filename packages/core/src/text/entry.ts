/** Numbers as people type them. */
import { CoreError } from '../errors';

export interface TypedNumber {
  /** As typed, without the blanks around it and with a plain minus: its digits say how finely it was read. */
  readonly text: string;
  readonly value: number;
}

/** Beyond 15 significant digits a double no longer gives the typed decimal back (IEEE 754). */
const MOST_DIGITS = 15;

/** Zeros in front and behind are no digits that count, and still no number that anybody reads. */
const LONGEST = 40;

/**
 * Reads a typed number: optional sign, digits, one decimal point or comma.
 * @throws CoreError `nothing-typed`, `two-decimal-signs`, `not-a-number`, `too-many-digits`
 * @example parseTyped(' 12,02 ') // { text: '12,02', value: 12.02 }
 */
export function parseTyped(typed: string): TypedNumber {
  // What a screen shows as a minus may be pasted back; it is kept as the sign that every program reads.
  const text = typed.trim().replace(/^[\u2212\u2013]/, '-');
  if (text === '') throw new CoreError({ code: 'nothing-typed' });
  if ((text.match(/[.,]/g) ?? []).length > 1) throw new CoreError({ code: 'two-decimal-signs', text });
  const plain = text.replace(',', '.');
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) throw new CoreError({ code: 'not-a-number', text });
  const digits = plain.replace(/[^\d]/g, '').replace(/^0+/, '');
  if (digits.length > MOST_DIGITS || text.length > LONGEST)
    throw new CoreError({ code: 'too-many-digits', text, most: MOST_DIGITS });
  // Adding 0 turns a typed -0 into 0, which no screen should show with a sign.
  return { text, value: Number(plain) + 0 };
}

/** A typed number with a point for its decimal mark, as documents show it beside computed ones; other text stays. */
export const withPoint = (text: string): string =>
  /^[+-]?\d*,\d*$/.test(text.trim()) ? text.replace(',', '.') : text;

/** Decimal places of a typed number: 3 for `12.020`, 0 for `12`. */
export function typedDecimals(text: string): number {
  return /[.,](\d*)/.exec(text)?.[1]?.length ?? 0;
}
