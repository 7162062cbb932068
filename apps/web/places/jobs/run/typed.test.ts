import { CoreError } from '@barys/core/errors';
import { expect, it } from 'vitest';
import { numberOr, plainOr, typedIn } from './typed';

it.each([
  ['12.04', 'mA', '12.04', 12.04],
  [' 12,04 mA ', 'mA', '12,04', 12.04],
  ['12.04ma', 'mA', '12.04', 12.04],
  ['−0.5 bar', 'bar', '-0.5', -0.5],
  ['3 kpa', 'kPa', '3', 3],
  ['2.5 in H2O @ 4C', 'inH2OAt4C', '2.5', 2.5],
])('%s in %s is the number alone, as it was typed', (typed, unit, text, value) => {
  expect(typedIn(typed, unit)).toEqual({ text, value });
});

it.each([
  ['12.04 bar', 'mA', 'bar cannot be given as mA'],
  ['3 mbar', 'bar', 'mbar cannot be given as bar'],
  ['2.5 inH2O', 'inH2OAt4C', 'can mean more than one unit'],
  ['1.2.3', 'mA', 'more than one decimal sign'],
  ['', 'mA', 'Type a number'],
  ['mA', 'mA', 'is not a number'],
])('%s in %s is refused', (typed, unit, words) => {
  expect(() => typedIn(typed, unit)).toThrow(CoreError);
  expect(() => typedIn(typed, unit)).toThrow(words);
});

it.each([
  ['12,04', 12.04, '12,04'],
  [' 3 ', 3, '3'],
  ['1.2.3', -1, ''],
  ['', -1, ''],
  [null, -1, ''],
])('%j counts as far as it is a number', (typed, value, text) => {
  expect(numberOr(typed, -1)).toBe(value);
  expect(plainOr(typed)).toBe(text);
});
