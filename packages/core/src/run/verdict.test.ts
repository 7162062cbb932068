import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectAll, givenNumber, loadCases, type Case } from '../../test/fixtures';
import { appliedAtPercent, type SignalRange } from '../signal';
import {
  evaluateRun,
  SIMPLE_ACCEPTANCE,
  spanTolerance,
  verdictOfRun,
  type DecisionRule,
  type Tolerance,
  type Verdict,
} from './index';
import { worstVerdict } from './verdict';

const milliamps: SignalRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };

function judge(
  range: SignalRange,
  tolerance: Tolerance,
  applied: number,
  output: number,
  { rule = SIMPLE_ACCEPTANCE, uncertainty }: { rule?: DecisionRule; uncertainty?: number } = {},
): Verdict {
  const reading = { cycle: 1, direction: 'up', nominalPercent: 0, applied, output } as const;
  const readings = [uncertainty === undefined ? reading : { ...reading, uncertainty }];
  const { verdict } = evaluateRun(range, tolerance, readings, rule);
  expect(verdictOfRun(range, tolerance, readings, rule)).toBe(verdict);
  if (verdict === null) throw new Error('no verdict');
  return verdict;
}

describe('limits against verdicts decided outside Barys in exact rationals', () => {
  const cases = loadCases<Case>('ranges-and-signals.json', /^limit check/);
  it.each(cases.map((one) => [one.id, one] as const))('%s', (_id, one) => {
    const low = givenNumber(one.given, 'signal at lower range value');
    const span = givenNumber(one.given, 'signal span');
    const range: SignalRange = { lrv: 0, urv: 100, outputLow: low, outputHigh: low + span };
    const limit = givenNumber(one.given, 'limit (inclusive)');
    const applied = appliedAtPercent(range, givenNumber(one.given, 'test point'));
    const output = givenNumber(one.given, 'output reading');
    const { readings } = evaluateRun(range, spanTolerance(limit), [
      { cycle: 1, direction: 'up', nominalPercent: 0, applied, output },
    ]);
    expectAll(one.expect, {
      error: readings[0]?.errorPercentSpan,
      'within limit': readings[0]?.verdict !== 'outside',
    });
  });
});

describe('a verdict', () => {
  it('is inside exactly on the limit, where binary arithmetic says outside', () => {
    expect(Math.abs(4.04 - 4) <= (0.25 / 100) * 16).toBe(false);
    expect(judge(milliamps, spanTolerance(0.25), 0, 4.04)).toBe('within');
    expect(judge(milliamps, spanTolerance(0.25), 0, 4.0401)).toBe('outside');
    expect(judge(milliamps, spanTolerance(0.25), 0, 4.04000000001)).toBe('outside');
  });

  it('asks for an adjustment only past the adjust limit', () => {
    const tolerance = spanTolerance(0.25, 70);
    expect(judge(milliamps, tolerance, 0, 4.028)).toBe('within');
    expect(judge(milliamps, tolerance, 0, 4.0281)).toBe('within-adjust');
    expect(judge(milliamps, tolerance, 0, 3.9719)).toBe('within-adjust');
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
          const tolerance = spanTolerance(limitHundredths / 100);
          const verdict = judge(milliamps, tolerance, percent, (idealMicroamp + errorMicroamp) / 1000);
          expect(verdict !== 'outside').toBe(inside);
        },
      ),
    );
  });

  it('agrees with whole-number arithmetic for a square root on its limit', () => {
    const root: SignalRange = {
      lrv: 0,
      urv: 10000,
      outputLow: 4,
      outputHigh: 20,
      transferFunction: { kind: 'square-root' },
    };
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 10000 }),
        fc.integer({ min: 4000, max: 20000 }),
        fc.integer({ min: 1, max: 100 }),
        (differential, microamp, limitHundredths) => {
          // s = √d / 100, so the ideal is 4000 + 160 √d uA: |r| <= L with r = m - 4000 - 160 √d, all times 10.
          const [m, limit] = [10n * BigInt(microamp - 4000), 16n * BigInt(limitHundredths)];
          const square = 1600n * 1600n * BigInt(differential);
          const sign = (n: bigint) => (n < 0n ? -1n : 1n);
          const isAbove = m - limit <= 0n || (m - limit) ** 2n <= square;
          const isBelow = m + limit >= 0n && (m + limit) ** 2n * sign(m + limit) >= square;
          const verdict = judge(root, spanTolerance(limitHundredths / 100), differential, microamp / 1000);
          expect(verdict !== 'outside').toBe(isAbove && isBelow);
        },
      ),
      { numRuns: 500 },
    );
    // 25 % of the differential is 50 % of flow and 12 mA: exactly on 0.25 %.
    expect(judge(root, spanTolerance(0.25), 2500, 12.04)).toBe('within');
    expect(judge(root, spanTolerance(0.25), 2500, 12.0401)).toBe('outside');
  });

  it('of a run is the worst of its readings', () => {
    expect(worstVerdict(['within', 'within-adjust', 'within'])).toBe('within-adjust');
    expect(worstVerdict(['within', 'undecided', 'within-adjust'])).toBe('undecided');
    expect(worstVerdict(['within', 'outside', 'undecided'])).toBe('outside');
    expect(worstVerdict([])).toBeNull();
  });
});

