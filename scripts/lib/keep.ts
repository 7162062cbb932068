/** Keeps a server running: one that ends by itself is started again, with growing pauses. */
import { setTimeout as sleep } from 'node:timers/promises';
import { Failure } from './failure';

export interface Server {
  /** Resolves when it has ended, asked or not. */
  readonly ended: Promise<void>;
}

const FIRST_PAUSE_MS = 1000;
const LONGEST_PAUSE_MS = 60_000;
/** Who ran as long as this has come back for good: the next pause is short again. */
const STEADY_MS = 60_000;

/**
 * @param name in words, such as `The web server`
 * @param again starts it anew; a failure is told and tried again
 * @param isStopping whether the whole of it is being stopped, so that nothing is started any more
 */
export async function keepRunning(
  name: string,
  first: Server,
  again: () => Promise<Server>,
  isStopping: () => boolean,
): Promise<void> {
  let pauseMs = FIRST_PAUSE_MS;
  for (let server: Server | null = first; ;) {
    const beganAt = Date.now();
    await server?.ended;
    if (isStopping()) return;
    if (server !== null && Date.now() - beganAt > STEADY_MS) pauseMs = FIRST_PAUSE_MS;
    console.log(`${name} ended; starting it again in ${pauseMs / 1000} s ...`);
    await sleep(pauseMs);
    pauseMs = Math.min(pauseMs * 2, LONGEST_PAUSE_MS);
    if (isStopping()) return;
    try {
      server = await again();
      console.log(`${name} runs again.`);
    } catch (error) {
      server = null;
      console.error(error instanceof Failure ? error.message : error);
    }
  }
}
