import { expect, it } from 'vitest';
import { TEST_CONFIGURATION } from '@/test/configuration';
import { rangeInWords } from './rangeInWords';

it('a range is said from input over output to display, each with its unit', () => {
  expect(rangeInWords(TEST_CONFIGURATION)).toBe('120 … 620 mbar → 4 … 20 mA → 0 … 48 m³');
});

it('a range below zero has a true minus, and a water column its temperature', () => {
  const column = { ...TEST_CONFIGURATION, inputUnit: 'inH2OAt68F' as const, lrv: -50, urv: 0.5 };
  expect(rangeInWords(column, ', ')).toBe('−50 … 0.5 inH2O at 68 °F, 4 … 20 mA, 0 … 48 m³');
});
