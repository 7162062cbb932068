import { describe, expect, it } from 'vitest';
import { loadCases } from '../../test/fixtures';
import { expectConsistent, expectEndsIn, expectWorked } from '../../test/working';
import type { SignalRange } from '../signal';
import type { Step } from '../working';
import {
  acceptedOutput,
  errorTerms,
  evaluateRun,
  spanTolerance,
  workAcceptedOutput,
  workAccuracyRatio,
  workErrorTerms,
  workFigures,
  workReading,
  type RunEvaluation,
  type RunReading,
  type Tolerance,
} from './index';

const UNITS = { input: 'kPa', output: 'mA' };

/** Every figure that a run gives has a step that ends in it. */
function expectFigures(evaluation: RunEvaluation, steps: readonly Step[]): void {
  const { linearityPercentSpan: line, leastSquares: all, leastSquaresOfMeans: means } = evaluation;
  const isRepeated = new Set(evaluation.readings.map(({ cycle }) => cycle)).size > 1;
  const figures: Record<string, number | null | undefined> = {
    e_max: evaluation.maximumOfMeansPercentSpan,
    h_m: isRepeated ? evaluation.hysteresisOfMeansPercentSpan : null,
    r_p: evaluation.nonRepeatabilityPercentSpan,
    l_t: line?.terminal,
    l_z: line?.zeroBased,
    l_i: line?.independent,
    z_ls: all?.zeroErrorPercentSpan,
    p_ls: all?.spanErrorPercentSpan,
    z_ls_m: means?.zeroErrorPercentSpan,
    p_ls_m: means?.spanErrorPercentSpan,
  };
  for (const [symbol, value] of Object.entries(figures)) {
    if (typeof value === 'number') expectEndsIn(steps, symbol, value);
    else expect(steps.some((step) => step.symbol === symbol)).toBe(false);
  }
}

