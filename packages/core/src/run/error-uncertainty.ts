/**
 * Expanded uncertainty (k = 2) of the error of one reading: standard, meter and what can be read of each, referred to
 * the output and combined as a root sum of squares (JCGM 100:2008, 5.1.2). What can be read is a rectangular
 * distribution of half a step either way (4.3.7). The inputs are taken as independent, and their degrees of freedom as
 * many, so k = 2 stands for about 95 % (6.3.3).
 */
import { requireNotNegative } from '../errors';
import { share, transferOf, type SignalRange } from '../signal';

export interface ErrorSources {
  /** Of the standard at the applied value, expanded with k = 2, in the input unit. */
  readonly standardInput: number;
  /** Smallest step that the standard shows, in the input unit. */
  readonly standardStepInput: number;
  /** Of the meter at the reading, expanded with k = 2, in the output unit; zero where the output is read by eye. */
  readonly meterOutput: number;
  /** Smallest step of the reading, in the output unit: the meter's last digit, or what is read between two marks. */
  readonly readingStepOutput: number;
}

const RECTANGLE = Math.sqrt(12);

/** The side of the applied value, of the two a standard uncertainty away, at which the ideal output moves further. */
export function furtherSide(range: SignalRange, applied: number, input: number): 1 | -1 {
  return moveOf(range, applied, -input) > moveOf(range, applied, input) ? -1 : 1;
}

/** How far the ideal output moves where the input does. */
function moveOf(range: SignalRange, applied: number, by: number): number {
  const transfer = transferOf(range);
  const span = range.urv - range.lrv;
  const from = share(transfer, (applied - range.lrv) / span);
  const to = share(transfer, (applied + by - range.lrv) / span);
  return Math.abs((range.outputHigh - range.outputLow) * (to - from));
}

/**
 * @returns in the output unit
 * @throws CoreError `negative`, `not-finite`
 * @example
 * errorUncertainty({ lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 }, 50,
 *   { standardInput: 0.02, standardStepInput: 0, meterOutput: 0.003, readingStepOutput: 0 }) // 0.00438634…
 */
export function errorUncertainty(range: SignalRange, applied: number, sources: ErrorSources): number {
  requireNotNegative('The uncertainty of the standard', sources.standardInput, 'standardInput');
  requireNotNegative('The step of the standard', sources.standardStepInput, 'standardStepInput');
  requireNotNegative('The uncertainty of the meter', sources.meterOutput, 'meterOutput');
  requireNotNegative('The step of the reading', sources.readingStepOutput, 'readingStepOutput');
  return (
    2 *
    Math.hypot(
      referredToOutput(
        range,
        applied,
        Math.hypot(sources.standardInput / 2, sources.standardStepInput / RECTANGLE),
      ),
      sources.meterOutput / 2,
      sources.readingStepOutput / RECTANGLE,
    )
  );
}

function referredToOutput(range: SignalRange, applied: number, input: number): number {
  if (transferOf(range).kind === 'linear')
    return input * Math.abs((range.outputHigh - range.outputLow) / (range.urv - range.lrv));
  // A step either way and not the slope: that of a square root has no end at zero.
  return Math.max(moveOf(range, applied, -input), moveOf(range, applied, input));
}
