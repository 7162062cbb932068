/** Readings of many desks in one statement: each is kept or refused as if it had come alone. */
import { beforeAll, expect, it } from 'vitest';
import type { Database } from '../src/db/database';
import { addInstrument } from '../src/registers/instruments';
import { saveReading, writingTogether, type TypedReading } from '../src/runs';
import { entry, jobAtAsFound, openWorks, RANGE, reading } from './works';

const { base, works } = await openWorks();
const { technician, colleague, auditor } = works;
const DESKS = 12;
let runs: number[];

beforeAll(async () => {
  const { jobId, runId } = await jobAtAsFound(base.app, technician);
  for (let number = 2; number <= DESKS; number += 1)
    await base.owner.transaction((tx) =>
      addInstrument(tx, technician, entry({ bodyId: 1, tag: `PT-${number}` }), RANGE),
    );
  const others = await base.owner.query<{ id: number }>(
    `with works as (
       insert into job (instrument_id, reason, stage, opened_by, opened_at, instrument_copy)
       select instrument.id, reason, stage, opened_by, opened_at, instrument_copy from job, instrument
       where job.id = $1 and tag <> 'PT-1' returning id
     )
     insert into run (job_id, kind, pass, made_with, started_by, started_at)
     select works.id, kind, pass, made_with, started_by, started_at from works, run where run.id = $2 returning id`,
    [jobId, runId],
  );
  runs = [runId, ...others.map(({ id }) => id)];
});

/** The database, and how many statements were sent to it. */
function counted(): { readonly db: Database; readonly count: () => number } {
  let sent = 0;
  const statement: Database['statement'] = (act) => {
    sent += 1;
    return base.app.statement(act);
  };
  return { db: { ...base.app, statement }, count: () => sent };
}

const kept = async (): Promise<number> => (await base.owner.query('select from reading')).length;

type Said = string | number;

/** What comes of entries that come at the same moment, each as a number or as what it was refused for. */
function saidOf(
  write: ReturnType<typeof writingTogether>,
  entries: readonly {
    readonly runId: number;
    readonly entry: TypedReading;
    readonly by?: typeof technician;
  }[],
): Promise<Said[]> {
  return Promise.all(
    entries.map(({ runId, entry: one, by = technician }) =>
      saveReading(base.app, by, runId, one, write).then(({ id }) => id, String),
    ),
  );
}

it('readings of twelve desks take two statements, and each is kept in its run with its own entries in the trail', async () => {
  const { db, count } = counted();
  const before = await kept();
  const said = await saidOf(
    writingTogether(db),
    runs.map((runId, index) => ({ runId, entry: reading(1, `4.0${10 + index}`) })),
  );
  expect(new Set(said).size).toBe(DESKS);
  expect(await kept()).toBe(before + DESKS);
  expect(count()).toBe(2);
  const rows = await base.owner.query<{
    id: number;
    run: number;
    output: string;
    acts: number;
    records: number;
  }>(
    `select id, run_id as run, output_text as output,
       (select count(*)::int from audit_entry where act = 'save reading' and detail->'reading' = to_jsonb(reading.id)
         and detail->'run' = to_jsonb(run_id) and detail->>'output' = output_text
         and subject_id = (select job_id from run where id = run_id)) as acts,
       (select count(*)::int from record_entry where kind = 'reading' and record_id = reading.id
         and after->>'output_text' = output_text) as records
     from reading where position = 1 order by id`,
  );
  expect(rows).toHaveLength(DESKS);
  for (const [index, runId] of runs.entries())
    expect(rows.find(({ run }) => run === runId)).toMatchObject({
      id: said[index],
      output: `4.0${10 + index}`,
      acts: 1,
      records: 1,
    });
});

