/**
 * `npm test`: everything, counted. `npm test -- checks|unit|journeys` runs one part; what follows is handed to its
 * runner (`npm test -- journeys -g "whole job"`).
 */
import { spawn } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statfsSync,
  statSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb } from './lib/build';
import { ensureDatabase, startCluster } from './lib/cluster';
import { prepareDatabase } from './lib/database';
import { chromiumProgram, requirePyvisa, requireTshark } from './lib/debian';
import { main } from './lib/failure';
import { ROOT } from './lib/paths';
import { isAlive } from './lib/processes';
import { migrate } from '@barys/store/migrate';

interface Count {
  passed: number;
  failed: number;
}

const [part, ...rest] = process.argv.slice(2);
const isWanted = (name: 'checks' | 'unit' | 'journeys'): boolean => part === undefined || part === name;

const MEMORY = '/dev/shm';
const ROOM_BYTES = 4 * 2 ** 30;

/**
 * A folder for what need not outlive the tests, for their own and for all that they start: in memory where there is room,
 * since each journey and each test of the store begins with a database of its own, a thousand files.
 */
function makeScratch(): string {
  const { bavail, bsize } = existsSync(MEMORY) ? statfsSync(MEMORY) : { bavail: 0, bsize: 0 };
  const folder = bavail * bsize >= ROOM_BYTES ? MEMORY : tmpdir();
  // Runs that were interrupted could not take theirs away.
  for (const name of readdirSync(folder)) {
    const pid = /^barys-test-(\d+)-/.exec(name)?.[1];
    // What is somebody else's is theirs to take away.
    const isOwn = pid !== undefined && statSync(join(folder, name)).uid === process.getuid?.();
    if (isOwn && !isAlive(Number(pid))) rmSync(join(folder, name), { recursive: true, force: true });
  }
  const scratch = mkdtempSync(join(folder, `barys-test-${process.pid}-`));
  // The user that runs PostgreSQL has to get to its data.
  chmodSync(scratch, 0o711);
  process.env['TMPDIR'] = scratch;
  return scratch;
}

