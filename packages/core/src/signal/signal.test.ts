import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectAll, expectClose, givenNumber, loadCases, type Case } from '../../test/fixtures';
import { exact, surdToNumber, toNumber } from '../exact';
import {
  appliedAtOutputPercent,
  appliedAtPercent,
  appliedForOutput,
  displayedValue,
  expectedOutput,
  expectedTable,
  outputSensitivity,
  outputSpan,
  saturatedCurrent,
  signalRegion,
  type SignalRange,
  type Transfer,
} from './index';
import { exactInverseShare, exactShare, inverseShare, share } from './transfer';

const byId = (kind: RegExp) =>
  loadCases<Case>('ranges-and-signals.json', kind).map((one) => [`${one.id} ${one.kind}`, one] as const);

function rangeOf(given: Case['given']): SignalRange {
  return {
    lrv: givenNumber(given, 'lower range value'),
    urv: givenNumber(given, 'upper range value'),
    outputLow: givenNumber(given, 'signal at lower range value'),
    outputHigh: givenNumber(given, 'signal at upper range value'),
  };
}

const percentRange = (transfer: Transfer): SignalRange => ({
  lrv: 0,
  urv: 100,
  outputLow: 4,
  outputHigh: 20,
  transferFunction: transfer,
});
const ROOT: Transfer = { kind: 'square-root' };

describe('linear ranges against figures computed outside Barys (each case names its source)', () => {
  it.each(byId(/^(linear \d+-\d+ (mA|psi|kPa)|reverse acting|elevated|suppressed|both range|LRV greater)/))(
    '%s',
    (_id, one) => {
      const range = rangeOf(one.given);
      let compared = 0;
      for (const [name, wanted] of Object.entries(one.expect)) {
        const input = /^signal at (input \d)$/.exec(name)?.[1];
        const reading = /^input for (signal reading \d)$/.exec(name)?.[1];
        const value = givenNumber(one.given, input ?? reading ?? '');
        expectClose(
          input === undefined ? appliedForOutput(range, value) : expectedOutput(range, value),
          wanted,
          name,
        );
        compared += 1;
      }
      expect(compared).toBeGreaterThan(0);
    },
  );

  it.each(byId(/^output outside 4-20/))('%s', (_id, one) => {
    const range = rangeOf(one.given);
    const ideal = (n: number) => expectedOutput(range, givenNumber(one.given, `input ${n}`));
    expectAll(one.expect, {
      'ideal output at input 1': ideal(1),
      'limited output at input 2': saturatedCurrent(ideal(2)),
      'ideal output at input 3': ideal(3),
      'limited output at input 4': saturatedCurrent(ideal(4)),
    });
  });

  it.each(byId(/^range change/))('%s', (_id, one) => {
    const value = (name: string) => givenNumber(one.given, name);
    const range = (age: string): SignalRange => ({
      lrv: value(`${age} lower range value`),
      urv: value(`${age} upper range value`),
      outputLow: 4,
      outputHigh: 20,
    });
    const [before, after] = [range('old'), range('new')];
    const limit = value('upper range limit of the transmitter');
    const applied = value('applied pressure');
    const atOldOutput = appliedForOutput(before, 5.2);
    expectAll(one.expect, {
      'output before': expectedOutput(before, applied),
      'output after': expectedOutput(after, applied),
      'new span': after.urv - after.lrv,
      'turndown before (URL / span)': limit / (before.urv - before.lrv),
      'turndown after (URL / span)': limit / (after.urv - after.lrv),
      'new percent of span for an old output of 5.200 mA':
        ((expectedOutput(after, atOldOutput) - 4) / 16) * 100,
    });
  });

  it.each(byId(/sense resistor|250 ohm/))('%s', (_id, one) => {
    const given = one.given;
    if ('reading' in given) {
      const range = { lrv: 0, urv: 300, outputLow: 1, outputHigh: 5 };
      const volts = givenNumber(given, 'reading');
      const indicated = appliedForOutput(range, volts);
      expectAll(one.expect, {
        'loop current': (volts / givenNumber(given, 'sense resistor')) * 1000,
        'indicated pressure': indicated,
        error: ((indicated - 150) / 300) * 100,
      });
    } else {
      const volts =
        (givenNumber(given, 'true current') * givenNumber(given, 'sense resistor (actual)')) / 1000;
      expectAll(one.expect, { voltage: volts, 'error of the voltage signal': ((volts - 5) / 4) * 100 });
    }
  });
});