it('one that is refused is told why, and keeps none of the others out', async () => {
  const [stopped = 0, unreadable = 0, mute = 0, ...others] = runs;
  await base.owner.query(`update job set stage = 'judge' where id = (select job_id from run where id = $1)`, [
    stopped,
  ]);
  const said = await saidOf(writingTogether(base.app), [
    // The first goes by itself.
    { runId: others[0] ?? 0, entry: reading(2, '8.001') },
    { runId: stopped, entry: reading(2, '8.001') },
    // Text that PostgreSQL takes for no browser's number ends the whole statement.
    { runId: unreadable, entry: reading(2, '8.002', { desk: 'x' }) },
    { runId: mute, entry: reading(2, '8.003'), by: auditor },
    ...others.slice(1).map((runId) => ({ runId, entry: reading(2, '8.004') })),
    { runId: 999_999, entry: reading(2, '8.005') },
  ]);
  expect(said.map((one) => (typeof one === 'number' ? 'kept' : one))).toEqual([
    'kept',
    expect.stringContaining('The job is at judge'),
    expect.stringContaining('invalid input syntax for type uuid'),
    expect.stringContaining('may not do this'),
    ...others.slice(1).map(() => 'kept'),
    expect.stringContaining('There is no run 999999'),
  ]);
  const there = await base.owner.query<{ run: number }>(
    'select run_id as run from reading where position = 2',
  );
  expect(there.map(({ run }) => run).sort((a, b) => a - b)).toEqual(others);
  await base.owner.query(
    `update job set stage = 'as-found' where id = (select job_id from run where id = $1)`,
    [stopped],
  );
});

it('of two at one point of a run one is kept, and the same one sent twice is kept once', async () => {
  const [first = 0, second = 0, third = 0] = runs;
  const twice = reading(3, '12.001');
  const said = await saidOf(writingTogether(base.app), [
    { runId: first, entry: reading(3, '12.000') },
    { runId: second, entry: twice },
    { runId: second, entry: { ...twice } },
    { runId: third, entry: reading(3, '12.002') },
    { runId: third, entry: reading(3, '12.003'), by: colleague },
    // Under the key of another run's.
    { runId: first, entry: { ...reading(4, '16.001'), clientKey: twice.clientKey } },
  ]);
  expect(said[1]).toBe(said[2]);
  expect(said[3]).toEqual(expect.any(Number));
  expect(said[4]).toContain('already has the reading 12.002');
  expect(said[5]).toContain('under this key before');
  const there = await base.owner.query('select from reading where position in (3, 4)');
  expect(there).toHaveLength(3);
});

it('where the database is away, each hears it from the one statement that was tried', async () => {
  let sent = 0;
  const away = Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' });
  const statement = (): Promise<never> => {
    sent += 1;
    return Promise.reject(away);
  };
  const write = writingTogether({ ...base.app, statement });
  const said = await saidOf(
    write,
    runs.map((runId) => ({ runId, entry: reading(5, '20.001') })),
  );
  expect(said).toEqual(runs.map(() => String(away)));
  expect(sent).toBe(2);
  // And the next one is tried anew.
  await saidOf(write, [{ runId: runs[0] ?? 0, entry: reading(5, '20.001') }]);
  expect(sent).toBe(3);
});

it('one that is held up holds up nobody else', async () => {
  const [first = 0, second = 0, third = 0] = runs;
  const write = writingTogether(base.app);
  let isSaved = false;
  const { held } = await base.owner.transaction(async (tx) => {
    // What a reading refers to is held by somebody.
    await tx.query('select from person where id = $1 for update', [colleague.personId]);
    const held = saveReading(base.app, colleague, first, reading(6, '16.001'), write).then((one) => {
      isSaved = true;
      return one;
    });
    const others = await saidOf(write, [
      { runId: second, entry: reading(6, '16.002') },
      { runId: third, entry: reading(6, '16.003') },
    ]);
    expect(others).toEqual([expect.any(Number), expect.any(Number)]);
    expect(isSaved).toBe(false);
    return { held };
  });
  expect((await held).id).toBeGreaterThan(0);
});
