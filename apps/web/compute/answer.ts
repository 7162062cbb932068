/** Runs a calculation for the API and answers with its result or with problem details (RFC 9457). */
import { CoreError } from '@barys/core/errors';
import { z } from 'zod';
import { problemDetails } from '@/server/problem-details';
import type { Calculation } from './calculation';

/** A run of ten thousand readings is under two million characters. */
export const LONGEST_BODY = 4_000_000;

interface Fault {
  readonly detail: string;
  /** JSON Pointer into the request (RFC 6901). */
  readonly pointer: string;
  /** The same for people: `range.urv`. */
  readonly field: string;
}

export const problem = (
  status: number,
  code: string,
  title: string,
  faults: readonly Fault[],
  detail?: string,
  headers: Readonly<Record<string, string>> = {},
): Response =>
  problemDetails({
    type: `urn:barys:problem:${code}`,
    title,
    status,
    detail: detail ?? faults[0]?.detail ?? title,
    headers,
    ...(faults.length === 0 ? {} : { more: { field: faults[0]?.field, errors: faults } }),
  });

export const tooLong = (): Response =>
  problem(413, 'too-long', 'Too long', [], `A request may hold ${LONGEST_BODY} characters.`);

const pointerTo = (path: readonly (string | number)[]): string =>
  `#${path.map((part) => `/${String(part).replace(/~/g, '~0').replace(/\//g, '~1')}`).join('')}`;

const faultAt = (path: readonly (string | number)[], detail: string): Fault => ({
  detail,
  pointer: pointerTo(path),
  field: path.join('.'),
});

/**
 * The result as JSON.
 * @throws CoreError `undefined-result` for a number that JSON would write as null
 */
function written(result: unknown): string {
  return JSON.stringify(result, (key, value: unknown) => {
    if (typeof value === 'number' && !Number.isFinite(value))
      throw new CoreError({
        code: 'undefined-result',
        name: /^\d*$/.test(key) ? 'The result' : `The result "${key}"`,
        why: 'at these figures it is larger than any number here',
      });
    return value;
  });
}

/** Where a name stands in a request: the core knows its arguments, not what the request wraps them in. */
export function pathOf(body: unknown, field: string): string[] {
  const [first = '', ...rest] = field.split('.');
  const search = (value: unknown, path: string[]): string[] | null => {
    if (value === null || typeof value !== 'object' || Array.isArray(value)) return null;
    if (Object.hasOwn(value, first)) return [...path, first];
    for (const [key, inner] of Object.entries(value)) {
      const found = search(inner, [...path, key]);
      if (found !== null) return found;
    }
    return null;
  };
  return [...(search(body, []) ?? [first]), ...rest];
}

function answerTo(error: unknown, body: unknown): Response {
  if (error instanceof CoreError) {
    const path = error.field === undefined ? [] : pathOf(body, error.field);
    return problem(422, error.problem.code, 'This cannot be computed', [faultAt(path, error.message)]);
  }
  if (error instanceof z.ZodError) {
    const faults = error.issues.flatMap((issue) => {
      const path = issue.path.map((part) => (typeof part === 'symbol' ? String(part) : part));
      if (issue.code !== 'unrecognized_keys') return [faultAt(path, issue.message)];
      return issue.keys.map((key) => faultAt([...path, key], `There is no field "${key}" here.`));
    });
    return problem(422, 'invalid-input', 'The request does not fit', faults);
  }
  if (error instanceof RangeError)
    return problem(
      422,
      'too-deep',
      'Too much',
      [],
      'The request is nested too deeply or too large to be computed.',
    );
  throw error;
}

/** Runs a calculation to its end in the thread that asks. */
export function answerCalculation(found: Calculation | undefined, text: string): Response {
  if (found === undefined)
    return problem(
      404,
      'no-such-calculation',
      'No such calculation',
      [],
      'The calculations are listed at /api/v1/openapi.json.',
    );
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    return problem(400, 'not-json', 'Not JSON', [], 'The body of the request must be one JSON object.');
  }
  try {
    const steps = found.run(body);
    for (;;) {
      const next = steps.next();
      if (next.done === true)
        return new Response(written(next.value), { headers: { 'content-type': 'application/json' } });
    }
  } catch (error) {
    return answerTo(error, body);
  }
}
