import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { surdToNumber } from '../exact';
import { exactExpectedOutput, expectedOutput, type SignalRange } from '../signal';
import { spreadOf, hysteresisOfCycles, type ErrorAt } from './points';
import { exactLimitAt, limitAt, type Tolerance, type ToleranceTerm } from './tolerance';
import { Decider, noiseBound, type DecisionRule } from './verdict';

const hundredths = (min: number, max: number) => fc.integer({ min, max }).map((n) => n / 100);
const terms: fc.Arbitrary<ToleranceTerm> = fc.oneof(
  hundredths(1, 200).map((percent): ToleranceTerm => ({ kind: 'percent-of-span', percent })),
  fc.tuple(hundredths(1, 200), hundredths(1, 200)).map(([middlePercent, outerPercent]): ToleranceTerm => ({
    kind: 'percent-of-span-in-zones',
    middlePercent,
    outerPercent,
  })),
  fc
    .tuple(hundredths(1, 200), fc.constantFrom('applied' as const, 'ideal-output' as const))
    .map(([percent, of]): ToleranceTerm => ({ kind: 'percent-of-reading', percent, of })),
  hundredths(1, 100).map((percent): ToleranceTerm => ({
    kind: 'percent-of-upper-range-limit',
    percent,
    upperRangeLimit: 1000,
  })),
  fc
    .tuple(hundredths(1, 50), fc.constantFrom('input' as const, 'output' as const))
    .map(([value, where]): ToleranceTerm => ({ kind: 'absolute', value, in: where })),
  hundredths(10, 200).map((divisions): ToleranceTerm => ({
    kind: 'scale-divisions',
    divisions,
    division: 0.2,
  })),
);
const tolerances: fc.Arbitrary<Tolerance> = fc.record({
  terms: fc.array(terms, { minLength: 1, maxLength: 4 }),
  combine: fc.constantFrom('sum', 'maximum', 'root-sum-square'),
  domain: fc.constantFrom('output', 'input'),
  adjustAbovePercentOfLimit: fc.constant(70),
});
const ranges: fc.Arbitrary<SignalRange> = fc.constantFrom(
  { lrv: 0, urv: 400, outputLow: 4, outputHigh: 20 },
  { lrv: 500, urv: 100, outputLow: 4, outputHigh: 20 },
  { lrv: -50, urv: 150, outputLow: 20, outputHigh: 4 },
  { lrv: 0, urv: 400, outputLow: 4, outputHigh: 20, transferFunction: { kind: 'square-root' } },
);

describe('a limit', () => {
  it('is the same in double precision and exactly', () => {
    fc.assert(
      fc.property(ranges, tolerances, fc.integer({ min: 0, max: 40 }), (range, tolerance, n) => {
        const applied = range.lrv + ((range.urv - range.lrv) * n) / 40;
        const found = limitAt(range, tolerance, applied, expectedOutput(range, applied));
        const limit = exactLimitAt(range, tolerance, applied, exactExpectedOutput(range, applied));
        const wanted = 'value' in limit ? surdToNumber(limit.value) : Math.sqrt(surdToNumber(limit.square));
        expect(Math.abs(found - wanted)).toBeLessThanOrEqual(1e-12 * wanted);
      }),
      { numRuns: 300 },
    );
  });

  it('is never narrower as a sum than as a root sum of squares, nor that than as the largest term', () => {
    fc.assert(
      fc.property(ranges, tolerances, (range, tolerance) => {
        const applied = (range.lrv + range.urv) / 2;
        const by = (combine: Tolerance['combine']) =>
          limitAt(range, { ...tolerance, combine }, applied, expectedOutput(range, applied));
        expect(by('sum')).toBeGreaterThanOrEqual(by('root-sum-square') * (1 - 1e-12));
        expect(by('root-sum-square')).toBeGreaterThanOrEqual(by('maximum') * (1 - 1e-12));
      }),
    );
  });
});

