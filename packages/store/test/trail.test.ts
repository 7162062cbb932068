import { generateKeyPairSync, sign } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeEach, expect, it } from 'vitest';
import { attach } from '../src/jobs/attachments';
import { openJob, passAsked } from '../src/jobs/decide';
import { saveReading } from '../src/runs/reading';
import { SealFolder, sealTrail, hashOfSeal, lastSeal } from '../src/db/seals';
import { verifyTrail, type Verified, KEPT_KINDS } from '../src/db/verify';
import { jobAtAsFound, openWorks, reading, TAG } from './works';

const { base, works } = await openWorks();
const scratch = mkdtempSync(`${tmpdir()}/barys-seals-`);
afterAll(() => rmSync(scratch, { recursive: true }));
const folder = SealFolder.open(scratch);

const trusted = () => ({ keys: folder.trustedKeys(), anchors: folder.anchors() });
const verified = (since = 0): Promise<Verified> =>
  base.app.transaction(async (tx) => {
    await tx.query('set transaction isolation level repeatable read');
    return verifyTrail(tx, trusted(), { since });
  });
const where = async (since = 0): Promise<string> => {
  const found = await verified(since);
  return found.isSound ? 'sound' : found.where;
};
const seal = () => sealTrail(base.app, folder);
// As `npm start` does it after the migrations.
await sealTrail(base.app, folder, { isMigration: true });

/** Does something with every right over the tables and every guard away, looks, and takes it back. */
async function afterTampering(sql: string, look: () => Promise<void>): Promise<void> {
  // A copy of the whole schema's data would be long; what a case alters is kept and put back.
  await base.owner.transaction(async (tx) => {
    await tx.query('set local session_replication_role = replica');
    await tx.query('create schema kept');
    for (const table of [...Object.keys(KEPT_KINDS), 'audit_entry', 'record_entry', 'seal', 'unsealed'])
      await tx.query(`create table kept.${table} as select * from public.${table}`);
    await tx.query(sql);
  });
  try {
    await look();
  } finally {
    await base.owner.transaction(async (tx) => {
      await tx.query('set local session_replication_role = replica');
      for (const table of [...Object.keys(KEPT_KINDS), 'audit_entry', 'record_entry', 'seal', 'unsealed']) {
        const [columns] = await tx.query<{ names: string }>(
          `select string_agg(quote_ident(attname), ', ') as names from pg_attribute
           where attrelid = '${table}'::regclass and attnum > 0 and not attisdropped and attgenerated = ''`,
        );
        await tx.query(`delete from public.${table}`);
        await tx.query(
          `insert into public.${table} (${columns?.names}) overriding system value
           select ${columns?.names} from kept.${table}`,
        );
      }
      await tx.query('drop schema kept cascade');
    });
  }
}

const { jobId, runId } = await base.app.transaction((tx) => jobAtAsFound(tx, works.technician));
await base.app.transaction((tx) => saveReading(tx, works.colleague, runId, reading(1, '4.003')));
await base.app.transaction((tx) =>
  attach(tx, works.technician, jobId, {
    remark: 'plate',
    file: { name: 'plate.png', bytes: Buffer.from('\x89PNG plate', 'latin1') },
  }),
);

beforeEach(seal);

it('each act leaves one entry with who, what and when, beside what it kept', async () => {
  const entries = await base.app.query<{ act: string; by: string; at: Date; kept: string[] | null }>(
    `select act, person.name as by, at,
       (select array_agg(kind || ' ' || change order by record_entry.id) from record_entry
        where record_entry.xact = audit_entry.xact) as kept
     from audit_entry join person on person.id = person_id where act = 'save reading'`,
  );
  expect(entries).toEqual([
    { act: 'save reading', by: 'Technician B', at: works.colleague.at, kept: ['reading added'] },
  ]);
  expect(await verified()).toMatchObject({ isSound: true });
});

it('an entry holds what was kept, and what was before a change', async () => {
  const [kept] = await base.app.query<{ after: Record<string, unknown> }>(
    `select after from record_entry where kind = 'reading'`,
  );
  expect(kept?.after).toMatchObject({
    output_text: '4.003',
    output: 4.003,
    read_by: works.colleague.personId,
  });
  const [moved] = await base.app.query<{ before: { stage: string }; after: { stage: string } }>(
    `select before, after from record_entry where kind = 'job' and change = 'changed' order by id limit 1`,
  );
  expect([moved?.before.stage, moved?.after.stage]).toEqual(['brief', 'authorise']);
  const [file] = await base.app.query<{ after: { file: string } }>(
    `select after from record_entry where kind = 'attachment'`,
  );
  // printf '\\211PNG plate' | sha256sum
  expect(file?.after.file).toBe('8674f01ad502f827d979de82652ffb77d1f464ee1933e6f31a1b2edf2f564b2f');
});

