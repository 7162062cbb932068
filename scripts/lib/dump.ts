/** Copies of a whole database by PostgreSQL's own programs. */
import { spawnSync } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import { postgresPrograms } from './debian';
import { Failure } from './failure';

/** The address without its password, which would be seen in the list of processes. */
function addressOf(url: string): { address: string; password: string } {
  const address = new URL(url);
  const password = decodeURIComponent(address.password);
  address.password = '';
  return { address: address.href, password };
}

function run(program: 'pg_dump' | 'pg_restore', url: string, args: readonly string[]): void {
  const { address, password } = addressOf(url);
  const { status, stderr } = spawnSync(
    `${postgresPrograms(null)}/${program}`,
    [`--dbname=${address}`, ...args],
    {
      encoding: 'utf8',
      env: { ...process.env, PGPASSWORD: password },
    },
  );
  if (status !== 0) throw new Failure(`${program} could not do it:\n${stderr}`);
}

/** Writes a consistent copy of a database to a file while others go on working. */
export const dump = (url: string, file: string): void => {
  // Made beforehand for its owner alone: pg_dump writes into what is there.
  closeSync(openSync(file, 'wx', 0o600));
  run('pg_dump', url, ['--format=custom', `--file=${file}`]);
};

/** Fills an empty database from such a file, whole or not at all. */
export const fill = (url: string, file: string): void =>
  run('pg_restore', url, ['--single-transaction', '--exit-on-error', file]);
