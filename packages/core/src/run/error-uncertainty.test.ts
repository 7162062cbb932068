import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectWorked } from '../../test/working';
import { errorUncertainty, workErrorUncertainty } from './index';
import { uncertaintyBudget } from '../uncertainty';
import { type Transfer } from '../signal';

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

  it('has a working that ends in it, whatever the transfer function and the direction of the output', () => {
    const transfers: Transfer[] = [
      { kind: 'linear' },
      { kind: 'square-root' },
      { kind: 'square-root-cut-off', cutOffPercentOfFlow: 8 },
      { kind: 'square-root-linear-start', linearToPercentOfFlow: 8 },
      { kind: 'square-root-slope-one', linearToPercentOfInput: 0.8 },
      {
        kind: 'table',
        points: [
          { inputPercent: 0, outputPercent: 0 },
          { inputPercent: 40, outputPercent: 70 },
          { inputPercent: 100, outputPercent: 100 },
        ],
      },
    ];
    const amount = fc.integer({ min: 0, max: 5000 }).map((n) => n / 1000);
    fc.assert(
      fc.property(
        fc.constantFrom(...transfers),
        fc.boolean(),
        fc.double({ min: -5, max: 105, noNaN: true }),
        fc.tuple(amount, amount, amount, amount),
        (transferFunction, isReverse, applied, [standardInput, standardStepInput, meterOutput, step]) => {
          const ends = isReverse ? { outputLow: 20, outputHigh: 4 } : { outputLow: 4, outputHigh: 20 };
          expectWorked(
            workErrorUncertainty(
              { lrv: 0, urv: 100, ...ends, transferFunction },
              applied,
              { standardInput, standardStepInput, meterOutput, readingStepOutput: step },
              { input: 'kPa', output: 'mA' },
            ),
          );
        },
      ),
    );
  });
});
