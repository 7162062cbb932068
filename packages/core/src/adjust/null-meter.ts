/**
 * Deviations read at a null meter, which is set to stand at nothing where the output is 0 % or 100 % of its span: they are
 * typed instead of the output, in their own unit, with their few digits.
 */
import { CoreError } from '../errors';
import { exactSum } from '../exact';
import type { SignalRange } from '../signal';

export const NULL_UNITS = ['output unit', '% of span'] as const;
export type NullUnit = (typeof NULL_UNITS)[number];

/** Which end of the output the meter is set to. */
export type NullAt = 0 | 100;

/**
 * The output that a deviation stands for, in the output unit; decimals stay decimals.
 * @throws CoreError `not-finite`
 * @example outputOfDeviation({ lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 }, 100, '% of span', -0.15) // 19.976
 */
export function outputOfDeviation(
  { outputLow, outputHigh }: SignalRange,
  at: NullAt,
  unit: NullUnit,
  deviation: number,
): number {
  if (!Number.isFinite(deviation))
    throw new CoreError({ code: 'not-finite', name: 'A deviation', value: deviation }, 'deviation');
  const inOutput =
    unit === 'output unit'
      ? deviation
      : Number(((deviation * Math.abs(outputHigh - outputLow)) / 100).toPrecision(12));
  return exactSum(at === 0 ? outputLow : outputHigh, inOutput);
}
