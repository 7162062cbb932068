import { CoreError } from '@barys/core/errors';
import { ZodError } from 'zod';

/** What could be read of a form, or what is wrong with it and at which field. */
export interface Part<T> {
  readonly value: T | null;
  readonly fault: { readonly message: string; readonly field: string | null } | null;
}

export function partOf<T>(work: () => T): Part<T> {
  try {
    return { value: work(), fault: null };
  } catch (error) {
    if (error instanceof CoreError)
      return { value: null, fault: { message: error.message, field: error.field ?? null } };
    if (!(error instanceof ZodError)) throw error;
    const [issue] = error.issues;
    return {
      value: null,
      fault: { message: issue?.message ?? '', field: String(issue?.path[0] ?? '') || null },
    };
  }
}
