/** The open way to an instrument: a TCP connection, or a serial port of this machine. */
import type { SerialAddress, TcpAddress } from '@barys/core/port';
import { connect } from 'node:net';
import type { Duplex } from 'node:stream';
import { setTimeout as sleep } from 'node:timers/promises';
import { SerialPort } from 'serialport';

/**
 * @param limitMs longest time until it is open
 * @throws Error in words where nobody is there
 */
export const openStream = (at: TcpAddress | SerialAddress, limitMs: number): Promise<Duplex> =>
  at.kind === 'tcp' ? openTcp(at, limitMs) : openSerial(at, limitMs);

function openTcp({ host, port }: TcpAddress, limitMs: number): Promise<Duplex> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    socket.setTimeout(limitMs, () => socket.destroy(new Error('Nobody answers at its address.')));
    socket.setNoDelay(true);
    socket.once('error', reject);
    socket.once('close', () => reject(new Error('The instrument ended the connection.')));
    socket.once('connect', () => {
      socket.setTimeout(0);
      resolve(socket);
    });
  });
}

/** A serial port that is let go of when its stream is destroyed, which the package's own is not. */
class OwnedPort extends SerialPort {
  override _destroy(error: Error | null, done: (error?: Error | null) => void): void {
    if (this.isOpen) this.close(() => done(error));
    else done(error);
  }
}

/** Ports that are open, or being closed: until then they cannot be opened again. */
const inUse = new Map<string, Promise<void>>();

async function openSerial(at: SerialAddress, limitMs: number): Promise<Duplex> {
  await inUse.get(at.path);
  const port = new OwnedPort({
    path: at.path,
    baudRate: at.baud,
    dataBits: at.dataBits,
    parity: at.parity,
    stopBits: at.stopBits,
    autoOpen: false,
  });
  await new Promise<void>((resolve, reject) =>
    port.open((error) => (error === null ? resolve() : reject(error))),
  );
  inUse.set(at.path, new Promise((resolve) => port.once('close', () => resolve())));
  // A serial port has no connections: what an instrument still says to an earlier question is let go by.
  port.resume();
  await sleep(limitMs);
  port.pause();
  return port;
}
