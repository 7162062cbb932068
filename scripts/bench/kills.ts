/** The web server and PostgreSQL killed over and over while technicians enter: no acknowledged reading may be lost. */
import { openDatabase } from '@barys/store/db';
import { asFoundRun, loadJob, openJobs } from '@barys/store/jobs';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { buildWeb } from '../lib/build';
import { ensureDatabase, query, startCluster } from '../lib/cluster';
import { prepareDatabase } from '../lib/database';
import { Failure } from '../lib/failure';
import { freePort } from '../lib/ports';
import { startWeb } from '../lib/web';
import { remark } from './table';
import { technicians } from './technicians';

const KILLS = 68;
/** Entered between two kills, so that they come at any moment of a commit, ms. */
const LONGEST_QUIET_MS = 1200;

interface Kept {
  readonly key: string;
  readonly id: number;
  readonly text: string;
}

/** Each reading corrects the one before. One that was not acknowledged is sent again under its own key. */
async function enterReadings(
  run: NonNullable<ReturnType<typeof asFoundRun>>,
  cookies: readonly string[],
  {
    kept,
    state,
    url,
  }: { readonly kept: Kept[]; readonly state: { isOver: boolean }; readonly url: () => string },
): Promise<void> {
  const desk = randomUUID();
  const send = (body: string, count: number) =>
    fetch(`${url()}/api/v1/runs/${run.id}/readings`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie: cookies[count % cookies.length] ?? '' },
      body,
    }).catch(() => null);
  for (let count = 0; !state.isOver; count += 1) {
    const [key, text] = [randomUUID(), (12 + (count % 1000) / 1000).toFixed(3)];
    const body = JSON.stringify({
      position: run.readings.length + 1,
      clientKey: key,
      appliedText: '2.000',
      appliedAs: 'set',
      outputText: text,
      supersedes: kept.at(-1)?.id ?? null,
      desk,
    });
    for (;;) {
      const answer = await send(body, count);
      if (answer?.ok === true) {
        const { id } = (await answer.json().catch(() => ({}))) as { id?: number };
        if (id !== undefined) {
          kept.push({ key, id, text });
          break;
        }
      } else if (answer !== null && answer.status < 500) throw new Failure(await answer.text());
      await sleep(50);
    }
  }
}

export async function benchKills(): Promise<void> {
  const scratch = mkdtempSync(join(tmpdir(), 'barys-bench-'));
  const [home, seals] = [join(scratch, 'home'), join(scratch, 'seals')];
  const server = { cluster: await startCluster(home) };
  try {
    await ensureDatabase(server.cluster, 'barys');
    await prepareDatabase(server.cluster.adminUrl('barys'), { plants: true, seals });
    await buildWeb();
    const port = await freePort();
    const web = () =>
      startWeb(port, server.cluster.appUrl('barys'), { logFile: join(scratch, 'web.log'), seals });
    let site = await web();

    const db = openDatabase(server.cluster.appUrl('barys'));
    const half = (await openJobs(db, 50)).find(({ stage }) => stage === 'as-found');
    const run = half === undefined ? null : asFoundRun(await loadJob(db, half.id));
    if (run === null) throw new Failure('the demo has no job in mid-run');
    // Nobody enters as fast as this: each is one of several.
    const cookies = await technicians(db, server.cluster.adminUrl('barys'), 20);
    await db.close();

    const kept: Kept[] = [];
    const state = { isOver: false };
    const entering = enterReadings(run, cookies, { kept, state, url: () => site.url });

    for (let kill = 0; kill < KILLS; kill += 1) {
      await sleep(Math.random() * LONGEST_QUIET_MS);
      if (kill % 2 === 0) {
        await site.kill();
        site = await web();
      } else {
        await server.cluster.kill();
        server.cluster = await startCluster(home);
      }
    }
    await sleep(2000);
    state.isOver = true;
    await entering;

    const rows = await query<{ id: string; key: string; text: string }>(
      server.cluster.adminUrl('barys'),
      `select id, client_key as key, output_text as text from reading where run_id = ${run.id}`,
    );
    const lost = kept.filter(
      (one) => !rows.some((row) => row.key === one.key && row.text === one.text && Number(row.id) === one.id),
    );
    const twice = rows.length - new Set(rows.map(({ key }) => key)).size;
    remark(
      `${KILLS} kills without notice, by turns of the web server and of PostgreSQL: ${kept.length} readings acknowledged, ` +
        `${lost.length} lost, ${twice} kept twice.`,
    );
    await site.stop();
  } finally {
    await server.cluster.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
}
