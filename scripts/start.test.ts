/** `npm start` from the first time to the last, on one installation. */
import { openDatabase } from '@barys/store/db';
import { listPeople, signInToDemo } from '@barys/store/people';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import {
  adminUrl,
  expectNothingLeft,
  home,
  page,
  port,
  processes,
  ready,
  rows,
  start,
  statement,
  stop,
  within,
} from './lib/npm-start';

/** The cookie of somebody who may work, signed in as a demo lets anybody. */
async function signedIn(): Promise<string> {
  const db = openDatabase(adminUrl(), 'owner');
  try {
    const technician = (await listPeople(db)).find(({ role }) => role === 'technician');
    const now = { at: new Date(), today: new Date().toISOString().slice(0, 10) };
    return `barys-session=${await signInToDemo(db, now, technician?.id ?? 0)}`;
  } finally {
    await db.close();
  }
}

/** A run in hand of nine points, and one of them that was not read yet. */
async function openPoint(): Promise<{ run: number; position: number }> {
  const [found] = (await rows(
    `select run.id as run, (select coalesce(max(position), 0) + 1 from reading where run_id = run.id) as position
     from run join job on job.id = run.job_id where stage = 'as-found'
       and not exists (select from reading where run_id = run.id and position = 9) order by run.id limit 1`,
  )) as { run: string; position: number }[];
  return { run: Number(found?.run), position: found?.position ?? 0 };
}

/** Over a connection of its own, so that each of several servers gets its share. */
const enter = (run: number, session: string, position: number) =>
  within('an entry', entered(run, session, position));

const entered = (run: number, session: string, position: number) =>
  fetch(`http://127.0.0.1:${port}/api/v1/runs/${run}/readings`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie: session, connection: 'close' },
    body: JSON.stringify({
      position,
      clientKey: randomUUID(),
      appliedText: '1',
      appliedAs: 'set',
      outputText: '5',
      desk: randomUUID(),
      supersedes: null,
    }),
  });

/** How long the fastest of some answers takes over a connection that has been used for a while, ms. */
async function fastestAnswer(path: string): Promise<number> {
  const times: number[] = [];
  for (let count = 0; count < 60; count += 1) {
    const since = performance.now();
    await (await fetch(`http://127.0.0.1:${port}${path}`)).text();
    times.push(performance.now() - since);
  }
  return Math.min(...times.slice(30));
}

