// @ts-check
/**
 * The web server: Next's request handler behind a plain one of Node.js, which knows what the handler cannot: from which
 * address a request really comes. `node serve.mjs <port>`; on loopback unless BARYS_HOST says otherwise. BARYS_PROCESSES
 * of them share the port, one a core but at most four unless it says otherwise; what they have to know of each other is in the database.
 */
import cluster from 'node:cluster';
import next from 'next';
import { refusalOf } from './bodies.mjs';
import { createServer } from 'node:http';
import { createServer as createDoor, Socket } from 'node:net';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';

const port = Number(process.argv[2] ?? 3000);
const hostname = process.env['BARYS_HOST'] ?? '127.0.0.1';
/** Said by whoever runs Barys behind a proxy of theirs; without it nobody's word on an address is taken. */
const trustsProxy = process.env['BARYS_TRUSTED_PROXY'] === '1';
/** Each holds up to eleven connections of the database and some 200 MB. */
const MOST_BY_THEMSELVES = 4;
const processes = Number(
  process.env['BARYS_PROCESSES'] || Math.min(availableParallelism(), MOST_BY_THEMSELVES),
);

/** How long a body that was refused is let go by. */
const LET_BY_MS = 1000;

/** @param {import('node:http').IncomingMessage} request */
function addressOf(request) {
  const forwarded = [request.headers['x-forwarded-for'] ?? []].flat().join(',').split(',');
  // The last one is what the proxy itself saw; those before it are the sender's own words.
  const seen = trustsProxy ? forwarded.at(-1)?.trim() : '';
  return seen || request.socket.remoteAddress || 'unknown';
}

/** One server; of several, each answers every other connection. */
async function serve() {
  const app = next({ dev: false, dir: fileURLToPath(new URL('.', import.meta.url)), hostname, port });
  const handle = app.getRequestHandler();
  await app.prepare();
  // Made by the build, beside the application.
  const { answerSoon } = await import(new URL('.next/front.mjs', import.meta.url).href);
  const server = createServer((request, response) => {
    const refused = refusalOf(request);
    if (refused !== null) {
      // What is on its way is let go by for a moment, so that whoever still sends reads the answer; then the connection ends.
      response.writeHead(refused.status, { 'content-type': 'application/problem+json', connection: 'close' });
      response.end(JSON.stringify({ type: 'about:blank', title: 'Refused', ...refused }));
      request.resume();
      setTimeout(() => request.destroy(), LET_BY_MS).unref();
      return;
    }
    request.headers['x-barys-address'] = addressOf(request);
    (answerSoon(request, response) ?? handle(request, response)).catch((error) => {
      process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`);
      if (!response.headersSent) response.statusCode = 500;
      response.end();
    });
  });
  if (cluster.isWorker) {
    process.on('message', (connection, socket) => {
      process.send?.(connection);
      // It can have been closed on its way.
      if (!(socket instanceof Socket)) return;
      server.emit('connection', socket);
      socket.resume();
    });
    // It never listens itself, but its limits of time begin to count where it would.
    server.emit('listening');
    process.send?.(READY);
  } else server.listen(port, hostname);

  /** What is under way is answered; `close` would not wait for it where the door holds the port. */
  const open = new Set();
  server.on('connection', (socket) => {
    open.add(socket);
    socket.once('close', () => open.delete(socket));
  });
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      server.close(() => undefined);
      setInterval(() => {
        server.closeIdleConnections();
        if (open.size === 0) process.exit(0);
      }, 20);
      setTimeout(() => process.exit(0), 2000).unref();
    });
}

const READY = 'ready';
/** A server that dies this soon after its start would only die again. */
const TOO_SOON_MS = 5000;

/**
 * Several, each started again when it dies. Connections are handed out in turn, here and not by `cluster`: that gives a
 * burst of them to whichever server is not yet busy with the first.
 */
function serveTogether() {
  /** @type {import('node:cluster').Worker[]} */
  const ready = [];
  /**
   * Connections that a server has not said to have taken. They stay open here as well: Node.js forgets those that are on
   * their way to a server that dies, and nobody would ever answer or close them.
   * @type {Map<import('node:cluster').Worker, Map<number, Socket>>}
   */
  const untaken = new Map();
  let turn = 0;
  let isEnding = false;
  // A server of HTTP asks for no delay by itself, but of connections that it accepts, not of those that it is handed.
  const door = createDoor({ pauseOnConnect: true, noDelay: true }, (socket) => {
    const worker = ready[(turn += 1) % ready.length];
    // Who hangs up meanwhile is no fault of this process.
    socket.on('error', () => undefined);
    if (worker === undefined) {
      socket.destroy();
      return;
    }
    untaken.get(worker)?.set(turn, socket);
    worker.send(turn, socket, { keepOpen: true }, (error) => error && socket.destroy());
  });
  const start = () => {
    const startedAt = Date.now();
    const worker = cluster.fork();
    worker.on('message', (message) => {
      if (message !== READY) {
        // It is open there now, and this end of it is closed.
        untaken.get(worker)?.get(message)?.destroy();
        untaken.get(worker)?.delete(message);
        return;
      }
      untaken.set(worker, new Map());
      ready.push(worker);
      if (!door.listening && !isEnding) door.listen(port, hostname);
    });
    worker.once('exit', (code) => {
      if (ready.includes(worker)) ready.splice(ready.indexOf(worker), 1);
      for (const socket of untaken.get(worker)?.values() ?? []) socket.destroy();
      untaken.delete(worker);
      if (isEnding) return;
      if (Date.now() - startedAt < TOO_SOON_MS) process.exit(code || 1);
      start();
    });
  };
  for (let count = 0; count < processes; count += 1) start();
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      isEnding = true;
      door.close();
      for (const worker of Object.values(cluster.workers ?? {})) worker?.process.kill('SIGTERM');
      // Without a server left, nothing keeps this process.
      setTimeout(() => process.exit(0), 3000).unref();
    });
}

// Told to each of them: what they have to share of the machine.
process.env['BARYS_PROCESSES'] = String(processes);
if (cluster.isPrimary && processes > 1) serveTogether();
else await serve();
