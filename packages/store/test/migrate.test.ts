/** Migration of a database as an earlier version left it, with the demo's two years of jobs in it. */
import { gunzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { asFoundRun, asLeftRun, closedJobs, loadJob, openJobs } from '../src/jobs/file';
import { evaluateStoredRun } from '../src/runs/evaluation';
import { findInstrument } from '../src/registers/instruments';
import { migrate } from '../src/db/migrate';
import { soundness, throwaway, type Throwaway } from './throwaway';

/** What `pg_dump --inserts` wrote of a database of version 0015, planted for 4 May 2026 by the code of that version. */
const DUMP = new URL('landed/0015.sql.gz', import.meta.url);

let base: Throwaway;
let before: { jobs: object[]; readings: object[]; entries: number };

beforeAll(async () => {
  base = await throwaway('template0');
  await base.owner.query(gunzipSync(readFileSync(DUMP)).toString('utf8'));
  await base.owner.query(`set search_path = public`);
  before = {
    jobs: await base.owner.query(
      'select job.id, tag, service, area, stage, as_found_verdict as found, as_left_verdict as left, signed_at as at from public.job join public.instrument on instrument.id = instrument_id order by job.id',
    ),
    readings: await base.owner.query(
      'select id, output_text, output, read_at from public.reading order by id',
    ),
    entries: (await base.owner.query('select from public.audit_entry')).length,
  };
  const applied = await migrate(base.ownerUrl);
  expect(applied[0]).toBe('0016_not-judged');
}, 120_000);
afterAll(() => base.drop());

it('every job and reading is there as it was', async () => {
  expect(before.jobs.length).toBeGreaterThan(30);
  const jobs = await base.app.query(
    `select id, instrument_copy ->> 'tag' as tag, instrument_copy ->> 'service' as service, instrument_copy ->> 'area' as area,
       stage, as_found_verdict as found, as_left_verdict as left, signed_at as at from job order by id`,
  );
  expect(jobs).toEqual(before.jobs);
  expect(await base.app.query('select id, output_text, output, read_at from reading order by id')).toEqual(
    before.readings,
  );
});

it('every run names its connection, and no verdict of a signed job is another one', async () => {
  const closed = await closedJobs(base.app, 200);
  for (const { id } of closed) {
    const job = await loadJob(base.app, id);
    for (const run of job.runs) expect(run.connectionId).toBe(job.connections[0]?.id);
    const found = asFoundRun(job);
    const left = asLeftRun(job) ?? found;
    expect([found && evaluateStoredRun(found).verdict, left && evaluateStoredRun(left).verdict]).toEqual([
      job.asFoundVerdict,
      job.asLeftVerdict,
    ]);
    expect(job.since).toEqual([]);
  }
  expect(closed.length).toBeGreaterThan(20);
  for (const { id } of await openJobs(base.app, 100)) await loadJob(base.app, id);
  expect((await findInstrument(base.app, { tag: 'PT-2107' })).tag).toBe('PT-2107');
});

it('the trail of before is carried into the first seal', async () => {
  expect(await soundness(base.app)).toBe('sound');
  const [first] = await base.app.query<{ covered: number }>(
    `select count(*) as covered from audit_entry where previous_hash is not null
       and exists (select from seal where number = 1 and is_migration and entries @> audit_entry.id)`,
  );
  expect(first?.covered).toBe(before.entries);
  const [seals] = await base.app.query<{ count: number }>('select count(*) as count from seal');
  expect(seals?.count).toBe(1);
});
