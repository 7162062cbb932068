import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { derivativeText, evaluateFormula, gradientOf, parseFormula } from './index';

const of = (text: string, name = 'a') => derivativeText(parseFormula(text), name);

describe('a derivative in symbols', () => {
  it.each([
    ['a', '1'],
    ['b', '0'],
    ['a^2 * b', '2 * a * b'],
    ['a / b', '1 / b'],
    ['b / a', '-b / a^2'],
    ['sqrt(a)', '1 / (2 * sqrt(a))'],
    ['100 * (b - (4 + 16 * a / c)) / 16', '100 * -(16 / c) / 16'],
    ['exp(-a)', 'exp(-a) * -1'],
  ])('of %s is %s', (text, wanted) => {
    const got = of(text);
    // However it is written, it has to be worth the same.
    const values = { a: 1.7, b: 0.6, c: 2.3 };
    expect(evaluateFormula(parseFormula(got ?? ''), values)).toBeCloseTo(
      evaluateFormula(parseFormula(wanted), values),
      12,
    );
  });

  it('agrees with the gradient of the tape', () => {
    const leaf = fc.constantFrom('a', 'b', '2', '0.5');
    const { formula } = fc.letrec<{ formula: string }>((tie) => ({
      formula: fc.oneof(
        { maxDepth: 4 },
        leaf,
        fc
          .tuple(fc.constantFrom('+', '-', '*', '/'), tie('formula'), tie('formula'))
          .map(([sign, x, y]) => `(${x} ${sign} ${y})`),
        fc.tuple(tie('formula'), fc.constantFrom('2', '3', 'b')).map(([x, n]) => `(${x})^${n}`),
        fc
          .tuple(fc.constantFrom('sqrt', 'exp', 'ln', 'sin', 'cos', 'tan', 'Phi', 'abs'), tie('formula'))
          .map(([call, x]) => `${call}(${x})`),
        tie('formula').map((x) => `-${x}`),
      ),
    }));
    let compared = 0;
    const values = { a: 1.3, b: 0.7 };
    fc.assert(
      fc.property(formula, (text) => {
        const parsed = parseFormula(text);
        const derivative = derivativeText(parsed, 'a');
        if (derivative === null) return;
        let slope: number;
        let value: number;
        try {
          slope = gradientOf(parsed, values).partials['a'] ?? 0;
          value = evaluateFormula(parseFormula(derivative), values);
        } catch {
          return; // no real value here
        }
        compared += 1;
        expect(Math.abs(value - slope)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(slope)));
      }),
      { numRuns: 500 },
    );
    expect(compared).toBeGreaterThan(100);
  });

  it('is left out where it has no short form, at once', () => {
    expect(of('max(a, 2)')).toBeNull();
    expect(of('max(b, 2)')).toBe('0');
    expect(of(Array.from({ length: 200 }, (_, i) => `(a+${i})`).join('*'))).toBeNull();
  });
});
