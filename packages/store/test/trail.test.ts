import { expect, it } from 'vitest';
import { firstBrokenEntry, openJob, passAsked, saveReading } from '../src/index';
import { jobAtAsFound, openWorks, reading, TAG } from './works';

const { base, works } = await openWorks();

/** Someone with every right over the server, who takes the guard away first. */
const tamper = (sql: string) =>
  base.owner.transaction(async (tx) => {
    await tx.query('alter table audit_entry disable trigger append_only');
    await tx.query('alter table audit_entry disable trigger chain');
    await tx.query(sql);
    await tx.query('alter table audit_entry enable trigger append_only');
    await tx.query('alter table audit_entry enable trigger chain');
  });

it('each act leaves one entry with who, what and when, and the chain is sound', async () => {
  const [planted] = await base.app.query<{ last: number }>('select max(id) as last from audit_entry');
  const { runId } = await jobAtAsFound(base.app, works.technician);
  await saveReading(base.app, works.colleague, runId, reading(1, '4.003'));
  const entries = await base.app.query<{ act: string; by: string; at: Date }>(
    `select act, person.name as by, at from audit_entry join person on person.id = person_id
     where audit_entry.id > $1 order by audit_entry.id`,
    [planted?.last],
  );
  expect(entries.map(({ act }) => act)).toEqual([
    'open job',
    'pass brief',
    'pass authorise',
    'move valve',
    'move valve',
    'pass isolate',
    'start run',
    'connect',
    'save reading',
  ]);
  expect(entries.at(-1)).toMatchObject({ by: 'Technician B', at: works.colleague.at });
  expect(await firstBrokenEntry(base.app)).toBeNull();
});

it('many writers at once leave a chain without gaps', async () => {
  const before = (await base.app.query('select from audit_entry')).length;
  const { technician } = works;
  await Promise.all(
    Array.from({ length: 25 }, () =>
      base.app.transaction((tx) =>
        tx.query(
          `insert into audit_entry (at, person_id, act, subject_kind, subject_id, detail)
           values ($1, $2, 'test act', 'job', 1, '{"b": 1, "a": [true, null]}')`,
          [technician.at, technician.personId],
        ),
      ),
    ),
  );
  const [last] = await base.app.query<{ id: number }>('select max(id) as id from audit_entry');
  expect(last?.id).toBe(before + 25);
  expect(await firstBrokenEntry(base.app)).toBeNull();
});

it('a writer cannot choose an entry’s number or hash', async () => {
  const [row] = await base.app.query<{ id: number }>(
    `insert into audit_entry (id, at, person_id, act, subject_kind, subject_id, detail, previous_hash, hash)
     values (1, now(), $1, 'test act', 'job', 1, '{}', '\\x00', '\\x00') returning id`,
    [works.technician.personId],
  );
  expect(row?.id).toBeGreaterThan(25);
  expect(await firstBrokenEntry(base.app)).toBeNull();
});

it.each([
  ['an altered entry', `update audit_entry set detail = '{"reason": "check"}' where id = 3`, 3],
  ['an entry with another person', `update audit_entry set person_id = person_id + 1 where id = 4`, 4],
  ['a removed entry', `delete from audit_entry where id = 6`, 6],
])('%s breaks the chain at its place', async (_what, sql, place) => {
  const saved = await base.owner.query<{ id: number }>('select id from audit_entry where id <= 8');
  expect(saved).toHaveLength(8);
  await tamper('create table if not exists kept_entries as select * from audit_entry');
  await tamper(sql);
  expect(await firstBrokenEntry(base.app)).toBe(place);
  await tamper('delete from audit_entry');
  await tamper('insert into audit_entry select * from kept_entries');
  expect(await firstBrokenEntry(base.app)).toBeNull();
});

it('an act that fails later in its transaction leaves no entry', async () => {
  const count = async () => (await base.app.query('select from audit_entry')).length;
  const before = await count();
  await expect(
    base.app.transaction(async (tx) => {
      const jobId = await openJob(tx, works.technician, TAG, 'due');
      await passAsked(tx, works.technician, jobId, 'brief', { given: {}, skipReason: '' });
    }),
  ).rejects.toThrow('already has an open job');
  expect(await count()).toBe(before);
});
