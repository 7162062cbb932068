/** Brings a database to the schema of this code, with the demo works in it if it is new and wanted. */
import { plantDemo } from '@barys/demo';
import { openDatabase, SealFolder, sealTrail } from '@barys/store/db';
import { migrate, NewerDatabaseError } from '@barys/store/migrate';
import { query } from './cluster';
import { Failure } from './failure';

/**
 * @param adminUrl a role that may create tables and roles
 * @param plants whether a new database gets the demo; one without asks for its first administrator
 * @param seals the folder of keys and anchors; what is in the trail already is sealed before anybody works on
 */
export async function prepareDatabase(
  adminUrl: string,
  { plants, seals }: { readonly plants: boolean; readonly seals: string },
): Promise<void> {
  const folder = SealFolder.open(seals);
  let isMigrated = false;
  try {
    await sealBefore(adminUrl, folder);
    const applied = await migrate(adminUrl);
    isMigrated = applied.length > 0;
    if (applied.length > 0) console.log(`Brought the database up to date: ${applied.join(', ')}.`);
  } catch (error) {
    if (error instanceof NewerDatabaseError) throw new Failure(error.message);
    const { code } = error as { code?: string };
    if (code === 'ECONNREFUSED' || code === '28P01' || code === '3D000')
      throw new Failure(`The database of DATABASE_URL cannot be used: ${(error as Error).message || code}.`);
    throw error;
  }
  if (plants && (await plantDemo(adminUrl, new Date())))
    console.log('Planted the demo: Marrowfen Sugar Works, an invented factory.');
  const db = openDatabase(adminUrl, 'owner');
  try {
    await sealTrail(db, folder, { isMigration: isMigrated });
  } finally {
    await db.close();
  }
}

/** Seals what waits for it, so that the seal after a migration has nothing else in it. */
async function sealBefore(adminUrl: string, folder: SealFolder): Promise<void> {
  const db = openDatabase(adminUrl, 'owner');
  try {
    const [{ has } = { has: false }] = await db.query<{ has: boolean }>(
      `select to_regclass('public.seal') is not null as has`,
    );
    if (has) await sealTrail(db, folder);
  } finally {
    await db.close();
  }
}

/** Said when a demo is to be reached from other machines all the same. */
const OPEN_DEMO = 'anybody may sign in';

/**
 * A demo signs everybody in with one click, so it is for this machine alone, unless told otherwise in so many words.
 * @param url any role that may read the installation
 */
export async function refuseOpenDemo(url: string): Promise<void> {
  const host = process.env['BARYS_HOST'] ?? '127.0.0.1';
  if (['127.0.0.1', '::1', 'localhost'].includes(host) || process.env['BARYS_OPEN_DEMO'] === OPEN_DEMO)
    return;
  const [site] = await query<{ isDemo: boolean }>(url, 'select is_demo as "isDemo" from installation');
  if (site?.isDemo === true)
    throw new Failure(
      `This is a demo, in which anybody signs in as anybody; it is not opened to other machines (BARYS_HOST=${host}).\n` +
        `Begin a real installation with "npm start -- --empty", or say BARYS_OPEN_DEMO="${OPEN_DEMO}".`,
    );
}
