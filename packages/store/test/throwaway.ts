/** A database of its own for a test file, on the throw-away server that `npm test` starts. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import pg from 'pg';
import { openDatabase, type Database } from '../src/db/database';
import { SealFolder, sealTrail } from '../src/db/seals';
import { verifyTrail } from '../src/db/verify';

function serverUrl(name: 'BARYS_TEST_ADMIN_URL' | 'BARYS_TEST_APP_URL'): URL {
  const text = process.env[name];
  if (text === undefined) throw new Error(`${name} is not set; run "npm test -- unit"`);
  return new URL(text);
}

const inDatabase = (url: URL, name: string): string =>
  Object.assign(new URL(url), { pathname: `/${name}` }).href;

export interface Throwaway {
  /** As the application connects. */
  readonly app: Database;
  /** As the owner of the tables connects. */
  readonly owner: Database;
  readonly ownerUrl: string;
  drop(): Promise<void>;
}

async function onServer(sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: serverUrl('BARYS_TEST_ADMIN_URL').href });
  await client.connect();
  await client.query(sql);
  await client.end();
}

/** @param template `barys_empty` has the schema and nothing else; `template0` has not even that */
export async function throwaway(template: 'barys_empty' | 'template0' = 'barys_empty'): Promise<Throwaway> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await onServer(`create database ${name} template ${template}`);
  const ownerUrl = inDatabase(serverUrl('BARYS_TEST_ADMIN_URL'), name);
  const app = openDatabase(inDatabase(serverUrl('BARYS_TEST_APP_URL'), name));
  const owner = openDatabase(ownerUrl, 'owner');
  return {
    app,
    owner,
    ownerUrl,
    async drop() {
      await app.close();
      await owner.close();
      await onServer(`drop database ${name} with (force)`);
    },
  };
}

/** Seals what is there, with a key for the occasion, and says whether trail and records agree, or where they do not. */
export async function soundness(db: Database): Promise<string> {
  const scratch = mkdtempSync(`${tmpdir()}/barys-seals-`);
  try {
    const folder = SealFolder.open(scratch);
    await sealTrail(db, folder, { isMigration: true });
    const found = await db.transaction((tx) =>
      verifyTrail(tx, { keys: folder.trustedKeys(), anchors: folder.anchors() }),
    );
    return found.isSound ? 'sound' : found.where;
  } finally {
    rmSync(scratch, { recursive: true });
  }
}
