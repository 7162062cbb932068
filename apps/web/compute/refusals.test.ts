import { describe, expect, it } from 'vitest';
import { BAD, big } from './test/bad';
import { GOOD } from './test/good';
import { at, budget, input, post, range, reading, tolerance } from './test/parts';

/** The same request with each number in turn made negative, zero, huge, with each field left out, and with one too many. */
function* brokenVersions(request: object): Generator<object> {
  const clone = () => structuredClone(request) as Record<string, unknown>;
  const walk = function* (value: unknown, path: readonly string[]): Generator<readonly string[]> {
    if (path.length > 0) yield path;
    if (value !== null && typeof value === 'object')
      for (const [key, inner] of Object.entries(value)) yield* walk(inner, [...path, key]);
  };
  for (const path of walk(request, [])) {
    const key = path.at(-1) ?? '';
    const parentOf = (root: unknown) => path.slice(0, -1).reduce((value, part) => at(value, part), root);
    const isNumber = typeof at(parentOf(request), key) === 'number';
    for (const other of isNumber ? [-1, 0, 1e308, -1e308, null] : [undefined]) {
      const copy = clone();
      (parentOf(copy) as Record<string, unknown>)[key] = other;
      yield copy;
    }
    const inner = at(parentOf(request), key);
    if (inner !== null && typeof inner === 'object') {
      const copy = clone();
      (at(parentOf(copy), key) as Record<string, unknown>)['range0'] = { urv: 1 };
      yield copy;
    }
  }
}

/** Whether a pointer leads to something in a request, or to a field that is missing right where it should stand. */
function canHold(request: unknown, pointer: string): boolean {
  const parts = pointer.split('/').slice(1);
  const parent = parts
    .slice(0, -1)
    .reduce((value: unknown, part) => (value as Record<string, unknown> | null)?.[part], request);
  return parts.length === 0 || (parent !== null && typeof parent === 'object');
}

describe('a bad request', () => {
  it.each(BAD)('%s is answered at its field', async (_what, name, request, status, field, detail) => {
    const answer = await post(name, request);
    expect(answer.type).toBe('application/problem+json');
    expect(answer.status).toBe(status);
    expect(answer.body).toMatchObject({ status, field });
    expect(at(answer.body, 'detail')).toContain(detail);
    expect(at(answer.body, 'errors.0.pointer')).toBe(`#/${field.replaceAll('.', '/')}`);
  });

  it.each(Object.entries(GOOD))('to %s is answered at a field of the request', async (name, [request]) => {
    for (const broken of brokenVersions(request)) {
      const answer = await post(name, broken);
      expect([200, 422]).toContain(answer.status);
      if (answer.status === 200) continue;
      for (const { pointer } of at(answer.body, 'errors') as { pointer: string }[])
        expect(canHold(broken, pointer), `${pointer} of ${JSON.stringify(broken)}`).toBe(true);
    }
  });

  it('is never decided by what its working is too long for', async () => {
    const answer = await post('evaluate-run', big(5000));
    expect(answer.status).toBe(200);
    expect(at(answer.body, 'maximumOfMeansPercentSpan')).toBeCloseTo(0.25, 9);
    const inputs = Array.from({ length: 100 }, (_, i) => ({ ...input, name: `a${i}`, degreesOfFreedom: 5 }));
    const long = { ...budget, model: inputs.map(({ name }) => name).join('+'), inputs };
    expect(at((await post('uncertainty-budget', long)).body, 'effectiveDegreesOfFreedom')).toBe(500);
  });

  it('that asks for much is answered soon', async () => {
    const wide = { ...budget, model: Array.from({ length: 12 }, (_, i) => `(a+${i})`).join('*') };
    const since = performance.now();
    expect((await post('uncertainty-budget', wide)).status).toBe(200);
    expect((await post('uncertainty-budget', { ...budget, model: `${'-'.repeat(1999)}a` })).status).toBe(422);
    const points = Array.from({ length: 10000 }, (_, i) => ({ ...reading, nominalPercent: i / 100 }));
    expect((await post('evaluate-run', { range, tolerance, readings: points })).status).toBe(422);
    // A bound for a hang of minutes, not a figure of speed.
    expect(performance.now() - since).toBeLessThan(20_000);
  });

  it('that is not JSON is said to be none, and one that is nested without end is refused', async () => {
    expect((await post('convert', `${'['.repeat(100_000)}${']'.repeat(100_000)}`)).status).toBe(422);
    expect(await post('convert', 'value=1')).toMatchObject({ status: 400 });
    expect(await post('no-such', {})).toMatchObject({ status: 404 });
  });
});