it('many writers at once wait for nobody, and all that they wrote is sealed', async () => {
  const { technician } = works;
  const hold = base.app.transaction(async (tx) => {
    const write = `insert into audit_entry (at, person_id, act, subject_kind, subject_id, detail)
      values ($1, $2, 'test act', 'job', 1, '{"b": 1, "a": [true, null]}')`;
    await tx.query(write, [technician.at, technician.personId]);
    // The first has written and not committed; the others are through before it is.
    await Promise.all(
      Array.from({ length: 8 }, () =>
        base.app.transaction((other) => other.query(write, [technician.at, technician.personId])),
      ),
    );
    await seal();
  });
  await hold;
  expect(await where()).toBe('sound');
  const newest = await seal();
  expect(await where()).toBe('sound');
  const [left] = await base.app.query<{ left: number }>('select count(*) as left from unsealed');
  expect(left?.left).toBe(0);
  expect(newest?.number).toBeGreaterThan(1);
});

it('two sealers at once make one chain', async () => {
  for (let round = 0; round < 5; round += 1) {
    await base.app.transaction((tx) =>
      tx.query(
        `insert into audit_entry (at, person_id, act, subject_kind, subject_id, detail)
         values (now(), $1, 'test act', 'job', 1, '{}')`,
        [works.technician.personId],
      ),
    );
    await Promise.all([seal(), seal(), seal()]);
  }
  expect(await where()).toBe('sound');
});

it('a writer cannot choose an entry’s number or hash, nor write of records', async () => {
  const [row] = await base.app.query<{ id: number }>(
    `insert into audit_entry (id, at, person_id, act, subject_kind, subject_id, detail, previous_hash, hash)
     values (1, now(), $1, 'test act', 'job', 1, '{}', '\\x00', '\\x00') returning id`,
    [works.technician.personId],
  );
  expect(row?.id).toBeGreaterThan(25);
  await seal();
  expect(await where()).toBe('sound');
  const forged = `insert into record_entry (id, xact, kind, record_id, change, after, hash)
    values (1000000, '1', 'reading', 1, 'added', '{}', '')`;
  await expect(base.app.query(forged)).rejects.toThrow('permission denied');
  // Not by what writes of them either, hung on a table of one's own.
  for (const [table, act] of [
    [
      'reading',
      'after insert on mine referencing new table as new_rows for each statement execute function keep_reading()',
    ],
    ['audit_entry', 'before insert on mine for each row execute function number_audit_entry()'],
  ] as const)
    await expect(
      base.app.transaction(async (tx) => {
        await tx.query(`create temporary table mine (like ${table}) on commit drop`);
        await tx.query(`create trigger mine ${act}`);
      }),
      table,
    ).rejects.toThrow('permission denied for function');
});

