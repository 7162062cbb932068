/** The core's figures for a stored run. Free of PostgreSQL, so that a browser can judge what it has just sent. */
import { evaluateRun, spanTolerance, type RunEvaluation, type RunReading } from '@barys/core';
import { StoreError } from './errors';
import type { MadeWith, Reading } from './runs';

export interface StoredRun {
  readonly madeWith: Pick<MadeWith, 'configuration' | 'tolerance' | 'points'>;
  readonly readings: readonly Pick<Reading, 'position' | 'applied' | 'output'>[];
}

/** Points of a run that have no reading yet. */
export function missingPoints(run: StoredRun): number {
  return run.madeWith.points.length - run.readings.length;
}

/**
 * The readings of a run as the core takes them, in the order of `run.readings`.
 * @throws StoreError `no-such-point`
 */
export function readingsOf(run: StoredRun): RunReading[] {
  const { points } = run.madeWith;
  return run.readings.map(({ position, applied, output }) => {
    const point = points.find((one) => one.position === position);
    if (point === undefined) throw new StoreError({ code: 'no-such-point', position });
    const { cycle, direction, nominalPercent } = point;
    return { cycle, direction, nominalPercent, applied, output };
  });
}

/** Evaluates readings against the range and tolerance of a run. */
export function evaluateReadings(run: StoredRun, readings: readonly RunReading[]): RunEvaluation {
  const { configuration, tolerance } = run.madeWith;
  return evaluateRun(
    configuration,
    spanTolerance(tolerance.percentOfSpan, tolerance.adjustAbovePercentOfLimit),
    readings,
  );
}

/**
 * Evaluates what there is of a run; the figures' readings stand in the order of `run.readings`.
 * @throws StoreError `no-such-point`
 */
export const evaluateStoredRun = (run: StoredRun): RunEvaluation => evaluateReadings(run, readingsOf(run));
