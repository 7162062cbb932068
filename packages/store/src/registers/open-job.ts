/** A job of an instrument at which something can still be kept. */
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';

/**
 * Takes the job for this transaction.
 * @throws StoreError `no-such` where the instrument has no such job, `wrong-stage` where it is signed or cancelled
 */
export async function requireOpenJob(
  tx: Queryable,
  jobId: number,
  { id, tag }: { readonly id: number; readonly tag: string },
): Promise<void> {
  const [job] = await tx.query<{ stage: string }>(
    'select stage from job where id = $1 and instrument_id = $2 for update',
    [jobId, id],
  );
  if (job === undefined) throw new StoreError({ code: 'no-such', what: `job on ${tag}`, name: jobId });
  if (['review', 'closed', 'cancelled'].includes(job.stage))
    throw new StoreError({ code: 'wrong-stage', stage: job.stage, wanted: 'an open job' });
}
