/** Seals the trail: every second, and at once after a signature. One a process; the database sees to one at a time. */
import { isDatabaseAway, SealFolder, sealTrail } from '@barys/store/db';
import { setTimeout as sleep } from 'node:timers/promises';
import { database } from './database';
import { logOf } from './log';

const log = logOf('barys-sealer');
const EVERY_MS = 1000;
/** How long a signature waits for its seal; the next second makes up for one that took longer. */
const PATIENCE_MS = 2000;

// Kept on the global object: the server's start and its pages are bundled apart.
const kept = globalThis as typeof globalThis & { barysSeals?: SealFolder; barysSealing?: Promise<void> };

/** The folder of keys and anchors of this installation. */
export function sealFolder(): SealFolder {
  const folder = process.env['BARYS_SEALS'];
  if (folder === undefined) throw new Error('BARYS_SEALS is not set; start Barys with "npm start".');
  return (kept.barysSeals ??= SealFolder.open(folder));
}

let isTold = false;

/** Seals what is committed; what cannot be sealed now is the next second's. */
async function sealOnce(): Promise<void> {
  try {
    await sealTrail(database(), sealFolder());
    isTold = false;
  } catch (error) {
    // A database that is away or a full disk is said once, not every second.
    if (!isTold && !isDatabaseAway(error)) log.error({ err: error }, 'the trail could not be sealed');
    isTold = true;
  }
}

/** Seals at once, after what is being sealed already; returns when it is done or would take too long. */
export async function sealNow(): Promise<void> {
  await Promise.race([(kept.barysSealing ?? Promise.resolve()).then(sealOnce), sleep(PATIENCE_MS)]);
}

/** Begins to seal every second. */
export function startSealer(): void {
  // Opened here, so that a folder that cannot be used is known at the start and not at a signature.
  sealFolder();
  setInterval(() => {
    if (kept.barysSealing !== undefined) return;
    kept.barysSealing = sealOnce().finally(() => {
      kept.barysSealing = undefined;
    });
  }, EVERY_MS).unref();
}
