import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadCases } from '../../test/fixtures';
import { appliedAtPercent, type LinearRange } from '../signal';
import { judgeReading, worstVerdict } from './verdict';

interface LimitCase {
  id: string;
  given: Record<string, { value: number }>;
  expect: { 'within limit': { value: boolean } };
}

const milliamps: LinearRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };

describe('limits against verdicts decided outside Barys in exact rationals', () => {
  it.each(loadCases<LimitCase>('limits.json').map((one) => [one.id, one] as const))('%s', (_id, one) => {
    const value = (name: string): number => {
      const quantity = one.given[name];
      if (quantity === undefined) throw new Error(`the case has no "${name}"`);
      return quantity.value;
    };
    const low = value('signal at lower range value');
    const range: LinearRange = { lrv: 0, urv: 100, outputLow: low, outputHigh: low + value('signal span') };
    const verdict = judgeReading(
      range,
      { percentOfSpan: value('limit (inclusive)'), adjustAbovePercentOfLimit: 100 },
      appliedAtPercent(range, value('test point')),
      value('output reading'),
    );
    expect(verdict !== 'outside').toBe(one.expect['within limit'].value);
  });
});

describe('a verdict', () => {
  it('is inside exactly on the limit, where binary arithmetic says outside', () => {
    expect(Math.abs(4.04 - 4) <= (0.25 / 100) * 16).toBe(false);
    const tolerance = { percentOfSpan: 0.25, adjustAbovePercentOfLimit: 100 };
    expect(judgeReading(milliamps, tolerance, 0, 4.04)).toBe('within');
    expect(judgeReading(milliamps, tolerance, 0, 4.0401)).toBe('outside');
  });

  it('asks for an adjustment only past the adjust limit', () => {
    const tolerance = { percentOfSpan: 0.25, adjustAbovePercentOfLimit: 70 };
    expect(judgeReading(milliamps, tolerance, 0, 4.028)).toBe('within');
    expect(judgeReading(milliamps, tolerance, 0, 4.0281)).toBe('within-adjust');
    expect(judgeReading(milliamps, tolerance, 0, 3.9719)).toBe('within-adjust');
  });

  it('agrees with whole-number arithmetic for any reading in microamperes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: -200, max: 200 }),
        fc.integer({ min: 1, max: 100 }),
        (percent, errorMicroamp, limitHundredths) => {
          // 1 % of 16 mA is 160 uA, so a limit of n hundredths of a per cent is 1.6 n uA: compare 10 |e| with 16 n.
          const idealMicroamp = 4000 + 160 * percent;
          const inside = 10 * Math.abs(errorMicroamp) <= 16 * limitHundredths;
          const verdict = judgeReading(
            milliamps,
            { percentOfSpan: limitHundredths / 100, adjustAbovePercentOfLimit: 100 },
            percent,
            (idealMicroamp + errorMicroamp) / 1000,
          );
          expect(verdict !== 'outside').toBe(inside);
        },
      ),
    );
  });

  it('of a run is the worst of its readings', () => {
    expect(worstVerdict(['within', 'within-adjust', 'within'])).toBe('within-adjust');
    expect(worstVerdict(['within', 'outside', 'within-adjust'])).toBe('outside');
    expect(worstVerdict([])).toBeNull();
  });
});
