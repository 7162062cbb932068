import { openDatabase, type Database } from '@barys/store/db';
import { asFoundRun, loadJob, openJobs } from '@barys/store/jobs';
import { listPeople } from '@barys/store/people';
import { saveReading } from '@barys/store/runs';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb } from '../lib/build';
import { ensureDatabase, query, startCluster } from '../lib/cluster';
import { prepareDatabase } from '../lib/database';
import { freePort } from '../lib/ports';
import { startWeb } from '../lib/web';

import { compare } from './compare';
import { post } from './post';
import { technicians } from './technicians';

interface Desk {
  readonly runId: number;
  readonly position: number;
  readonly personId: number;
}

/** The demo's job in mid-run, at a point that has no reading yet. */
async function deskOfDemo(db: Database): Promise<Desk> {
  const open = (await openJobs(db, 10)).find(({ stage }) => stage === 'as-found');
  if (open === undefined) throw new Error('the demo has no job in mid-run');
  const run = asFoundRun(await loadJob(db, open.id));
  if (run === null) throw new Error(`job ${open.id} has no as-found run`);
  const technician = (await listPeople(db)).find(({ role }) => role === 'technician');
  if (technician === undefined) throw new Error('the demo has no technician');
  return { runId: run.id, position: run.readings.length + 1, personId: technician.id };
}

/** How long a reading takes to be safe, beside a bare commit on the same server. */
export async function benchSaving(): Promise<void> {
  const scratch = mkdtempSync(join(tmpdir(), 'barys-bench-'));
  const cluster = await startCluster(join(scratch, 'home'));
  try {
    await ensureDatabase(cluster, 'barys');
    await prepareDatabase(cluster.adminUrl('barys'), { plants: true, seals: join(scratch, 'seals') });
    await query(
      cluster.adminUrl('barys'),
      'create table bare (id bigserial primary key, text text, value numeric)',
    );
    await query(cluster.adminUrl('barys'), 'grant all on bare, bare_id_seq to barys_app');
    await buildWeb();
    const db = openDatabase(cluster.appUrl('barys'));
    const web = await startWeb(await freePort(), cluster.appUrl('barys'), {
      logFile: join(scratch, 'web.log'),
      seals: join(scratch, 'seals'),
    });
    const desk = await deskOfDemo(db);
    // Nobody enters as fast as this: each is one of several.
    const cookies = await technicians(db, cluster.adminUrl('barys'), 10);
    const browser = randomUUID();
    // Each reading corrects the one before, so that every round writes: the path of a correction is the longer one.
    const last = { id: null as number | null };
    const reading = () => ({
      position: desk.position,
      clientKey: randomUUID(),
      appliedText: '2.000',
      appliedAs: 'set' as const,
      outputText: '12.045',
      supersedes: last.id,
    });
    await compare(
      'Saving a reading',
      [
        {
          name: 'bare commit of one row',
          act: () => db.query('insert into bare (text, value) values ($1, $2)', ['12.045', 12.045]),
        },
        {
          name: 'saving a reading in the store',
          act: async () => {
            const actor = { personId: desk.personId, at: new Date(), today: '2026-01-01' };
            last.id = (await db.statement((one) => saveReading(one, actor, desk.runId, reading()))).id;
          },
        },
        {
          name: 'saving a reading over HTTP, as a page does',
          act: async (round) => {
            const { status, text } = await post(
              `${web.url}/api/v1/runs/${desk.runId}/readings`,
              { ...reading(), desk: browser },
              { cookie: cookies[round % cookies.length] ?? '' },
            );
            if (status !== 201) throw new Error(text);
            last.id = (JSON.parse(text) as { id: number }).id;
          },
        },
      ],
      // A server that runs for a day has compiled what it runs; so has one that kept a thousand readings.
      { rounds: 400, warmUp: 1000 },
    );
    await web.stop();
    await db.close();
  } finally {
    await cluster.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
}
