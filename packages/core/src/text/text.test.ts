import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  decimalsForResolution,
  formatFixed,
  formatPlain,
  formatSignificant,
  formatSigned,
  parseTyped,
  resolutionForSpan,
  typedDecimals,
  withPoint,
} from './index';

describe('a typed number', () => {
  it.each([
    ['12.02', 12.02],
    ['12,02', 12.02],
    [' +4.000 ', 4],
    ['.5', 0.5],
    ['20.', 20],
  ])('%j is read as %d and keeps its digits', (typed, value) => {
    expect(parseTyped(typed)).toEqual({ text: typed.trim(), value });
  });

  it('pasted from a screen is kept with a plain minus', () => {
    expect(parseTyped('\u22120.50')).toEqual({ text: '-0.50', value: -0.5 });
  });

  it.each([
    ['0'.repeat(41), 'more than 15 significant digits'],
    ['', 'Type a number'],
    ['1.234,5', 'more than one decimal sign'],
    ['12 mA', 'is not a number'],
    ['1e3', 'is not a number'],
    ['=1+1', 'is not a number'],
    ['-', 'is not a number'],
    ['1.2345678901234567', 'more than 15 significant digits'],
  ])('%j is refused in words', (typed, words) => {
    expect(() => parseTyped(typed)).toThrow(words);
  });

  it('has no negative zero', () => {
    expect(Object.is(parseTyped('-0').value, 0)).toBe(true);
  });

  it('knows how finely it was read', () => {
    expect(['12,020', '-,5', '12.02', '7', 'about 3,5', '1,2 to 3'].map(withPoint)).toEqual([
      '12.020',
      '-.5',
      '12.02',
      '7',
      'about 3,5',
      '1,2 to 3',
    ]);
    expect([typedDecimals('12.020'), typedDecimals('12,0'), typedDecimals('12')]).toEqual([3, 1, 0]);
  });
});

describe('a shown number', () => {
  it('rounds the decimal and not its binary neighbour', () => {
    expect(formatFixed(1.005, 2)).toBe('1.01');
    expect(formatFixed(-2.5, 0)).toBe('−3');
    expect(formatFixed(0.0000001, 3)).toBe('0.000');
    expect(formatFixed(123456789, 0)).toBe('123456789');
  });

  it('carries its sign, and zero has none', () => {
    expect([formatSigned(0.0376, 3), formatSigned(-0.0376, 3)]).toEqual(['+0.038', '−0.038']);
    expect([formatSigned(0.0001, 3), formatSigned(-0.0001, 3), formatSigned(-0, 3)]).toEqual([
      '0.000',
      '0.000',
      '0.000',
    ]);
  });

  it('never shows NaN or Infinity', () => {
    expect(() => formatFixed(Number.NaN, 2)).toThrow('finite');
    expect(() => formatSigned(-Infinity, 2)).toThrow('finite');
  });

  it('lies within half a step of the value', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.integer({ min: 0, max: 6 }),
        (value, decimals) => {
          const shown = Number(formatFixed(value, decimals).replace('−', '-'));
          expect(Math.abs(shown - value)).toBeLessThanOrEqual(0.5 * 10 ** -decimals + 1e-9);
        },
      ),
    );
  });

  it('has the digits that its resolution justifies', () => {
    expect([0.00625, 0.001, 0.1, 1, 5, 100].map(decimalsForResolution)).toEqual([3, 3, 1, 0, 0, 0]);
    expect(decimalsForResolution(resolutionForSpan(500))).toBe(1);
    expect(decimalsForResolution(resolutionForSpan(6))).toBe(3);
    expect([formatPlain(-160), formatPlain(0.25), formatPlain(0), formatPlain(1000)]).toEqual([
      '−160',
      '0.25',
      '0',
      '1000',
    ]);
  });
});

describe('a computed half', () => {
  it('rounds as the half that it stands for', () => {
    const computed = (100 * (12.0124 - 12)) / 16;
    expect(computed).toBeLessThan(0.0775);
    expect(formatFixed(computed, 3)).toBe('0.078');
    expect(formatSigned(-computed, 3)).toBe('\u22120.078');
    expect(formatFixed(0.07749, 3)).toBe('0.077');
  });
});

describe('significant digits', () => {
  it.each([
    [440.28675393025, 8, '440.28675'],
    [0.000001234, 3, '1.23e-6'],
    [123456, 3, '123456'],
    [-0.00012, 2, '\u22120.00012'],
    [0, 5, '0'],
    [25000, 6, '25000'],
    [1e15, 4, '1e15'],
  ])('of %d at %d are %s', (value, digits, text) => {
    expect(formatSignificant(value, digits)).toBe(text);
  });
});
