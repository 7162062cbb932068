/** What an instrument says in lines of text, read with its driver. */
/** NaN and the infinities of SCPI-1999, volume 1, 7.2.1.4 and 7.2.1.5 (from memory). */
const NO_NUMBERS = [9.91e37, 9.9e37, -9.9e37];
/** NR1, NR2 and NR3 of IEEE 488.2, 8.7 (from memory). */
const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d{1,3})?$/;

/**
 * @throws Error naming what came, where it is no number
 */
export function numberOf(text: string): number {
  const plain = text.trim();
  const value = NUMBER.test(plain) ? Number(plain) : NaN;
  if (!Number.isFinite(value) || NO_NUMBERS.includes(value))
    throw new Error(`"${shortened(text)}" is no value.`);
  return value;
}

/** What came, short enough to be said. */
export const shortened = (text: string): string => (text.length > 60 ? `${text.slice(0, 60)}…` : text);

/**
 * The groups of an answer.
 * @throws Error naming what came, where it is another answer
 */
export function matched(
  { answer }: { readonly answer: string },
  line: string,
): Readonly<Record<string, string>> {
  const found = new RegExp(`^(?:${answer})$`).exec(line);
  if (found === null) throw new Error(`"${shortened(line)}" is not the answer that was expected.`);
  return found.groups ?? {};
}

/** A command with its figures in their places. */
export const filled = (text: string, figures: Readonly<Record<string, string>>): string =>
  text.replaceAll(/\{(\w+)\}/g, (_all, name: string) => figures[name] ?? '');
