/** Fifty technicians who enter at once, each in a run of his own, beside as many bare commits at once. */
import { openDatabase, type Database } from '@barys/store/db';
import { asFoundRun, loadJob, openJobs } from '@barys/store/jobs';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb } from '../lib/build';
import { ensureDatabase, query, startCluster, type Cluster } from '../lib/cluster';
import { prepareDatabase } from '../lib/database';
import { Failure } from '../lib/failure';
import { freePort } from '../lib/ports';
import { startWeb } from '../lib/web';
import { post } from './post';
import { technicians } from './technicians';
import { measured, remark, timesOf } from './table';

const DESKS = 50;
const ROUNDS = 30;
/** A thousand readings, after which Node.js has compiled what a server that runs for a day has compiled. */
const WARM_UP = 20;

/** Copies of the demo's half run for as many instruments as there are desks, with no reading yet. */
const RUNS_SQL = `
  with works as (
    insert into job (instrument_id, reason, stage, opened_by, opened_at, instrument_copy)
      select id, 'due', 'as-found', (select min(id) from person), now(),
        (select instrument_copy from job half join run on run.job_id = half.id where run.id = $1) from instrument
      where not exists (select from job where instrument_id = instrument.id and signed_at is null and stage <> 'cancelled')
      order by id limit ${DESKS}
    returning id
  )
  insert into run (job_id, kind, pass, made_with, started_by, started_at)
    select works.id, 'as-found', 1, run.made_with, run.started_by, now()
    from works, run where run.id = $1`;

interface Desk {
  readonly runId: number;
  readonly cookie: string;
  /** The reading that stands at its point, which the next one corrects. */
  last: number | null;
}

async function sitDownAll(db: Database, adminUrl: string): Promise<readonly Desk[]> {
  const half = (await openJobs(db, 50)).find(({ stage }) => stage === 'as-found');
  const run = half === undefined ? null : asFoundRun(await loadJob(db, half.id));
  if (run === null) throw new Failure('the demo has no job in mid-run');
  await query(adminUrl, RUNS_SQL.replaceAll('$1', String(run.id)));
  const runs = await db.query<{ id: number }>('select id from run order by id desc limit $1', [DESKS]);
  if (runs.length < DESKS) throw new Failure(`the demo has only ${runs.length} free instruments`);
  // Each desk has a technician of its own: limits are kept by person.
  const cookies = await technicians(db, adminUrl, DESKS);
  return runs.map(({ id }, index) => ({ runId: id, cookie: cookies[index] ?? '', last: null }));
}

/** Runs an act at all desks at once and gives how long each took, ms. */
function together(desks: readonly Desk[], act: (desk: Desk) => Promise<unknown>): Promise<number[]> {
  return Promise.all(
    desks.map(async (desk) => {
      const startedAt = performance.now();
      await act(desk);
      return performance.now() - startedAt;
    }),
  );
}

/** p95 of "saved" with fifty at once, beside fifty bare commits at once, in turn; and whether any reading is lost. */
export async function benchDesks(): Promise<void> {
  const scratch = mkdtempSync(join(tmpdir(), 'barys-bench-'));
  const cluster = await startCluster(join(scratch, 'home'));
  try {
    await ensureDatabase(cluster, 'barys');
    const adminUrl = cluster.adminUrl('barys');
    await prepareDatabase(adminUrl, { plants: true, seals: join(scratch, 'seals') });
    await query(adminUrl, 'create table bare (id bigserial primary key, text text, value numeric)');
    await query(adminUrl, 'grant all on bare, bare_id_seq to barys_app');
    await buildWeb();
    const db = openDatabase(cluster.appUrl('barys'));
    for (const processes of [1, 2]) await sitTogether(db, cluster, { scratch, processes });
    await db.close();
  } finally {
    await cluster.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
}

/** The same with one web server or several behind the port. */
async function sitTogether(
  db: Database,
  cluster: Cluster,
  { scratch, processes }: { scratch: string; processes: number },
): Promise<void> {
  const web = await startWeb(await freePort(), cluster.appUrl('barys'), {
    logFile: join(scratch, 'web.log'),
    seals: join(scratch, 'seals'),
    processes,
  });
  const desks = await sitDownAll(db, cluster.adminUrl('barys'));
  const bare: number[] = [];
  const saved: number[] = [];
  for (let round = 0; round < WARM_UP + ROUNDS; round += 1) {
    const commits = await together(desks, () =>
      db.query('insert into bare (text, value) values ($1, $2)', ['12.045', 12.045]),
    );
    const entries = await together(desks, (desk) => enter(web.url, desk));
    if (round < WARM_UP) continue;
    bare.push(...commits);
    saved.push(...entries);
  }
  const [kept] = await db.query<{ count: number }>(
    'select count(*)::int as count from reading where run_id = any($1)',
    [desks.map(({ runId }) => runId)],
  );
  measured(`${DESKS} technicians at once, web servers: ${processes}`, [
    ['bare commits of one row, as many at once', timesOf(bare)],
    ['saved over HTTP, as a page does', timesOf(saved)],
  ]);
  remark(`Readings of the fifty kept: ${kept?.count ?? 0} of ${DESKS * (WARM_UP + ROUNDS)}.`);
  await web.stop();
  // The next ones sit down at jobs of their own.
  await query(
    cluster.adminUrl('barys'),
    `update job set stage = 'cancelled', cancelled_by = opened_by, cancelled_at = now(), cancel_reason = 'bench'
     where id in (select job_id from run where id = any('{${desks.map(({ runId }) => runId).join(',')}}'))`,
  );
}

async function enter(url: string, desk: Desk): Promise<void> {
  const { runId, cookie } = desk;
  const reading = {
    position: 1,
    clientKey: randomUUID(),
    appliedText: '2.000',
    appliedAs: 'set',
    outputText: '12.045',
    supersedes: desk.last,
    // Nobody sits at these jobs: any browser's number is free to enter.
    desk: randomUUID(),
  };
  const { status, text } = await post(`${url}/api/v1/runs/${runId}/readings`, reading, { cookie });
  if (status !== 201) throw new Failure(text);
  desk.last = (JSON.parse(text) as { id: number }).id;
}
