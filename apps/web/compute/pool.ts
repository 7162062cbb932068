/**
 * Where calculations run: threads of their own, so that no formula keeps the server from taking readings. Each has a limit
 * of time and of memory; what waits is a short queue, and beyond it the answer is to come again.
 */
import { COME_AGAIN_S } from '@/server/problem-details';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import pLimit from 'p-limit';
import { Piscina } from 'piscina';
import { log } from '@/server/answerTo';
import { problem } from './answer';
import type { Computed, ComputeTask } from './worker';

/** Longer than the longest honest Monte Carlo of a million trials takes on a slow machine. */
const LONGEST_MS = 20_000;
const MOST_MEMORY_MB = 256;
/** Servers that share the machine share it for calculations too. */
const SHARING = Number(process.env['BARYS_PROCESSES'] ?? 1);
const MOST_WAITING = Math.ceil(16 / SHARING);

// Kept on the global object, so that development reloads do not start threads each.
const kept = globalThis as typeof globalThis & { barysCompute?: Piscina<ComputeTask, Computed> };

/** One core stays for readings where there are enough; they also come first wherever they meet (`worker.ts`). */
const threads = Math.max(1, Math.floor((availableParallelism() - 1) / SHARING));

/** What waits does so here, so that the limit of time counts from the beginning of the work. */
const turn = pLimit(threads);

const pool = (): Piscina<ComputeTask, Computed> =>
  (kept.barysCompute ??= new Piscina<ComputeTask, Computed>({
    filename: join(process.cwd(), '.next', 'compute-worker.mjs'),
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB, stackSizeMb: 4 },
  }));

const busy = (): Response =>
  problem(503, 'busy', 'Busy', [], `Other calculations come first. Ask again in ${COME_AGAIN_S} seconds.`, {
    'retry-after': String(COME_AGAIN_S),
  });

/**
 * Computes in a thread.
 * @param left ends when the caller has left
 */
export async function computeApart(task: ComputeTask, left: AbortSignal): Promise<Response> {
  if (turn.pendingCount >= MOST_WAITING) return busy();
  return turn(() => computeNow(task, left));
}

async function computeNow(task: ComputeTask, left: AbortSignal): Promise<Response> {
  const tooLong = AbortSignal.timeout(LONGEST_MS);
  try {
    const { status, type, text } = await pool().run(task, { signal: AbortSignal.any([left, tooLong]) });
    return new Response(text, { status, headers: { 'content-type': type } });
  } catch (error) {
    if (left.aborted) return problem(499, 'left', 'The caller has left', []);
    const seconds = LONGEST_MS / 1000;
    if (tooLong.aborted)
      return problem(
        422,
        'too-long-to-compute',
        'Too much',
        [],
        `This takes longer than ${seconds} s. Ask for less.`,
      );
    if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
      return problem(
        422,
        'too-much-memory',
        'Too much',
        [],
        'This takes more memory than there is. Ask for less.',
      );
    log.error({ err: error, calculation: task.name }, 'a calculation failed');
    throw error;
  }
}
