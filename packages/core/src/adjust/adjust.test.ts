import { describe, it } from 'vitest';
import { expectAll, loadCases, type Case } from '../../test/fixtures';
import { spanTolerance } from '../run';
import type { SignalRange } from '../signal';
import { adviseOn, bestByZero, bestByZeroAndSpan, worstOf, type Act, type Advice } from './index';

type Figure = { value: unknown; unit: string | null; tolerance_abs: number };
type Expect = Record<string, Figure>;
interface FoundCase {
  instrument: {
    input: { lrv: number; urv: number };
    output: { lrv: number; urv: number };
  };
  readings: { dir: 'up' | 'down'; nominal_pct: number; applied: number; output: number }[];
}
interface SmartCase {
  lrv: number;
  urv: number;
  readings: { applied: number; pv: number; mA: number }[];
  sensor_trim: { lower_applied: number; lower_pv: number; upper_applied: number; upper_pv: number };
  output_trim: { measured_at_4mA_command: number; measured_at_20mA_command: number };
}

const screws = { technology: 'analog', trims: ['zero screw', 'span screw'] } as const;
const smart = { technology: 'smart', trims: ['zero trim', 'sensor trim', 'output trim'] } as const;

const errorsAfter = (advice: Advice, act: Act): number[] | undefined =>
  advice.acts.find((one) => one.act === act)?.points?.map(({ errorPercentSpan }) => errorPercentSpan);
const worstAfter = (advice: Advice, act: Act): number | null | undefined => {
  const outlook = advice.acts.find((one) => one.act === act);
  return outlook && worstOf(outlook);
};
const largest = (values: readonly number[]): number => Math.max(...values.map(Math.abs));

describe('what trims leave, against cases computed outside', () => {
  it.each(
    loadCases<Case<FoundCase, Expect>>('adjustment.json', /^as_found$/).map((one) => [one.id, one] as const),
  )('%s', (_id, { given: { instrument, readings }, expect: wanted }) => {
    const { input, output } = instrument;
    const range: SignalRange = {
      lrv: input.lrv,
      urv: input.urv,
      outputLow: output.lrv,
      outputHigh: output.urv,
    };
    const advice = adviseOn({
      range,
      tolerance: spanTolerance(0.25),
      readings: readings.map(({ dir, nominal_pct, applied, output: read }) => ({
        cycle: 1,
        direction: dir,
        nominalPercent: nominal_pct,
        applied,
        output: read,
      })),
      body: screws,
    });
    const { portrait, found } = advice;
    const span = Math.abs(range.outputHigh - range.outputLow);
    const [zero, gain] = [portrait.zero?.value ?? NaN, portrait.gain?.value ?? NaN];
    // y = A + B ideal through all readings, and what is left when a reading is taken back through that line.
    const B = 1 + gain / 100;
    const A = range.outputLow + (zero / 100) * span - B * range.outputLow;
    const afterLine = found.readings.map(
      ({ output: read, expected }) => (100 * ((read - A) / B - expected)) / span,
    );
    const afterZero = errorsAfter(advice, 'zero') ?? [];
    const afterBoth = errorsAfter(advice, 'zero and span') ?? [];
    expectAll(wanted, {
      as_found_error: found.readings.map(({ errorPercentSpan }) => errorPercentSpan),
      as_found_max_abs: Math.abs(found.worst?.errorPercentSpan ?? NaN),
      lsq_A: A,
      lsq_B: B,
      lsq_zero_error: zero,
      lsq_gain_error: gain,
      residual_after_lsq: afterLine,
      residual_after_lsq_max_abs: largest(afterLine),
      residual_after_zero_trim: afterZero,
      residual_after_zero_trim_max_abs: worstAfter(advice, 'zero'),
      residual_after_zero_and_span_trim: afterBoth,
      residual_after_zero_and_span_trim_max_abs: worstAfter(advice, 'zero and span'),
      max_hysteresis: portrait.hysteresis?.value ?? null,
      half_max_hysteresis: (portrait.hysteresis?.value ?? NaN) / 2,
      best_possible_zero_only_max_abs: bestByZero(found.readings),
      best_possible_zero_and_span_max_abs: bestByZeroAndSpan(found.readings),
    });
  });

  it.each(
    loadCases<Case<SmartCase, Expect>>('adjustment.json', /^smart_trim$/).map(
      (one) => [one.id, one] as const,
    ),
  )('%s', (_id, { given, expect: wanted }) => {
    const { lrv, urv, readings, sensor_trim: trim, output_trim: loop } = given;
    const range: SignalRange = { lrv, urv, outputLow: 4, outputHigh: 20 };
    const advice = adviseOn({
      range,
      tolerance: spanTolerance(0.05),
      readings: readings.map(({ applied, pv, mA }, index) => ({
        cycle: 1,
        direction: 'up',
        nominalPercent: index * 25,
        applied,
        output: mA,
        digital: pv,
      })),
      body: smart,
      loopTest: { atLow: loop.measured_at_4mA_command, atHigh: loop.measured_at_20mA_command },
      trimmedAt: {
        lower: { applied: trim.lower_applied, digital: trim.lower_pv },
        upper: { applied: trim.upper_applied, digital: trim.upper_pv },
      },
    });
    const { stages } = advice;
    const afterOutput = errorsAfter(advice, 'output trim') ?? [];
    const afterSensor = errorsAfter(advice, 'sensor trim') ?? [];
    const afterBoth = errorsAfter(advice, 'sensor and output trim') ?? [];
    const digitalAfter = (act: Act) => advice.acts.find((one) => one.act === act)?.sensorErrorsPercentSpan;
    expectAll(wanted, {
      sensor_error: stages?.sensor.map((percent) => (percent / 100) * (urv - lrv)),
      sensor_error_pct: stages?.sensor,
      output_error: stages?.output.map((percent) => (percent / 100) * 16),
      output_error_pct: stages?.output,
      total_error_pct: advice.found.readings.map(({ errorPercentSpan }) => errorPercentSpan),
      sensor_lower_trim_only_pv_residual_pct: digitalAfter('zero'),
      sensor_trim_pv_residual_pct: digitalAfter('sensor trim'),
      total_residual_after_sensor_trim_only_pct: afterSensor,
      total_residual_after_output_trim_only_pct: afterOutput,
      total_residual_after_both_pct: afterBoth,
      best_single_trim: largest(afterSensor) <= largest(afterOutput) ? 'sensor' : 'output',
      max_abs_after_sensor_trim_only: largest(afterSensor),
      max_abs_after_output_trim_only: largest(afterOutput),
      max_abs_after_both: largest(afterBoth),
    });
  });
});
