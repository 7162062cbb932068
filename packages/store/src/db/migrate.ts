/** Brings a database to the schema of this code. */
import { readdir } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { runner } from 'node-pg-migrate';
import pg from 'pg';
import { fillResults } from '../results/fill';
import { openDatabase } from './database';

const MIGRATIONS_DIR = fileURLToPath(new URL('../../migrations', import.meta.url));
const MIGRATIONS_TABLE = 'schema_migration';

/** Thrown when the database has migrations that this code does not know. */
export class NewerDatabaseError extends Error {
  constructor(unknown: readonly string[]) {
    super(
      `The database was made by a newer Barys (it has ${unknown.join(', ')}, which this copy does not know). ` +
        'Nothing was changed. Start the newer Barys, or point this one at another database.',
    );
    this.name = 'NewerDatabaseError';
  }
}

async function appliedMigrations(client: pg.Client): Promise<string[]> {
  const { rows: found } = await client.query<{ table: string | null }>('select to_regclass($1) as table', [
    `public.${MIGRATIONS_TABLE}`,
  ]);
  if (found[0]?.table == null) return [];
  const { rows } = await client.query<{ name: string }>(`select name from ${MIGRATIONS_TABLE} order by id`);
  return rows.map((row) => row.name);
}

/**
 * Applies the migrations that are missing, in order, each in its own transaction, under the runner's lock; and works out what is
 * kept beside the records and no SQL can tell: the results of what was signed before there were any.
 * @param url a role that may create tables and roles
 * @returns the names applied now
 * @throws NewerDatabaseError before anything is changed
 */
export async function migrate(url: string): Promise<string[]> {
  const known = (await readdir(MIGRATIONS_DIR))
    .filter((file) => file.endsWith('.sql'))
    .map((file) => file.slice(0, -4));
  // A client of our own: the runner's would still be closing when this returns.
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const unknown = (await appliedMigrations(client)).filter((name) => !known.includes(name));
    if (unknown.length > 0) throw new NewerDatabaseError(unknown);
    const applied = await runner({
      dbClient: client,
      dir: MIGRATIONS_DIR,
      migrationsTable: MIGRATIONS_TABLE,
      direction: 'up',
      checkOrder: true,
      log: () => undefined,
    });
    await fillKept(url);
    return applied.map((migration) => migration.name);
  } finally {
    await client.end();
  }
}

async function fillKept(url: string): Promise<void> {
  const db = openDatabase(url, 'owner');
  try {
    const leftOut = await fillResults(db);
    if (leftOut > 0)
      process.emitWarning(
        `${leftOut} records have no results: what they hold cannot be worked out any more.`,
      );
  } finally {
    await db.close();
  }
}