describe('square-root instruments against figures computed outside Barys', () => {
  const transferOfCase = ({ kind, given }: Case): Transfer => {
    const percent = (name: string) => givenNumber(given, name);
    if (kind.includes('cut-off'))
      return { kind: 'square-root-cut-off', cutOffPercentOfFlow: percent('low-flow cut-off') };
    if (kind.startsWith('linear below'))
      return { kind: 'square-root-linear-start', linearToPercentOfFlow: percent('transfer point') };
    if (kind.startsWith('linear with slope 1'))
      return {
        kind: 'square-root-slope-one',
        linearToPercentOfInput: percent('changeover differential pressure'),
      };
    return ROOT;
  };

  it.each(byId(/^(square root, (pure|negative)|square root with|linear (below|with slope))/))(
    '%s',
    (_id, one) => {
      const transfer = transferOfCase(one);
      const range = percentRange(transfer);
      const got: Record<string, number> = {};
      for (const [name, quantity] of Object.entries(one.given)) {
        const number = /^differential pressure( \d)?$/.exec(name);
        if (number === null) continue;
        got[`flow${number[1] ?? ''}`] = share(transfer, quantity.value / 100) * 100;
        got[`output${number[1] ?? ''}`] = expectedOutput(range, quantity.value);
      }
      const knee = 'linearToPercentOfFlow' in transfer ? transfer.linearToPercentOfFlow : 0;
      const cut = 'cutOffPercentOfFlow' in transfer ? transfer.cutOffPercentOfFlow : 0;
      got['differential pressure at cut-off'] = appliedAtOutputPercent(percentRange(ROOT), cut);
      got['differential pressure at transfer point'] = appliedAtOutputPercent(percentRange(ROOT), knee);
      expectAll(one.expect, got);
    },
  );

  it.each(byId(/^square root, inverse/))('%s', (_id, one) => {
    const range = { ...percentRange(ROOT), urv: givenNumber(one.given, 'DP span') };
    const got = [1, 2, 3, 4].map(
      (n) =>
        [
          `differential pressure ${n}`,
          appliedForOutput(range, givenNumber(one.given, `output ${n}`)),
        ] as const,
    );
    expectAll(one.expect, Object.fromEntries(got));
  });

  it.each(byId(/^square root (applied twice|missing)/))('%s', (_id, one) => {
    const got: Record<string, number> = {};
    const root = (percent: number) => share(ROOT, percent / 100) * 100;
    for (const [name, quantity] of Object.entries(one.given)) {
      const [, what, n] = /^(differential pressure|true flow) (\d)$/.exec(name) ?? [];
      if (what === 'differential pressure') {
        const flow = root(quantity.value);
        got[`true flow ${n}`] = flow;
        got[`indicated flow ${n}`] = root(flow);
        got[`error ${n}`] = root(flow) - flow;
      } else if (what === 'true flow')
        got[`indicated flow ${n}`] = inverseShare(ROOT, quantity.value / 100) * 100;
    }
    expectAll(one.expect, got);
  });

  it.each(byId(/^effect of a DP zero error/))('%s', (_id, one) => {
    const shift = givenNumber(one.given, 'DP zero error') / 100;
    const got: Record<string, number> = {};
    for (const [name, quantity] of Object.entries(one.given)) {
      const n = /^true flow (\d)$/.exec(name)?.[1];
      if (n === undefined) continue;
      const indicated = share(ROOT, inverseShare(ROOT, quantity.value / 100) + shift) * 100;
      got[`indicated flow ${n}`] = indicated;
      got[`flow error ${n}`] = indicated - quantity.value;
    }
    expectAll(one.expect, got);
  });
});

