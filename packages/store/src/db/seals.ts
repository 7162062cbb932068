/**
 * Seals: what is committed to the trail is joined into numbered blocks, each with a hash over its entries and the seal
 * before, signed with the installation's Ed25519 key (RFC 8032), which is kept outside the database. Each seal is also
 * a line of an append-only file beside the installation, so that a trail that was cut short or made anew is found.
 */
import {
  createHash,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  sign,
  type KeyObject,
} from 'node:crypto';
import {
  closeSync,
  existsSync,
  fstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  readSync,
  writeFileSync,
} from 'node:fs';
import { open } from 'node:fs/promises';
import type { Database, Queryable } from './database';

/** Where a seal has as many entries as this, no further statement's go into it. */
const MOST_ENTRIES = 1_000_000;

export interface Seal {
  readonly number: number;
  readonly at: Date;
  /** Whether it was made right after a migration, which alone carries records into the trail. */
  readonly isMigration: boolean;
  /** The numbers of its entries, as PostgreSQL writes a multirange. */
  readonly entries: string;
  readonly contentHash: Buffer;
  readonly previousHash: Buffer;
  readonly hash: Buffer;
  readonly signature: Buffer;
  /** Whose signature: the first half of the SHA-256 of the public key, in hexadecimal digits. */
  readonly key: string;
}

const SEAL_SQL = `select number, at, is_migration as "isMigration", entries::text as entries, content_hash as "contentHash",
  previous_hash as "previousHash", hash, signature, key from seal`;

/** How a seal's hash is written where people compare it: `3f9a 22c1`. */
export const shortHash = (hash: Buffer): string =>
  hash
    .toString('hex')
    .slice(0, 8)
    .replace(/^(....)/, '$1 ');

const fingerprint = (key: KeyObject): string =>
  createHash('sha256')
    .update(key.export({ type: 'spki', format: 'der' }))
    .digest('hex')
    .slice(0, 32);

/** The hash of a seal over all that it says; its own signature and key apart. */
export const hashOfSeal = (
  seal: Pick<Seal, 'number' | 'at' | 'isMigration' | 'entries' | 'contentHash' | 'previousHash'>,
): Buffer =>
  createHash('sha256')
    .update(
      JSON.stringify([
        seal.number,
        seal.at.toISOString(),
        seal.isMigration,
        seal.entries,
        seal.contentHash.toString('hex'),
        seal.previousHash.toString('hex'),
      ]),
    )
    .digest();

/** One line of the anchor file: a seal that was made, or that a backup was put in the place of the database. */
export type Anchor =
  | { readonly number: number; readonly hash: string; readonly restored?: undefined }
  | { readonly number: number; readonly restored: true };

/** The folder of an installation's seals: private key, public keys that are trusted, and the anchor file. */
export class SealFolder {
  private constructor(
    private readonly folder: string,
    private readonly privateKey: KeyObject,
    /** Name of the key that seals now. */
    readonly key: string,
  ) {}

  /** Opens the folder, with a new key where there is none. */
  static open(folder: string): SealFolder {
    mkdirSync(`${folder}/public`, { recursive: true, mode: 0o700 });
    const file = `${folder}/private.pem`;
    if (!existsSync(file)) {
      const pem = generateKeyPairSync('ed25519').privateKey.export({ type: 'pkcs8', format: 'pem' });
      // 'wx': of two that begin at once, one makes the key and both use it.
      try {
        writeFileSync(file, pem, { mode: 0o600, flag: 'wx' });
      } catch (error) {
        if ((error as { code?: string }).code !== 'EEXIST') throw error;
      }
    }
    const privateKey = createPrivateKey(readFileSync(file));
    const opened = new SealFolder(folder, privateKey, fingerprint(createPublicKey(privateKey)));
    opened.trust(createPublicKey(privateKey).export({ type: 'spki', format: 'pem' }).toString());
    return opened;
  }

  /** Takes a public key among those whose seals are believed. */
  trust(pem: string): void {
    const file = `${this.folder}/public/${fingerprint(createPublicKey(pem))}.pem`;
    if (!existsSync(file)) writeFileSync(file, pem, { mode: 0o600 });
  }

  /** The public keys whose seals are believed, as PEM by their name. */
  trustedKeys(): ReadonlyMap<string, string> {
    return new Map(
      readdirSync(`${this.folder}/public`).map((name) => {
        const pem = readFileSync(`${this.folder}/public/${name}`, 'utf8');
        return [fingerprint(createPublicKey(pem)), pem];
      }),
    );
  }

  sign(hash: Buffer): Buffer {
    return sign(null, hash, this.privateKey);
  }

  get anchorFile(): string {
    return `${this.folder}/anchors.log`;
  }

  /** What the anchor file says, in its order. */
  anchors(): Anchor[] {
    if (!existsSync(this.anchorFile)) return [];
    return readFileSync(this.anchorFile, 'utf8')
      .split('\n')
      .filter((line) => line !== '')
      .map((line) => {
        const [number = '', what = ''] = line.split(' ');
        return what === 'restored'
          ? { number: Number(number), restored: true }
          : { number: Number(number), hash: what };
      });
  }

  /** Adds lines to the anchor file, which are on the disk when this returns. */
  private async append(lines: readonly string[]): Promise<void> {
    if (lines.length === 0) return;
    // Waited for, not blocked on: readings are taken meanwhile.
    const file = await open(this.anchorFile, 'a', 0o600);
    try {
      await file.appendFile(lines.map((line) => `${line}\n`).join(''));
      await file.sync();
    } finally {
      await file.close();
    }
  }

