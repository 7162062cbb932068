/** Reads the outside check cases kept in `reference/` and compares a figure with one of them. */
import { readFileSync } from 'node:fs';
import { expect } from 'vitest';

interface Given {
  readonly value: number;
  readonly unit: string;
}
interface Expected<T = number> {
  readonly value: T;
  readonly unit: string | null;
  readonly tolerance_abs?: number;
  readonly tolerance_rel?: number;
  readonly tolerance_rel_if_given_density_used?: number;
}
export interface Case<G = Record<string, Given>, E = Record<string, Expected>> {
  readonly id: string;
  readonly kind: string;
  readonly given: G;
  readonly expect: E;
}

export function loadCases<C>(file: string): C[] {
  const { cases } = JSON.parse(readFileSync(new URL(`reference/${file}`, import.meta.url), 'utf8')) as {
    cases: C[];
  };
  expect(cases.length).toBeGreaterThan(0);
  return cases;
}

/** |got - value| <= tolerance_abs + tolerance_rel |value|, the rule that the cases were made with. */
export function expectClose(got: number | null, wanted: Expected<number | null>, what: string): void {
  if (wanted.value === null || got === null) {
    expect(got, what).toBe(wanted.value);
    return;
  }
  const relative = wanted.tolerance_rel_if_given_density_used ?? wanted.tolerance_rel ?? 0;
  const allowed = (wanted.tolerance_abs ?? 0) + relative * Math.abs(wanted.value);
  expect(Math.abs(got - wanted.value), `${what}: got ${got}, want ${wanted.value}`).toBeLessThanOrEqual(
    allowed,
  );
}
