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

/** Cases of one file; with `kind`, those whose kind it matches. */
export function loadCases<C extends { readonly kind: string }>(file: string, kind?: RegExp): C[] {
  const { cases } = JSON.parse(readFileSync(new URL(`reference/${file}`, import.meta.url), 'utf8')) as {
    cases: C[];
  };
  const chosen = kind === undefined ? cases : cases.filter((one) => kind.test(one.kind));
  expect(chosen.length).toBeGreaterThan(0);
  return chosen;
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

/** The number that a case gives under a name. */
export function givenNumber(given: Record<string, Given>, name: string): number {
  const quantity = given[name];
  if (quantity === undefined) throw new Error(`the case has no "${name}"`);
  return quantity.value;
}

/** Every figure of a case against what was computed under the same names; each name has to be there. */
export function expectAll(
  expected: Record<string, Expected<unknown>>,
  got: Record<string, unknown>,
  isKnownGap: (name: string) => boolean = () => false,
): void {
  let compared = 0;
  for (const [name, wanted] of Object.entries(expected)) {
    if (!(name in got)) {
      if (isKnownGap(name)) continue;
      throw new Error(`nothing computed for "${name}"`);
    }
    const value = got[name];
    if (Array.isArray(wanted.value)) {
      const values = value as unknown[];
      expect(values, name).toHaveLength(wanted.value.length);
      wanted.value.forEach((one: unknown, i) =>
        expectOne(values[i], { ...wanted, value: one }, `${name} ${i}`),
      );
    } else expectOne(value, wanted, name);
    compared += 1;
  }
  expect(compared).toBeGreaterThan(0);
}

function expectOne(got: unknown, wanted: Expected<unknown>, what: string): void {
  if (typeof wanted.value === 'number' || wanted.value === null)
    expectClose(got as number | null, wanted as Expected<number | null>, what);
  else expect(got, what).toEqual(wanted.value);
}
