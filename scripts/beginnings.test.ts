/** How `npm start` begins elsewhere, and what it refuses in one line. */
import { once } from 'node:events';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { expectNothingLeft, page, port, ready, start } from './lib/npm-start';
import { freePort } from './lib/ports';

describe('npm start, elsewhere or refused', () => {
  it('says in one line that its folder cannot be written to', async () => {
    const begun = start({ BARYS_HOME: '/dev/null/barys' });
    expect(await begun.ended).toBe(1);
    expect(begun.output()).toContain('The folder /dev/null/barys cannot be written to');
    expect(begun.output()).not.toContain('at Object.');
  });

  it('begins empty when asked to, with no default password', async () => {
    const empty = mkdtempSync(join(tmpdir(), 'barys-empty-'));
    chmodSync(empty, 0o755);
    const begun = start({ BARYS_HOME: empty }, ['start', '--', '--empty']);
    await ready(begun);
    expect(await page('/')).toContain('There is nobody here yet and no default password');
    begun.child.kill('SIGTERM');
    await begun.ended;
    rmSync(empty, { recursive: true, force: true });
  });

  it('says that a port is taken, and how to choose another', async () => {
    const other = createServer().listen(port, '127.0.0.1');
    await once(other, 'listening');
    const begun = start();
    expect(await begun.ended).toBe(1);
    expect(begun.output()).toContain(`Port ${port} is already taken by another program.`);
    expect(begun.output()).toContain(`PORT=${port + 100} npm start`);
    other.close();
    const wrong = start({ PORT: 'web' });
    expect(await wrong.ended).toBe(1);
    expect(wrong.output()).toContain('PORT must be a whole number from 1 to 65535, not "web".');
  });

  it('keeps its data where the user that runs PostgreSQL can reach it, also below a folder of root alone', async () => {
    const hidden = mkdtempSync(join(tmpdir(), 'barys-hidden-'));
    const begun = start({ BARYS_HOME: hidden }, ['start', '--', '--empty']);
    await ready(begun);
    expect(await page('/')).toContain('There is nobody here yet');
    begun.child.kill('SIGTERM');
    await begun.ended;
    const data = readFileSync(join(hidden, 'data-folder'), 'utf8');
    expect(data).toMatch(process.getuid?.() === 0 ? /^\/var\/lib\/barys\/[0-9a-f]{12}\/cluster$/ : hidden);
    expect(existsSync(join(data, 'PG_VERSION'))).toBe(true);
    for (const folder of [hidden, dirname(data)]) rmSync(folder, { recursive: true, force: true });
  });

  it('does not touch a folder that is no whole cluster', async () => {
    const broken = mkdtempSync(join(tmpdir(), 'barys-broken-'));
    chmodSync(broken, 0o755);
    mkdirSync(join(broken, 'cluster'));
    writeFileSync(join(broken, 'cluster', 'precious'), '');
    const begun = start({ BARYS_HOME: broken });
    expect(await begun.ended).toBe(1);
    expect(begun.output()).toContain('is not a complete PostgreSQL cluster');
    expect(existsSync(join(broken, 'cluster', 'precious'))).toBe(true);
    rmSync(broken, { recursive: true });
  });

  it('says that the server of DATABASE_URL does not answer', async () => {
    const nowhere = await freePort();
    const begun = start({ DATABASE_URL: `postgresql://x:y@127.0.0.1:${nowhere}/barys` });
    expect(await begun.ended).toBe(1);
    expect(begun.output()).toContain('The database of DATABASE_URL cannot be used');
    await expectNothingLeft();
  });
});
