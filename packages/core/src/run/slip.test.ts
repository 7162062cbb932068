import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectedOutput } from '../signal';
import { slipsOf, spanTolerance, type SlipContext, type Tolerance } from './index';

const RANGE = { lrv: 0, urv: 6, outputLow: 4, outputHigh: 20 };
const QUARTER = spanTolerance(0.25);
const at = (applied: number, output: number) => ({ applied, output, direction: 'up' as const });
const kinds = (applied: number, output: number, context: Partial<SlipContext> = {}) =>
  slipsOf(RANGE, QUARTER, applied, output, { before: null, ...context }).map(({ kind }) => kind);

describe('a typed reading', () => {
  it.each([
    ['a digit too many', 3, 120.4, at(1.5, 8), ['decimal-sign']],
    ['a decimal sign left out', 3, 1204, at(1.5, 8), ['decimal-sign']],
    ['a decimal sign too early', 3, 1.204, at(1.5, 8), ['below-live-zero', 'decimal-sign', 'other-way']],
    ['the figure of the point before', 3, 8.004, at(1.5, 8.004), ['same-as-before']],
    ['a fall where it should rise', 3, 4.1, at(1.5, 8), ['other-way']],
    ['a rise where it should fall', 1.5, 16, at(3, 12), ['other-way']],
    ['leads reversed', 3, -12.01, at(1.5, 8), ['sign', 'other-way']],
    ['the output in per cent', 3, 50.1, at(1.5, 8), ['in-percent']],
    ['a loop that is open', 3, 0.02, at(1.5, 8), ['no-loop', 'other-way']],
    ['a failure signal', 3, 3.55, null, ['below-live-zero']],
    ['seven limits off, for no reason to be seen', 3, 12.3, at(1.5, 8), ['far-off']],
    ['an instrument that was as far out before', 3, 13.1, at(1.5, 9), []],
    ['four limits off', 3, 12.16, at(1.5, 8), []],
    ['a good reading', 3, 12.04, at(1.5, 8), []],
    ['the same point read again', 6, 20.03, at(6, 20.03), []],
    ['a first reading far out', 0, 9, null, ['far-off']],
  ])('%s: %s of 6 bar reads %s', (_what, applied, output, before, slips) => {
    expect(kinds(applied, output, { before })).toEqual(slips);
  });

  it('may be that of the neighbouring point', () => {
    expect(kinds(3, 16.02, { before: at(1.5, 8), neighbours: [1.5, 4.5] })).toEqual(['neighbouring-point']);
  });

  it('may be in another unit', () => {
    // 12 mA over 250 ohm are 3 V: one volt is four milliamperes.
    const units = [{ unit: 'V over 250 Ω', factor: 4 }];
    expect(slipsOf(RANGE, QUARTER, 3, 3.001, { before: null, units })).toContainEqual({
      kind: 'other-unit',
      unit: 'V over 250 Ω',
    });
  });

  it('of a gauge over decades is compared with its own limit, not with the span', () => {
    const decades = { lrv: 0.001, urv: 10, outputLow: 0.001, outputHigh: 10 };
    const twenty: Tolerance = {
      ...QUARTER,
      terms: [{ kind: 'percent-of-reading', percent: 20, of: 'applied' }],
    };
    const of = (applied: number, output: number) =>
      slipsOf(decades, twenty, applied, output, { before: null }).map(({ kind }) => kind);
    expect(of(0.01, 0.1)).toContain('decimal-sign');
    expect(of(0.01, 0.0145)).toEqual([]);
    expect(of(0.01, 0.019)).toContain('far-off');
  });
});

it('no instrument within four limits is ever doubted, and none that is evenly off is asked twice', () => {
  const percent = fc.integer({ min: 0, max: 100 });
  const error = fc.integer({ min: -160, max: 160 }).map((n) => n / 1000);
  const offset = fc.integer({ min: -3000, max: 3000 }).map((n) => n / 1000);
  fc.assert(
    fc.property(percent, percent, error, error, offset, (from, to, first, second, off) => {
      fc.pre(Math.abs(to - from) > 25);
      const [x, y] = [from * 0.06, to * 0.06];
      expect(
        kinds(y, expectedOutput(RANGE, y) + second * 0.999, {
          before: at(x, expectedOutput(RANGE, x) + first),
        }),
      ).toEqual([]);
      const shifted = kinds(y, expectedOutput(RANGE, y) + off, {
        before: at(x, expectedOutput(RANGE, x) + off),
      });
      expect(shifted).not.toContain('far-off');
    }),
  );
});
