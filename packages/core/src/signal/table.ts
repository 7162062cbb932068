/** The table of expected values of a range, at even steps of input or of output. */
import { CoreError, requireBetween, requirePositive } from '../errors';
import {
  appliedAtOutputPercent,
  appliedAtPercent,
  checkRange,
  expectedOutput,
  type SignalRange,
} from './range';

export interface ExpectedRow {
  /** Per cent of the input span, 0 at LRV. */
  readonly inputPercent: number;
  /** In the input unit. */
  readonly applied: number;
  /** In the output unit. */
  readonly output: number;
  /** Per cent of the output span. */
  readonly outputPercent: number;
}

const MOST_ROWS = 1001;

/**
 * Expected values from 0 to 100 % at a step; the last row is 100 % whatever the step.
 * @param stepPercent above zero; even in input, or in output for a square-root instrument tested at even flows
 * @throws CoreError `not-positive`, `out-of-bounds` above 100, `too-many`, and as `checkRange`
 */
export function expectedTable(
  range: SignalRange,
  stepPercent: number,
  evenIn: 'input' | 'output' = 'input',
): ExpectedRow[] {
  checkRange(range);
  requirePositive('The step', stepPercent, 'stepPercent');
  requireBetween('The step', stepPercent, [0, 100, '%'], 'stepPercent');
  const steps = Math.ceil(100 / stepPercent - 1e-9);
  if (steps + 1 > MOST_ROWS)
    throw new CoreError({ code: 'too-many', name: 'Rows', count: steps + 1, most: MOST_ROWS }, 'stepPercent');
  return Array.from({ length: steps + 1 }, (_, index) => {
    // Twelve places keep a step like 0.1 from showing its binary remainder.
    const percent = index === steps ? 100 : Number((index * stepPercent).toFixed(12));
    const applied =
      evenIn === 'input' ? appliedAtPercent(range, percent) : appliedAtOutputPercent(range, percent);
    const output = expectedOutput(range, applied);
    return {
      inputPercent: ((applied - range.lrv) / (range.urv - range.lrv)) * 100,
      applied,
      output,
      outputPercent: ((output - range.outputLow) / (range.outputHigh - range.outputLow)) * 100,
    };
  });
}
