/**
 * `npm run restore -- FILE`: puts a backup in the place of the database. It is restored beside the one that is there
 * and checked before they change places; the one before is kept under another name.
 */
import { migrate } from '@barys/store/migrate';
import dayjs from 'dayjs';
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { query } from './lib/cluster';
import { fill } from './lib/dump';
import { Failure, main } from './lib/failure';
import { DATABASE, onCluster, runningHere } from './lib/installation';

const RESTORING = `${DATABASE}_restoring`;

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
      const [trail] = await query<{ broken: string | null; entries: string }>(
        cluster.adminUrl(RESTORING),
        'select first_broken_audit_entry() as broken, count(*) as entries from audit_entry',
      );
      if (trail?.broken != null)
        throw new Failure(
          `The audit trail of the backup is broken at entry ${trail.broken}. Nothing was changed.`,
        );
      await migrate(cluster.adminUrl(RESTORING));
      const before = `${DATABASE}_before_${dayjs().format('YYYYMMDD_HHmmss')}`;
      await query(admin, `alter database ${DATABASE} rename to ${before}`);
      await query(admin, `alter database ${RESTORING} rename to ${DATABASE}`);
      console.log(
        `Restored ${file}: ${trail?.entries ?? 0} entries of the trail, all in their chain.\n` +
          `The database that was there is kept as ${before}.`,
      );
    } finally {
      await query(admin, `drop database if exists ${RESTORING}`);
    }
  });
});
