/** Builds the web application when its sources have changed since the last build. */
import { build } from 'esbuild';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { FOR_NODE } from './bundle.mjs';
import { Failure } from './failure';
import { ROOT, WEB } from './paths';
import { startChild } from './processes';

const SOURCES = [
  'apps/web',
  'packages/core',
  'packages/plan',
  'packages/rig',
  'packages/store',
  'package-lock.json',
  'tsconfig.base.json',
];
const NOT_SOURCE = /^(node_modules|\.next|test|next-env\.d\.ts|.*\.test\.tsx?|.*\.tsbuildinfo)$/;
const STAMP = `${WEB}/.next/barys-sources`;

function* filesBelow(path: string): Generator<string> {
  if (!existsSync(`${ROOT}${path}`)) return;
  if (statSync(`${ROOT}${path}`).isFile()) {
    yield path;
    return;
  }
  for (const name of readdirSync(`${ROOT}${path}`).sort((a, b) => a.localeCompare(b)))
    if (!NOT_SOURCE.test(name)) yield* filesBelow(`${path}/${name}`);
}

function hashOfSources(): string {
  const hash = createHash('sha256').update(process.version);
  for (const source of SOURCES)
    for (const file of filesBelow(source)) hash.update(`\0${file}\0`).update(readFileSync(`${ROOT}${file}`));
  return hash.digest('hex');
}

/** What is bundled beside the application: what threads load, and what the plain server answers. */
const BESIDE = {
  'compute-worker': 'compute/worker.ts',
  'calculation-worker': 'compute/calculation-worker.ts',
  'plan-worker': 'compute/plan-worker.ts',
  front: 'front.ts',
};
const fileOf = (name: string): string => `${WEB}/.next/${name}.mjs`;

async function buildBeside(name: keyof typeof BESIDE): Promise<void> {
  await build({
    entryPoints: [`${WEB}/${BESIDE[name]}`],
    outfile: fileOf(name),
    ...FOR_NODE,
    minify: true,
    alias: { '@': WEB },
    external: ['pg', 'pino', '@node-rs/argon2', 'highs'],
    logLevel: 'error',
  });
}

/** Builds if needed; says whether it did. */
export async function buildWeb(): Promise<boolean> {
  const hash = hashOfSources();
  const names = Object.keys(BESIDE) as (keyof typeof BESIDE)[];
  const isWhole = [STAMP, `${WEB}/.next/BUILD_ID`, ...names.map(fileOf)].every((file) => existsSync(file));
  if (isWhole && readFileSync(STAMP, 'utf8') === hash) return false;
  console.log('Building the application (about a minute, only when its sources changed) ...');
  const child = startChild(process.execPath, [`${ROOT}node_modules/next/dist/bin/next`, 'build', WEB], {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  });
  let output = '';
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', (chunk: Buffer) => (output += chunk.toString()));
  const [code] = (await once(child, 'close')) as [number | null];
  if (code !== 0) throw new Failure(`The application could not be built:\n${output}`);
  await Promise.all(names.map(buildBeside));
  writeFileSync(STAMP, hash);
  return true;
}
