/** Child processes that never outlive the script that started them. */
import { spawn, type ChildProcess, type SpawnOptions } from 'node:child_process';
import { existsSync } from 'node:fs';
import { once } from 'node:events';

const SETPRIV = '/usr/bin/setpriv';

/**
 * Starts a child that the kernel signals when this process dies, even by SIGKILL. It has a session of its own, so that
 * Ctrl-C reaches this script alone, which then stops its children in order.
 */
export function startChild(
  command: string,
  args: readonly string[],
  options: SpawnOptions & { readonly onParentDeath?: 'INT' | 'TERM' },
): ChildProcess {
  const { onParentDeath = 'TERM', ...rest } = options;
  const detached = { ...rest, detached: true };
  return existsSync(SETPRIV)
    ? spawn(SETPRIV, ['--pdeathsig', onParentDeath, '--', command, ...args], detached)
    : spawn(command, [...args], detached);
}

export const hasEnded = (child: ChildProcess): boolean =>
  child.exitCode !== null || child.signalCode !== null;

/** Asks a child to end and waits for it; after `patienceMs` it is made to. */
export async function stopChild(
  child: ChildProcess,
  signal: NodeJS.Signals,
  patienceMs = 10_000,
): Promise<void> {
  if (hasEnded(child)) return;
  const ended = once(child, 'exit');
  child.kill(signal);
  const force = setTimeout(() => child.kill('SIGKILL'), patienceMs);
  await ended;
  clearTimeout(force);
}

/** Whether a process is there, whoever owns it. */
export function isAlive(pid: number): boolean {
  return existsSync(`/proc/${pid}`);
}
