/** Serves an instrument that speaks HART over HART-IP on loopback, by TCP and by UDP at the same port. */
import { createSocket } from 'node:dgram';
import { createServer, type AddressInfo, type Socket } from 'node:net';
import type { HartDevice } from './device';
import { frameBytes, frameOf } from './frame';
import { ABOUT, MESSAGE, messageBytes, messageOf, type Message } from './ip';

export interface HartServer {
  readonly port: number;
  close(this: void): Promise<void>;
}

/** What is answered to a message; null where nothing is. */
function answerTo(device: HartDevice, message: Message): Message | null {
  if (message.type !== MESSAGE.request) return null;
  const answer = (body: Buffer): Message => ({ ...message, type: MESSAGE.answer, status: 0, body });
  switch (message.about) {
    case ABOUT.begin:
      return answer(message.body);
    case ABOUT.alive:
    case ABOUT.end:
      return answer(Buffer.alloc(0));
    case ABOUT.frame: {
      try {
        const heard = device.hear(frameOf(message.body));
        return heard === null ? null : answer(frameBytes(heard));
      } catch {
        // A damaged frame is not answered on a loop either.
        return null;
      }
    }
  }
  return { ...message, type: MESSAGE.error, status: 0, body: Buffer.from([1]) };
}

export async function serveHart(device: HartDevice, port = 0): Promise<HartServer> {
  const open = new Set<Socket>();
  const tcp = createServer((socket) => {
    open.add(socket);
    let pending: Buffer = Buffer.alloc(0);
    socket.setNoDelay(true);
    socket.on('close', () => open.delete(socket));
    socket.on('error', () => socket.destroy());
    socket.on('data', (bytes: Buffer) => {
      pending = Buffer.concat([pending, bytes]);
      try {
        for (let found = messageOf(pending); found !== null; found = messageOf(pending)) {
          pending = found.rest;
          const said = answerTo(device, found.message);
          if (said !== null) socket.write(messageBytes(said));
        }
      } catch {
        socket.destroy();
      }
    });
  });
  await new Promise<void>((resolve, reject) => {
    tcp.once('error', reject);
    tcp.listen(port, '127.0.0.1', () => resolve());
  });
  const bound = (tcp.address() as AddressInfo).port;
  const udp = createSocket('udp4');
  udp.on('message', (bytes, from) => {
    try {
      const found = messageOf(bytes);
      const said = found === null ? null : answerTo(device, found.message);
      if (said !== null) udp.send(messageBytes(said), from.port, from.address);
    } catch {
      // A datagram that is none of ours.
    }
  });
  await new Promise<void>((resolve, reject) => {
    udp.once('error', reject);
    udp.bind(bound, '127.0.0.1', () => resolve());
  });
  return {
    port: bound,
    close: () =>
      new Promise((done) => {
        for (const socket of open) socket.destroy();
        udp.close();
        tcp.close(() => done());
      }),
  };
}
