/** `npm start`: everything that a fresh machine needs, then Barys on loopback until Ctrl-C. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { buildWeb } from './lib/build';
import { ensureDatabase, startCluster } from './lib/cluster';
import { prepareDatabase, refuseOpenDemo } from './lib/database';
import { Failure, main } from './lib/failure';
import { DATABASE, LOCK, runningHere } from './lib/installation';
import { HOME, SEALS } from './lib/paths';
import { isFree } from './lib/ports';
import { startWeb } from './lib/web';

/** `npm start -- --empty`: a real installation, which asks for its first administrator. */
const isEmpty = process.argv.includes('--empty');

function webPort(): number {
  const port = Number(process.env['PORT'] ?? 3000);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Failure(`PORT must be a whole number from 1 to 65535, not "${process.env['PORT']}".`);
  return port;
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
  mkdirSync(HOME, { recursive: true });
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
    const ends: Promise<string>[] = [];
    let appUrl = givenUrl;
    if (givenUrl === undefined) {
      console.log('Starting PostgreSQL ...');
      const cluster = await startCluster(HOME);
      stops.push(cluster.stop);
      ends.push(cluster.ended.then(() => `PostgreSQL ended; its log is ${HOME}/postgres.log.`));
      await ensureDatabase(cluster, DATABASE);
      await prepareDatabase(cluster.adminUrl(DATABASE), { plants: !isEmpty, seals: SEALS });
      await refuseOpenDemo(cluster.adminUrl(DATABASE));
      appUrl = cluster.appUrl(DATABASE);
    } else {
      console.log('Using the PostgreSQL server of DATABASE_URL.');
      await prepareDatabase(givenUrl, { plants: !isEmpty, seals: SEALS });
      await refuseOpenDemo(givenUrl);
    }
    const web = await startWeb(port, appUrl ?? '', { logFile: `${HOME}/web.log`, seals: SEALS });
    stops.push(web.stop);
    ends.push(web.ended.then(() => `The web server ended; its log is ${HOME}/web.log.`));
    console.log(`\nBarys is ready: ${web.url}   (Ctrl-C stops it)`);
    const why = await Promise.race(ends);
    if (!stopping.begun) throw new Failure(`${why}\nWhat was saved is kept; start again to go on.`);
  } finally {
    await stopAll();
  }
});
