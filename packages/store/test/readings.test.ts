import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { asFoundRun, loadJob } from '../src/jobs/file';
import { finishRun } from '../src/jobs/decide';
import { ROLES, requireWorker } from '../src/people/people';
import { saveReading } from '../src/runs/reading';
import { closeOpenJobs, jobAtAsFound, openWorks, reading } from './works';

const { base, works } = await openWorks();
let jobId: number;
let runId: number;

beforeAll(async () => {
  ({ jobId, runId } = await jobAtAsFound(base.app, works.technician));
});

const save = (entry: ReturnType<typeof reading>, actor = works.technician) =>
  base.app.transaction((tx) => saveReading(tx, actor, runId, entry));
const standing = async () => asFoundRun(await loadJob(base.app, jobId));

/** What comes of an entry that is made while somebody else has the job in hand, who then did something to it. */
async function saidAfter(job: number, act: string, enter: () => Promise<unknown>): Promise<string> {
  const { entered } = await base.owner.transaction(async (tx) => {
    await tx.query('select from job where id = $1 for update', [job]);
    await tx.query(act, [job]);
    const entered = enter().then(() => 'kept', String);
    await vi.waitFor(async () => {
      const waits = await base.owner.query(
        `select from pg_stat_activity where wait_event_type = 'Lock' and datname = current_database()`,
      );
      expect(waits).toHaveLength(1);
    });
    return { entered };
  });
  return entered;
}

const firstKey = async () =>
  (await base.owner.query<{ key: string }>('select client_key as key from reading order by id limit 1'))[0]
    ?.key;

describe('a reading', () => {
  it('is kept as typed and as a number', async () => {
    await save(reading(1, '4,010', { appliedText: '0.002', appliedAs: 'read' }));
    expect((await standing())?.readings[0]).toMatchObject({
      outputText: '4,010',
      output: 4.01,
      appliedText: '0.002',
      applied: 0.002,
      appliedAs: 'read',
      readBy: 'Technician A',
    });
  });

  it('sent twice is kept once, and both are answered alike', async () => {
    const entry = reading(2, '8.011');
    const [first, again] = [await save(entry), await save(entry)];
    expect(again).toEqual(first);
    const both = await Promise.all([save({ ...entry }), save({ ...entry })]);
    expect(both).toEqual([first, first]);
    expect((await standing())?.readings.filter(({ position }) => position === 2)).toHaveLength(1);
  });

  it('under the key of another reading is refused', async () => {
    const entry = reading(2, '8.012');
    await expect(save({ ...entry, clientKey: (await firstKey()) ?? '' })).rejects.toThrow(
      'under this key before',
    );
  });

  it('is corrected by one that supersedes it; the earlier one stays', async () => {
    const { id } = await save(reading(3, '12.91'));
    await save(reading(3, '12.019', { supersedes: id }), works.colleague);
    const run = await standing();
    expect(run?.readings.find(({ position }) => position === 3)).toMatchObject({
      outputText: '12.019',
      readBy: 'Technician B',
    });
    expect(run?.superseded).toMatchObject([{ id, outputText: '12.91', readBy: 'Technician A' }]);
  });

  it('does not push aside one that its writer has not seen', async () => {
    await save(reading(4, '16.020'));
    await expect(save(reading(4, '16.111'), works.colleague)).rejects.toThrow(
      'already has the reading 16.020 by Technician A',
    );
  });

  it('of ten people at one point at the same moment is one', async () => {
    const results = await Promise.allSettled(
      Array.from({ length: 10 }, (_, index) => save(reading(5, `20.0${index}`))),
    );
    expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect((await standing())?.readings.filter(({ position }) => position === 5)).toHaveLength(1);
  });

  it('sent twice at the same moment is kept once, and both are answered alike', async () => {
    const entry = reading(7, '12.011');
    const [first, ...others] = await Promise.all(Array.from({ length: 6 }, () => save({ ...entry })));
    expect(others).toEqual(others.map(() => first));
    expect((await standing())?.readings.filter(({ position }) => position === 7)).toHaveLength(1);
  });

  it('that waited for somebody who ended the run is refused', async () => {
    const said = await saidAfter(jobId, `update job set stage = 'judge' where id = $1`, () =>
      save(reading(8, '8.011')),
    );
    expect(said).toContain('The job is at judge');
    await base.owner.query(`update job set stage = 'as-found' where id = $1`, [jobId]);
    expect((await standing())?.readings.some(({ position }) => position === 8)).toBe(false);
  });

  it('needs a number, a point of the run, and a run', async () => {
    await expect(save(reading(6, '16.0.1'))).rejects.toThrow('more than one decimal sign');
    await expect(save(reading(10, '4.0'))).rejects.toThrow('The run has no point 10');
    await expect(saveReading(base.app, works.technician, 999999, reading(1, '4.0'))).rejects.toThrow(
      'There is no run 999999',
    );
    await expect(save(reading(6, '16.0'), works.auditor)).rejects.toThrow('may not do this');
  });

  it('that fails leaves nothing behind, not in the trail either', async () => {
    const count = async () => (await base.app.query('select from audit_entry')).length;
    const before = await count();
    await expect(save(reading(6, 'x'))).rejects.toThrow('not a number');
    await expect(
      base.app.transaction(async (tx) => {
        await saveReading(tx, works.technician, runId, reading(6, '16.020'));
        throw new Error('the server went away');
      }),
    ).rejects.toThrow('went away');
    expect(await count()).toBe(before);
    expect((await standing())?.readings.some(({ position }) => position === 6)).toBe(false);
  });
});

