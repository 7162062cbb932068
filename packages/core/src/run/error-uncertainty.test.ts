import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { errorUncertainty, uncertaintyBudget } from '../index';

const RANGE = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
const NONE = { standardInput: 0, standardStepInput: 0, meterOutput: 0, readingStepOutput: 0 };

describe('the uncertainty of the error of a reading', () => {
  it('is that of the standard through the slope, with that of the meter (worked by hand)', () => {
    // 0.02 of 100 is 0.0032 mA of 16; sqrt(0.0032² + 0.003²) = 0.0043863…
    const found = errorUncertainty(RANGE, 50, { ...NONE, standardInput: 0.02, meterOutput: 0.003 });
    expect(found).toBeCloseTo(0.004386342439892262, 12);
  });

  it('is the same as a budget after JCGM 100 of the same components', () => {
    const amount = fc.integer({ min: 1, max: 500 }).map((n) => n / 10000);
    fc.assert(
      fc.property(amount, amount, amount, amount, (standard, step, meter, digit) => {
        const budget = uncertaintyBudget({
          model: 'm + dm - (4 + 16 * (p + dp) / 100)',
          unit: 'mA',
          inputs: [
            { name: 'm', unit: 'mA', estimate: 12, distribution: { kind: 'normal', expanded: meter, k: 2 } },
            { name: 'dm', unit: 'mA', estimate: 0, distribution: { kind: 'resolution', step: digit } },
            {
              name: 'p',
              unit: 'kPa',
              estimate: 50,
              distribution: { kind: 'normal', expanded: standard, k: 2 },
            },
            { name: 'dp', unit: 'kPa', estimate: 0, distribution: { kind: 'resolution', step } },
          ],
        });
        const found = errorUncertainty(RANGE, 50, {
          standardInput: standard,
          standardStepInput: step,
          meterOutput: meter,
          readingStepOutput: digit,
        });
        expect(found / (2 * budget.combined)).toBeCloseTo(1, 9);
      }),
    );
  });

  it('stays finite for a square root at zero, and grows towards it', () => {
    const root = { ...RANGE, transferFunction: { kind: 'square-root' as const } };
    const at = (applied: number) => errorUncertainty(root, applied, { ...NONE, standardInput: 0.02 });
    // sqrt(0.01 / 100) of 16 mA, twice.
    expect(at(0)).toBeCloseTo(0.32, 12);
    expect(at(0)).toBeGreaterThan(at(1));
    expect(at(1)).toBeGreaterThan(at(100));
  });

  it('refuses what cannot be', () => {
    expect(() => errorUncertainty(RANGE, 50, { ...NONE, meterOutput: -1 })).toThrow('must not be negative');
    expect(() => errorUncertainty(RANGE, 50, { ...NONE, standardInput: NaN })).toThrow('finite');
  });
});
