/** Results of what was signed or brought in before results were kept. */
import type { Database } from '../db/database';
import { keepResultsOf } from './keep';
import { keepPastResults } from './past';

/** Jobs, or instruments with results from before, a transaction. */
const BATCH = 200;

/**
 * Works through what is missing, batch after batch, each in a transaction of its own, so that it goes on where it was cut off. What
 * cannot be worked out is left out, and looked at again the next time.
 */
async function fill(
  db: Database,
  missing: string,
  keep: (...args: Parameters<typeof keepResultsOf>) => Promise<void>,
): Promise<number> {
  let leftOut = 0;
  for (let after = 0; ;) {
    const rows = await db.query<{ id: number }>(`${missing} limit ${BATCH}`, [after]);
    const ids = rows.map(({ id }) => id);
    if (ids.length === 0) return leftOut;
    const isKept = await db
      .transaction((tx) => keep(tx, ids))
      .then(
        () => true,
        () => false,
      );
    // Of a batch with one that cannot be read the others are kept one by one.
    if (!isKept)
      for (const id of ids) await db.transaction((tx) => keep(tx, [id])).catch(() => (leftOut += 1));
    after = ids.at(-1) ?? Infinity;
  }
}

/**
 * Keeps the results of all that has none yet; asked after each migration, and quick where nothing is missing.
 * @returns how many jobs and instruments had to be left out
 */
export async function fillResults(db: Database): Promise<number> {
  const jobs = await fill(
    db,
    `select job.id from job where job.id > $1 and signed_at is not null and reason <> 'hot check'
       and exists (select from run where job_id = job.id)
       and not exists (select from result where job_id = job.id) order by job.id`,
    keepResultsOf,
  );
  const instruments = await fill(
    db,
    `select id from instrument where id > $1
       and exists (select from past_result where instrument_id = instrument.id)
       and not exists (select from result where instrument_id = instrument.id and job_id is null) order by id`,
    keepPastResults,
  );
  return jobs + instruments;
}