describe('a reading by a session that nobody has made sure of', () => {
  const HOUR_MS = 3_600_000;
  const count = async () => (await base.owner.query('select from reading')).length;

  it('is kept while the session stands, and is that of its person only', async () => {
    const { technician, colleague } = works;
    const session = randomUUID();
    await base.owner.query(
      `insert into session (token_hash, person_id, created_at, expires_at, seen_at)
       values (sha256($1), $2, $3, $3::timestamptz + interval '1 day', $3)`,
      [session, technician.personId, technician.at],
    );
    const { id } = await save(reading(9, '4.011'), { ...technician, session });
    expect((await standing())?.readings.find(({ position }) => position === 9)?.id).toBe(id);

    const before = await count();
    const next = () => reading(9, '4.012', { supersedes: id });
    const unknown = 'Sign in';
    const later = (hours: number) => new Date(technician.at.getTime() + hours * HOUR_MS);
    // A shift without use, and its end.
    for (const actor of [
      { ...colleague, session },
      { ...technician, session: `${session}x` },
      { ...technician, session: '' },
      { ...technician, session, at: later(13) },
    ])
      await expect(save(next(), actor)).rejects.toThrow(unknown);
    await base.owner.query('delete from session where person_id = $1', [technician.personId]);
    await expect(save(next(), { ...technician, session })).rejects.toThrow(unknown);
    // Nor is one that is there already told to whoever has no session.
    const [there] = await base.owner.query<{ key: string }>(
      'select client_key as key from reading where id = $1',
      [id],
    );
    await expect(
      save(reading(9, '4.011', { clientKey: there?.key ?? '' }), { ...technician, session }),
    ).rejects.toThrow(unknown);
    expect(await count()).toBe(before);
  });
});

describe('who may enter', () => {
  it.each(
    ROLES.flatMap((role) =>
      [true, false].flatMap((isActive) =>
        [true, false].map((mustChange) => ({ role, isActive, mustChange })),
      ),
    ),
  )(
    'is told alike by the statement that writes and by a look before it: $role, active $isActive, password to change $mustChange',
    async ({ role, isActive, mustChange }) => {
      const [person] = await base.owner.query<{ id: number }>(
        `insert into person (name, role, is_active, must_change_password) values ($1, $2, $3, $4) returning id`,
        [randomUUID(), role, isActive, mustChange],
      );
      const actor = { ...works.technician, personId: person?.id ?? 0 };
      const end = new Error('kept');
      const saidBy = (act: () => Promise<unknown>) =>
        act().then(
          () => 'allowed',
          (error: unknown) => (error === end ? 'allowed' : String(error)),
        );
      const entry = reading(8, '8.011');
      const look = await saidBy(() => requireWorker(base.app, actor));
      const written = await saidBy(() =>
        base.app.transaction(async (tx) => {
          await saveReading(tx, actor, runId, entry);
          throw end;
        }),
      );
      expect(written).toBe(look);
      // Alone, the statement keeps nothing of whom it refuses.
      if (look !== 'allowed') await expect(saveReading(base.app, actor, runId, entry)).rejects.toThrow();
      expect((await standing())?.readings.some(({ position }) => position === 8)).toBe(false);
    },
  );
});

