/** Verification of a trail at the terminal. */
import {
  lastSeal,
  openDatabase,
  verifyTrail,
  type Anchor,
  type Queryable,
  type SealFolder,
  type Verified,
} from '@barys/store/db';

/**
 * Compares records, trail, seals and what is kept outside the database.
 * @param since a seal up to which all is taken as it was verified then; 0 for everything
 * @param isRestoring whether it is a backup's, which the anchor file may be ahead of
 * @param tells whether progress is written, on a terminal in one line
 */
export async function verifyDatabase(
  url: string,
  folder: SealFolder,
  {
    since = 0,
    isRestoring = false,
    isJustMigrated = false,
    tells = false,
  }: {
    readonly since?: number;
    readonly isRestoring?: boolean;
    readonly isJustMigrated?: boolean;
    readonly tells?: boolean;
  } = {},
): Promise<Verified> {
  const db = openDatabase(url, 'owner');
  const isLine = tells && process.stdout.isTTY;
  try {
    return await db.transaction(async (tx) => {
      await tx.query('set transaction isolation level repeatable read read only');
      return verifyTrail(
        tx,
        {
          keys: folder.trustedKeys(),
          anchors: isRestoring ? await anchorsUpTo(tx, folder) : folder.anchors(),
        },
        {
          since,
          isJustMigrated,
          tell: ({ what, done, of }) => {
            if (isLine) process.stdout.write(`\r\x1b[K${what}: ${done} of ${of}`);
          },
        },
      );
    });
  } finally {
    if (isLine) process.stdout.write('\r\x1b[K');
    await db.close();
  }
}

/** The anchors that a backup has to agree with: those of its own length. */
async function anchorsUpTo(tx: Queryable, folder: SealFolder): Promise<readonly Anchor[]> {
  const number = (await lastSeal(tx))?.number ?? 0;
  return [...folder.anchors(), { number, restored: true }];
}

export const soundInWords = ({ seals, entries, records }: Verified & { isSound: true }): string =>
  `${seals} seals, ${entries} entries, ${records} records`;