  /** Number of the last line, or 0; read from the end of the file, which grows for years. */
  lastAnchored(): number {
    if (!existsSync(this.anchorFile)) return 0;
    const file = openSync(this.anchorFile, 'r');
    try {
      const { size } = fstatSync(file);
      const tail = Buffer.alloc(Math.min(size, 1024));
      readSync(file, tail, 0, tail.length, size - tail.length);
      return Number(/(\d+) [^\n]*\n?$/.exec(tail.toString('utf8'))?.[1] ?? 0);
    } finally {
      closeSync(file);
    }
  }

  async anchor(seals: readonly Pick<Seal, 'number' | 'at' | 'hash'>[]): Promise<void> {
    await this.append(
      seals.map(({ number, at, hash }) => `${number} ${hash.toString('hex')} ${at.toISOString()}`),
    );
  }

  /** Says in the anchor file that a backup took the place of the database, whose last seal was this one. */
  async anchorRestore(number: number, at: Date): Promise<void> {
    await this.append([`${number} restored ${at.toISOString()}`]);
  }
}

/** The newest seal, or null before the first. */
export async function lastSeal(db: Queryable): Promise<Seal | null> {
  const [seal] = await db.query<Seal>(`${SEAL_SQL} order by number desc limit 1`);
  return seal ?? null;
}

/** Seals after a number, in their order. */
export const sealsAfter = (db: Queryable, number: number, limit: number): Promise<Seal[]> =>
  db.query<Seal>(`${SEAL_SQL} where number > $1 order by number limit $2`, [number, limit]);

/** Joins what is committed and under no seal yet into the next one; null where there is nothing. */
async function makeSeal(tx: Queryable, folder: SealFolder, isMigration: boolean): Promise<Seal | null> {
  const [found] = await tx.query<{ entries: string | null; contentHash: Buffer }>(
    `with taken as (
       delete from unsealed where first in (
         select first from (
           select first, sum(size) over (order by first) - size as before
           from (select first, (select sum(upper(r) - lower(r)) from unnest(entries) r) as size from unsealed) sized
         ) counted where before < ${MOST_ENTRIES}
       ) returning entries
     ),
     numbers as (
       select generate_series(lower(r), upper(r) - 1) as entry from taken, unnest(entries) r
     ),
     hashes as (
       select id, hash from audit_entry where id in (select entry from numbers)
       union all select id, hash from record_entry where id in (select entry from numbers)
     )
     select (select range_agg(r) from taken, unnest(entries) r)::text as entries,
       (select sha256(coalesce(string_agg(hash, '' order by id), '')) from hashes) as "contentHash"`,
  );
  if (found?.entries == null) return null;
  const before = await lastSeal(tx);
  const said = {
    number: (before?.number ?? 0) + 1,
    at: new Date(),
    isMigration,
    entries: found.entries,
    contentHash: found.contentHash,
    previousHash: before?.hash ?? createHash('sha256').digest(),
  };
  const hash = hashOfSeal(said);
  const seal = { ...said, hash, signature: folder.sign(hash), key: folder.key };
  await tx.query(
    `insert into seal (number, at, entries, content_hash, previous_hash, hash, signature, key, is_migration)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [
      seal.number,
      seal.at,
      seal.entries,
      seal.contentHash,
      seal.previousHash,
      seal.hash,
      seal.signature,
      seal.key,
      seal.isMigration,
    ],
  );
  return seal;
}

/**
 * Seals what is committed; one sealer at a time, another one waits for it.
 * @param isMigration whether a migration went before, with nothing between
 * @returns the newest seal after it, or null where nothing was ever sealed
 */
export async function sealTrail(
  db: Database,
  folder: SealFolder,
  { isMigration = false }: { readonly isMigration?: boolean } = {},
): Promise<Seal | null> {
  // Asked first, so that the idle second of an installation costs no transaction.
  const [{ waits } = { waits: false }] = await db.query<{ waits: boolean }>(
    'select exists (select from unsealed) as waits',
  );
  let newest = await lastSeal(db);
  if (waits)
    for (;;) {
      const made = await db.transaction(async (tx) => {
        await tx.query(`select pg_advisory_xact_lock(hashtext('sealer'))`);
        return makeSeal(tx, folder, isMigration);
      });
      if (made === null) break;
      newest = made;
    }
  if (newest !== null && newest.number > folder.lastAnchored()) await anchorSeals(db, folder);
  return newest;
}

/** Writes the seals that the anchor file does not know yet into it, also those of a server that was killed before. */
async function anchorSeals(db: Database, folder: SealFolder): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.query(`select pg_advisory_xact_lock(hashtext('sealer'))`);
    await folder.anchor(await sealsAfter(tx, folder.lastAnchored(), 1_000_000));
  });
}

/** The seal that covers the last signature at a job, or an amendment after it; null where there is none. */
export async function sealOfJob(db: Queryable, jobId: number): Promise<Seal | null> {
  const [seal] = await db.query<Seal>(
    `${SEAL_SQL} where entries @> (select max(id) from audit_entry
       where subject_kind = 'job' and subject_id = $1 and act in ('sign job', 'accept job', 'amend job'))`,
    [jobId],
  );
  return seal ?? null;
}
