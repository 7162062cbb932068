/** A procedure's points in the order they are approached. */
import { CoreError, requireFinite } from '../errors';

export type Direction = 'up' | 'down';

export interface TestPoint {
  /** Place in the run, from 1. */
  readonly position: number;
  /** Which way the point is approached. */
  readonly direction: Direction;
  /** Nominal input, per cent of the input span. */
  readonly nominalPercent: number;
}

/**
 * Points up and then down again, the top one approached once: 0, 25, 50, 75, 100, 75, 50, 25, 0.
 * Five up and down is common practice for a first calibration of a linear transmitter.
 * @param percents rising per cents of the input span, at least two
 * @throws CoreError `too-few-points`, `not-finite`
 */
export function upAndDown(percents: readonly number[]): TestPoint[] {
  percents.forEach((percent) => requireFinite('test point', percent));
  const rising = [...new Set(percents)].sort((a, b) => a - b);
  if (rising.length < 2) throw new CoreError({ code: 'too-few-points', count: rising.length, least: 2 });
  const falling = rising.slice(0, -1).reverse();
  const sequence: [Direction, number][] = [
    ...rising.map((percent): [Direction, number] => ['up', percent]),
    ...falling.map((percent): [Direction, number] => ['down', percent]),
  ];
  return sequence.map(([direction, nominalPercent], index) => ({
    position: index + 1,
    direction,
    nominalPercent,
  }));
}
