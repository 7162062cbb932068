import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';

const HOST = '127.0.0.1';

/** Whether a port on loopback can be listened on now. */
export function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer()
      .once('error', () => resolve(false))
      .listen(port, HOST, () => server.close(() => resolve(true)));
  });
}

/** Below the ports that systems give to outgoing connections: from 32768 on Linux, from 49152 by the IANA. */
const LOWEST = 10_000;
const HIGHEST = 32_767;

/**
 * A port on loopback that nothing listens on. It is none of those for outgoing connections: who knocks at one of them
 * before its server listens is now and then given the same port to knock from, and then talks to itself for ever.
 */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = randomInt(LOWEST, HIGHEST + 1);
    if (await isFree(port)) return port;
  }
}
