import { CoreError } from '@barys/core/errors';
import { parseTyped } from '@barys/core/text';

/** A typed number, or what is wrong with it; an empty text is neither. */
export function readNumber(text: string): { value: number | null; error: string | null } {
  if (text.trim() === '') return { value: null, error: null };
  try {
    return { value: parseTyped(text).value, error: null };
  } catch (error) {
    if (error instanceof CoreError) return { value: null, error: error.message };
    throw error;
  }
}

/** A typed number, null of an empty field, NaN of one that is none: a schema then says what is wrong. */
export function typedNumber(text: string): number | null {
  const { value, error } = readNumber(text);
  return error === null ? value : NaN;
}
