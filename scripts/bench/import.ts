/** An import of 100,000 rows beside a bare COPY of the same rows. */
import { openDatabase, type Database } from '@barys/store/db';
import { bringFile, openImport, takeImport } from '@barys/store/imports';
import { listPeople, type Actor } from '@barys/store/people';
import dayjs from 'dayjs';
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureDatabase, query, type Cluster } from '../lib/cluster';
import { prepareDatabase } from '../lib/database';
import { postgresPrograms } from '../lib/debian';
import { Failure } from '../lib/failure';
import { onScratch } from './scratch';
import { measured, quantile } from './table';

const ROWS = 100_000;
const ROUNDS = 3;
const HEADER = 'Tag,Service,Area,Body,LRV,URV,Unit,Next due,Owner';
const NUMBERS = Array.from({ length: ROWS }, (_, index) => 100_000 + index);

/** The same columns, constraints and indexes, to be filled with the same values by PostgreSQL's own fastest way. */
const BARE_SQL = `create table bare_instrument (like instrument including all);
     create table bare_configuration (like configuration including all)`;

const COPY = {
  instrument:
    'id, tag, serial, service, area, body_id, procedure_id, kind, tolerance_percent_of_span, interval_months, due_on, owner',
  configuration:
    'id, instrument_id, version, input_unit, lrv, urv, output_unit, output_low, output_high, damping_s, display_unit, display_low, display_high, made_by, made_at, reason',
};

const linesOf = (cells: (n: number) => readonly unknown[]): string =>
  NUMBERS.map((n) => `${cells(n).join('\t')}\n`).join('');

const instrumentLines = (round: number): string =>
  linesOf((n) => [
    n + round * 1e6,
    `X${round}-${n}`,
    '',
    `Service ${n}`,
    `Area ${n % 120}`,
    1,
    1,
    'gauge',
    0.25,
    12,
    '2027-03-31',
    `Crew ${n % 40}`,
  ]);

const configurationLines = (round: number, actor: Actor): string =>
  linesOf((n) => [
    n + round * 1e6,
    n + round * 1e6,
    1,
    'bar',
    0,
    6,
    'mA',
    4,
    20,
    0,
    'bar',
    0,
    6,
    actor.personId,
    actor.at.toISOString(),
    'imported',
  ]);

const fileOf = (round: number): Buffer =>
  Buffer.from(
    [
      HEADER,
      ...NUMBERS.map(
        (n) =>
          `X${round}-${n},Service ${n},Area ${n % 120},Gauge cell 16 bar,0,6,bar,2027-03-31,Crew ${n % 40}`,
      ),
    ].join('\n'),
  );

/** @returns how long psql takes for it, ms */
function copyRows(url: string, scratch: string, actor: Actor, round: number): number {
  const files = {
    instrument: join(scratch, 'instruments.tsv'),
    configuration: join(scratch, 'configurations.tsv'),
  };
  writeFileSync(files.instrument, instrumentLines(round));
  writeFileSync(files.configuration, configurationLines(round, actor));
  const copy = (table: keyof typeof COPY) => [
    '-c',
    `\\copy bare_${table} (${COPY[table]}) from '${files[table]}'`,
  ];
  const address = new URL(url);
  const startedAt = performance.now();
  const { status, stderr } = spawnSync(
    `${postgresPrograms(null)}/psql`,
    [
      '-v',
      'ON_ERROR_STOP=1',
      '--single-transaction',
      ...copy('instrument'),
      ...copy('configuration'),
      url.replace(`:${address.password}@`, '@'),
    ],
    { encoding: 'utf8', env: { ...process.env, PGPASSWORD: decodeURIComponent(address.password) } },
  );
  if (status !== 0) throw new Failure(stderr);
  return performance.now() - startedAt;
}

/** @returns how long the application takes for it, ms */
async function bringRows(db: Database, actor: Actor, round: number): Promise<number> {
  const bytes = fileOf(round);
  const startedAt = performance.now();
  const id = await bringFile(db, actor, { kind: 'instruments', name: 'fleet.csv', bytes });
  const { choice } = await openImport(db, id);
  const { good } = await db.bulk((tx) => takeImport(tx, actor, id, choice, 'all or none'));
  if (good.length !== ROWS) throw new Failure(`only ${good.length} rows were taken over`);
  return performance.now() - startedAt;
}

async function importRows(cluster: Cluster, scratch: string): Promise<void> {
  await ensureDatabase(cluster, 'barys_import');
  const url = cluster.adminUrl('barys_import');
  await prepareDatabase(url, { plants: true, seals: join(scratch, 'seals') });
  await query(url, BARE_SQL);
  const db = openDatabase(cluster.appUrl('barys_import'));
  const administrator = (await listPeople(db)).find(({ role }) => role === 'administrator');
  if (administrator === undefined) throw new Failure('the demo has no administrator');
  const at = new Date();
  const actor: Actor = { personId: administrator.id, at, today: dayjs(at).format('YYYY-MM-DD') };
  const [copied, brought]: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round += 1) {
    copied.push(copyRows(url, scratch, actor, round));
    brought.push(await bringRows(db, actor, round));
  }
  await db.close();
  measured(`${ROWS} rows, the middle one of ${ROUNDS}`, [
    ['bare COPY of the same rows', { p50: quantile(copied, 0.5) }],
    ['brought in, checked and taken over', { p50: quantile(brought, 0.5) }],
  ]);
}

export const benchImport = (): Promise<void> => onScratch(importRows);