describe('a verdict under any rule', () => {
  const milliamps: SignalRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };

  it('agrees with whole numbers of microamperes, guard band and all', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -200, max: 200 }),
        fc.integer({ min: 5, max: 50 }),
        fc.integer({ min: 0, max: 60 }),
        fc.boolean(),
        (error, limitTens, band, isUndecidedAllowed) => {
          // A limit of 10 n uA, adjusted above 70 % of it, that is above 7 n; the band is U with r = 1.
          const limit = 10 * limitTens;
          const size = Math.abs(error);
          const isThird = isUndecidedAllowed && band > 0;
          const wanted =
            isThird && size > limit + band
              ? 'outside'
              : band > limit && size <= limit + band
                ? 'not-judged'
                : size > limit - band
                  ? isThird
                    ? 'undecided'
                    : 'outside'
                  : size > 7 * limitTens
                    ? 'within-adjust'
                    : 'within';
          const tolerance: Tolerance = {
            terms: [{ kind: 'absolute', value: limit / 1000, in: 'output' }],
            combine: 'sum',
            domain: 'output',
            adjustAbovePercentOfLimit: 70,
          };
          const rule: DecisionRule = { kind: 'guard-band', r: 1, isUndecidedAllowed };
          const output = (4000 + error) / 1000;
          const judged = {
            applied: 0,
            output,
            error: output - 4,
            limit: limit / 1000,
            uncertainty: band / 1000,
          };
          const noise = noiseBound(milliamps, tolerance)(judged.applied, judged.output, judged.limit);
          expect(new Decider(milliamps, tolerance, rule).decide(judged, noise)).toBe(wanted);
        },
      ),
      { numRuns: 500 },
    );
  });
});

describe('the means of a run', () => {
  const readings = fc.array(
    fc.record({
      cycle: fc.integer({ min: 1, max: 3 }),
      direction: fc.constantFrom('up' as const, 'down' as const),
      nominalPercent: fc.constantFrom(0, 25, 50, 75, 100),
      share: fc.constant(0.5),
      errorPercentSpan: hundredths(-50, 50),
    }),
    { minLength: 1, maxLength: 30 },
  );

  it('do not depend on the order in which the readings stand', () => {
    fc.assert(
      fc.property(readings, fc.infiniteStream(fc.nat()), (given: ErrorAt[], keys) => {
        const shuffled = given
          .map((reading) => ({ reading, key: keys.next().value as number }))
          .sort((a, b) => a.key - b.key)
          .map(({ reading }) => reading);
        const [one, other] = [spreadOf(given), spreadOf(shuffled)];
        expect(other.points.map(({ nominalPercent }) => nominalPercent)).toEqual(
          one.points.map(({ nominalPercent }) => nominalPercent),
        );
        one.points.forEach(({ mean }, i) => expect(other.points[i]?.mean).toBeCloseTo(mean, 12));
        expect(other.nonRepeatability).toBe(one.nonRepeatability);
        expect(hysteresisOfCycles(shuffled)).toBe(hysteresisOfCycles(given));
      }),
    );
  });

  it('are those of a plain sum over each point and direction', () => {
    fc.assert(
      fc.property(readings, (given: ErrorAt[]) => {
        for (const { nominalPercent, up, down } of spreadOf(given).points)
          for (const [direction, found] of [
            ['up', up],
            ['down', down],
          ] as const) {
            const own = given.filter(
              (one) => one.nominalPercent === nominalPercent && one.direction === direction,
            );
            if (own.length === 0) expect(found).toBeNull();
            else
              expect(found).toBeCloseTo(
                own.reduce((sum, { errorPercentSpan }) => sum + errorPercentSpan, 0) / own.length,
                12,
              );
          }
      }),
    );
  });
});

describe('a limit by zones of the scale', () => {
  // ASME B40.100, grade B (from memory): 3 % of span, 2 % in the middle half.
  const gradeB: Tolerance = {
    terms: [{ kind: 'percent-of-span-in-zones', middlePercent: 2, outerPercent: 3 }],
    combine: 'sum',
    domain: 'output',
    adjustAbovePercentOfLimit: 100,
  };
  const scale: SignalRange = { lrv: 0, urv: 10, outputLow: 0, outputHigh: 10 };

  it.each([
    [0, 0.3],
    [2.49, 0.3],
    [2.5, 0.2],
    [5, 0.2],
    [7.5, 0.2],
    [7.51, 0.3],
    [10, 0.3],
  ])('at %s of 10 is %s', (applied, limit) => {
    expect(limitAt(scale, gradeB, applied, applied)).toBeCloseTo(limit, 12);
    const exactly = exactLimitAt(scale, gradeB, applied, exactExpectedOutput(scale, applied));
    expect('value' in exactly && surdToNumber(exactly.value)).toBe(limit);
  });
});
