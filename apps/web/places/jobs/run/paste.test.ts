import { expect, it } from 'vitest';
import { parseColumn } from './paste';

it('a pasted column gives one reading a line, with either decimal sign', () => {
  expect(parseColumn('4,006\r\n8.011\n', 9)).toEqual([
    { applied: null, output: '4,006' },
    { applied: null, output: '8.011' },
  ]);
});

it('two columns are applied and reading', () => {
  expect(parseColumn('0.000\t4.006\n1.502\t8.011', 9)).toEqual([
    { applied: '0.000', output: '4.006' },
    { applied: '1.502', output: '8.011' },
  ]);
});

it.each([
  ['4.0\nx', 9, 'Line 2: "x" is not a number'],
  ['1\t2\t3', 9, 'Line 1:'],
  ['4.0\n\n8.0', 9, 'Line 2: Type a number'],
  ['1\n2\n3', 2, '3 lines were pasted, but only 2 points follow'],
])('%j is refused whole, in words', (text, room, words) => {
  expect(parseColumn(text, room)).toEqual(expect.stringContaining(words));
});
