/** Many at once: nobody waits in a ring, and nothing bulk holds up a reading. */
import { setTimeout as sleep } from 'node:timers/promises';
import pg from 'pg';
import { expect, it } from 'vitest';
import { addInstrument, assignOwner, instrumentsDueNext } from '../src/registers/instruments';
import { isDatabaseAway, openDatabase } from '../src/db/database';
import { openJob, openJobsFor } from '../src/jobs/decide';
import { openJobs } from '../src/jobs/file';
import { saveReading } from '../src/runs/reading';
import { entry, jobAtAsFound, openWorks, RANGE, reading } from './works';

const { base, works } = await openWorks();
const { app } = base;
const { technician, colleague } = works;
const COUNT = 40;

for (let number = 2; number <= COUNT; number += 1)
  await base.owner.transaction((tx) =>
    addInstrument(tx, technician, entry({ bodyId: 1, tag: `PT-${number}` }), RANGE),
  );
const ids = (await instrumentsDueNext(app, COUNT)).map(({ id }) => id).sort((a, b) => a - b);

it('jobs opened for the same instruments in opposite orders do not end each other, and each is opened once', async () => {
  const results = await Promise.all([
    app.transaction((tx) => openJobsFor(tx, technician, ids.slice(1), 'due')),
    app.transaction((tx) => openJobsFor(tx, colleague, [...ids.slice(1)].reverse(), 'due')),
    ...ids
      .slice(1, 9)
      .reverse()
      .map((_, index) =>
        app
          .transaction(async (tx) => ({
            opened: Number((await openJob(tx, technician, `PT-${index + 2}`, 'fault')) > 0),
            refused: [],
          }))
          .catch((error: unknown) => {
            expect(String(error)).toContain('already has an open job');
            return { opened: 0, refused: [] };
          }),
      ),
  ]);
  expect(results.reduce((sum, { opened }) => sum + opened, 0)).toBe(COUNT - 1);
  const open = await openJobs(app, 100);
  expect(new Set(open.map(({ tag }) => tag)).size).toBe(COUNT - 1);
  const acts = await app.query(`select from audit_entry where act = 'open job'`);
  expect(acts).toHaveLength(COUNT - 1);
});

it('instruments that cannot be opened are told with their reason', async () => {
  await base.owner.query(`update instrument set state = 'retired' where tag = 'PT-40'`);
  const { opened, refused } = await app.transaction((tx) =>
    openJobsFor(tx, technician, ids.slice(-2), 'due'),
  );
  expect(opened).toBe(0);
  expect([...refused].sort()).toEqual([
    expect.stringMatching(/^PT-39 already has an open job, \d+\.$/),
    'PT-40: The instrument is retired.',
  ]);
  await base.owner.query(`update instrument set state = 'in service' where tag = 'PT-40'`);
});

it('owners given in opposite orders do not end each other', async () => {
  await Promise.all(
    ['Crew A', 'Crew B', 'Crew C', 'Crew D'].map((owner, index) =>
      app.transaction((tx) => assignOwner(tx, technician, index % 2 === 0 ? ids : [...ids].reverse(), owner)),
    ),
  );
  const owners = await app.query('select distinct owner from instrument');
  expect(owners).toHaveLength(1);
});

it('a reading is kept while jobs are opened and owners given in bulk, and not committed yet', async () => {
  const { runId } = await jobAtAsFound(app, technician);
  await app.transaction(async (tx) => {
    await assignOwner(tx, technician, ids, 'Night crew');
    await openJobsFor(tx, technician, ids, 'due');
    // On another connection; it would wait for ever if it waited for this one.
    const saved = await app.transaction((other) =>
      saveReading(other, technician, runId, reading(1, '4.003')),
    );
    expect(saved.id).toBeGreaterThan(0);
  });
});