/** Runs a command to its end with its output on the terminal; true if it ended well. */
function run(command: string, args: readonly string[], env: Record<string, string> = {}): Promise<boolean> {
  return new Promise((resolve) => {
    const child = spawn(command, [...args], {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
    child.once('exit', (code) => resolve(code === 0));
    child.once('error', () => resolve(false));
  });
}

const tool = (name: string, ...args: string[]) => run(`${ROOT}node_modules/.bin/${name}`, args);
/** The compiler that checks types; the older one beside it is for tools that still look into it. */
const tsc = (...args: string[]) => run(`${ROOT}node_modules/typescript-7/bin/tsc`, args);

async function everyOf<T>(all: readonly T[], check: (one: T) => Promise<boolean>): Promise<boolean> {
  for (const one of all) if (!(await check(one))) return false;
  return true;
}

async function check(name: string, isGood: () => Promise<boolean>): Promise<Count> {
  const startedAt = Date.now();
  const passed = (await isGood()) ? 1 : 0;
  const tookS = Math.round((Date.now() - startedAt) / 1000);
  console.log(`${passed === 1 ? 'passed' : 'FAILED'}: ${name} (${tookS} s)`);
  return { passed, failed: 1 - passed };
}

/** What reads the types that the build of the application writes. */
async function checkTypes(): Promise<Count> {
  const types = await check('types', () =>
    everyOf(['.', 'packages/core', 'apps/web'], (folder) => tsc('-p', folder, '--noEmit')),
  );
  return sumOf([types, await check('lint', () => tool('oxlint', '--deny-warnings', '.'))]);
}

const FLOORS = ['--config', '.dependency-cruiser.cjs', 'packages', 'apps', 'demo', 'e2e', 'scripts'];

async function checkForm(): Promise<Count> {
  const format = await check('format', () => tool('oxfmt', '--check'));
  return sumOf([format, await check('floors', () => tool('depcruise', ...FLOORS))]);
}

const sumOf = (counts: readonly Count[]): Count =>
  counts.reduce((sum, count) => ({
    passed: sum.passed + count.passed,
    failed: sum.failed + count.failed,
  }));

/** Counts from a runner's JSON report; a runner that failed without a failing test counts as one failure. */
function countFrom(file: string, read: (report: never) => Count, isGood: boolean): Count {
  try {
    const count = read(JSON.parse(readFileSync(file, 'utf8')) as never);
    if (count.passed + count.failed === 0) throw new Error('the runner executed no test');
    return { passed: count.passed, failed: Math.max(count.failed, isGood ? 0 : 1) };
  } catch (error) {
    console.error(`No counts from ${file}: ${String(error)}`);
    return { passed: 0, failed: 1 };
  }
}

async function vitest(
  scratch: string,
  env: Record<string, string>,
  projects: readonly string[],
  extra: readonly string[],
): Promise<Count> {
  const report = join(scratch, `vitest-${projects.join('-')}.json`);
  const args = [
    'run',
    ...projects.flatMap((name) => ['--project', name]),
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
    ...extra,
  ];
  const isGood = await run(`${ROOT}node_modules/.bin/vitest`, args, env);
  const read = ({
    numPassedTests,
    numFailedTests,
  }: {
    numPassedTests: number;
    numFailedTests: number;
  }): Count => ({ passed: numPassedTests, failed: numFailedTests });
  return countFrom(report, read, isGood);
}

function unitTests(scratch: string, env: Record<string, string>): Promise<Count> {
  requirePyvisa();
  requireTshark();
  return vitest(scratch, env, ['core', 'store'], part === 'unit' ? rest : []);
}

async function playwright(
  scratch: string,
  env: Record<string, string>,
  extra: readonly string[],
): Promise<Count> {
  const report = join(scratch, 'playwright.json');
  const isGood = await run(
    `${ROOT}node_modules/.bin/playwright`,
    ['test', '--config', 'e2e/playwright.config.ts', ...extra],
    {
      ...env,
      PLAYWRIGHT_JSON_OUTPUT_FILE: report,
    },
  );
  const read = ({ stats }: { stats: { expected: number; unexpected: number; flaky: number } }): Count => ({
    passed: stats.expected,
    failed: stats.unexpected + stats.flaky,
  });
  return countFrom(report, read, isGood);
}

await main(async () => {
  const startedAt = Date.now();
  const counts: Count[] = [];
  const scratch = makeScratch();
  // More at a time than there are cores: whatever waits for a disk or has but one thread leaves its core to the others.
  const beside: Promise<Count>[] = [];
  const types = isWanted('checks') ? checkTypes() : null;
  if (types !== null) beside.push(types, types.then(checkForm));
  const cluster =
    isWanted('unit') || isWanted('journeys')
      ? await startCluster(join(scratch, 'home'), { throwaway: true })
      : null;
  try {
    const env: Record<string, string> = {};
    if (cluster !== null) {
      await ensureDatabase(cluster, 'barys_empty');
      await migrate(cluster.adminUrl('barys_empty'));
      env['BARYS_TEST_ADMIN_URL'] = cluster.adminUrl('postgres');
      env['BARYS_TEST_APP_URL'] = cluster.appUrl('postgres');
    }
    const units = isWanted('unit') ? unitTests(scratch, env) : null;
    if (units !== null) beside.push(units);
    if (cluster !== null && isWanted('journeys')) {
      const seals = join(scratch, 'seals');
      await ensureDatabase(cluster, 'barys_demo');
      await prepareDatabase(cluster.adminUrl('barys_demo'), { plants: true, seals });
      await types;
      await buildWeb();
      const ground = { ...env, CHROMIUM: chromiumProgram(), BARYS_TEST_SEALS: seals };
      beside.push(playwright(scratch, ground, part === 'journeys' ? rest : []));
      // On the build of the journeys; they wait for what starts and stops, as much as they work.
      if (units !== null) beside.push(units.then(() => vitest(scratch, env, ['start'], [])));
    }
    counts.push(...(await Promise.all(beside)));
  } finally {
    // Should the build have failed meanwhile, they still need what is taken away now.
    await Promise.all(beside);
    await cluster?.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
  const total = sumOf(counts);
  if (total.failed > 0) process.exitCode = 1;
  console.log(`\nTook ${Math.round((Date.now() - startedAt) / 1000)} s.`);
  console.log(`${total.passed} passed, ${total.failed} failed`);
});
