/** The installation of this checkout, whether it is running or not. */
import { existsSync, readFileSync } from 'node:fs';
import { ensureDatabase, runningCluster, startCluster, type Cluster } from './cluster';
import { HOME } from './paths';
import { isAlive } from './processes';

export const LOCK = `${HOME}/running`;
export const DATABASE = 'barys';

/** Process and address of a Barys that `npm start` is running here, or null. */
export function runningHere(): { readonly pid: number; readonly url: string } | null {
  if (!existsSync(LOCK)) return null;
  const [pid = '', url = ''] = readFileSync(LOCK, 'utf8').split('\n');
  const isOurs =
    isAlive(Number(pid)) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('scripts/start.mjs');
  return isOurs ? { pid: Number(pid), url } : null;
}

/** Does something on the private cluster: on the one that runs, else on one started for it and stopped after. */
export async function onCluster<T>(work: (cluster: Pick<Cluster, 'adminUrl'>) => Promise<T>): Promise<T> {
  if (runningHere() !== null) return work(runningCluster(HOME));
  const cluster = await startCluster(HOME);
  try {
    await ensureDatabase(cluster, DATABASE);
    return await work(cluster);
  } finally {
    await cluster.stop();
  }
}

/** Does something on the database of `DATABASE_URL`, else on that of the private cluster. */
export function onDatabase<T>(work: (url: string) => Promise<T>): Promise<T> {
  const given = process.env['DATABASE_URL'];
  return given === undefined ? onCluster((cluster) => work(cluster.adminUrl(DATABASE))) : work(given);
}
