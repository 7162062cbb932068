/**
 * Each journey has a works of its own: a fresh copy of the demo database, and a web server that it may kill. A server
 * goes on to the next journey, as it goes on when a database is restored under it: one that has just begun is slow.
 */
import { test as base, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import {
  closeSync,
  cpSync,
  existsSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  truncateSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { freePort } from '../../scripts/lib/ports';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

function serverUrl(name: 'BARYS_TEST_ADMIN_URL' | 'BARYS_TEST_APP_URL', database: string): string {
  const text = process.env[name];
  if (text === undefined) throw new Error(`${name} is not set; run "npm test -- journeys"`);
  return Object.assign(new URL(text), { pathname: `/${database}` }).href;
}

async function query<Row extends object>(database: string, sql: string): Promise<Row[]> {
  const client = new pg.Client({ connectionString: serverUrl('BARYS_TEST_ADMIN_URL', database) });
  await client.connect();
  try {
    return (await client.query<Row>(sql)).rows;
  } finally {
    await client.end();
  }
}

export class Works {
  private server: ChildProcess | null = null;
  private constructor(
    private readonly database: string,
    private readonly port: number,
    /** Keys and anchors of this copy of the demo's trail. */
    private readonly seals: string,
  ) {}

  static async open(): Promise<Works> {
    const database = `journey_${randomUUID().replaceAll('-', '')}`;
    return new Works(database, await freePort(), mkdtempSync(`${tmpdir()}/barys-journey-`));
  }

  /** The demo as it was planted, or the scene as it was kept, and a server that answers. */
  async renew(from: 'demo' | 'scene' = 'demo'): Promise<void> {
    const [template, seals] =
      from === 'demo' ? ['barys_demo', process.env['BARYS_TEST_SEALS'] ?? ''] : [this.scene, this.sceneSeals];
    await query('postgres', `drop database if exists ${this.database} with (force)`);
    // While there is no database the running server seals nothing; what it was writing at that moment may still end.
    rmSync(this.seals, { recursive: true, maxRetries: 20, retryDelay: 50 });
    cpSync(seals, this.seals, { recursive: true });
    if (existsSync(this.log)) truncateSync(this.log);
    await query('postgres', `create database ${this.database} template ${template}`);
    if (this.server === null) await this.startServer();
    else await this.untilHealthy();
  }

  private get scene(): string {
    return `${this.database}_scene`;
  }

  private get sceneSeals(): string {
    return `${this.seals}-scene`;
  }

  /** Keeps all as it is now, for the next journeys of a file that begin where this one is; whoever is at a page reloads it. */
  async keepScene(): Promise<void> {
    await query('postgres', `drop database if exists ${this.scene}`);
    await this.withoutDatabase(async (away) => {
      rmSync(this.sceneSeals, { recursive: true, force: true });
      cpSync(this.seals, this.sceneSeals, { recursive: true });
      await query('postgres', `create database ${this.scene} template ${away}`);
    });
    await this.untilHealthy();
  }

  private get log(): string {
    return `${this.seals}.log`;
  }

  /** What the server said since the journey began. */
  said(): string {
    return existsSync(this.log) ? readFileSync(this.log, 'utf8') : '';
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async startServer(): Promise<void> {
    const log = openSync(this.log, 'a');
    this.server = spawn(process.execPath, ['serve.mjs', String(this.port)], {
      cwd: `${ROOT}apps/web`,
      stdio: ['ignore', log, log],
      env: {
        ...process.env,
        DATABASE_URL: serverUrl('BARYS_TEST_APP_URL', this.database),
        BARYS_SEALS: this.seals,
        // Browsers share the cores already; several servers at one door have tests of their own.
        BARYS_PROCESSES: '1',
        NODE_ENV: 'production',
        NEXT_TELEMETRY_DISABLED: '1',
      },
    });
    closeSync(log);
    await this.untilHealthy();
  }

  private async untilHealthy(): Promise<void> {
    for (let tries = 0; tries < 300; tries += 1) {
      const answer = await fetch(`${this.url}/api/v1/health`).catch(() => null);
      if (answer?.ok) return;
      await sleep(100);
    }
    throw new Error('the web server did not answer within 30 s');
  }

  /** The cookie of a session of one of the demo's people, for requests without a page. */
  async cookieOf(name: string): Promise<string> {
    const token = randomUUID();
    await this.query(
      `insert into session (token_hash, person_id, created_at, expires_at, seen_at)
       select sha256('${token}'), id, now(), now() + interval '1 day', now() from person where name = '${name}'`,
    );
    return `barys-session=${token}`;
  }

  /** Takes the database away from the running server, as a restart or a restore does, and gives it back. */
  async withoutDatabase(meanwhile: (away: string) => Promise<void>): Promise<void> {
    const away = `${this.database}_away`;
    const rename = (from: string, to: string) =>
      query(
        'postgres',
        `select pg_terminate_backend(pid) from pg_stat_activity where datname = '${from}';
         alter database ${from} rename to ${to}`,
      );
    await rename(this.database, away);
    try {
      await meanwhile(away);
    } finally {
      await rename(away, this.database);
    }
  }

  /** As a power cut would: without a chance to finish anything. */
  async killServer(): Promise<void> {
    if (this.server === null) return;
    const ended = once(this.server, 'exit');
    this.server.kill('SIGKILL');
    await ended;
    this.server = null;
  }

  query<Row extends object>(sql: string): Promise<Row[]> {
    return query<Row>(this.database, sql);
  }

  async close(): Promise<void> {
    await this.killServer();
    for (const database of [this.database, this.scene])
      await query('postgres', `drop database if exists ${database} with (force)`);
    rmSync(this.seals, { recursive: true, maxRetries: 20, retryDelay: 50 });
    rmSync(this.sceneSeals, { recursive: true, force: true });
    rmSync(this.log, { force: true });
  }
}

let ground: Works | null = null;

/** The works of this worker's journeys. */
export function worksHere(): Works {
  if (ground === null) throw new Error('no works is open');
  return ground;
}

export const test = base.extend<{ works: Works; page: Page }, { ground: Works }>({
  ground: [
    async ({}, use) => {
      ground = await Works.open();
      await use(ground);
      await ground.close();
    },
    { scope: 'worker' },
  ],
  works: async ({ ground }, use, info) => {
    await ground.renew();
    await use(ground);
    if (info.status !== info.expectedStatus)
      await info.attach('what the server said', { body: ground.said() });
  },
  baseURL: async ({ works }, use) => use(works.url),
  // Errors of the page's own code fail the journey that met them.
  page: async ({ page }, use) => {
    const errors: string[] = [];
    page.on('pageerror', (error) => errors.push(error.message));
    await use(page);
    if (errors.length > 0) throw new Error(`the page threw: ${errors.join('; ')}`);
  },
});

export { expect } from '@playwright/test';
