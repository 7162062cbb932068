/** Debian packages that Barys needs: found, installed where this process may, else named in one clear line. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { Failure } from './failure';

const isRoot = process.getuid?.() === 0;

function aptInstall(packageName: string, purpose: string): void {
  if (!isRoot || !existsSync('/usr/bin/apt-get'))
    throw new Failure(
      `${purpose} is not installed, and this user may not install it.\n` +
        `Run once as root: apt-get install ${packageName}\n` +
        (packageName === 'postgresql'
          ? 'Or set DATABASE_URL to a PostgreSQL server that is already there.'
          : ''),
    );
  console.log(`Installing ${purpose} (Debian package ${packageName}) ...`);
  const apt = (...args: string[]) =>
    spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive', UCF_FORCE_CONFFOLD: '1' },
    }).status === 0;
  // A configuration file that is already there is kept, without a question that nobody could answer.
  const install = () =>
    apt('install', '-y', '--no-install-recommends', '-o', 'Dpkg::Options::=--force-confold', packageName);
  // A fresh machine has no package list, an old one has a stale list; both show as a failed install.
  if (!install() && !(apt('update') && install()))
    throw new Failure(`apt-get could not install ${packageName}; its message is above.`);
}

const serverFolders = (): string[] =>
  existsSync('/usr/lib/postgresql')
    ? readdirSync('/usr/lib/postgresql')
        .sort((a, b) => Number(b) - Number(a))
        .map((version) => `/usr/lib/postgresql/${version}/bin`)
        .filter((folder) => existsSync(`${folder}/postgres`))
    : [];

/**
 * The folder of PostgreSQL's programs.
 * @param major the version that a cluster was made with, where there is one
 */
export function postgresPrograms(major: string | null): string {
  if (serverFolders().length === 0) {
    // Without this, Debian's package would start a server of its own beside the private one.
    if (isRoot && !existsSync('/etc/postgresql-common/createcluster.conf')) {
      mkdirSync('/etc/postgresql-common', { recursive: true });
      writeFileSync('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n');
    }
    aptInstall('postgresql', 'PostgreSQL');
  }
  const folders = serverFolders();
  const fitting = major === null ? folders[0] : folders.find((folder) => folder.includes(`/${major}/`));
  if (fitting === undefined)
    throw new Failure(
      `The database was made by PostgreSQL ${major}, which is no longer installed (found: ${folders.join(', ')}).\n` +
        `Run once as root: apt-get install postgresql-${major}`,
    );
  return fitting;
}

/**
 * Debian's Chromium without windows, for the journeys: the same pages take a quarter less of the processor. Where it cannot be
 * had, the one with windows that is there.
 */
export function chromiumProgram(): string {
  const [plain, whole] = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];
  if (existsSync(plain)) return plain;
  try {
    aptInstall('chromium-headless-shell', 'Chromium');
  } catch (failure) {
    if (existsSync(whole)) return whole;
    throw failure;
  }
  return plain;
}

/** PyVISA and its back end in Python, for the tests: an instrument driver by others. */
export function requirePyvisa(): void {
  for (const name of ['pyvisa', 'pyvisa-py'])
    if (!existsSync(`/usr/lib/python3/dist-packages/${name.replace('-', '_')}`))
      aptInstall(`python3-${name}`, name === 'pyvisa' ? 'PyVISA' : 'PyVISA-py');
}

/** Decodes what is captured of HART-IP, for the tests; capturing is for root, or the group that Debian made for it. */
export function requireTshark(): void {
  if (!existsSync('/usr/bin/tshark')) aptInstall('tshark', 'tshark');
}

/** Who runs PostgreSQL: root may not, so the user that Debian's package made does. */
export function postgresUser(): { uid: number; gid: number } | object {
  if (!isRoot) return {};
  const id = (flag: string) =>
    Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout.trim());
  const [uid, gid] = [id('-u'), id('-g')];
  if (!uid || !gid)
    throw new Failure('There is no user "postgres" to run PostgreSQL as; root may not run it.');
  return { uid, gid };
}
