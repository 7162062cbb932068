/** The core's figures for a stored run. Free of PostgreSQL, so that a browser can judge what it has just sent. */
import { evaluateRun, spanTolerance, type RunEvaluation } from '@barys/core';
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
 * Evaluates what there is of a run; the figures' readings stand in the order of `run.readings`.
 * @throws StoreError `no-such-point`
 */
export function evaluateStoredRun(run: StoredRun): RunEvaluation {
  const { configuration, tolerance, points } = run.madeWith;
  return evaluateRun(
    configuration,
    spanTolerance(tolerance.percentOfSpan, tolerance.adjustAbovePercentOfLimit),
    run.readings.map(({ position, applied, output }) => {
      const point = points.find((one) => one.position === position);
      if (point === undefined) throw new StoreError({ code: 'no-such-point', position });
      return { cycle: 1, direction: point.direction, nominalPercent: point.nominalPercent, applied, output };
    }),
  );
}
