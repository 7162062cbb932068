/** `npm run backup [-- FILE]`: a copy of the whole database, taken while Barys runs or not. */
import dayjs from 'dayjs';
import { existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { dump } from './lib/dump';
import { Failure, main } from './lib/failure';
import { onDatabase } from './lib/installation';
import { HOME } from './lib/paths';

await main(async () => {
  const file = resolve(
    process.argv[2] ?? `${HOME}/backups/barys-${dayjs().format('YYYY-MM-DD-HHmmss')}.dump`,
  );
  if (existsSync(file)) throw new Failure(`${file} is already there; nothing was written over it.`);
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  await onDatabase((url) => {
    dump(url, file);
    return Promise.resolve();
  });
  console.log(
    `Backed up to ${file} (${Math.ceil(statSync(file).size / 1024)} kB). Keep a copy on another machine.`,
  );
});
