/** The web server as a child process. */
import { openSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { Failure } from './failure';
import { WEB } from './paths';
import { hasEnded, startChild, stopChild } from './processes';

export interface WebServer {
  readonly url: string;
  /** Of the one server, or of the door of several. */
  readonly pid: number;
  readonly ended: Promise<void>;
  stop(this: void): Promise<void>;
  /** Ends it without notice, as a crash does. */
  kill(this: void): Promise<void>;
}

export interface WebOptions {
  readonly logFile: string;
  /** The folder of keys and anchors of the trail that is in this database. */
  readonly seals: string;
  /** How many servers share the port; as many as the machine asks for where nothing is said. */
  readonly processes?: number;
}

/**
 * Starts the built application on loopback and waits until it answers.
 */
export async function startWeb(
  port: number,
  databaseUrl: string,
  { logFile, seals, processes }: WebOptions,
): Promise<WebServer> {
  const log = openSync(logFile, 'a', 0o600);
  const child = startChild(process.execPath, [`${WEB}/serve.mjs`, String(port)], {
    cwd: WEB,
    stdio: ['ignore', log, log],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      BARYS_SEALS: seals,
      ...(processes === undefined ? {} : { BARYS_PROCESSES: String(processes) }),
      NODE_ENV: 'production',
      NEXT_TELEMETRY_DISABLED: '1',
    },
  });
  const host = process.env['BARYS_HOST'] ?? '127.0.0.1';
  const url = `http://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`;
  const patienceUntil = Date.now() + 60_000;
  for (;;) {
    const answer = await fetch(`${url}/api/v1/health/live`, { signal: AbortSignal.timeout(5000) }).catch(
      () => null,
    );
    if (answer?.ok) break;
    if (hasEnded(child) || Date.now() > patienceUntil) {
      await stopChild(child, 'SIGKILL');
      throw new Failure(
        `The web server did not start; its log is ${logFile}. A damaged build is made anew once apps/web/.next is removed.`,
      );
    }
    await sleep(100);
  }
  return {
    url,
    pid: child.pid ?? 0,
    ended: new Promise<void>((resolve) => child.once('exit', () => resolve())),
    stop: () => stopChild(child, 'SIGTERM', 5000),
    kill: () => stopChild(child, 'SIGKILL'),
  };
}
