import { buildSync } from 'esbuild';
import { spawnSync } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import { expect, it } from 'vitest';

const LINES = `
  import { logOf } from './log';
  const log = logOf('test');
  for (let line = 0; line < 5000; line += 1) log.error({ line }, 'a line');
  // Whatever the logger put off has come by then.
  setTimeout(() => { process.stderr.write('went on'); }, 200);`;

it('a log that has no room loses lines; the server goes on and does not spin', () => {
  const cwd = import.meta.dirname;
  const { outputFiles } = buildSync({
    stdin: { contents: LINES, resolveDir: cwd },
    bundle: true,
    write: false,
    platform: 'node',
    format: 'esm',
    packages: 'external',
  });
  // Linux gives ENOSPC for every write to this device.
  const full = openSync('/dev/full', 'w');
  try {
    const { status, stderr } = spawnSync(
      process.execPath,
      ['--input-type=module', '-e', outputFiles[0]?.text ?? ''],
      {
        cwd,
        stdio: ['ignore', full, 'pipe'],
        encoding: 'utf8',
        timeout: 20_000,
      },
    );
    expect({ status, stderr }).toEqual({ status: 0, stderr: 'went on' });
  } finally {
    closeSync(full);
  }
}, 30_000);
