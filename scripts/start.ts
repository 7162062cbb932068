/** `npm start`: everything that a fresh machine needs, then Barys on loopback until Ctrl-C. */
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { startBench, tokenOfBench, type BenchLink } from './lib/bench';
import { buildWeb } from './lib/build';
import { ensureDatabase, startCluster } from './lib/cluster';
import { prepareDatabase, refuseOpenDemo } from './lib/database';
import { Failure, main } from './lib/failure';
import { DATABASE, LOCK, runningHere } from './lib/installation';
import { keepRunning } from './lib/keep';
import { HOME, SEALS } from './lib/paths';
import { isFree } from './lib/ports';
import { startWeb, type WebServer } from './lib/web';

/** `npm start -- --empty`: a real installation, which asks for its first administrator. */
const isEmpty = process.argv.includes('--empty');

function webPort(): number {
  const port = Number(process.env['PORT'] ?? 3000);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Failure(`PORT must be a whole number from 1 to 65535, not "${process.env['PORT']}".`);
  return port;
}

/** The folder of the installation, which has to be one that can be written to. */
function makeHome(): void {
  try {
    mkdirSync(HOME, { recursive: true });
    const probe = `${HOME}/probe`;
    writeFileSync(probe, '');
    rmSync(probe);
  } catch (error) {
    const why = (error as { code?: string }).code === 'ENOSPC' ? 'the disk is full' : String(error);
    throw new Failure(`The folder ${HOME} cannot be written to: ${why}.\nChoose another with BARYS_HOME=...`);
  }
}

/** Two starts on one installation would fight over its cluster. */
function refuseSecondStart(): void {
  const running = runningHere();
  if (running !== null)
    throw new Failure(
      `Barys is already running at ${running.url} (process ${running.pid}). Stop it there with Ctrl-C.`,
    );
}

await main(async () => {
  const port = webPort();
  makeHome();
  refuseSecondStart();
  if (!(await isFree(port)))
    throw new Failure(
      `Port ${port} is already taken by another program.\n` +
        `Stop that program, or choose another port: PORT=${port + 100} npm start`,
    );
  const stops: (() => Promise<void>)[] = [() => rm(LOCK, { force: true })];
  const stopping = { begun: false };
  const stopAll = async () => {
    if (stopping.begun) return;
    stopping.begun = true;
    for (const stop of stops.reverse()) await stop();
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
    process.on(signal, () => {
      if (stopping.begun) return;
      console.log('\nStopping Barys and PostgreSQL ...');
      void stopAll().then(() => process.exit(0));
    });
  // npm killed without notice cannot pass anything on; its child is handed to another parent then.
  const { ppid } = process;
  setInterval(() => {
    if (process.ppid !== ppid && process.env['npm_lifecycle_event'] === 'start') process.emit('SIGTERM');
  }, 1000).unref();
  writeFileSync(LOCK, `${process.pid}\nhttp://127.0.0.1:${port}`);

  try {
    await buildWeb();
    const givenUrl = process.env['DATABASE_URL'];
    const watched: Promise<void>[] = [];
    let benchToken: string | null = null;
    const isStopping = () => stopping.begun;
    let appUrl = givenUrl ?? '';
    let web: WebServer | null = null;
    if (givenUrl === undefined) {
      console.log('Starting PostgreSQL ...');
      let cluster = await startCluster(HOME);
      stops.push(() => cluster.stop());
      const again = async () => {
        cluster = await startCluster(HOME);
        const url = cluster.appUrl(DATABASE);
        // On another port the web server has to be told; it is started again at once.
        if (url !== appUrl) await web?.stop();
        appUrl = url;
        return cluster;
      };
      watched.push(keepRunning(`PostgreSQL (log: ${HOME}/postgres.log)`, cluster, again, isStopping));
      await ensureDatabase(cluster, DATABASE);
      await prepareDatabase(cluster.adminUrl(DATABASE), { plants: !isEmpty, seals: SEALS });
      await refuseOpenDemo(cluster.adminUrl(DATABASE));
      benchToken = await tokenOfBench(cluster.adminUrl(DATABASE), HOME);
      appUrl = cluster.appUrl(DATABASE);
    } else {
      console.log('Using the PostgreSQL server of DATABASE_URL.');
      await prepareDatabase(givenUrl, { plants: !isEmpty, seals: SEALS });
      await refuseOpenDemo(givenUrl);
    }
    const serve = async () =>
      (web = await startWeb(port, appUrl, { logFile: `${HOME}/web.log`, seals: SEALS }));
    const first = await serve();
    stops.push(async () => web?.stop());
    watched.push(keepRunning(`The web server (log: ${HOME}/web.log)`, first, serve, isStopping));
    if (benchToken !== null) {
      const token = benchToken;
      const bench = () => startBench(first.url, token, `${HOME}/link.log`);
      let link: BenchLink = bench();
      stops.push(() => link.stop());
      const again = () => Promise.resolve((link = bench()));
      watched.push(keepRunning(`The simulated bench (log: ${HOME}/link.log)`, link, again, isStopping));
    }
    console.log(`\nBarys is ready: ${first.url}   (Ctrl-C stops it)`);
    await Promise.all(watched);
  } finally {
    await stopAll();
  }
});
