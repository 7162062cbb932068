import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectAll, givenNumber, loadCases, type Case } from '../../test/fixtures';
import { convertPressure, type PressureUnit } from '../units';
import type { SignalRange } from '../signal';
import {
  acceptedOutput,
  accuracyRatio,
  accuracyRatioAt,
  errorTerms,
  evaluateRun,
  spanTolerance,
  type RunReading,
} from './index';
import type { Tolerance, ToleranceTerm } from './index';

interface OutsideTerm {
  kind: 'percent_span' | 'percent_reading' | 'percent_url' | 'absolute';
  value: number;
  reading_basis?: 'applied_input' | 'ideal_output';
  unit?: string;
}
interface OutsideRun {
  instrument: {
    input: { lrv: number; urv: number; unit: string; url?: number };
    output: { lrv: number; urv: number; unit: string };
    transfer: 'linear' | 'sqrt';
  };
  tolerance: { terms: OutsideTerm[]; combine: 'sum' | 'max' | 'rss'; domain?: 'input' };
  readings: { cycle: number; dir: 'up' | 'down'; nominal_pct: number; applied: number; output: number }[];
}
type Figure = { value: unknown; unit: string | null; tolerance_abs: number };
type RunCase = Case<OutsideRun, Record<string, Figure>>;

const COMBINE = { sum: 'sum', max: 'maximum', rss: 'root-sum-square' } as const;

function termOf(term: OutsideTerm, { input }: OutsideRun['instrument']): ToleranceTerm {
  switch (term.kind) {
    case 'percent_span':
      return { kind: 'percent-of-span', percent: term.value };
    case 'percent_reading':
      return {
        kind: 'percent-of-reading',
        percent: term.value,
        of: term.reading_basis === 'ideal_output' ? 'ideal-output' : 'applied',
      };
    case 'percent_url':
      return {
        kind: 'percent-of-upper-range-limit',
        percent: term.value,
        upperRangeLimit: input.url ?? Number.NaN,
      };
    case 'absolute':
      return { kind: 'absolute', value: term.value, in: term.unit === input.unit ? 'input' : 'output' };
  }
}

function rangeOf({ input, output, transfer }: OutsideRun['instrument']): SignalRange {
  const range = { lrv: input.lrv, urv: input.urv, outputLow: output.lrv, outputHigh: output.urv };
  return transfer === 'linear' ? range : { ...range, transferFunction: { kind: 'square-root' } };
}

const toleranceOf = ({ tolerance, instrument }: OutsideRun): Tolerance => ({
  terms: tolerance.terms.map((term) => termOf(term, instrument)),
  combine: COMBINE[tolerance.combine],
  domain: tolerance.domain ?? 'output',
  adjustAbovePercentOfLimit: 100,
});

const readingsOf = (given: OutsideRun): RunReading[] =>
  given.readings.map((reading) => ({
    cycle: reading.cycle,
    direction: reading.dir,
    nominalPercent: reading.nominal_pct,
    applied: reading.applied,
    output: reading.output,
  }));

const inside = (verdict: string | null) => (verdict === 'outside' ? 'fail' : 'pass');

