/** Long work in a thread of its own: it takes minutes for a large works, and readings come first. */
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { log } from './answerTo';
import { localDate } from './dates';

export interface TaskApart {
  readonly id: number;
  /** Day of the site, ISO date. */
  readonly day: string;
  readonly url: string;
}

const MOST_MEMORY_MB = 512;

// Kept on the global object, so that development reloads do not start threads each.
const kept = globalThis as typeof globalThis & { barysApart?: Map<string, Piscina<TaskApart, void>> };

function poolOf(worker: string): Piscina<TaskApart, void> {
  const pools = (kept.barysApart ??= new Map<string, Piscina<TaskApart, void>>());
  const before = pools.get(worker);
  if (before !== undefined) return before;
  const pool = new Piscina<TaskApart, void>({
    filename: join(process.cwd(), '.next', `${worker}.mjs`),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 10_000,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
  });
  pools.set(worker, pool);
  return pool;
}

/** Works through what was asked for; how far it is stands in the database, from where it is stopped as well. */
export function workApart(worker: 'calculation-worker' | 'plan-worker', id: number): void {
  const url = process.env['DATABASE_URL'] ?? '';
  poolOf(worker)
    .run({ id, day: localDate(new Date()), url })
    .catch((error: unknown) => log.error({ err: error, worker, id }, 'long work failed'));
}
