import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose, loadCases, type Case } from '../../test/fixtures';
import { appliedAtPercent, appliedForOutput, expectedOutput, outputSpan, type LinearRange } from './index';

function rangeOf(given: Case['given']): LinearRange {
  const value = (name: string): number => {
    const quantity = given[name];
    if (quantity === undefined) throw new Error(`the case has no "${name}"`);
    return quantity.value;
  };
  return {
    lrv: value('lower range value'),
    urv: value('upper range value'),
    outputLow: value('signal at lower range value'),
    outputHigh: value('signal at upper range value'),
  };
}

describe('linear ranges against figures computed outside Barys (each case names its source)', () => {
  it.each(loadCases<Case>('linear-ranges.json').map((one) => [one.id, one] as const))('%s', (_id, one) => {
    const range = rangeOf(one.given);
    let compared = 0;
    for (const [name, wanted] of Object.entries(one.expect)) {
      const input = /^signal at (input \d)$/.exec(name)?.[1];
      const reading = /^input for (signal reading \d)$/.exec(name)?.[1];
      const given = one.given[input ?? reading ?? ''];
      if (given === undefined) throw new Error(`nothing given for "${name}"`);
      const got =
        input === undefined ? appliedForOutput(range, given.value) : expectedOutput(range, given.value);
      expectClose(got, wanted, name);
      compared += 1;
    }
    expect(compared).toBeGreaterThan(0);
  });
});

describe('a linear range', () => {
  const finite = fc.integer({ min: -100000, max: 100000 }).map((n) => n / 100);
  const ranges = fc
    .record({ lrv: finite, urv: finite, outputLow: finite, outputHigh: finite })
    .filter((range) => range.lrv !== range.urv && range.outputLow !== range.outputHigh);

  it('gives back the input from its own output', () => {
    fc.assert(
      fc.property(ranges, finite, (range, applied) => {
        const back = appliedForOutput(range, expectedOutput(range, applied));
        // One rounding to a double each way, carried through the steepest slope of the drawn ranges.
        const slope = Math.abs((range.urv - range.lrv) / outputSpan(range));
        const size = Math.abs(applied) + Math.abs(range.lrv) + Math.abs(range.urv) + 1;
        expect(Math.abs(back - applied)).toBeLessThanOrEqual(
          1e-15 * size + 2.3e-16 * Math.abs(expectedOutput(range, applied)) * slope,
        );
      }),
    );
  });

  it('has 0 % at the lower and 100 % at the upper range value, whichever is larger', () => {
    const reversed: LinearRange = { lrv: 100, urv: 20, outputLow: 4, outputHigh: 20 };
    expect(appliedAtPercent(reversed, 0)).toBe(100);
    expect(appliedAtPercent(reversed, 25)).toBe(80);
    expect(appliedAtPercent(reversed, 100)).toBe(20);
  });

  it('is refused without a span, or with a number that is none', () => {
    expect(() => expectedOutput({ lrv: 5, urv: 5, outputLow: 4, outputHigh: 20 }, 5)).toThrow('no span');
    expect(() => expectedOutput({ lrv: 0, urv: 5, outputLow: 4, outputHigh: 4 }, 5)).toThrow('no span');
    expect(() => expectedOutput({ lrv: 0, urv: Infinity, outputLow: 4, outputHigh: 20 }, 5)).toThrow(
      'finite',
    );
    expect(() => appliedForOutput({ lrv: 0, urv: 5, outputLow: 4, outputHigh: 20 }, Number.NaN)).toThrow(
      'finite',
    );
  });
});