describe('runs against figures computed outside Barys (each case names its source)', () => {
  it.each(loadCases<RunCase>('runs.json').map((one) => [`${one.id} ${one.kind}`, one] as const))(
    '%s',
    (_id, one) => {
      const { given } = one;
      const got = evaluateRun(rangeOf(given.instrument), toleranceOf(given), readingsOf(given));
      const all = <K extends keyof (typeof got.readings)[number]>(key: K) =>
        got.readings.map((reading) => reading[key]);
      expectAll(one.expect, {
        ideal_output: all('expected'),
        error_output: all('errorOutput'),
        error_pct_span: all('errorPercentSpan'),
        error_input_referred: all('errorInput'),
        tolerance: all('limit'),
        verdict_per_reading: all('verdict').map(inside),
        verdict_overall: inside(got.verdict),
        max_error_any_reading: got.worst?.errorPercentSpan ?? null,
        max_error_positive: got.largestErrorPercentSpan,
        max_error_negative: got.smallestErrorPercentSpan,
        max_measured_error_of_direction_means: got.maximumOfMeansPercentSpan,
        hysteresis_max_of_cycles: got.hysteresisPercentSpan,
        hysteresis_of_means: got.hysteresisOfMeansPercentSpan,
        non_repeatability: got.nonRepeatabilityPercentSpan,
        nonlinearity_terminal_based: got.linearityPercentSpan?.terminal ?? null,
        nonlinearity_zero_based: got.linearityPercentSpan?.zeroBased ?? null,
        nonlinearity_independent: got.linearityPercentSpan?.independent ?? null,
        zero_error_endpoint: got.zeroErrorPercentSpan,
        span_error_endpoint: got.spanErrorPercentSpan,
        zero_error_lsq_all: got.leastSquares?.zeroErrorPercentSpan ?? null,
        span_error_lsq_all: got.leastSquares?.spanErrorPercentSpan ?? null,
        zero_error_lsq_of_means: got.leastSquaresOfMeans?.zeroErrorPercentSpan ?? null,
        span_error_lsq_of_means: got.leastSquaresOfMeans?.spanErrorPercentSpan ?? null,
      });
    },
  );

  it('B-P15: one reading in every term', () => {
    const [one] = loadCases<Case>('ranges-and-signals.json', /^errors from one test point/);
    if (one === undefined) throw new Error('no case');
    const range = { lrv: 0, urv: 150, outputLow: 4, outputHigh: 20 };
    const got = errorTerms(range, 74.92, 12.013);
    expectAll(one.expect, {
      'ideal output': 12.013 - got.output,
      'error in output units': got.output,
      'error in percent of span': got.percentOfSpan,
      'indicated pressure': 74.92 + got.input,
      'error in pressure': got.input,
      'error in percent of reading': got.percentOfReading,
      'error if the nominal pressure were wrongly used': errorTerms(range, 75, 12.013).percentOfSpan,
    });
  });

  it('B-P16: rising and falling', () => {
    const [one] = loadCases<Case>('ranges-and-signals.json', /^rising and falling/);
    if (one === undefined) throw new Error('no case');
    const readings = [1, 2, 3, 4, 5].flatMap((n) =>
      (['up', 'down'] as const).map((direction): RunReading => {
        const applied = givenNumber(one.given, `pressure ${n}`);
        const output = givenNumber(one.given, `output ${n} ${direction === 'up' ? 'rising' : 'falling'}`);
        return { cycle: 1, direction, nominalPercent: applied, applied, output };
      }),
    );
    const got = evaluateRun({ lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 }, spanTolerance(0.2), readings);
    expectAll(one.expect, {
      'largest error (signed)': got.worst?.errorPercentSpan,
      'hysteresis (largest rising/falling difference at one point)': got.hysteresisPercentSpan,
      'all points within limit': got.verdict === 'within',
    });
  });

  it('B-P31: a tolerance on the differential is no fixed band of the current', () => {
    const [one] = loadCases<Case>('ranges-and-signals.json', /^DP tolerance carried/);
    if (one === undefined) throw new Error('no case');
    const range: SignalRange = {
      lrv: 0,
      urv: 100,
      outputLow: 4,
      outputHigh: 20,
      transferFunction: { kind: 'square-root' },
    };
    // Twelve digits are kept of an accepted output, which is 1e-11 of 7 mA.
    const band = acceptedOutput(range, { ...spanTolerance(0.1), domain: 'input' }, 4);
    expectAll(one.expect, {
      'ideal output': 7.2,
      'lowest acceptable output': band.lowest,
      'highest acceptable output': band.highest,
    });
  });
});

const linear: SignalRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
const at = (
  direction: 'up' | 'down',
  nominalPercent: number,
  applied: number,
  output: number,
): RunReading => ({
  cycle: 1,
  direction,
  nominalPercent,
  applied,
  output,
});

