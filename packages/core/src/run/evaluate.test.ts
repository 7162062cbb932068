import { describe, expect, it } from 'vitest';
import { expectClose, loadCases, type Case } from '../../test/fixtures';
import type { LinearRange } from '../signal';
import { acceptedOutput, accuracyRatio, evaluateRun, type RunReading } from './evaluate';

interface OutsideRun {
  instrument: { input: { lrv: number; urv: number }; output: { lrv: number; urv: number } };
  tolerance: { terms: [{ value: number }] };
  readings: { cycle: number; dir: 'up' | 'down'; nominal_pct: number; applied: number; output: number }[];
}
type Figure = { value: unknown; unit: string | null; tolerance_abs: number };
type RunCase = Case<OutsideRun, Record<string, Figure>>;

const linear: LinearRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
const quarterPercent = { percentOfSpan: 0.25, adjustAbovePercentOfLimit: 70 };

function evaluateCase({ given }: RunCase) {
  const { input, output } = given.instrument;
  return evaluateRun(
    { lrv: input.lrv, urv: input.urv, outputLow: output.lrv, outputHigh: output.urv },
    { percentOfSpan: given.tolerance.terms[0].value, adjustAbovePercentOfLimit: 100 },
    given.readings.map((reading): RunReading => ({
      cycle: reading.cycle,
      direction: reading.dir,
      nominalPercent: reading.nominal_pct,
      applied: reading.applied,
      output: reading.output,
    })),
  );
}

describe('runs against figures computed outside Barys (each case names its source)', () => {
  it.each(loadCases<RunCase>('runs.json').map((one) => [one.id, one] as const))('%s', (_id, one) => {
    const got = evaluateCase(one);
    const each: Record<string, number[]> = {
      ideal_output: got.readings.map((reading) => reading.expected),
      error_output: got.readings.map((reading) => reading.errorOutput),
      error_pct_span: got.readings.map((reading) => reading.errorPercentSpan),
      error_input_referred: got.readings.map((reading) => reading.errorInput),
      tolerance: got.readings.map(() => got.limitOutput),
    };
    const single: Record<string, number | null> = {
      max_error_any_reading: got.worst?.errorPercentSpan ?? null,
      hysteresis_max_of_cycles: got.hysteresisPercentSpan,
      zero_error_endpoint: got.zeroErrorPercentSpan,
      span_error_endpoint: got.spanErrorPercentSpan,
    };
    const inside = (verdict: string | null) => (verdict === 'outside' ? 'fail' : 'pass');
    let compared = 0;
    for (const [name, wanted] of Object.entries(one.expect)) {
      if (name in each) {
        const values = wanted.value as number[];
        expect(values).toHaveLength(got.readings.length);
        values.forEach((value, i) =>
          expectClose(each[name]?.[i] ?? null, { ...wanted, value }, `${name} ${i}`),
        );
        compared += 1;
      } else if (name in single) {
        expectClose(single[name] ?? null, wanted as Figure & { value: number | null }, name);
        compared += 1;
      }
    }
    expect(compared).toBeGreaterThanOrEqual(3);
    expect(got.readings.map((reading) => inside(reading.verdict))).toEqual(
      one.expect['verdict_per_reading']?.value,
    );
    expect(inside(got.verdict)).toBe(one.expect['verdict_overall']?.value);
  });
});

describe('a run', () => {
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

  it('takes the error at the value applied, not at the nominal one', () => {
    const { readings } = evaluateRun(linear, quarterPercent, [at('up', 50, 50.1, 12.016)]);
    expect(readings[0]?.errorOutput).toBe(0);
    expect(readings[0]?.verdict).toBe('within');
  });

  it('says what it can of an unfinished run, and what it cannot', () => {
    const got = evaluateRun(linear, quarterPercent, [at('up', 0, 0, 4.006), at('up', 25, 25, 8.011)]);
    expect(got.worst?.errorPercentSpan).toBeCloseTo(0.06875, 12);
    expect(got.zeroErrorPercentSpan).toBeCloseTo(0.0375, 12);
    expect(got.spanErrorPercentSpan).toBeNull();
    expect(got.hysteresisPercentSpan).toBeNull();
    expect(got.missing).toEqual([
      'Span error needs readings at 0 % and 100 %.',
      'Hysteresis needs one point read both rising and falling.',
    ]);
    const empty = evaluateRun(linear, quarterPercent, []);
    expect(empty.verdict).toBeNull();
    expect(empty.worst).toBeNull();
    expect(empty.missing).toHaveLength(3);
  });

  it('refuses what it cannot judge', () => {
    const reading = at('up', 0, 0, 4);
    expect(() => evaluateRun(linear, { percentOfSpan: 0, adjustAbovePercentOfLimit: 70 }, [reading])).toThrow(
      'greater than zero',
    );
    expect(() =>
      evaluateRun(linear, { percentOfSpan: 1, adjustAbovePercentOfLimit: 101 }, [reading]),
    ).toThrow('from 0 to 100 % of the tolerance');
    expect(() => evaluateRun(linear, quarterPercent, [at('up', 0, 0, Number.NaN)])).toThrow('finite');
  });
});

describe('beside a run', () => {
  it('the accepted band lies a limit either side of the ideal output', () => {
    expect(acceptedOutput(linear, quarterPercent, 50)).toEqual({ lowest: 11.96, highest: 12.04 });
  });

  it('the accuracy ratio refers both to the input', () => {
    // 0.25 % of 100 is 0.25; a standard good to 0.05 is five times better.
    expect(accuracyRatio(linear, quarterPercent, 0.05)).toBe(5);
    expect(() => accuracyRatio(linear, quarterPercent, 0)).toThrow('greater than zero');
  });
});
