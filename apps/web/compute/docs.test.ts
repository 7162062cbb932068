import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { answerCalculation } from './answer';
import { CALCULATIONS } from './index';

/** Requests that the documents show, as `curl` would send them. */
const examples = ['README.md', 'docs/api.md', 'docs/using.md'].flatMap((file) => {
  const text = readFileSync(new URL(`../../../${file}`, import.meta.url), 'utf8').replaceAll('\\\n', ' ');
  return [...text.matchAll(/curl [^\n]*\/api\/v1\/compute\/([a-z-]+)[^\n]*-d '([^']*)'/g)].map(
    ([, name = '', body = '']) => [file, name, body] as const,
  );
});

it('the documents show at least one request', () => {
  expect(examples.length).toBeGreaterThan(0);
});

it.each(examples)('%s: %s is answered as it stands there', (_, name, body) => {
  expect(answerCalculation(CALCULATIONS.get(name), body).status).toBe(200);
});