describe('a run', () => {
  const quarter = spanTolerance(0.25, 70);

  it('takes the error at the value applied, not at the nominal one', () => {
    const { readings } = evaluateRun(linear, quarter, [at('up', 50, 50.1, 12.016)]);
    expect(readings[0]?.errorOutput).toBeCloseTo(0, 12);
    expect(readings[0]?.verdict).toBe('within');
  });

  it('says what it can of an unfinished run, and what it cannot', () => {
    const got = evaluateRun(linear, quarter, [at('up', 0, 0, 4.006), at('up', 25, 25, 8.011)]);
    expect(got.worst?.errorPercentSpan).toBeCloseTo(0.06875, 12);
    expect(got.zeroErrorPercentSpan).toBeCloseTo(0.0375, 12);
    expect(got.spanErrorPercentSpan).toBeNull();
    expect(got.hysteresisPercentSpan).toBeNull();
    expect(got.missing.map(({ figure }) => figure)).toEqual([
      'span-error',
      'hysteresis',
      'repeatability',
      'linearity',
    ]);
    const empty = evaluateRun(linear, quarter, []);
    expect(empty.verdict).toBeNull();
    expect(empty.worst).toBeNull();
    expect(empty.largestErrorPercentSpan).toBeNull();
    expect(empty.missing).toHaveLength(6);
  });

  it('refuses what it cannot judge', () => {
    const reading = at('up', 0, 0, 4);
    expect(() => evaluateRun(linear, spanTolerance(0, 70), [reading])).toThrow('greater than zero');
    expect(() => evaluateRun(linear, { ...quarter, terms: [] }, [reading])).toThrow(
      'A tolerance term is needed',
    );
    expect(() => evaluateRun(linear, spanTolerance(1, 101), [reading])).toThrow(
      'from 0 to 100 % of the tolerance',
    );
    expect(() => evaluateRun(linear, spanTolerance(-1), [reading])).toThrow('must not be negative');
    expect(() => evaluateRun(linear, quarter, [at('up', 0, 0, Number.NaN)])).toThrow('finite');
    expect(() => evaluateRun(linear, quarter, [at('up', 0, Infinity, 4)])).toThrow('finite');
    expect(() => evaluateRun(linear, quarter, new Array<RunReading>(1000000).fill(reading))).toThrow(
      'at most 10000',
    );
  });

  it('does not depend on the unit that its input is given in', () => {
    const units: PressureUnit[] = ['psi', 'bar', 'inH2OAt68F', 'mmHgAt0C', 'Pa'];
    const errors = fc.array(fc.integer({ min: -60, max: 60 }), { minLength: 9, maxLength: 9 });
    fc.assert(
      fc.property(errors, fc.constantFrom(...units), (microamps, unit) => {
        const to = (kPa: number) => convertPressure(kPa, 'kPa', unit);
        // An odd limit that no error of whole microamperes can hit.
        const tolerance = spanTolerance(0.2137, 70);
        const run = (convert: (kPa: number) => number) =>
          evaluateRun(
            { ...linear, lrv: convert(20), urv: convert(220) },
            tolerance,
            [0, 25, 50, 75, 100, 75, 50, 25, 0].map((percent, i) =>
              at(
                i < 5 ? 'up' : 'down',
                percent,
                convert(20 + 2 * percent),
                4 + 0.16 * percent + (microamps[i] ?? 0) / 1000,
              ),
            ),
          );
        const [here, there] = [run((kPa) => kPa), run(to)];
        expect(there.readings.map(({ verdict }) => verdict)).toEqual(
          here.readings.map(({ verdict }) => verdict),
        );
        expect(there.hysteresisPercentSpan).toBeCloseTo(here.hysteresisPercentSpan ?? Number.NaN, 9);
        expect(there.linearityPercentSpan?.independent).toBeCloseTo(
          here.linearityPercentSpan?.independent ?? Number.NaN,
          9,
        );
      }),
    );
  });

  it('has an independent linearity never above the zero-based, and that never above the terminal one', () => {
    const errors = fc.array(fc.integer({ min: -60, max: 60 }), { minLength: 5, maxLength: 5 });
    fc.assert(
      fc.property(errors, (microamps) => {
        const readings = microamps.map((error, i) => at('up', 25 * i, 25 * i, 4 + 4 * i + error / 1000));
        const found = evaluateRun(linear, spanTolerance(1), readings).linearityPercentSpan;
        if (found === null) throw new Error('no linearity');
        const { terminal, zeroBased } = found;
        if (terminal === null || zeroBased === null) throw new Error('no line through the ends');
        expect(found.independent).toBeLessThanOrEqual(zeroBased + 1e-12);
        expect(zeroBased).toBeLessThanOrEqual(terminal + 1e-12);
        // A finer search over lines may not find a narrower strip.
        const points = microamps.map((error, i) => [i / 4, error / 160] as const);
        for (let slope = -1; slope <= 1; slope += 0.01) {
          const rest = points.map(([x, y]) => y - slope * x);
          expect((Math.max(...rest) - Math.min(...rest)) / 2).toBeGreaterThanOrEqual(
            found.independent - 1e-12,
          );
        }
      }),
    );
  });
});

it('has an independent linearity also where 0 and 100 % were not read', () => {
  // Errors 0, +0.1, 0 % of span at 25, 50, 75 %: the narrowest strip is 0.1 high.
  const readings = [0, 0.016, 0].map((error, i) => at('up', 25 + 25 * i, 25 + 25 * i, 8 + 4 * i + error));
  const found = evaluateRun(linear, spanTolerance(1), readings).linearityPercentSpan;
  expect(found).toMatchObject({ terminal: null, zeroBased: null });
  expect(found?.independent).toBeCloseTo(0.05, 12);
});