it.each([
  [
    'a reading',
    `update reading set output = 4.001, output_text = '4.001'`,
    /^reading 1: output is 4.001 .* 4.003/,
  ],
  ['a reading taken away', 'delete from reading', /^reading 1: it is gone/],
  [
    'a reading slipped in',
    `insert into reading (run_id, position, client_key, applied_text, applied, applied_as, output_text, output, read_by, read_at)
     values (1, 2, gen_random_uuid(), '1', 1, 'set', '8', 8, 1, now())`,
    /^reading \d+: the trail knows nothing of it/,
  ],
  ['a verdict', `update job set as_found_verdict = 'within'`, /^job \d+: as_found_verdict is "within"/],
  [
    'a signature',
    `update job set signed_by = 1, signed_at = now(), stage = 'review', as_found_verdict = 'within', as_left_verdict = 'within'`,
    /^job \d+: stage is "review".*signed_by is 1/,
  ],
  ['a stage', `update stage_passed set note = 'as agreed'`, /^stage passed 1: note is "as agreed"/],
  ['a connection', 'update connection set ambient_c = 20.5', /^connection 1: ambient_c is 20.5/],
  [
    'a run',
    `update run set made_with = jsonb_set(made_with, '{tolerance,percentOfSpan}', '9')`,
    /^run 1: made_with/,
  ],
  ['a file', `update attachment set file = 'another'`, /^attachment 1: file is/],
  ['a configuration', 'update configuration set urv = 12', /^configuration 1: urv is 12/],
  [
    'a certificate',
    `update reference_certificate set due_on = '2030-01-01'`,
    /^reference certificate 1: due_on/,
  ],
  ['a person', `update person set name = 'Somebody' where id = 2`, /^person 2: name is "Somebody"/],
  ['a password', `update person set password_hash = 'x' where id = 2`, /^person 2: password_hash/],
  ['an instrument', `update instrument set due_on = '2030-01-01'`, /^instrument 1: due_on is "2030-01-01"/],
  ['a module', 'update reference_module set percent_of_reading = 0', /^reference module 1/],
  ['a valve move', `update valve_move set faults = '{}', moved_to = 'open'`, /^valve move \d+/],
  [
    'an act',
    `update audit_entry set detail = '{"reason": "check"}' where act = 'open job'`,
    /^entry \d+ \(job \d+\): it is altered/,
  ],
  [
    'a record’s entry',
    `update record_entry set after = after || '{"output": 4.001}' where kind = 'reading'`,
    /^entry \d+ \(reading 1\): it is altered/,
  ],
  [
    'a reading and its entry, with a hash that fits',
    `update reading set output = 4.001;
     update record_entry set after = after || '{"output": 4.001}' where kind = 'reading';
     update record_entry set hash = record_entry_hash(id, xact, kind, record_id, change, before, after) where kind = 'reading'`,
    /^seal \d+: one of its entries/,
  ],
  [
    'the newest entries',
    'delete from audit_entry where id > (select max(id) - 3 from audit_entry)',
    /^entry \d+: it is missing from seal/,
  ],
  ['all entries', 'delete from audit_entry; delete from record_entry', /^entry 1: it is missing from seal 1/],
  [
    'all entries and seals',
    'delete from audit_entry; delete from record_entry; delete from seal; delete from unsealed',
    /^seal 1: the anchor file has it and the database does not/,
  ],
  [
    'the last seal',
    'delete from seal where number = (select max(number) from seal)',
    /^seal \d+: the anchor file has it/,
  ],
  ['a seal', `update seal set at = at + interval '1 day' where number = 1`, /^seal 1: it is altered/],
  [
    'an act of nobody',
    `insert into audit_entry (id, at, act, subject_kind, subject_id, detail, hash) values (99999, now(), 'test act', 'job', 1, '{}', 'x')`,
    /^entry 99999 .*: no seal covers it/,
  ],
])('%s, altered by the owner of the tables, is named', async (_what, sql, name) => {
  expect(await where()).toBe('sound');
  await afterTampering(sql, async () => expect(await where()).toMatch(name));
  expect(await where()).toBe('sound');
});

it('what hashes in the database is not believed either', async () => {
  // A function that always agrees, and a hash to agree with.
  await afterTampering(
    `update reading set output = 4.001;
     update record_entry set after = after || '{"output": 4.001}' where kind = 'reading';
     alter function record_entry_hash rename to kept_hash;
     create function record_entry_hash(id bigint, xact xid8, kind text, record_id bigint, change text, before jsonb, after jsonb)
       returns bytea language sql as 'select hash from record_entry one where one.id = record_entry_hash.id'`,
    async () => expect(await where()).toMatch(/^entry \d+ \(reading 1\): it is altered/),
  );
  await base.owner.query(
    'drop function record_entry_hash; alter function kept_hash rename to record_entry_hash',
  );
});

it('a change through the guards that keep the trail, but by no act, is named', async () => {
  await base.owner.query(`update instrument set service = 'another'`);
  expect(await where()).toMatch(/^entry \d+ \(instrument 1\): changed by no act/);
  await seal();
  expect(await where()).toMatch(/^entry \d+ \(instrument 1\): changed by no act/);
  // It belongs to no act for ever; the rest of this file goes on without it.
  await base.owner.transaction(async (tx) => {
    await tx.query('set local session_replication_role = replica');
    await tx.query(`update record_entry set xact = (select max(xact) from audit_entry)
      where id = (select max(id) from record_entry)`);
    await tx.query(`update record_entry set hash = record_entry_hash(id, xact, kind, record_id, change, before, after)
      where id = (select max(id) from record_entry)`);
    await tx.query('delete from seal where number = (select max(number) from seal)');
    await tx.query(
      `insert into unsealed (entries) select int8multirange(int8range(max(id), max(id), '[]')) from record_entry`,
    );
  });
  const kept = readFileSync(folder.anchorFile, 'utf8').trimEnd().split('\n').slice(0, -1);
  writeFileSync(folder.anchorFile, `${kept.join('\n')}\n`);
  await seal();
  expect(await where()).toBe('sound');
});

it('a chain of seals made anew with another key is not believed, nor one with the right key', async () => {
  const forge = async (signWith: (hash: Buffer) => Buffer) => {
    const first = await lastSeal(base.app);
    if (first === null) throw new Error('there is no seal');
    const made = { ...first, at: new Date(first.at.getTime() + 1) };
    const hash = hashOfSeal(made);
    const bytes = (value: Buffer) => `'\\x${value.toString('hex')}'`;
    return `update seal set at = '${made.at.toISOString()}', hash = ${bytes(hash)}, signature = ${bytes(signWith(hash))}
      where number = ${made.number}`;
  };
  const { privateKey } = generateKeyPairSync('ed25519');
  await afterTampering(await forge((hash) => sign(null, hash, privateKey)), async () =>
    expect(await where()).toMatch(/^seal \d+: its signature is wrong/),
  );
  await afterTampering(await forge((hash) => folder.sign(hash)), async () =>
    expect(await where()).toMatch(/^seal \d+: it is not the one that the anchor file has/),
  );
});

