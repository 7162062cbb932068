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

it('the results of every signed job are filled in, as judging again says, and each drift is that from left to found', async () => {
  const closed = await closedJobs(base.app, 200);
  const kept = await base.app.query<{
    job: number;
    kind: string;
    left: boolean;
    verdict: string;
    errors: number[];
    zero: number;
    drift: number | null;
    since: number | null;
    instrument: number;
    day: string;
  }>(
    `select job_id as job, kind, is_left as left, verdict, error_percent as errors, zero_percent as zero,
       drift_zero_percent as drift, since_days as since, instrument_id as instrument, done_on as day
     from result order by instrument_id, done_on, kind`,
  );
  for (const { id } of closed) {
    const job = await loadJob(base.app, id);
    const [found, left] = [asFoundRun(job), asLeftRun(job)];
    const rows = kept.filter((row) => row.job === id);
    expect(rows.map(({ kind, left: isLeft }) => [kind, isLeft])).toEqual(
      left === null
        ? [['as-found', true]]
        : [
            ['as-found', false],
            ['as-left', true],
          ],
    );
    for (const [index, run] of [found, left].entries()) {
      if (run === null) continue;
      const evaluation = evaluateStoredRun(run);
      expect(rows[index]?.verdict).toBe(evaluation.verdict);
      expect(rows[index]?.errors).toEqual(
        evaluation.readings.map(({ errorPercentSpan }) => errorPercentSpan),
      );
    }
  }
  const drifted = kept.filter(({ drift }) => drift !== null);
  expect(drifted.length).toBeGreaterThan(10);
  for (const row of drifted) {
    const before = kept[kept.indexOf(row) - 1];
    expect([before?.instrument, before?.left]).toEqual([row.instrument, true]);
    expect(row.drift).toBeCloseTo(row.zero - (before?.zero ?? NaN), 12);
    expect(row.since).toBe((Date.parse(row.day) - Date.parse(before?.day ?? '')) / 86_400_000);
  }
  await base.owner.query('truncate result');
  // One record that nobody can read any more keeps none of the others back.
  const [spoilt] = await base.owner.query<{ id: number; made: object }>(
    `select id, made_with as made from run where job_id = (select min(job_id) from run where kind = 'as-found') limit 1`,
  );
  const spoil = async (made: object) => {
    await base.owner.query('alter table run disable trigger user');
    await base.owner.query('update run set made_with = $2 where id = $1', [spoilt?.id, made]);
    await base.owner.query('alter table run enable trigger user');
  };
  await spoil({ nothing: true });
  await migrate(base.ownerUrl);
  const without = await base.app.query('select from result');
  expect(without.length).toBeGreaterThan(kept.length - 3);
  expect(without.length).toBeLessThan(kept.length);
  await spoil(spoilt?.made ?? {});
  await migrate(base.ownerUrl);
  expect(await base.app.query('select from result')).toHaveLength(kept.length);
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
