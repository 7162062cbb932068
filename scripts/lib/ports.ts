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

/** A port on loopback that nothing listens on. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer()
      .once('error', reject)
      .listen(0, HOST, () => {
        const address = server.address();
        server.close(() =>
          typeof address === 'object' && address ? resolve(address.port) : reject(new Error('no port')),
        );
      });
  });
}
