/** A calculation as the API offers it: checked on the way in by its schema, described by the same schema in OpenAPI. */
import type { z } from 'zod';

export interface Calculation {
  /** Last part of its path. */
  readonly name: string;
  readonly summary: string;
  readonly input: z.ZodType;
  readonly output: z.ZodType;
  /** Reads the input and computes; long work yields on its way. */
  readonly run: (body: unknown) => Generator<unknown, unknown>;
}

/**
 * A calculation that is done at once.
 * @param compute given the checked input
 */
export function calculation<I extends z.ZodType, O extends z.ZodType>(
  name: string,
  summary: string,
  input: I,
  output: O,
  compute: (given: z.output<I>) => z.input<O>,
): Calculation {
  return {
    name,
    summary,
    input,
    output,
    *run(body) {
      return compute(input.parse(body));
    },
  };
}

/** A calculation that takes a while and yields on its way. */
export function longCalculation<I extends z.ZodType, O extends z.ZodType>(
  name: string,
  summary: string,
  input: I,
  output: O,
  compute: (given: z.output<I>) => Generator<unknown, z.input<O>>,
): Calculation {
  return { name, summary, input, output, run: (body) => compute(input.parse(body)) };
}
