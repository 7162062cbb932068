/** The simulated bench of a demo: its link, with a token of its own. */
import { openDatabase } from '@barys/store/db';
import { benchOfToken } from '@barys/store/benches';
import { findSite, listPeople, makeToken } from '@barys/store/people';
import { existsSync, openSync, readFileSync, writeFileSync } from 'node:fs';
import { ROOT } from './paths';
import { hasEnded, startChild, stopChild } from './processes';

export interface BenchLink {
  readonly ended: Promise<void>;
  stop(this: void): Promise<void>;
}

const NAME = 'Bench in the workshop';
const DAYS = 366;

/** The token of the demo's bench, made when there is none that is good; null of a plant that is no demo. */
export async function tokenOfBench(adminUrl: string, home: string): Promise<string | null> {
  const file = `${home}/link-token`;
  const db = openDatabase(adminUrl, 'owner');
  try {
    if ((await findSite(db))?.isDemo !== true) return null;
    const at = new Date();
    const known = existsSync(file) ? readFileSync(file, 'utf8').trim() : '';
    if (known !== '' && (await benchOfToken(db, known, at)) !== null) return known;
    const administrator = (await listPeople(db)).find(
      ({ role, isActive }) => role === 'administrator' && isActive,
    );
    if (administrator === undefined) return null;
    const actor = { personId: administrator.id, at, today: at.toISOString().slice(0, 10) };
    const token = await db.transaction((tx) =>
      makeToken(tx, actor, { name: NAME, scope: 'link', days: DAYS }),
    );
    writeFileSync(file, token, { mode: 0o600 });
    return token;
  } finally {
    await db.close();
  }
}

/** Starts the link of a simulated bench; it joins Barys by itself, and again when it was away. */
export function startBench(url: string, token: string, logFile: string): BenchLink {
  const log = openSync(logFile, 'a', 0o600);
  const child = startChild(process.execPath, [`${ROOT}scripts/link.mjs`, '--url', url, '--simulated'], {
    cwd: ROOT,
    stdio: ['ignore', log, log],
    env: { ...process.env, BARYS_LINK_TOKEN: token },
  });
  return {
    ended: new Promise<void>((resolve) => {
      if (hasEnded(child)) resolve();
      else child.once('exit', () => resolve());
    }),
    stop: () => stopChild(child, 'SIGTERM', 5000),
  };
}
