import { once } from 'node:events';
import { createServer, type AddressInfo } from 'node:net';
import { describe, expect, it } from 'vitest';
import { freePort, isFree } from './ports';
import { hasEnded, isAlive, startChild, stopChild } from './processes';

const NODE = process.execPath;

describe('a child process', () => {
  it('is asked to end and waited for', async () => {
    const child = startChild(NODE, ['-e', 'setInterval(() => {}, 1000)'], { stdio: 'ignore' });
    await once(child, 'spawn');
    expect(isAlive(child.pid ?? 0)).toBe(true);
    await stopChild(child, 'SIGTERM');
    expect(hasEnded(child)).toBe(true);
    expect(child.signalCode).toBe('SIGTERM');
  });

  it('that does not listen is made to end', async () => {
    const deaf = `process.on('SIGTERM', () => {}); setInterval(() => {}, 1000); console.log('deaf')`;
    const child = startChild(NODE, ['-e', deaf], { stdio: ['ignore', 'pipe', 'ignore'] });
    if (child.stdout === null) throw new Error('no output to wait for');
    await once(child.stdout, 'data');
    await stopChild(child, 'SIGTERM', 100);
    expect(child.signalCode).toBe('SIGKILL');
  });

  it('that has ended already is no trouble', async () => {
    const child = startChild(NODE, ['-e', ''], { stdio: 'ignore' });
    await once(child, 'exit');
    await stopChild(child, 'SIGTERM');
    expect(child.exitCode).toBe(0);
  });
});

describe('ports', () => {
  it('a free one is free, and one that is listened on is not', async () => {
    const port = await freePort();
    expect(await isFree(port)).toBe(true);
    // None that an outgoing connection may be given.
    expect(port).toBeLessThan(32_768);
    const server = createServer().listen(0, '127.0.0.1');
    await once(server, 'listening');
    expect(await isFree((server.address() as AddressInfo).port)).toBe(false);
    server.close();
  });
});
