/** Results of what was signed or brought in before results were kept. */
import type { Database } from '../db/database';
import { keepResultsOf } from './keep';
import { keepPastResults } from './past';

/** Jobs, or instruments with results from before, a transaction. */
const BATCH = 200;

/** Works through what is missing, batch after batch, each in a transaction of its own, so that it goes on where it was cut off. */
async function fill(
  db: Database,
  missing: string,
  keep: (...args: Parameters<typeof keepResultsOf>) => Promise<void>,
): Promise<void> {
  for (let after = 0; ;) {
    const rows = await db.query<{ id: number }>(`${missing} limit ${BATCH}`, [after]);
    const ids = rows.map(({ id }) => id);
    if (ids.length === 0) return;
    await db.transaction((tx) => keep(tx, ids));
    after = ids.at(-1) ?? Infinity;
  }
}

/** Keeps the results of all that has none yet; asked after each migration, and quick where nothing is missing. */
export async function fillResults(db: Database): Promise<void> {
  await fill(
    db,
    `select job.id from job where job.id > $1 and signed_at is not null and reason <> 'hot check'
       and exists (select from run where job_id = job.id)
       and not exists (select from result where job_id = job.id) order by job.id`,
    keepResultsOf,
  );
  await fill(
    db,
    `select id from instrument where id > $1
       and exists (select from past_result where instrument_id = instrument.id)
       and not exists (select from result where instrument_id = instrument.id and job_id is null) order by id`,
    keepPastResults,
  );
}
