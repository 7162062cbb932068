import fc from 'fast-check';
import { expect, it } from 'vitest';
import { expectedOutput, slipOf } from '../index';

const RANGE = { lrv: 0, urv: 6, outputLow: 4, outputHigh: 20 };
const at = (applied: number, output: number) => ({ applied, output, direction: 'up' as const });

it.each([
  ['a digit too many', 3, 120.4, at(1.5, 8), 'decimal-sign'],
  ['a decimal sign left out', 3, 1204, at(1.5, 8), 'decimal-sign'],
  ['a decimal sign too early', 3, 1.204, at(1.5, 8), 'decimal-sign'],
  ['the figure of the point before', 3, 8.004, at(1.5, 8.004), 'same-as-before'],
  ['a fall where it should rise', 3, 4.1, at(1.5, 8), 'other-way'],
  ['a rise where it should fall', 1.5, 16, at(3, 12), 'other-way'],
  ['a good reading', 3, 12.04, at(1.5, 8), null],
  ['an instrument far out, but moving the right way', 3, 16, at(1.5, 11), null],
  ['the same point read again', 6, 20.03, at(6, 20.03), null],
  ['a first reading far out', 0, 9, null, null],
])('%s: %s of 6 bar reads %s', (_what, applied, output, before, slip) => {
  expect(slipOf(RANGE, applied, output, before)).toBe(slip);
});

it('no instrument within a tenth of its span is ever doubted', () => {
  const percent = fc.integer({ min: 0, max: 100 });
  const error = fc.integer({ min: -100, max: 100 }).map((n) => (n / 1000) * 16);
  fc.assert(
    fc.property(percent, percent, error, error, (from, to, first, second) => {
      fc.pre(Math.abs(to - from) > 25);
      const [x, y] = [from * 0.06, to * 0.06];
      const before = at(x, expectedOutput(RANGE, x) + first);
      expect(slipOf(RANGE, y, expectedOutput(RANGE, y) + second, before)).toBeNull();
    }),
  );
});
