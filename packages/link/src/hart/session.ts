/**
 * A session of HART-IP with an instrument or a gateway, one request at a time. An answer counts only for the request whose
 * number it carries; after anything that was not to be expected over TCP the connection is given up and made anew.
 */
import type { HartAddress } from '@barys/core/port';
import { createSocket } from 'node:dgram';
import { connect } from 'node:net';
import { ABOUT, LONGEST_BYTES, MESSAGE, messageBytes, messageOf, sessionBody, type Message } from './ip';

/** A session that is silent for longer is closed by the other end, and begun anew. */
const INACTIVITY_MS = 60_000;

/** The open way: what it sends, and how it ends. */
interface Way {
  send(bytes: Buffer): void;
  end(): void;
}

interface Heard {
  message(message: Message): void;
  gone(error: Error): void;
}

export class HartSession {
  private way: Way | null = null;
  private sequence = 0;
  private waiting: {
    sequence: number;
    about: number;
    answer: (message: Message) => void;
    gone: (error: Error) => void;
  } | null = null;
  private before: Promise<unknown> = Promise.resolve();
  private isClosed = false;

  constructor(
    private readonly at: HartAddress,
    private readonly answerMs: number,
  ) {}

  /** A frame and the frame that answers it. */
  ask(frame: Buffer): Promise<Buffer> {
    const done = this.before.then(
      () => this.askNow(frame),
      () => this.askNow(frame),
    );
    this.before = done.catch(() => undefined);
    return done;
  }

  close(): void {
    this.isClosed = true;
    if (this.way !== null) this.way.send(this.written(ABOUT.end, Buffer.alloc(0)));
    this.giveUp(new Error('The connection was closed.'));
  }

  private async askNow(frame: Buffer): Promise<Buffer> {
    try {
      if (this.way === null) await this.begin();
      const { body } = await this.exchange(ABOUT.frame, frame);
      return body;
    } catch (error) {
      this.giveUp(error instanceof Error ? error : new Error(String(error)));
      throw error;
    }
  }

  private async begin(): Promise<void> {
    const heard: Heard = {
      message: (message) => this.hear(message),
      gone: (error) => this.giveUp(error),
    };
    const way = await (this.at.kind === 'tcp' ? openTcp : openUdp)(this.at, this.answerMs, heard);
    if (this.isClosed) {
      way.end();
      throw new Error('The connection was closed.');
    }
    this.way = way;
    const { status } = await this.exchange(ABOUT.begin, sessionBody(INACTIVITY_MS));
    // Warnings of a session say what was changed of what was asked for; it is there all the same.
    if (status !== 0 && status !== 8) throw new Error(`It begins no session (status ${status}).`);
  }

  private written(about: number, body: Buffer): Buffer {
    this.sequence = (this.sequence + 1) & 0xffff;
    return messageBytes({ type: MESSAGE.request, about, status: 0, sequence: this.sequence, body });
  }

  private exchange(about: number, body: Buffer): Promise<Message> {
    const bytes = this.written(about, body);
    const { sequence } = this;
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => reject(new Error('It does not answer in time.')), this.answerMs);
      const over = () => {
        clearTimeout(timer);
        this.waiting = null;
      };
      this.waiting = {
        sequence,
        about,
        answer: (message) => {
          over();
          resolve(message);
        },
        gone: (error) => {
          over();
          reject(error);
        },
      };
      this.way?.send(bytes);
    });
  }

  private hear(message: Message): void {
    const { waiting } = this;
    // Late answers, and what is published to everybody, belong to no question.
    if (waiting?.sequence !== message.sequence || message.type === MESSAGE.publish) return;
    if (message.type === MESSAGE.error)
      waiting.gone(new Error(`It refuses the message (error ${message.body[0] ?? message.status}).`));
    else if (message.type === MESSAGE.answer && message.about === waiting.about) waiting.answer(message);
  }

  private giveUp(error: Error): void {
    const { way } = this;
    this.way = null;
    way?.end();
    this.waiting?.gone(error);
  }
}

function openTcp({ host, port }: HartAddress, limitMs: number, heard: Heard): Promise<Way> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    let pending: Buffer = Buffer.alloc(0);
    socket.setNoDelay(true);
    socket.setTimeout(limitMs, () => socket.destroy(new Error('Nobody answers at its address.')));
    const end = (error: Error) => {
      reject(error);
      heard.gone(error);
    };
    socket.on('error', end);
    socket.on('close', () => end(new Error('The instrument ended the connection.')));
    socket.on('data', (bytes: Buffer) => {
      pending = Buffer.concat([pending, bytes]);
      try {
        for (let found = messageOf(pending); found !== null; found = messageOf(pending)) {
          pending = found.rest;
          heard.message(found.message);
        }
      } catch (error) {
        socket.destroy(error instanceof Error ? error : new Error(String(error)));
      }
    });
    socket.once('connect', () => {
      socket.setTimeout(0);
      resolve({
        send: (bytes) => socket.write(bytes),
        end: () => {
          socket.removeListener('error', end);
          socket.removeAllListeners('close');
          socket.on('error', () => undefined);
          // What was written last still goes out.
          socket.end();
          setTimeout(() => socket.destroy(), 200).unref();
        },
      });
    });
  });
}

function openUdp({ host, port }: HartAddress, _limitMs: number, heard: Heard): Promise<Way> {
  return new Promise((resolve, reject) => {
    const socket = createSocket(host.includes(':') ? 'udp6' : 'udp4');
    let isOpen = true;
    socket.on('error', (error) => {
      reject(error);
      heard.gone(error);
    });
    socket.on('message', (bytes: Buffer) => {
      if (bytes.length > LONGEST_BYTES) return;
      try {
        const found = messageOf(bytes);
        if (found !== null) heard.message(found.message);
      } catch {
        // A datagram that is none of ours is let go by.
      }
    });
    socket.connect(port, host, () =>
      resolve({
        send: (bytes) => socket.send(bytes),
        end: () => {
          if (!isOpen) return;
          isOpen = false;
          // After what was sent last.
          setImmediate(() => socket.close());
        },
      }),
    );
  });
}