it('what a backup took back is no longer asked for, once the file says that it was restored', async () => {
  const last = await lastSeal(base.app);
  await afterTampering(
    `delete from seal where number = ${last?.number}; insert into unsealed (entries) values ('${last?.entries}')`,
    async () => {
      expect(await where()).toMatch(/the anchor file has it/);
      const before = readFileSync(folder.anchorFile);
      await folder.anchorRestore((last?.number ?? 0) - 1, new Date());
      expect(await where()).toBe('sound');
      writeFileSync(folder.anchorFile, before);
    },
  );
});

it('since a seal, only what came after it is looked at again', async () => {
  const last = await lastSeal(base.app);
  await base.app.transaction((tx) => saveReading(tx, works.colleague, runId, reading(2, '8.003')));
  await seal();
  const all = await verified();
  const since = await verified(last?.number);
  if (!all.isSound || !since.isSound) throw new Error('the trail is not sound');
  expect(since.entries).toBe(2);
  expect(since.records).toBe(1);
  expect(all.records).toBeGreaterThan(30);
  await afterTampering('update reading set output = 8.001 where position = 2', async () =>
    expect(await where(last?.number)).toMatch(/^reading \d+: output is 8.001/),
  );
});

it('a server that was killed between seal and anchor file writes the line later', async () => {
  const before = readFileSync(folder.anchorFile, 'utf8');
  writeFileSync(folder.anchorFile, before.trimEnd().split('\n').slice(0, -2).join('\n') + '\n');
  await seal();
  expect(readFileSync(folder.anchorFile, 'utf8')).toBe(before);
  expect(statSync(`${scratch}/private.pem`).mode & 0o077).toBe(0);
});

it('of a row all is kept that is not null, also within it, whatever else is', async () => {
  await base.owner.transaction(async (tx) => {
    await tx.query(`create table edge (id bigint primary key, code text not null, note text, made jsonb not null, more jsonb,
      file bytea, "a word" integer not null)`);
    const made = [
      '{"kind": "linear"}',
      '{"kind": null, "in": {"a": null, "b": [null, {"c": null}]}}',
      'null',
      '[]',
      '"x"',
    ];
    const optional = [null, '{"a": null}', 'null', '{}'];
    await tx.query(
      `insert into edge select row_number() over (), '', note, made, more, file, 0
       from unnest($1::jsonb[]) made, unnest($2::jsonb[]) more, unnest($3::text[]) note, unnest($4::bytea[]) file`,
      [made, optional, [null, '', 'x'], [null, Buffer.from('x')]],
    );
    const [{ sql } = { sql: '' }] = await tx.query<{ sql: string }>(
      `select record_expression('edge') as sql`,
    );
    const rows = await tx.query<{ kept: unknown; plain: unknown }>(
      `select ${sql} as kept, jsonb_strip_nulls(jsonb_build_object('id', id, 'code', code, 'note', note, 'made', made,
         'more', more, 'file', encode(sha256(file), 'hex'), 'a word', "a word")) as plain from edge r`,
    );
    expect(rows).toHaveLength(120);
    for (const { kept, plain } of rows) expect(kept).toEqual(plain);
    await tx.query('drop table edge');
  });
});

it('the verifier knows each table that triggers keep', async () => {
  const kept = await base.app.query<{ kind: string }>(
    `select distinct tgrelid::regclass::text as kind from pg_trigger where tgname = 'keep_added' order by 1`,
  );
  expect(kept.map(({ kind }) => kind)).toEqual(Object.keys(KEPT_KINDS).sort());
});

it('an act that fails later in its transaction leaves no entry', async () => {
  const count = async () => (await base.app.query('select from audit_entry')).length;
  const before = await count();
  await expect(
    base.app.transaction(async (tx) => {
      const opened = await openJob(tx, works.technician, TAG, 'due');
      await passAsked(tx, works.technician, opened, 'brief', { given: {}, skipReason: '' });
    }),
  ).rejects.toThrow('already has an open job');
  expect(await count()).toBe(before);
});

// The last: what it leaves behind is named for ever.
it('records that the owner carries into the trail as a migration would are named', async () => {
  await base.owner.transaction(async (tx) => {
    await tx.query('set local session_replication_role = replica');
    await tx.query(`update person set name = 'Somebody' where id = 2`);
    await tx.query(`select carry_table('person')`);
  });
  await seal();
  expect(await where()).toMatch(/^entry \d+ \(person 2\): carried by no migration/);
});