it('an act that PostgreSQL ended for another one is run again', async () => {
  let runs = 0;
  const result = await app.transaction(async (tx) => {
    runs += 1;
    if (runs < 3) await tx.query(`do $$ begin raise exception 'ring' using errcode = '40P01'; end $$`);
    return 'kept';
  });
  expect([result, runs]).toEqual(['kept', 3]);
  const always = app.transaction((tx) =>
    tx.query(`do $$ begin raise exception 'ring' using errcode = '40001'; end $$`),
  );
  await expect(always).rejects.toThrow('ring');
});

it('an act waits for a lock and a statement only so long, and both are said as not now', async () => {
  const [settings] = await app.query<{ lock: string; statement: string }>(
    `select current_setting('lock_timeout') as lock, current_setting('statement_timeout') as statement`,
  );
  expect(settings).toEqual({ lock: '10s', statement: '1min' });
  const hindered = app.transaction(async (tx) => {
    await tx.query(`set local statement_timeout = 50`);
    await tx.query('select pg_sleep(10)');
  });
  const error: unknown = await hindered.catch((one: unknown) => one);
  expect(error).toBeInstanceOf(pg.DatabaseError);
  expect(isDatabaseAway(error)).toBe(true);
});

it('what is brought in with a connection of its own is there whole or not at all, and is tried again', async () => {
  const copy = 'copy import_mapping (kind, header, mapping) from stdin';
  const count = async () => (await app.query('select from import_mapping')).length;
  const line = (header: string) => `instruments\t${header}\t{}\n`;
  const before = await count();
  await expect(
    app.bulk(async (tx) => {
      await tx.copy(copy, [line('a'), line('b')]);
      throw new Error('the disk is on fire');
    }),
  ).rejects.toThrow('on fire');
  // What cannot be kept ends the copy, and what makes the lines does too.
  await expect(app.bulk((tx) => tx.copy(copy, [line('a'), 'instruments\tb\n']))).rejects.toThrow(
    'missing data',
  );
  function* ending(): Iterable<string> {
    yield line('a');
    throw new Error('the file ends here');
  }
  await expect(app.bulk((tx) => tx.copy(copy, ending()))).rejects.toThrow('the file ends here');
  expect(await count()).toBe(before);
  let runs = 0;
  await app.bulk(async (tx) => {
    runs += 1;
    await tx.copy(copy, [line('a'), line('b')]);
    if (runs === 1) await tx.query(`do $$ begin raise exception 'ring' using errcode = '40P01'; end $$`);
  });
  expect([runs, await count()]).toEqual([2, before + 2]);
});

it('of two that bring much in one waits for the other, and goes on whatever came of that', async () => {
  const steps: string[] = [];
  const act = (name: string) =>
    app.bulk(async (tx) => {
      steps.push(`${name} begins`);
      await tx.query('select pg_sleep(0.1)');
      steps.push(`${name} ends`);
      if (name === 'first') throw new Error('no more');
    });
  const both = await Promise.allSettled([act('first'), act('second')]);
  expect(both.map(({ status }) => status)).toEqual(['rejected', 'fulfilled']);
  expect(steps).toEqual(['first begins', 'first ends', 'second begins', 'second ends']);
});

it('a connection of its own that is not to be had is said as not now', async () => {
  const nowhere = openDatabase('postgresql://barys_app@127.0.0.1:1/none');
  const refused: unknown = await nowhere.bulk(() => Promise.resolve()).catch((one: unknown) => one);
  expect(isDatabaseAway(refused)).toBe(true);
  await nowhere.close();
});

it.each(['transaction', 'bulk'] as const)(
  'a connection of a %s that ends is said as not now, whether it is noticed at once or by the next question',
  async (kind) => {
    for (const pause of [0, 200]) {
      const ended: unknown = await app[kind](async (tx) => {
        const [self] = await tx.query<{ pid: number }>('select pg_backend_pid() as pid');
        await base.owner.query('select pg_terminate_backend($1)', [self?.pid]);
        await sleep(pause);
        await tx.query('select pg_sleep(1)');
      }).catch((one: unknown) => one);
      expect(isDatabaseAway(ended), String(ended)).toBe(true);
    }
  },
);
