/**
 * Expanded uncertainty (k = 2) of the error of one reading: standard, meter and what can be read of each, referred to
 * the output and combined as a root sum of squares (JCGM 100:2008, 5.1.2). What can be read is a rectangular
 * distribution of half a step either way (4.3.7). The inputs are taken as independent, and their degrees of freedom as
 * many, so k = 2 stands for about 95 % (6.3.3).
 */
import { requireNotNegative } from '../errors';
import { expectedOutput, type SignalRange } from '../signal';

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
  const input = Math.hypot(sources.standardInput / 2, sources.standardStepInput / RECTANGLE);
  const ideal = expectedOutput(range, applied);
  // A step either way and not the slope: that of a square root has no end at zero.
  const referred = Math.max(
    Math.abs(expectedOutput(range, applied + input) - ideal),
    Math.abs(expectedOutput(range, applied - input) - ideal),
  );
  return 2 * Math.hypot(referred, sources.meterOutput / 2, sources.readingStepOutput / RECTANGLE);
}
