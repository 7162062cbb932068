import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blockEvaluator, evaluateFormula, formulaTex, gradientOf, parseFormula, symbolTex } from './index';

describe('a formula', () => {
  it.each([
    ['1 + 2 * 3', 7],
    ['(1 + 2) * 3', 9],
    ['2^3^2', 512],
    ['-2^2', -4],
    ['2**3', 8],
    ['10 / 4 / 5', 0.5],
    ['+3 - -2', 5],
    ['max(1, 5, 3) - min(4, 2)', 3],
    ['sqrt(abs(-16)) + ln(exp(2))', 6],
    ['cos(pi) + sin(0) + tan(0)', -1],
    ['Phi(0)', 0.5],
    ['1.5e-3 * 2', 0.003],
  ])('%s is %d', (text, value) => {
    expect(evaluateFormula(parseFormula(text), {})).toBeCloseTo(value, 12);
  });

  it('asks for the names that it uses', () => {
    const formula = parseFormula('a + b * a');
    expect(formula.names).toEqual(['a', 'b']);
    expect(() => evaluateFormula(formula, { a: 1 })).toThrow('uses "b"');
    expect(() => evaluateFormula(parseFormula('toString'), {})).toThrow('uses "toString"');
  });

  it('gives the same in a block as one by one, with its gradient', () => {
    const formula = parseFormula('sqrt(max(a, 0)) / (b^2 + 1) - abs(a - b) * 0.25');
    const numbers = fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 3, maxLength: 3 });
    fc.assert(
      fc.property(numbers, numbers, (a, b) => {
        const block = blockEvaluator(formula, [Float64Array.from(a), Float64Array.from(b)], 3)(3);
        a.forEach((value, i) => {
          expect(block[i]).toBe(evaluateFormula(formula, { a: value, b: b[i] ?? 0 }));
        });
      }),
    );
    expect(gradientOf(parseFormula('a^2 * b'), { a: 3, b: 5 })).toEqual({
      value: 45,
      partials: { a: 30, b: 9 },
    });
  });

  it('is written in symbols and with numbers', () => {
    const formula = parseFormula('(p_ref - rho * g) / sqrt(x)');
    expect(formulaTex(formula, symbolTex)).toBe('\\frac{ p_{\\mathrm{ref}}- \\rho\\cdot g}{\\sqrt{ x}}');
    expect(formulaTex(parseFormula('Phi((a - 1) / 2) * pi'), symbolTex)).toContain('\\Phi\\left(');
  });

  it('of a thousand characters too many is refused', () => {
    expect(() => parseFormula('1+'.repeat(1500) + '1')).toThrow('longer than 2000 characters');
  });
});