describe('npm start', () => {
  it('makes the database, plants the demo, serves, and Ctrl-C stops all of it', async () => {
    mkdirSync(join(home, 'cluster.making', 'base'), { recursive: true });
    // As many web servers as it starts by itself.
    const begun = start({ BARYS_PROCESSES: '' });
    await ready(begun);
    expect(begun.output()).toContain('An earlier start was interrupted');
    expect(begun.output()).toContain('Planted the demo');
    expect(await page('/')).toContain('Technician A');
    expect(processes().some(({ command }) => command.includes('postgres'))).toBe(true);
    // The simulated bench of a demo is heard of.
    const bench = () => rows(`select channel from bench_value order by device, channel`);
    await expect.poll(bench, { timeout: 60_000 }).toEqual(
      ['pressure', 'pressure', 'current', 'display', 'display', 'digital value', 'voltage'].map(
        (channel) => ({
          channel,
        }),
      ),
    );

    const second = start();
    expect(await second.ended).toBe(1);
    expect(second.output()).toContain(`Barys is already running at http://127.0.0.1:${port}`);
    expect(await page('/')).toContain('Technician A');

    process.kill(-(begun.child.pid ?? 0), 'SIGINT');
    expect(await begun.ended).toBe(0);
    await expectNothingLeft();
    expect(existsSync(join(home, 'running'))).toBe(false);
  });

  it('opens a demo to no other machine, unless told in so many words', async () => {
    const begun = start({ BARYS_HOST: '0.0.0.0' });
    expect(await begun.ended).toBe(1);
    expect(begun.output()).toContain('This is a demo, in which anybody signs in as anybody');
    await expectNothingLeft();
  });

  it('is quick the second time and goes on with the same data; kill of npm stops all of it', async () => {
    const begun = start();
    await ready(begun);
    for (const word of ['Installing', 'Building', 'Planted', 'up to date'])
      expect(begun.output()).not.toContain(word);
    await stop(begun);
    await expectNothingLeft();
  });

  it('starts again what died, and answers in words meanwhile', async () => {
    const begun = start();
    await ready(begun);
    const kill = (part: string) => {
      const { pid } = processes().find(({ command }) => command.includes(part)) ?? { pid: 0 };
      expect(pid, part).toBeGreaterThan(0);
      process.kill(pid, 'SIGKILL');
    };
    const health = () =>
      fetch(`http://127.0.0.1:${port}/api/v1/health`).then(
        ({ status }) => status,
        () => 0,
      );
    const becomes = async (status: number) => {
      for (let tries = 0; tries < 600 && (await health()) !== status; tries += 1) await sleep(100);
      expect(await health()).toBe(status);
    };
    kill(`serve.mjs ${port}`);
    await becomes(0);
    await becomes(200);
    expect(begun.output()).toMatch(/The web server .* ended; starting it again in 1 s/);
    kill('-c listen_addresses=127.0.0.1');
    await becomes(503);
    const away = await fetch(`http://127.0.0.1:${port}/jobs`);
    expect(away.headers.get('retry-after')).not.toBeNull();
    expect(await away.text()).toContain('Barys cannot reach its database');
    expect((await fetch(`http://127.0.0.1:${port}/api/v1/health/live`)).status).toBe(200);
    await becomes(200);
    // Said a moment after the first answer.
    for (let tries = 0; tries < 100 && !/PostgreSQL .* runs again/.test(begun.output()); tries += 1)
      await sleep(100);
    expect(begun.output()).toMatch(/PostgreSQL .* runs again/);
    await stop(begun);
    await expectNothingLeft();
  });

  // Twice it hung in a whole run, and in none of sixty by itself: should it ever again, it says in which wait, and is tried
  // once more.
  it(
    'serves from several processes at one door, which share sessions and limits, and replaces one that dies',
    { retry: 1 },
    async () => {
      const begun = start({ BARYS_PROCESSES: '2' });
      await ready(begun);
      // The door, and two behind it.
      const servers = () => processes().filter(({ command }) => command.includes(`serve.mjs ${port}`));
      // A process is seen for an instant before it is what it becomes: each look is taken by itself.
      await expect.poll(() => servers().length, { timeout: 20_000 }).toBe(3);
      // An answer in pieces goes out at once: TCP would hold a piece back until the one before is heard of, at least 40 ms later.
      expect(await fastestAnswer('/api/v1/health/live')).toBeLessThan(35);

      const session = await signedIn();
      const { run, position } = await openPoint();
      await statement('delete from request_rate');
      const enterFourTimes = async () => {
        const answers: number[] = [];
        for (let count = 0; count < 4; count += 1) answers.push((await enter(run, session, position)).status);
        return answers;
      };
      // One is kept, the others find the point taken; connections go to the servers in turn, and one count has them all.
      expect(await enterFourTimes()).toEqual([201, 409, 409, 409]);
      const counts = `request_rate where key like 'writes:person %'`;
      await expect.poll(() => rows(`select points from ${counts}`)).toEqual([{ points: 4 }]);
      await statement(
        `update request_rate set points = 300, expire = extract(epoch from now()) * 1000 + 60000
       where key like 'writes:person %'`,
      );
      // Each lets by what comes before it hears from the count of all, which may be soon, and nothing after that.
      for (const status of await enterFourTimes()) expect([409, 429]).toContain(status);
      const entering = async () => (await enter(run, session, position)).status;
      await expect.poll(entering, { timeout: 10_000 }).toBe(429);
      await sleep(1000);
      expect(await enterFourTimes()).toEqual([429, 429, 429, 429]);
      await statement('delete from request_rate');

      // One that dies within five seconds of its start is not replaced: it would only die again.
      await sleep(5500);
      const parentOf = (pid: number) =>
        Number(/^PPid:\s+(\d+)$/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]);
      // Not the door, which is nobody's child here; numbers of processes begin anew now and then and say nothing.
      const worker = servers().find(({ pid }) => servers().some((one) => one.pid === parentOf(pid)));
      expect(worker).toBeDefined();
      const dying = worker?.pid ?? NaN;
      // Connections that wait for it while it dies are let go: who knocked hears of it, and is not left waiting.
      process.kill(dying, 'SIGSTOP');
      const knocks = Array.from({ length: 8 }, () =>
        page('/api/v1/health/live').then(
          () => 'answered',
          (error: unknown) => String(error),
        ),
      );
      await sleep(500);
      process.kill(dying, 'SIGKILL');
      const heard = await Promise.all(knocks);
      expect(heard.filter((one) => one === 'answered').length).toBeGreaterThanOrEqual(4);
      expect(heard.filter((one) => one.startsWith('Error: no end'))).toEqual([]);
      const isWhole = () => servers().length === 3 && servers().every(({ pid }) => pid !== worker?.pid);
      await expect.poll(isWhole, { timeout: 60_000 }).toBe(true);
      expect(await page('/api/v1/health/live')).toContain('alive');

      await stop(begun);
      await expectNothingLeft();
    },
  );

  it('backs up while it runs, refuses to restore then, and comes back as it was', async () => {
    const file = join(home, 'kept.dump');
    const npm = async (...args: string[]) => {
      const ran = start({}, ['run', ...args]);
      return { code: await ran.ended, output: ran.output() };
    };
    const begun = start();
    await ready(begun);
    const backed = await npm('backup', '--', file);
    expect(backed, backed.output).toMatchObject({ code: 0 });
    expect(backed.output).toMatch(/to seal \d+ \([0-9a-f]{4} [0-9a-f]{4}\)/);
    for (const kept of [file, `${file}.seal.json`]) expect(statSync(kept).mode & 0o077).toBe(0);
    expect((await npm('backup', '--', file)).output).toContain('is already there');
    expect((await npm('restore', '--', file)).output).toContain('Barys is running');
    await statement(`update instrument set service = 'changed since' where tag = 'PT-2107'`);
    await stop(begun);

    const restored = await npm('restore', '--', file);
    expect(restored.output).toMatch(/Restored .* seals, \d+ entries, \d+ records, all as they were written/);
    const verified = await npm('audit:verify');
    expect(verified).toMatchObject({ code: 0 });
    expect(verified.output).toContain('All is as it was written');
    expect((await npm('audit:verify', '--', '--since', '1')).output).toContain(
      'All since seal 1 is as it was',
    );
    expect((await npm('audit:verify', '--', '--since', 'x')).output).toContain('Say which seal');

    const again = start();
    await ready(again);
    expect(await rows(`select service from instrument where tag = 'PT-2107'`)).toEqual([
      { service: 'Thin-juice heater 3, inlet pressure' },
    ]);
    // The application's role still may not change what is only added to.
    const appliesTo = `select has_table_privilege('barys_app', 'audit_entry', 'delete') as may`;
    expect(await rows(appliesTo)).toEqual([{ may: false }]);
    await statement(
      `alter table audit_entry disable trigger append_only;
       update audit_entry set detail = '{"forged": true}' where id = (select min(id) from audit_entry);
       alter table audit_entry enable trigger append_only`,
    );
    expect((await npm('audit:verify')).output).toMatch(/differs is entry \d+ \(.*\): it is altered/);
    const forged = join(home, 'forged.dump');
    expect(await npm('backup', '--', forged)).toMatchObject({ code: 0 });
    await stop(again);
    expect((await npm('restore', '--', forged)).output).toMatch(/entry \d+ .*altered. Nothing was changed/);
    expect((await npm('restore', '--', file)).code).toBe(0);
    expect((await npm('restore', '--', join(home, 'none'))).output).toContain('There is no file');
  });

  // Behind the one above: the zone is changed by no act here, and the trail would say so.
  it('keeps the clock of the site, wherever the machine thinks that it stands', async () => {
    for (const zone of ['America/Anchorage', 'Asia/Kathmandu']) {
      const begun = start({ TZ: 'Pacific/Kiritimati' });
      await ready(begun);
      await statement(`update installation set time_zone = '${zone}'`);
      await stop(begun);

      const again = start({ TZ: 'Pacific/Kiritimati' });
      await ready(again);
      const { run, position } = await openPoint();
      const response = await enter(run, await signedIn(), position);
      expect(response.status, await response.clone().text()).toBe(201);
      const { savedClock } = (await response.json()) as { savedClock: string };
      const [kept] = await rows(
        `select to_char(read_at at time zone '${zone}', 'HH24:MI:SS') as clock from reading order by id desc limit 1`,
      );
      expect(kept).toEqual({ clock: savedClock });
      await stop(again);
    }
    await expectNothingLeft();
  });

  it('leaves nothing behind even when it is killed without notice, and starts again after', async () => {
    const begun = start();
    await ready(begun);
    const script = Number(readFileSync(join(home, 'running'), 'utf8').split('\n')[0]);
    process.kill(script, 'SIGKILL');
    await begun.ended;
    await expectNothingLeft();
    const orphaned = start();
    await ready(orphaned);
    orphaned.child.kill('SIGKILL');
    await expectNothingLeft();
    const again = start();
    await ready(again);
    expect(await page('/')).toContain('Technician A');
    await statement(`insert into schema_migration (name, run_on) values ('9999_newer', now())`);
    await stop(again);
  });

  it('says that a database is newer than the code, and changes nothing', async () => {
    const begun = start();
    expect(await begun.ended).toBe(1);
    expect(begun.output()).toContain('The database was made by a newer Barys (it has 9999_newer');
    expect(begun.output()).not.toContain('at Object.');
    await expectNothingLeft();
  });
});