describe('a transfer function', () => {
  const transfers: fc.Arbitrary<Transfer> = fc.oneof(
    fc.constant<Transfer>({ kind: 'linear' }),
    fc.constant(ROOT),
    fc
      .integer({ min: 0, max: 30 })
      .map((n): Transfer => ({ kind: 'square-root-cut-off', cutOffPercentOfFlow: n })),
    fc
      .integer({ min: 1, max: 30 })
      .map((n): Transfer => ({ kind: 'square-root-linear-start', linearToPercentOfFlow: n })),
    fc.constant<Transfer>({ kind: 'square-root-slope-one', linearToPercentOfInput: 0.8 }),
    fc.uniqueArray(fc.integer({ min: 1, max: 99 }), { minLength: 1, maxLength: 5 }).map((inner): Transfer => {
      const inputs = [0, ...inner.sort((a, b) => a - b), 100];
      return {
        kind: 'table',
        points: inputs.map((inputPercent, i) => ({ inputPercent, outputPercent: inputPercent * 0.9 + i })),
      };
    }),
  );
  const percents = fc.integer({ min: -500, max: 11000 }).map((n) => n / 100);

  it('is the same computed in doubles and exactly', () => {
    fc.assert(
      fc.property(transfers, percents, (transfer, percent) => {
        const t = exact(percent).div(100);
        expect(share(transfer, percent / 100)).toBeCloseTo(surdToNumber(exactShare(transfer, t)), 12);
        expect(inverseShare(transfer, percent / 100)).toBeCloseTo(
          toNumber(exactInverseShare(transfer, t)),
          12,
        );
      }),
    );
  });

  it('is undone by its inverse wherever it makes an output of its own', () => {
    fc.assert(
      fc.property(transfers, fc.double({ min: 0.1, max: 1.1, noNaN: true }), (transfer, t) => {
        expect(inverseShare(transfer, share(transfer, t))).toBeCloseTo(t, 9);
      }),
    );
  });

  it('never falls', () => {
    fc.assert(
      fc.property(transfers, percents, percents, (transfer, a, b) => {
        const [low, high] = [Math.min(a, b) / 100, Math.max(a, b) / 100];
        expect(share(transfer, low)).toBeLessThanOrEqual(share(transfer, high) + 1e-12);
      }),
    );
  });

  it('refuses tables that have no inverse', () => {
    const table = (...outputs: number[]): SignalRange =>
      percentRange({
        kind: 'table',
        points: outputs.map((outputPercent, i) => ({ inputPercent: i * 10, outputPercent })),
      });
    expect(() => expectedOutput(table(0, 50, 40), 5)).toThrow('The output of the table must rise');
    expect(() => expectedOutput(table(0), 5)).toThrow('At least 2');
    expect(() =>
      expectedOutput(percentRange({ kind: 'square-root-cut-off', cutOffPercentOfFlow: 101 }), 5),
    ).toThrow('from 0 to 100 %');
  });
});

