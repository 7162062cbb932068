/** `npm run backup [-- FILE]`: a copy of the whole database, taken while Barys runs or not. */
import { lastSeal, openDatabase, SealFolder, shortHash } from '@barys/store/db';
import dayjs from 'dayjs';
import { existsSync, mkdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { dump } from './lib/dump';
import { Failure, main } from './lib/failure';
import { onDatabase } from './lib/installation';
import { HOME, SEALS } from './lib/paths';

await main(async () => {
  const file = resolve(
    process.argv[2] ?? `${HOME}/backups/barys-${dayjs().format('YYYY-MM-DD-HHmmss')}.dump`,
  );
  if (existsSync(file)) throw new Failure(`${file} is already there; nothing was written over it.`);
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const seal = await onDatabase(async (url) => {
    const db = openDatabase(url, 'owner');
    try {
      // Named before the copy is made, so that the copy is sure to hold it.
      const last = await lastSeal(db);
      dump(url, file);
      return last;
    } finally {
      await db.close();
    }
  });
  // Whoever restores it on another machine has to know whose seals to believe.
  writeFileSync(
    `${file}.seal.json`,
    JSON.stringify(
      {
        number: seal?.number ?? 0,
        hash: seal?.hash.toString('hex') ?? '',
        keys: [...SealFolder.open(SEALS).trustedKeys().values()],
      },
      null,
      1,
    ),
    { mode: 0o600 },
  );
  console.log(
    `Backed up to ${file} (${Math.ceil(statSync(file).size / 1024)} kB)` +
      (seal === null ? '.' : `, to seal ${seal.number} (${shortHash(seal.hash)}).`) +
      ` Keep a copy of it and of ${file}.seal.json on another machine.`,
  );
});
