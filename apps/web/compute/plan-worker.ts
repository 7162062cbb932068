/** Makes a plan in a thread of its own; built into one file beside the application. */
import { makePlan } from '@barys/plan';
import { openDatabase } from '@barys/store/db';
import { workPlan } from '@barys/store/planning';
import { constants, setPriority } from 'node:os';
import { isMainThread } from 'node:worker_threads';
import type { TaskApart } from '@/server/apart';

// Of this thread alone, as Linux counts: readings come before plans wherever the two meet on a core.
if (!isMainThread) setPriority(constants.priority.PRIORITY_LOW);

/** A plan is as good as what is found in this time. */
const SECONDS = 20;

export default async function work({ id, day, url }: TaskApart): Promise<void> {
  const db = openDatabase(url);
  try {
    await workPlan(db, { id, day }, (problem, watch) => makePlan(problem, { seconds: SECONDS, watch }));
  } finally {
    await db.close();
  }
}
