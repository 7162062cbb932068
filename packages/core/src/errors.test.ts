import { describe, expect, it } from 'vitest';
import { CoreError, describeProblem, requireFinite, requirePositive, type Problem } from './errors';

const PROBLEMS: readonly Problem[] = [
  { code: 'not-finite', name: 'The span', value: Number.NaN },
  { code: 'zero-span', name: 'The input range', value: 5 },
  { code: 'not-positive', name: 'The tolerance', value: -1 },
  { code: 'out-of-bounds', name: 'The adjust limit', value: 120, lowest: 0, highest: 100, unit: '%' },
  { code: 'too-few-points', count: 1, least: 2 },
  { code: 'not-a-number', text: 'abc' },
  { code: 'two-decimal-signs', text: '1.2.3' },
  { code: 'too-many-digits', text: '1.2345678901234567', most: 15 },
  { code: 'nothing-typed' },
];

describe('a problem', () => {
  it.each(PROBLEMS.map((problem) => [problem.code, problem] as const))(
    '%s is said in a sentence',
    (_code, problem) => {
      const words = describeProblem(problem);
      expect(words).toMatch(/^["A-Z].*\.$/);
      expect(new CoreError(problem)).toMatchObject({ name: 'CoreError', message: words, problem });
    },
  );

  it.each(PROBLEMS.map((problem) => [problem.code, problem] as const))(
    '%s names the facts it has',
    (_code, problem) => {
      const words = describeProblem(problem);
      for (const [name, fact] of Object.entries(problem))
        if (name !== 'code') expect(words).toContain(String(fact));
    },
  );
});

describe('guards', () => {
  it('let through what can be computed with', () => {
    expect(() => requireFinite('x', -3.5)).not.toThrow();
    expect(() => requirePositive('x', Number.MIN_VALUE)).not.toThrow();
  });

  it.each([Number.NaN, Infinity, -Infinity])('refuse %d by name', (value) => {
    expect(() => requireFinite('The barometer', value)).toThrow('The barometer must be a finite number');
    expect(() => requirePositive('The barometer', value)).toThrow('The barometer must be a finite number');
  });

  it.each([0, -0, -1])('refuse %d where more than zero is needed', (value) => {
    expect(() => requirePositive('The span', value)).toThrow('The span must be greater than zero');
  });
});
