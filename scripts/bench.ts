/**
 * `npm run bench`: how long Barys takes beside the least that the same work can take, measured side by side in one run
 * on a private PostgreSQL with its commits made safe on disk, as in real use. Ratios travel between machines;
 * milliseconds do not.
 */
import { asFoundRun, openDatabase, openJobs, loadJob, saveReading, type Database } from '@barys/store';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb } from './lib/build';
import { ensureDatabase, query, startCluster } from './lib/cluster';
import { prepareDatabase } from './lib/database';
import { main } from './lib/failure';
import { freePort } from './lib/ports';
import { startWeb } from './lib/web';

const ROUNDS = 250;
const WARM_UP = 40;

const quantile = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;

interface Contestant {
  readonly name: string;
  readonly act: (round: number) => Promise<unknown>;
}

/** Runs the contestants in turn, so that what slows the machine slows them all. */
async function compare(title: string, contestants: readonly Contestant[]): Promise<void> {
  const times = new Map<string, number[]>(contestants.map(({ name }) => [name, []]));
  for (let round = 0; round < ROUNDS + WARM_UP; round += 1)
    for (const { name, act } of contestants) {
      const startedAt = performance.now();
      await act(round);
      if (round >= WARM_UP) times.get(name)?.push(performance.now() - startedAt);
    }
  console.log(`\n${title} (${ROUNDS} rounds)`);
  const base = { p50: 0, p95: 0 };
  for (const [index, [name, unsorted]] of [...times].entries()) {
    const sorted = unsorted.sort((a, b) => a - b);
    const [p50, p95] = [quantile(sorted, 0.5), quantile(sorted, 0.95)];
    if (index === 0) Object.assign(base, { p50, p95 });
    console.log(
      `  ${name.padEnd(44)} p50 ${p50.toFixed(2)} ms (${(p50 / base.p50).toFixed(1)} times)` +
        `   p95 ${p95.toFixed(2)} ms (${(p95 / base.p95).toFixed(1)} times)`,
    );
  }
}

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
  return { runId: run.id, position: run.readings.length + 1, personId: 1 };
}

await main(async () => {
  const scratch = mkdtempSync(join(tmpdir(), 'barys-bench-'));
  const cluster = await startCluster(join(scratch, 'home'));
  try {
    await ensureDatabase(cluster, 'barys');
    await prepareDatabase(cluster.adminUrl('barys'));
    await query(
      cluster.adminUrl('barys'),
      'create table bare (id bigserial primary key, text text, value numeric)',
    );
    await query(cluster.adminUrl('barys'), 'grant all on bare, bare_id_seq to barys_app');
    await buildWeb();
    const db = openDatabase(cluster.appUrl('barys'));
    const web = await startWeb(await freePort(), cluster.appUrl('barys'), join(scratch, 'web.log'));
    const desk = await deskOfDemo(db);
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
    await compare('Saving a reading', [
      {
        name: 'bare commit of one row',
        act: () => db.query('insert into bare (text, value) values ($1, $2)', ['12.045', 12.045]),
      },
      {
        name: 'saving a reading in the store',
        act: async () => {
          const actor = { personId: desk.personId, at: new Date(), today: '2026-01-01' };
          last.id = (await db.transaction((tx) => saveReading(tx, actor, desk.runId, reading()))).id;
        },
      },
      {
        name: 'saving a reading over HTTP, as a page does',
        act: async () => {
          const answer = await fetch(`${web.url}/api/v1/runs/${desk.runId}/readings`, {
            method: 'POST',
            headers: { 'content-type': 'application/json', cookie: 'barys-person=1' },
            body: JSON.stringify(reading()),
          });
          if (answer.status !== 201) throw new Error(await answer.text());
          last.id = ((await answer.json()) as { id: number }).id;
        },
      },
    ]);
    await web.stop();
    await db.close();
  } finally {
    await cluster.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
});
