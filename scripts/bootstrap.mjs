// @ts-check
/**
 * What has to happen before any package can be imported: the right Node.js, and the npm packages of the lock file.
 * Plain JavaScript for that reason; everything after it is TypeScript.
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const stampFile = `${root}node_modules/.barys-installed`;

function requireNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 12)) return;
  console.error(`Barys needs Node.js 20.12 or later; this is ${process.versions.node}.`);
  process.exit(1);
}

function installPackages() {
  const stamp = createHash('sha256')
    .update(readFileSync(`${root}package-lock.json`))
    .digest('hex');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return;
  console.log('Installing npm packages (first start, or the list has changed) ...');
  const { status } = spawnSync(
    'npm',
    ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error'],
    {
      cwd: root,
      stdio: 'inherit',
    },
  );
  if (status !== 0) {
    console.error('npm could not install the packages; its message is above. Nothing else was changed.');
    process.exit(1);
  }
  writeFileSync(stampFile, stamp);
}

/**
 * Runs a TypeScript script of this folder once its packages are there.
 * @param {string} script
 */
export async function run(script) {
  requireNode();
  installPackages();
  const { bundle } = await import('./lib/bundle.mjs');
  const file = await bundle(fileURLToPath(new URL(script, import.meta.url)));
  await import(pathToFileURL(file).href);
}
