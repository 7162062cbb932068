/** Works a calculation of intervals through in a thread of its own; built into one file beside the application. */
import { openDatabase } from '@barys/store/db';
import { calculate } from '@barys/store/intervals';
import { constants, setPriority } from 'node:os';
import { isMainThread } from 'node:worker_threads';
import type { TaskApart } from '@/server/apart';

// Of this thread alone, as Linux counts: readings come before calculations wherever the two meet on a core.
if (!isMainThread) setPriority(constants.priority.PRIORITY_LOW);

export default async function work({ id, day, url }: TaskApart): Promise<void> {
  const db = openDatabase(url);
  try {
    await calculate(db, id, day);
  } finally {
    await db.close();
  }
}
