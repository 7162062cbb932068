/** What stands in the fields of a tool of the workshop: read, and told of at the field that is wrong. */
import { CoreError } from '@barys/core/errors';
import { readNumber } from '@/ui/readNumber';

export type Fields = Readonly<Record<string, string>>;

/** What is wrong, and at which field of the form. */
export interface Fault<Name extends string = string> {
  readonly message: string;
  readonly field: Name | null;
}

export const isFault = (result: object): result is Fault => 'message' in result;

/**
 * The number in a field.
 * @param what it is, where nothing is typed
 * @throws CoreError at the field
 */
export function numberAt<F extends Fields>(fields: F, name: keyof F & string, what: string): number {
  const text = fields[name] ?? '';
  const { value, error } = readNumber(text);
  if (error !== null) throw new CoreError({ code: 'not-a-number', text }, name);
  if (value === null)
    throw new CoreError({ code: 'missing', name: what, why: 'the range is made of it' }, name);
  return value;
}

/**
 * Does work with the fields; what the core refuses is told at its field.
 * @param fieldOf the fields that names of the core stand in, where they are called otherwise
 */
export function orFault<T, F extends Fields>(
  fields: F,
  fieldOf: Readonly<Record<string, keyof F & string>>,
  work: () => T,
): T | Fault<keyof F & string> {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    const name = error.field ?? '';
    return { message: error.message, field: fieldOf[name] ?? (Object.hasOwn(fields, name) ? name : null) };
  }
}
