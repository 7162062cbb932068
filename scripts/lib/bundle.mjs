// @ts-check
/**
 * A script in TypeScript as one file of JavaScript, so that Node.js has it in a second: loaded file by file, the thousand
 * modules of `npm start` take four.
 */
import { build } from 'esbuild';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { relative } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
/** Below the packages, so that those that stay outside are found from there. */
const FOLDER = `${ROOT}node_modules/.barys/`;

/**
 * One file for Node.js, whoever bundles.
 * @satisfies {import('esbuild').BuildOptions}
 */
export const FOR_NODE = {
  bundle: true,
  platform: /** @type {const} */ ('node'),
  format: /** @type {const} */ ('esm'),
  target: 'node20',
  // Some packages still call require.
  banner: {
    js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
  },
};

/** What a bundle follows beside its modules: how it is made, by which version, and where the doors of packages lead. */
const BESIDE = [
  'scripts/lib/bundle.mjs',
  'package-lock.json',
  .../** @type {{ workspaces: string[] }} */ (
    JSON.parse(readFileSync(`${ROOT}package.json`, 'utf8'))
  ).workspaces.map((folder) => `${folder}/package.json`),
];

/** @type {import('esbuild').Plugin} */
const ownUrls = {
  name: 'a module finds the files beside it by where it stood, not by where the bundle lies',
  setup({ onLoad }) {
    onLoad({ filter: /\.m?[jt]s$/, namespace: 'file' }, ({ path }) => {
      const contents = readFileSync(path, 'utf8');
      return contents.includes('import.meta.url')
        ? {
            contents: `const moduleUrl = ${JSON.stringify(pathToFileURL(path))}; ${contents}`,
            loader: path.endsWith('ts') ? 'ts' : 'js',
          }
        : null;
    });
  },
};

/** When and how long a file is, as last written. @param {string} file */
function stampOf(file) {
  const { mtimeMs, size } = statSync(file, { throwIfNoEntry: false }) ?? {};
  return [mtimeMs ?? 0, size ?? 0].join(' ');
}

/** Whether nothing has been written to since a bundle was made of it. @param {string} list its files and their stamps */
function isFresh(list) {
  const made = /** @type {Record<string, string>} */ (JSON.parse(readFileSync(list, 'utf8')));
  return Object.entries(made).every(([file, stamp]) => stampOf(`${ROOT}${file}`) === stamp);
}

/** Two starts may write it at once, and neither may read half of it. @param {string} file @param {string | Uint8Array} content */
function writeWhole(file, content) {
  const making = `${file}.${randomUUID()}`;
  writeFileSync(making, content);
  renameSync(making, file);
}

/**
 * Bundles a script with all that it imports, unless it was bundled before and nothing has changed.
 * @param {string} script its path
 * @returns {Promise<string>} path of the bundle
 */
export async function bundle(script) {
  const file = `${FOLDER}${relative(ROOT, script).replaceAll('/', '-')}.mjs`;
  const list = `${file}.json`;
  if (existsSync(file) && existsSync(list) && isFresh(list)) return file;
  const begunAt = Date.now();
  const { outputFiles, metafile } = await build({
    absWorkingDir: ROOT,
    entryPoints: [script],
    outfile: file,
    ...FOR_NODE,
    write: false,
    metafile: true,
    external: ['pg', 'serialport', '@node-rs/argon2', 'highs', 'esbuild', 'node-pg-migrate'],
    define: { 'import.meta.url': 'moduleUrl' },
    plugins: [ownUrls],
    logLevel: 'silent',
  });
  mkdirSync(FOLDER, { recursive: true });
  const stamps = [...BESIDE, ...Object.keys(metafile.inputs)].map((input) => [
    input,
    stampOf(`${ROOT}${input}`),
  ]);
  writeWhole(file, outputFiles[0]?.contents ?? '');
  // A bundle without a list is made anew the next time, as one has to be whose files were written to meanwhile.
  if (stamps.every(([, stamp]) => Number(stamp?.split(' ')[0]) < begunAt))
    writeWhole(list, JSON.stringify(Object.fromEntries(stamps)));
  return file;
}
