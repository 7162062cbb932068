/** The examples in docstrings, as they stand there: `@example expression // value`, to the digits that are given. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const SRC = new URL('../src/', import.meta.url);

interface Example {
  readonly file: string;
  readonly expression: string;
  readonly value: string;
}

function examplesOf(file: string): Example[] {
  // An example may go over several lines of its comment.
  const text = readFileSync(new URL(file, SRC), 'utf8').replace(/\n \* {2,}/g, ' ');
  const found = [...text.matchAll(/@example\s+(?:\n \* )?([^\n]*(?:\n \* (?!@)[^\n]*)*)/g)];
  return found.flatMap(([, body = '']) =>
    body
      .replaceAll(/(^|\n) ?\* /g, ' ')
      .trim()
      .split(/\s*@example\s+/)
      .map((example) => /^(.*?) \/\/ (.*)$/.exec(example))
      .map((parts) => ({ file, expression: parts?.[1] ?? body, value: parts?.[2]?.trim() ?? '' })),
  );
}

const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' })
  .filter((file) => /^[a-z-]+\/.*(?<!\.test)\.ts$/.test(file))
  .sort();
const examples = files.flatMap(examplesOf);

/** All that the core's subjects export, by name. */
const core: Record<string, unknown> = {};
for (const file of files) Object.assign(core, await import(new URL(file, SRC).href));

const run = (code: string): unknown =>
  // oxlint-disable-next-line typescript/no-implied-eval -- our own docstrings
  (new Function(...Object.keys(core), `return (${code});`) as (...names: unknown[]) => unknown)(
    ...Object.values(core),
  );

const NUMBER = /^-?\d+(\.\d+)?(e[-+]?\d+)?/;

describe('the examples of docstrings', () => {
  it('are found', () => {
    expect(examples.length).toBeGreaterThan(40);
  });

  it.each(examples.map((one) => [`${one.file}: ${one.expression}`, one] as const))(
    '%s',
    (_, { expression, value }) => {
      const got = run(expression);
      const number = NUMBER.exec(value)?.[0];
      if (number === undefined) {
        const [literal = ''] = /^('[^']*'|\{[^}]*\}|\[[^\]]*\]|true|false|null)/.exec(value) ?? [];
        expect(literal, `the value of ${expression}`).not.toBe('');
        expect(got).toEqual(run(literal));
        return;
      }
      const places = /\.(\d+)/.exec(number)?.[1]?.length ?? 0;
      const exponent = Number(/e([-+]?\d+)$/.exec(number)?.[1] ?? 0);
      // Cut or rounded: within one of the last digit that is given.
      expect(Math.abs(Number(got) - Number(number))).toBeLessThanOrEqual(
        10 ** (exponent - places) * 1.000001,
      );
    },
  );
});