it('has a zero-based linearity from the point at 0 %, without the one at 100 %', () => {
  // Errors 0, +0.2, 0 % of span at 0, 25, 50 %: the line e = b s leaves both by 0.2 - 0.25 b = 0.5 b, so b = 4/15.
  const readings = [0, 0.032, 0].map((error, i) => at('up', 25 * i, 25 * i, 4 + 4 * i + error));
  const found = evaluateRun(linear, spanTolerance(1), readings).linearityPercentSpan;
  expect(found?.terminal).toBeNull();
  expect(found?.zeroBased).toBeCloseTo(2 / 15, 12);
});

describe('beside a run', () => {
  const quarter = spanTolerance(0.25, 70);
  it('the accepted band lies a limit either side of the ideal output', () => {
    expect(acceptedOutput(linear, quarter, 50)).toEqual({ lowest: 11.96, highest: 12.04 });
  });

  it('the accuracy ratio refers both to the input', () => {
    // 0.25 % of 100 is 0.25; a standard good to 0.05 is five times better.
    expect(accuracyRatio(linear, quarter, 0.05).ratio).toBe(5);
    // 0.25 % of 0.7 over 0.0004375 is exactly 4, which doubles miss.
    expect(((0.25 / 100) * 16 * 0.7) / 16 / 0.0004375).toBeLessThan(4);
    expect(accuracyRatio({ ...linear, urv: 0.7 }, spanTolerance(0.25), 0.0004375).ratio).toBe(4);
    const rss = { ...spanTolerance(0.3), combine: 'root-sum-square' } as const;
    const both = { ...rss, terms: [...rss.terms, { kind: 'percent-of-span', percent: 0.4 } as const] };
    expect(accuracyRatio(linear, both, 0.1).ratio).toBe(5);
    expect(() => accuracyRatio(linear, quarter, 0)).toThrow('greater than zero');
  });

  it('the accuracy ratio is the least of all points, not that of the ends', () => {
    // Grade B of ASME B40.100: 2 % in the middle half, 3 % outside it; 0.5 of 100 makes 4 : 1 there and 6 : 1 at the ends.
    const gradeB: Tolerance = {
      ...spanTolerance(1),
      terms: [{ kind: 'percent-of-span-in-zones', middlePercent: 2, outerPercent: 3 }],
    };
    expect(accuracyRatio(linear, gradeB, 0.5)).toEqual({ applied: 25, ratio: 4 });
    expect(accuracyRatio(linear, gradeB, 0.5, [0, 100]).ratio).toBe(6);
  });

  it('the accuracy ratio follows a square root, where a standard counts for more at low flow', () => {
    const root: SignalRange = {
      ...linear,
      transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 },
    };
    // At 25 % of flow, 6.25 of 100, the slope is 2: of 0.0714 %, 3.5 : 1 of the span, 1.745 : 1 are left by hand.
    const { applied, ratio } = accuracyRatio(root, spanTolerance(0.25), 0.25 / 3.5);
    expect(applied).toBe(6.25);
    expect(ratio).toBeCloseTo(0.25 / (25 - 100 * Math.sqrt(0.0625 - 0.01 * (0.25 / 3.5))), 9);
    expect(ratio).toBeCloseTo(1.745, 3);
    // Below the cut-off the output does not follow at all.
    expect(accuracyRatioAt(root, spanTolerance(0.25), 0, { side: 'input', size: 0.05 })).toBeNull();
    // Of a meter at the output 0.04 mA over 0.005 mA everywhere.
    expect(accuracyRatioAt(root, spanTolerance(0.25), 6.25, { side: 'output', size: 0.005 })).toBe(8);
  });

  it('an error is given in per cent of limit and in divisions where they are known', () => {
    const gauge: SignalRange = { lrv: 0, urv: 16, outputLow: 0, outputHigh: 16 };
    const got = errorTerms(gauge, 8, 8.1, { upperRangeLimit: 20, division: 0.2 });
    expect(got.percentOfUpperRangeLimit).toBeCloseTo(0.5, 12);
    expect(got.scaleDivisions).toBeCloseTo(0.5, 12);
    expect(errorTerms(gauge, 0, 0.1).percentOfReading).toBeNull();
  });
});
