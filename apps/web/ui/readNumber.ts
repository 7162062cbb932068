import { CoreError, parseTyped } from '@barys/core';

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