describe('a range', () => {
  const finite = fc.integer({ min: -100000, max: 100000 }).map((n) => n / 100);
  const ranges = fc
    .record({ lrv: finite, urv: finite, outputLow: finite, outputHigh: finite })
    .filter(({ lrv, urv, outputLow, outputHigh }) => lrv !== urv && outputLow !== outputHigh);

  it('gives an input back from its output', () => {
    fc.assert(
      fc.property(ranges, fc.integer({ min: -20, max: 120 }), (range, percent) => {
        const applied = appliedAtPercent(range, percent);
        const back = appliedForOutput(range, expectedOutput(range, applied));
        const scale = Math.abs(range.urv - range.lrv) + Math.abs(range.lrv);
        const steep = 1 + Math.abs(range.outputLow / (range.outputHigh - range.outputLow));
        expect(Math.abs(back - applied)).toBeLessThanOrEqual(1e-13 * scale * steep * 10);
      }),
    );
  });

  it('refuses what has no span or is no number', () => {
    const range = { lrv: 5, urv: 5, outputLow: 4, outputHigh: 20 };
    expect(() => expectedOutput(range, 5)).toThrow('The input range has no span');
    expect(() => expectedOutput({ ...range, urv: 10, outputHigh: 4 }, 5)).toThrow(
      'The output range has no span',
    );
    expect(() => expectedOutput({ ...range, urv: Number.NaN }, 5)).toThrow('finite');
  });

  it('has a span without a sign, and a display apart from it', () => {
    const range = { lrv: 0, urv: 10, outputLow: 20, outputHigh: 4 };
    expect(outputSpan(range)).toBe(16);
    expect(displayedValue(range, { low: 0, high: 8 }, 12)).toBe(4);
  });

  it('has a sensitivity that agrees with a small step, and none for a root at zero', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100 }), (percent) => {
        const range = percentRange(ROOT);
        const step = 1e-5 * percent;
        const slope =
          (expectedOutput(range, percent + step) - expectedOutput(range, percent - step)) / (2 * step);
        expect(outputSensitivity(range, percent) / slope).toBeCloseTo(1, 6);
      }),
    );
    expect(() => outputSensitivity(percentRange(ROOT), 0)).toThrow('rises without bound');
    expect(outputSensitivity(percentRange(ROOT), -1)).toBe(0);
    const start = percentRange({ kind: 'square-root-linear-start', linearToPercentOfFlow: 10 });
    expect(outputSensitivity(start, 0)).toBeCloseTo(1.6, 12);
  });
});

describe('the table of expected values', () => {
  const linear = { lrv: 0, urv: 250, outputLow: 4, outputHigh: 20 };
  it('ends at 100 % whatever the step', () => {
    expect(expectedTable(linear, 30).map(({ inputPercent }) => inputPercent)).toEqual([0, 30, 60, 90, 100]);
    expect(expectedTable(linear, 0.1)).toHaveLength(1001);
    expect(expectedTable(linear, 10)[3]).toMatchObject({ applied: 75, output: 8.8 });
  });

  it('is even in flow where that is asked for', () => {
    const rows = expectedTable({ ...linear, transferFunction: ROOT }, 25, 'output');
    expect(rows.map(({ applied }) => applied)).toEqual([0, 15.625, 62.5, 140.625, 250]);
    expect(rows.map(({ output }) => output)).toEqual([4, 8, 12, 16, 20]);
  });

  it('refuses a step of nothing and a million rows', () => {
    expect(() => expectedTable(linear, 0)).toThrow('greater than zero');
    expect(() => expectedTable(linear, 0.0001)).toThrow('at most 1001');
  });
});

describe('a current', () => {
  // NAMUR NE 43, from memory; the bands between saturation and failure are undefined.
  it.each([
    [3.6, 'failure-low'],
    [3.7, 'undefined-low'],
    [3.8, 'under-range'],
    [4, 'normal'],
    [20, 'normal'],
    [20.5, 'over-range'],
    [20.8, 'undefined-high'],
    [21, 'failure-high'],
  ] as const)('of %d mA is %s', (current, region) => {
    expect(signalRegion(current)).toBe(region);
  });

  it('is judged by an instrument’s own limits where they are known, if they are in order', () => {
    const own = { failureLow: 3.75, saturationLow: 3.9, saturationHigh: 20.8, failureHigh: 22.5 };
    expect(signalRegion(21.5, own)).toBe('undefined-high');
    expect(() => signalRegion(4, { ...own, failureLow: 3.95 })).toThrow('must be below the upper limit');
  });
});
