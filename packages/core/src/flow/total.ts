/** Totals of a flow over time, and the factor of a totaliser (plain arithmetic). */
import { CoreError, requirePositive } from '../errors';
import type { Transfer } from '../signal';
import { flowAt, type FlowScale } from './root';

export interface FlowSample {
  /** In the unit of time. */
  readonly time: number;
  readonly flow: number;
}

export interface Totals {
  /** Straight lines between the samples. */
  readonly trapezoid: number;
  /** Each sample until the next, and each back to the one before. */
  readonly holdPrevious: number;
  readonly holdNext: number;
  /** Mean flow by the trapezoids. */
  readonly mean: number;
}

/**
 * What has flowed.
 * @param perUnitTime units of time in the time that the flow is per: 60 where a flow is per hour and time in minutes
 * @throws CoreError `too-few-points`, `not-rising`, `not-positive`
 */
export function totalsOf(samples: readonly FlowSample[], perUnitTime: number): Totals {
  requirePositive('The time that a flow is per', perUnitTime, 'perUnitTime');
  if (samples.length < 2)
    throw new CoreError({ code: 'too-few-points', count: samples.length, least: 2 }, 'samples');
  let [trapezoid, holdPrevious, holdNext] = [0, 0, 0];
  samples.forEach((sample, index) => {
    const before = samples[index - 1];
    if (before === undefined) return;
    const step = (sample.time - before.time) / perUnitTime;
    if (!(step > 0)) throw new CoreError({ code: 'not-rising', name: 'The time' }, 'samples');
    trapezoid += ((sample.flow + before.flow) / 2) * step;
    holdPrevious += before.flow * step;
    holdNext += sample.flow * step;
  });
  const span = ((samples.at(-1)?.time ?? 0) - (samples[0]?.time ?? 0)) / perUnitTime;
  return { trapezoid, holdPrevious, holdNext, mean: trapezoid / span };
}

export interface DifferentialSample {
  readonly time: number;
  readonly differential: number;
}

/**
 * The same from differentials: the root is taken of each, and not of their mean, which would show more.
 * @throws CoreError as `totalsOf` and `flowAt`
 */
export function totalsOfDifferential(
  scale: FlowScale,
  samples: readonly DifferentialSample[],
  perUnitTime: number,
  transfer?: Transfer,
): Totals & { readonly flowOfMeanDifferential: number } {
  const flows = samples.map(({ time, differential }) => ({
    time,
    flow: flowAt(scale, differential, transfer),
  }));
  const means = totalsOf(
    samples.map(({ time, differential }) => ({ time, flow: differential })),
    perUnitTime,
  );
  return {
    ...totalsOf(flows, perUnitTime),
    flowOfMeanDifferential: flowAt(scale, means.mean, transfer),
  };
}

/**
 * Factor of a totaliser: what one count is worth, in the unit of the flow's volume or mass.
 * @param countsPerTime counts at full scale in the time that the flow is per
 * @throws CoreError `not-positive`
 */
export function totaliserFactor({ flowMax }: Pick<FlowScale, 'flowMax'>, countsPerTime: number): number {
  requirePositive('The flow at full scale', flowMax, 'flowMax');
  requirePositive('Counts at full scale', countsPerTime, 'countsPerTime');
  return flowMax / countsPerTime;
}
