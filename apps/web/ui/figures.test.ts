import { expect, it } from 'vitest';
import { TEST_CONFIGURATION } from '@/test/configuration';
import { figuresFor } from './figures';

it('figures have the digits that the range and the meter justify', () => {
  const figures = figuresFor(TEST_CONFIGURATION);
  expect(figures.input(245)).toBe('245.0');
  expect(figures.output(8)).toBe('8.000');
  // 0.001 mA is 0.00625 % of 16 mA, so the third decimal is the first that it moves.
  expect(figures.percent(0.2875)).toBe('+0.288');
  expect(figures.amount(0.03125)).toBe('0.031');
  expect([figures.inputUnit, figures.outputUnit]).toEqual(['mbar', 'mA']);
});

it('a point between the usual digits is shown whole, and one that never ends is not', () => {
  const figures = figuresFor({ ...TEST_CONFIGURATION, lrv: 0, urv: 500 });
  const texts = [31.25, 281.25, 125, 500 / 3, 0.1 + 0.2].map((value) => figures.input(value));
  expect(texts).toEqual(['31.25', '281.25', '125.0', '166.7', '0.3']);
});

it('a coarser meter shows fewer digits, of the error too', () => {
  const figures = figuresFor(TEST_CONFIGURATION, 0.01);
  expect(figures.output(8.0049)).toBe('8.00');
  expect(figures.percent(-0.2875)).toBe('−0.29');
});

it('a wide and a narrow range differ in their decimals, and a reversed one does not', () => {
  const at = (lrv: number, urv: number) => figuresFor({ ...TEST_CONFIGURATION, lrv, urv }).input(1);
  expect([at(0, 6), at(0, 60), at(0, 4000), at(0, 0.4), at(6, 0)]).toEqual([
    '1.000',
    '1.00',
    '1',
    '1.0000',
    '1.000',
  ]);
});
