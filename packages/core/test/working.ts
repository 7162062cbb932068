/** What every working has to hold to. */
import { expect } from 'vitest';
import { evaluateFormula, parseFormula } from '../src/formula';
import { stepTex, type Step, type Worked } from '../src/working';

export function expectConsistent(steps: readonly Step[]): void {
  expect(steps.length).toBeGreaterThan(0);
  for (const step of steps) {
    const values = Object.fromEntries(Object.entries(step.given).map(([name, { value }]) => [name, value]));
    expect(evaluateFormula(parseFormula(step.formula), values) + 0).toBe(step.value);
    expect(step.source).not.toBe('');
    const tex = stepTex(step);
    expect(tex.numbers + tex.result).not.toMatch(/NaN|undefined|Infinity/);
  }
}

export function expectEndsIn(steps: readonly Step[], symbol: string, value: number): void {
  const step = steps.findLast((one) => one.symbol === symbol);
  expect(step, `no step for ${symbol}`).toBeDefined();
  expect(Math.abs((step?.value ?? NaN) - value)).toBeLessThanOrEqual(1e-11 * Math.abs(value) + 1e-12);
}

export function expectWorked({ value, working }: Worked): void {
  expectConsistent(working);
  const last = working.at(-1)?.value ?? NaN;
  expect(Math.abs(last - value)).toBeLessThanOrEqual(1e-12 * Math.abs(value) + 1e-12);
}