describe('the database itself', () => {
  it('refuses to change or remove a reading, an adjustment, a run or the trail: the application by its rights, the owner by a guard', async () => {
    const columns = { reading: 'output_text', audit_entry: 'act', run: 'kind', adjustment: 'kind' };
    for (const [table, column] of Object.entries(columns)) {
      for (const sql of [
        `delete from ${table}`,
        `update ${table} set ${column} = ''`,
        `truncate ${table} cascade`,
      ]) {
        await expect(base.app.query(sql), sql).rejects.toThrow(/permission denied/);
        await expect(base.owner.query(sql), sql).rejects.toThrow(
          /only ever added to|permission denied|cannot truncate/,
        );
      }
    }
  });

  it('gives the application no way to another role', async () => {
    await expect(base.app.query('reset role; drop table reading')).rejects.toThrow();
    await expect(base.app.query('create table mine (id int)')).rejects.toThrow('permission denied');
    await expect(base.app.query('delete from person')).rejects.toThrow('permission denied');
  });

  it('keeps one first reading a point, and one correction a reading, whatever a program tries', async () => {
    const insert = (position: number, supersedes: number | null) =>
      base.app.query(
        `insert into reading (run_id, position, client_key, applied_text, applied, applied_as, output_text, output,
           read_by, read_at, supersedes) values ($1, $2, $3, '0', 0, 'set', '4', 4, $4, now(), $5) returning id`,
        [runId, position, randomUUID(), works.technician.personId, supersedes],
      );
    await expect(insert(1, null)).rejects.toThrow('reading_first');
    const [first] = (await standing())?.superseded ?? [];
    await expect(insert(3, first?.id ?? 0)).rejects.toThrow('reading_supersedes_key');
    const atPointOne = (await standing())?.readings.find(({ position }) => position === 1);
    await expect(insert(9, atPointOne?.id ?? 0)).rejects.toThrow('foreign key');
  });

  it('takes nothing more for a job that is closed', async () => {
    await base.owner.query(
      `update job set stage = 'closed', signed_by = opened_by, signed_at = now(), as_found_verdict = 'within',
         as_left_verdict = 'within' where id = $1`,
      [jobId],
    );
    await expect(
      base.app.query(
        `insert into stage_passed (job_id, stage, done_by, done_at) values ($1, 'sign', $2, now())`,
        [jobId, works.technician.personId],
      ),
    ).rejects.toThrow('is closed');
    await expect(base.app.query(`update job set remark = 'later' where id = $1`, [jobId])).rejects.toThrow(
      'is closed',
    );
    await expect(save(reading(7, '12.0'))).rejects.toThrow('The job is at closed');
  });
});

describe('a reading of a run that is finished', () => {
  it('that was kept is answered as kept after its run was finished, and a new one is not', async () => {
    await closeOpenJobs(base.owner);
    const next = await jobAtAsFound(base.app, works.technician);
    const last = reading(1, '4.001');
    const { id } = await saveReading(base.app, works.technician, next.runId, last);
    for (let position = 2; position <= 9; position += 1)
      await saveReading(base.app, works.technician, next.runId, reading(position, '8.000'));
    await finishRun(base.app, works.technician, next.jobId, 'as-found');
    expect((await saveReading(base.app, works.technician, next.runId, last)).id).toBe(id);
    await expect(saveReading(base.app, works.technician, next.runId, reading(1, '4.001'))).rejects.toThrow(
      'The job is at judge',
    );
  });
});

it('a reading that waited for somebody who threw the run away is refused, and not kept where it counts for nothing', async () => {
  await closeOpenJobs(base.owner);
  const next = await jobAtAsFound(base.app, works.technician);
  const said = await saidAfter(
    next.jobId,
    `insert into run_thrown_away (run_id, thrown_by, thrown_at, reason)
     select id, started_by, now(), 'x' from run where job_id = $1`,
    () => saveReading(base.app, works.technician, next.runId, reading(1, '4.001')),
  );
  expect(said).toContain('This run no longer counts');
  expect(await base.owner.query('select from reading where run_id = $1', [next.runId])).toHaveLength(0);
});
