/** The calculation of all advice, in a thread of its own: it takes minutes for a large works, and readings come first. */
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { log } from './answerTo';
import { localDate } from './dates';

export interface CalculationTask {
  readonly id: number;
  /** Day of the site, ISO date. */
  readonly day: string;
  readonly url: string;
}

const MOST_MEMORY_MB = 512;

// Kept on the global object, so that development reloads do not start threads each.
const kept = globalThis as typeof globalThis & { barysCalculation?: Piscina<CalculationTask, void> };

const pool = (): Piscina<CalculationTask, void> =>
  (kept.barysCalculation ??= new Piscina<CalculationTask, void>({
    filename: join(process.cwd(), '.next', 'calculation-worker.mjs'),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 10_000,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
  }));

/** Works a calculation through that was asked for; how far it is stands in the database, from where it is stopped as well. */
export function calculateApart(id: number): void {
  const url = process.env['DATABASE_URL'] ?? '';
  pool()
    .run({ id, day: localDate(new Date()), url })
    .catch((error: unknown) =>
      log.error({ err: error, calculation: id }, 'a calculation of intervals failed'),
    );
}
