// @ts-check
/**
 * The web server: Next's request handler behind a plain one of Node.js, which knows what the handler cannot: from which
 * address a request really comes. `node serve.mjs <port>`; on loopback unless BARYS_HOST says otherwise.
 */
import next from 'next';
import { refusalOf } from './bodies.mjs';
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';

const port = Number(process.argv[2] ?? 3000);
const hostname = process.env['BARYS_HOST'] ?? '127.0.0.1';
/** Said by whoever runs Barys behind a proxy of theirs; without it nobody's word on an address is taken. */
const trustsProxy = process.env['BARYS_TRUSTED_PROXY'] === '1';

const app = next({ dev: false, dir: fileURLToPath(new URL('.', import.meta.url)), hostname, port });
const handle = app.getRequestHandler();
await app.prepare();

/** @param {import('node:http').IncomingMessage} request */
function addressOf(request) {
  const forwarded = [request.headers['x-forwarded-for'] ?? []].flat().join(',').split(',');
  // The last one is what the proxy itself saw; those before it are the sender's own words.
  const seen = trustsProxy ? forwarded.at(-1)?.trim() : '';
  return seen || request.socket.remoteAddress || 'unknown';
}

const server = createServer((request, response) => {
  const refused = refusalOf(request);
  if (refused !== null) {
    // What is on its way is not read: the connection ends with the answer.
    response.writeHead(refused.status, { 'content-type': 'application/problem+json', connection: 'close' });
    response.end(JSON.stringify({ type: 'about:blank', title: 'Refused', ...refused }), () =>
      request.destroy(),
    );
    return;
  }
  request.headers['x-barys-address'] = addressOf(request);
  handle(request, response).catch((error) => {
    process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`);
    if (!response.headersSent) response.statusCode = 500;
    response.end();
  });
});
server.listen(port, hostname);

for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), 2000).unref();
  });