describe('a reading whose uncertainty exceeds its limit', () => {
  const tolerance = spanTolerance(0.25);
  const simple = (uncertainty: number) => ({ rule: { kind: 'simple' } as const, uncertainty });

  it('cannot be judged, unless it is further outside than it is uncertain', () => {
    // Limit 0.04 mA. An uncertainty of the limit itself still leaves the error of nothing inside.
    expect(judge(milliamps, tolerance, 0, 4, simple(0.04))).toBe('within');
    expect(judge(milliamps, tolerance, 0, 4, simple(0.0401))).toBe('not-judged');
    expect(judge(milliamps, tolerance, 0, 4.09, simple(0.06))).toBe('not-judged');
    expect(judge(milliamps, tolerance, 0, 4.11, simple(0.06))).toBe('outside');
    // 667 % of a limit of 20 % of reading, as at the lowest decade of a vacuum gauge.
    expect(judge(milliamps, tolerance, 0, 4, simple((0.04 * 667) / 20))).toBe('not-judged');
  });

  it('was judged all the same in runs of earlier days, whose records stay as they are', () => {
    const rule = { kind: 'simple', judgesBeyondUncertainty: true } as const;
    expect(judge(milliamps, tolerance, 0, 4, { rule, uncertainty: 0.06 })).toBe('within');
  });

  it('makes a run that cannot be judged, where none is outside', () => {
    expect(worstVerdict(['within', 'not-judged', 'undecided'])).toBe('not-judged');
    expect(worstVerdict(['not-judged', 'outside'])).toBe('outside');
  });
});

describe('a verdict under a rule with a guard band', () => {
  const tolerance = spanTolerance(0.25, 70);
  const banded = (isUndecidedAllowed: boolean) => ({
    rule: { kind: 'guard-band', r: 1, isUndecidedAllowed } as const,
    uncertainty: 0.01,
  });

  it('is undecided within the band either side of the limit, the ends of the band belonging outwards', () => {
    // Limit 0.04 mA, band 0.01 mA.
    const judged = (milliamp: number) => judge(milliamps, tolerance, 0, milliamp, banded(true));
    expect(judged(4.03)).toBe('within-adjust');
    expect(judged(4.0301)).toBe('undecided');
    expect(judged(4.04)).toBe('undecided');
    expect(judged(4.05)).toBe('undecided');
    expect(judged(4.0501)).toBe('outside');
    expect(judged(4.02)).toBe('within');
  });

  it('is outside already in the band where the site allows no third answer', () => {
    expect(judge(milliamps, tolerance, 0, 4.0301, banded(false))).toBe('outside');
    expect(judge(milliamps, tolerance, 0, 4.03, banded(false))).toBe('within-adjust');
  });

  it('of method 6 leaves no band at a good ratio and one at a poor one', () => {
    const rule = { kind: 'method-6' } as const;
    expect(judge(milliamps, tolerance, 0, 4.04, { rule, uncertainty: 0.005 })).toBe('within-adjust');
    // TUR 2: M = 1.04 - exp(0.38 ln 2 - 0.54) = 0.2816, so 0.04 - 0.2816 x 0.02 = 0.03437 mA is kept.
    expect(judge(milliamps, tolerance, 0, 4.0344, { rule, uncertainty: 0.02 })).toBe('outside');
    expect(judge(milliamps, tolerance, 0, 4.0343, { rule, uncertainty: 0.02 })).toBe('within-adjust');
  });

  it('needs the uncertainty of every reading', () => {
    expect(() => judge(milliamps, tolerance, 0, 4, { rule: { kind: 'method-6' } })).toThrow(
      'The expanded uncertainty of each reading is needed',
    );
    expect(() => judge(milliamps, tolerance, 0, 4, { ...banded(true), uncertainty: -1 })).toThrow('negative');
  });
});

describe('a tolerance', () => {
  it('of nothing at zero accepts exactly zero', () => {
    const ofReading: Tolerance = {
      ...spanTolerance(1),
      terms: [{ kind: 'percent-of-reading', percent: 1, of: 'applied' }],
    };
    const gauge: SignalRange = { lrv: 0, urv: 100, outputLow: 0, outputHigh: 100 };
    expect(judge(gauge, ofReading, 0, 0)).toBe('within');
    expect(judge(gauge, ofReading, 0, 0.0000001)).toBe('outside');
    const { readings } = evaluateRun(gauge, ofReading, [
      { cycle: 1, direction: 'up', nominalPercent: 0, applied: 0, output: 0.1 },
    ]);
    expect(readings[0]?.errorOfLimit).toBeNull();
  });

  it('in scale divisions is as wide as they are', () => {
    const divisions: Tolerance = {
      ...spanTolerance(1),
      terms: [{ kind: 'scale-divisions', divisions: 0.5, division: 0.2 }],
    };
    const gauge: SignalRange = { lrv: 0, urv: 16, outputLow: 0, outputHigh: 16 };
    expect(judge(gauge, divisions, 8, 8.1)).toBe('within');
    expect(judge(gauge, divisions, 8, 8.101)).toBe('outside');
  });
});
