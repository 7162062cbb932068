/** Twenty benches at once: how old a value is when a page has it, how many reach it, and what the web server does for it. */
import { openDatabase } from '@barys/store/db';
import { listPeople, makeToken, signInToDemo } from '@barys/store/people';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { buildWeb } from '../lib/build';
import { bundle } from '../lib/bundle.mjs';
import { ensureDatabase, startCluster } from '../lib/cluster';
import { prepareDatabase } from '../lib/database';
import { Failure } from '../lib/failure';
import { ROOT } from '../lib/paths';
import { freePort } from '../lib/ports';
import { startChild, stopChild } from '../lib/processes';
import { startWeb, type WebServer } from '../lib/web';
import { measured, remark, timesOf } from './table';

const BENCHES = 20;
const WARM_UP_MS = 5000;
const MEASURED_MS = 30_000;

export async function benchLinks(): Promise<void> {
  const scratch = mkdtempSync(join(tmpdir(), 'barys-bench-'));
  const cluster = await startCluster(join(scratch, 'home'));
  try {
    await ensureDatabase(cluster, 'barys');
    const adminUrl = cluster.adminUrl('barys');
    const seals = join(scratch, 'seals');
    await prepareDatabase(adminUrl, { plants: true, seals });
    await buildWeb();
    const db = openDatabase(cluster.appUrl('barys'));
    const administrator = (await listPeople(db)).find(({ role }) => role === 'administrator');
    if (administrator === undefined) throw new Failure('the demo has no administrator');
    const at = new Date();
    const actor = { personId: administrator.id, at, today: at.toISOString().slice(0, 10) };
    const tokens: string[] = [];
    for (let bench = 1; bench <= BENCHES; bench += 1)
      tokens.push(
        await db.transaction((tx) =>
          makeToken(tx, actor, { name: `Bench ${bench}`, scope: 'link', days: 2 }),
        ),
      );
    const session = await signInToDemo(db, { at, today: actor.today }, administrator.id);
    await db.close();
    const web = await startWeb(await freePort(), cluster.appUrl('barys'), {
      logFile: join(scratch, 'web.log'),
      seals,
      processes: 1,
    });
    await watchAll(web, tokens, `barys-session=${session}`);
    await web.stop();
  } finally {
    await cluster.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
}

/** Time of the processor that a process has had, ms. */
function cpuMs(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? [];
  return (Number(fields[11]) + Number(fields[12])) * 10;
}

async function watchAll(
  { url, pid }: Pick<WebServer, 'url' | 'pid'>,
  tokens: readonly string[],
  cookie: string,
): Promise<void> {
  const links = startChild(process.execPath, [await bundle(`${ROOT}packages/link/bench/many.ts`), url], {
    cwd: ROOT,
    stdio: ['pipe', 'ignore', 'inherit'],
  });
  links.stdin?.end(tokens.join('\n'));
  const pages = new AbortController();
  const ages: number[] = [];
  const direct: number[] = [];
  let isMeasured = false;
  const look = async () => {
    const answer = await fetch(`${url}/api/v1/bench`, { headers: { cookie } });
    return (await answer.json()) as { id: number; values: { value: number }[] }[];
  };
  await sleep(2000);
  const benches = await look();
  const watch = async (bench: number) => {
    const heard = await fetch(`${url}/api/v1/bench/changes?bench=${bench}`, {
      headers: { cookie },
      signal: pages.signal,
    });
    if (heard.body === null) throw new Failure('nobody tells of changes');
    let last = 0;
    for await (const bytes of heard.body) {
      // As a page of a run does: it asks once its bench has changed.
      if (!Buffer.from(bytes).toString().includes('data:')) continue;
      const value = (await look()).find(({ id }) => id === bench)?.values[0]?.value ?? 0;
      if (value !== last && isMeasured) ages.push(Date.now() - value);
      last = value;
    }
  };
  const watching = benches.map(({ id }) => watch(id).catch(() => undefined));
  await sleep(WARM_UP_MS);
  const before = cpuMs(pid);
  isMeasured = true;
  // The least: an answer of the same server that says nothing.
  const until = Date.now() + MEASURED_MS;
  while (Date.now() < until) {
    const begun = performance.now();
    await fetch(`${url}/api/v1/health/live`).then((answer) => answer.text());
    direct.push(performance.now() - begun);
    await sleep(100);
  }
  isMeasured = false;
  const share = (cpuMs(pid) - before) / MEASURED_MS;
  pages.abort();
  await Promise.all(watching);
  await stopChild(links, 'SIGTERM', 5000);
  measured(`${BENCHES} benches, each watched by a page`, [
    ['an empty answer of the same server', timesOf(direct)],
    ['age of a value when its page has it', timesOf(ages)],
  ]);
  remark(
    `${(ages.length / (MEASURED_MS / 1000)).toFixed(0)} values a second reach the pages; the web server has ${(share * 100).toFixed(0)} % of one core.`,
  );
}
