import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';

/** @throws StoreError `run-superseded` where the run was thrown away */
export async function requireRunCounts(tx: Queryable, runId: number): Promise<void> {
  const thrown = await tx.query('select from run_thrown_away where run_id = $1', [runId]);
  if (thrown.length > 0) throw new StoreError({ code: 'run-superseded' });
}
