/**
 * `npm run restore -- FILE`: puts a backup in the place of the database. It is restored beside the one that is there
 * and checked before they change places; the one before is kept under another name.
 */
import { migrate } from '@barys/store/migrate';
import { lastSeal, openDatabase, SealFolder, sealTrail, type Database } from '@barys/store/db';
import dayjs from 'dayjs';
import { existsSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { z } from 'zod';
import { query } from './lib/cluster';
import { fill } from './lib/dump';
import { Failure, main } from './lib/failure';
import { DATABASE, onCluster, runningHere } from './lib/installation';
import { SEALS } from './lib/paths';
import { soundInWords, verifyDatabase } from './lib/trail';

const RESTORING = `${DATABASE}_restoring`;

async function onDatabaseAt<T>(url: string, work: (db: Database) => Promise<T>): Promise<T> {
  const db = openDatabase(url, 'owner');
  try {
    return await work(db);
  } finally {
    await db.close();
  }
}

/** What lies beside a backup: its last seal, and the keys that its seals are signed with; null of an older one. */
function sealOfBackup(file: string): { readonly number: number; readonly keys: readonly string[] } | null {
  if (!existsSync(`${file}.seal.json`)) return null;
  return z
    .object({ number: z.number(), keys: z.array(z.string()) })
    .parse(JSON.parse(readFileSync(`${file}.seal.json`, 'utf8')));
}

await main(async () => {
  const [, , name] = process.argv;
  if (name === undefined) throw new Failure('Say which backup: npm run restore -- FILE');
  const file = resolve(name);
  if (!existsSync(file)) throw new Failure(`There is no file ${file}.`);
  if (process.env['DATABASE_URL'] !== undefined)
    throw new Failure('A database of your own server is restored with pg_restore, into an empty database.');
  const running = runningHere();
  if (running !== null) throw new Failure(`Barys is running at ${running.url}. Stop it first; then restore.`);
  await onCluster(async (cluster) => {
    const admin = cluster.adminUrl('postgres');
    await query(admin, `drop database if exists ${RESTORING}`);
    await query(admin, `create database ${RESTORING} template template0`);
    try {
      fill(cluster.adminUrl(RESTORING), file);
      const folder = SealFolder.open(SEALS);
      const applied = await migrate(cluster.adminUrl(RESTORING));
      const sealed = sealOfBackup(file);
      for (const key of sealed?.keys ?? []) folder.trust(key);
      const last = await onDatabaseAt(cluster.adminUrl(RESTORING), lastSeal);
      if (sealed !== null && sealed.number > 0 && sealed.number > (last?.number ?? 0))
        throw new Failure(
          `The backup ends at seal ${last?.number ?? 0} and should end at ${sealed.number}. Nothing was changed.`,
        );
      // The anchor file is of the database that is there; what the backup itself says has to hold.
      const found = await verifyDatabase(cluster.adminUrl(RESTORING), folder, {
        isRestoring: true,
        isJustMigrated: applied.length > 0,
      });
      if (!found.isSound)
        throw new Failure(
          `The backup is not as it was written. The first thing that differs is ${found.where}. Nothing was changed.`,
        );
      const before = `${DATABASE}_before_${dayjs().format('YYYYMMDD_HHmmss')}`;
      await query(admin, `alter database ${DATABASE} rename to ${before}`);
      await query(admin, `alter database ${RESTORING} rename to ${DATABASE}`);
      await folder.anchorRestore(last?.number ?? 0, new Date());
      if (applied.length > 0)
        await onDatabaseAt(cluster.adminUrl(DATABASE), (db) => sealTrail(db, folder, { isMigration: true }));
      console.log(
        `Restored ${file}: ${soundInWords(found)}, all as they were written.\n` +
          `The database that was there is kept as ${before}.`,
      );
    } finally {
      await query(admin, `drop database if exists ${RESTORING}`);
    }
  });
});
