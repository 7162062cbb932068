/** A procedure's points in the order they are approached. */
import { CoreError, requireBetween, requireFinite, requireWhole } from '../errors';
import {
  appliedAtOutputPercent,
  appliedAtPercent,
  checkRange,
  transferOf,
  type SignalRange,
} from '../signal';

export type Direction = 'up' | 'down';

export interface TestPoint {
  /** Place in the run, from 1. */
  readonly position: number;
  /** Which way the point is approached. */
  readonly direction: Direction;
  /** Nominal input, per cent of the input span. */
  readonly nominalPercent: number;
}

/** Points by what they are counted in: absolute ones in the input unit. */
export interface Points {
  readonly in: 'percent-of-input' | 'percent-of-output' | 'absolute';
  readonly values: readonly number[];
}

export interface Procedure {
  readonly points: Points;
  readonly direction: Direction | 'up-and-down';
  /** How often the whole climb is done. */
  readonly cycles: number;
  /** Whether the turning point is approached again on the way back. */
  readonly isTopRepeated?: boolean;
  /**
   * How far the lowest and highest point are moved in, per cent of the input span: an output lying on its stop would
   * show no error on one side.
   */
  readonly offStopsPercent?: number;
}

export interface PlannedPoint extends TestPoint {
  readonly cycle: number;
  /** In the input unit. */
  readonly applied: number;
}

const MOST_POINTS = 1000;

/**
 * Points up and then down again, the top one approached once: 0, 25, 50, 75, 100, 75, 50, 25, 0.
 * Five up and down is common practice for a first calibration of a linear transmitter.
 * @param percents per cents of the input span, at least two different ones
 * @throws CoreError `too-few-points`, `not-finite`
 */
export function upAndDown(percents: readonly number[]): TestPoint[] {
  return sequence(rising(percents, 2), 'up-and-down', false).map(([direction, nominalPercent], index) => ({
    position: index + 1,
    direction,
    nominalPercent,
  }));
}

function rising(percents: readonly number[], least: number): number[] {
  percents.forEach((percent) => requireFinite('test point', percent, 'points'));
  const sorted = [...new Set(percents)].sort((a, b) => a - b);
  if (sorted.length < least)
    throw new CoreError({ code: 'too-few-points', count: sorted.length, least }, 'points');
  return sorted;
}

function sequence(
  up: readonly number[],
  direction: Procedure['direction'],
  isTopRepeated: boolean,
): (readonly [Direction, number])[] {
  const climb = up.map((percent) => ['up', percent] as const);
  const descent = up.toReversed().map((percent) => ['down', percent] as const);
  if (direction === 'up') return climb;
  if (direction === 'down') return descent;
  return [...climb, ...(isTopRepeated ? descent : descent.slice(1))];
}

/**
 * The points of a procedure for a range, cycle after cycle.
 * @throws CoreError `too-few-points`, `too-many`, `out-of-bounds`, `not-whole`, and as `checkRange`
 */
export function plannedPoints(procedure: Procedure, range: SignalRange): PlannedPoint[] {
  checkRange(range);
  requireWhole('The number of cycles', procedure.cycles, 1, 'cycles');
  const off = procedure.offStopsPercent ?? 0;
  requireBetween('The distance from the stops', off, [0, 20, '% of span'], 'offStopsPercent');
  const count = procedure.points.values.length * procedure.cycles * 2;
  if (count > MOST_POINTS)
    throw new CoreError({ code: 'too-many', name: 'Test points', count, most: MOST_POINTS }, 'points');
  const nominal = rising(
    procedure.points.values.map((value) => percentOf(value, procedure.points.in, range)),
    1,
  );
  const percents = nominal.map((percent) => Math.min(100 - off, Math.max(off, percent)));
  const steps = sequence(
    rising(off > 0 ? percents : nominal, 1),
    procedure.direction,
    procedure.isTopRepeated ?? false,
  );
  return Array.from({ length: procedure.cycles }, (_, cycle) =>
    steps.map(([direction, nominalPercent], index) => ({
      position: cycle * steps.length + index + 1,
      cycle: cycle + 1,
      direction,
      nominalPercent,
      applied: appliedAtPercent(range, nominalPercent),
    })),
  ).flat();
}

function percentOf(value: number, kind: Points['in'], range: SignalRange): number {
  requireFinite('test point', value, 'points');
  if (kind === 'percent-of-input') return value;
  const applied = kind === 'absolute' ? value : appliedAtOutputPercent(range, value);
  // Ten places keep 33.3 of 100 at 33.3 and group the readings of a point over all cycles.
  return Number((((applied - range.lrv) / (range.urv - range.lrv)) * 100).toFixed(10));
}

/**
 * Evenly spaced points from 0 to 100 %: of the output where a root is taken, so that they are even in flow (the
 * default for square-root instruments), else of the input.
 * @param count at least two
 */
export function evenPoints(
  count: number,
  range: SignalRange,
  evenIn: 'flow' | 'differential' = 'flow',
): Points {
  requireWhole('The number of points', count, 2, 'points');
  if (count > MOST_POINTS)
    throw new CoreError({ code: 'too-many', name: 'Test points', count, most: MOST_POINTS }, 'points');
  const isRoot = transferOf(range).kind.startsWith('square-root');
  return {
    in: isRoot && evenIn === 'flow' ? 'percent-of-output' : 'percent-of-input',
    values: Array.from({ length: count }, (_, index) => Number(((index / (count - 1)) * 100).toFixed(10))),
  };
}