describe('the working of', () => {
  it('every reading of the outside runs ends in its error and limit', () => {
    interface OutsideRun {
      kind: string;
      given: {
        instrument: {
          input: { lrv: number; urv: number };
          output: { lrv: number; urv: number };
          transfer: string;
        };
        readings: {
          cycle: number;
          dir: 'up' | 'down';
          nominal_pct: number;
          applied: number;
          output: number;
        }[];
      };
    }
    const rich: Tolerance = {
      terms: [
        { kind: 'percent-of-span', percent: 0.1 },
        { kind: 'percent-of-reading', percent: 0.2, of: 'applied' },
        { kind: 'percent-of-reading', percent: 0.1, of: 'ideal-output' },
        { kind: 'percent-of-upper-range-limit', percent: 0.02, upperRangeLimit: 1000 },
        { kind: 'absolute', value: 0.01, in: 'output' },
        { kind: 'absolute', value: 0.01, in: 'input' },
        { kind: 'scale-divisions', divisions: 0.5, division: 0.02 },
      ],
      combine: 'sum',
      domain: 'output',
      adjustAbovePercentOfLimit: 70,
    };
    const tolerances: Tolerance[] = [
      spanTolerance(0.25),
      rich,
      { ...rich, combine: 'maximum', domain: 'input' },
      { ...rich, combine: 'root-sum-square' },
    ];
    for (const { given } of loadCases<OutsideRun>('runs.json')) {
      const { input, output, transfer } = given.instrument;
      const range: SignalRange = {
        lrv: input.lrv,
        urv: input.urv,
        outputLow: output.lrv,
        outputHigh: output.urv,
        transferFunction: transfer === 'sqrt' ? { kind: 'square-root' } : { kind: 'linear' },
      };
      const readings = given.readings.map((one) => ({
        cycle: one.cycle,
        direction: one.dir,
        nominalPercent: one.nominal_pct,
        applied: one.applied,
        output: one.output,
      }));
      for (const tolerance of tolerances) {
        const evaluation = evaluateRun(range, tolerance, readings);
        for (const reading of evaluation.readings) {
          const steps = workReading(range, tolerance, reading, UNITS);
          expectConsistent(steps);
          expectEndsIn(steps, 'e', reading.errorOutput);
          expectEndsIn(steps, 'e_span', reading.errorPercentSpan);
          expectEndsIn(steps, 'L', reading.limit);
          if (tolerance.domain === 'input') expectEndsIn(steps, 'e_in', reading.errorInput);
        }
        const figures = workFigures(range, evaluation);
        expectConsistent(figures);
        const { zeroErrorPercentSpan: zero, spanErrorPercentSpan: span, hysteresisPercentSpan } = evaluation;
        if (zero !== null) expectEndsIn(figures, 'z', zero);
        if (span !== null) expectEndsIn(figures, 'p', span);
        if (hysteresisPercentSpan !== null) expectEndsIn(figures, 'h', hysteresisPercentSpan);
        expectFigures(evaluation, figures);
      }
    }
  });

  it('a straight run, where every point lies on the line', () => {
    const range: SignalRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
    const readings = [0, 50, 100].map((percent): RunReading => ({
      cycle: 1,
      direction: 'up',
      nominalPercent: percent,
      applied: percent,
      output: 4 + 0.16 * percent,
    }));
    const evaluation = evaluateRun(range, spanTolerance(0.25), readings);
    const steps = workFigures(range, evaluation);
    expectConsistent(steps);
    expectFigures(evaluation, steps);
  });

  it('a run of many readings, whose sums are no longer written out', () => {
    const range: SignalRange = { lrv: 0, urv: 100, outputLow: 20, outputHigh: 4 };
    const readings = Array.from({ length: 66 }, (_, index): RunReading => {
      const percent = 10 * (index % 11);
      const output = 20 - 0.16 * percent + ((index * 7) % 5) / 1000;
      const cycle = 1 + Math.floor(index / 22);
      const direction = Math.floor(index / 11) % 2 === 0 ? 'up' : 'down';
      return { cycle, direction, nominalPercent: percent, applied: percent, output };
    });
    const evaluation = evaluateRun(range, spanTolerance(0.25), readings);
    const steps = workFigures(range, evaluation);
    expectConsistent(steps);
    expectFigures(evaluation, steps);
    expect(Math.max(...steps.map(({ formula }) => formula.length))).toBeLessThan(1000);
  });

  it('an error in every term, the accepted band and the accuracy ratio, through a square root and reversed', () => {
    const forward: SignalRange = {
      lrv: 0,
      urv: 150,
      outputLow: 4,
      outputHigh: 20,
      transferFunction: { kind: 'square-root' },
    };
    const input: Tolerance = { ...spanTolerance(0.25), domain: 'input' };
    for (const range of [forward, { ...forward, outputLow: 20, outputHigh: 4 }]) {
      const sizes = { upperRangeLimit: 250, division: 0.1 };
      const found = errorTerms(range, 74.92, 15.35, sizes);
      const steps = workErrorTerms(range, 74.92, 15.35, sizes, UNITS);
      expectConsistent(steps);
      expectEndsIn(steps, 'e', found.output);
      expectEndsIn(steps, 'e_span', found.percentOfSpan);
      expectEndsIn(steps, 'e_in', found.input);
      expectEndsIn(steps, 'e_rdg', found.percentOfReading ?? NaN);
      expectEndsIn(steps, 'e_URL', found.percentOfUpperRangeLimit ?? NaN);
      expectEndsIn(steps, 'e_div', found.scaleDivisions ?? NaN);
      for (const tolerance of [spanTolerance(0.25), input]) {
        const band = workAcceptedOutput(range, tolerance, 60, UNITS);
        const { lowest, highest } = acceptedOutput(range, tolerance, 60);
        expectConsistent(band);
        expectEndsIn(band, 'y_low', lowest);
        expectEndsIn(band, 'y_high', highest);
        expectWorked(workAccuracyRatio(range, tolerance, 0.07, UNITS));
      }
    }
    const bare = workErrorTerms(forward, 0, 4.01, {}, UNITS);
    expect(bare.map(({ symbol }) => symbol)).not.toContain('e_rdg');
  });
});
