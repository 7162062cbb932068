import { z } from 'zod';

/** The schema of a form that sends texts: those that its fields have, none longer than anybody types. */
export const textsOf = <T extends Readonly<Record<string, string>>>(fields: T): z.ZodType<T> =>
  z.object(Object.fromEntries(Object.keys(fields).map((name) => [name, z.string().max(20000)]))) as never;
