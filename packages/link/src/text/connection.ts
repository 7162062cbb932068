/**
 * A line of text for a line of text over TCP, one question at a time. After anything that was not to be expected the
 * connection is given up and made anew: so no late answer is ever taken for that of the next question.
 */
import { connect, type Socket } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';

export interface Address {
  readonly host: string;
  readonly port: number;
}

export interface Limits {
  readonly answerMs: number;
  readonly pauseMs: number;
}

/** No answer of an instrument is as long. */
const LONGEST_BYTES = 4096;

export class TextConnection {
  private socket: Socket | null = null;
  /** What has come and is no whole line yet. */
  private pending = '';
  private onLine: ((line: string) => void) | null = null;
  private onGone: ((error: Error) => void) | null = null;
  private before: Promise<unknown> = Promise.resolve();
  private connections = 0;

  constructor(
    private readonly address: Address,
    private readonly limits: Limits,
  ) {}

  /** Which connection is open, counted from 1; null where none is. What was set in an earlier one has to be set again. */
  get session(): number | null {
    return this.socket === null ? null : this.connections;
  }

  /** Does something with nothing else in between. */
  alone<T>(work: () => Promise<T>): Promise<T> {
    const done = this.before.then(work, work);
    this.before = done.catch(() => undefined);
    return done;
  }

  /** A question and its answer; within `alone`. */
  async ask(command: string): Promise<string> {
    return this.guarded(async (socket) => {
      const answer = new Promise<string>((resolve, reject) => {
        this.onLine = resolve;
        this.onGone = reject;
      });
      socket.write(`${command}\n`);
      const line = await this.inTime(answer);
      await sleep(this.limits.pauseMs);
      // What comes after the answer, before anything else was asked, belongs to no question.
      if (this.pending !== '' || this.socket !== socket) throw new Error('More came than the answer.');
      return line;
    });
  }

  /** A command that is not answered; within `alone`. */
  async tell(command: string): Promise<void> {
    await this.guarded(async (socket) => {
      socket.write(`${command}\n`);
      await sleep(this.limits.pauseMs);
      if (this.socket !== socket) throw new Error('It sends what nobody asked for, or hung up.');
    });
  }

  close(): void {
    this.giveUp(new Error('The connection was closed.'));
  }

  private async guarded<T>(work: (socket: Socket) => Promise<T>): Promise<T> {
    const socket = this.socket ?? (await this.open());
    try {
      return await work(socket);
    } catch (error) {
      this.giveUp(error instanceof Error ? error : new Error(String(error)));
      throw error;
    } finally {
      this.onLine = null;
      this.onGone = null;
    }
  }

  private open(): Promise<Socket> {
    return new Promise((resolve, reject) => {
      const socket = connect(this.address);
      socket.setTimeout(this.limits.answerMs, () => {
        if (this.socket !== socket) socket.destroy(new Error('Nobody answers at its address.'));
      });
      socket.setNoDelay(true);
      socket.on('connect', () => {
        socket.setTimeout(0);
        this.socket = socket;
        this.pending = '';
        this.connections += 1;
        resolve(socket);
      });
      socket.on('data', (bytes: Buffer) => this.take(socket, bytes));
      socket.on('error', (error) => {
        reject(error);
        this.gone(socket, error);
      });
      socket.on('close', () => {
        const error = new Error('The instrument ended the connection.');
        reject(error);
        this.gone(socket, error);
      });
    });
  }

  private take(socket: Socket, bytes: Buffer): void {
    if (this.socket !== socket) return;
    this.pending += bytes.toString('latin1');
    const end = this.pending.indexOf('\n');
    if (end === -1) {
      if (this.pending.length > LONGEST_BYTES) this.giveUp(new Error('It sends without an end of line.'));
      return;
    }
    const answer = this.onLine;
    if (answer === null) {
      this.giveUp(new Error('It sends what nobody asked for.'));
      return;
    }
    const line = this.pending.slice(0, end).replace(/\r$/, '');
    this.pending = this.pending.slice(end + 1);
    this.onLine = null;
    answer(line);
  }

  private gone(socket: Socket, error: Error): void {
    if (this.socket === socket) this.giveUp(error);
  }

  private giveUp(error: Error): void {
    this.socket?.destroy();
    this.socket = null;
    this.pending = '';
    this.onGone?.(error);
  }

  private async inTime(answer: Promise<string>): Promise<string> {
    const limit = new AbortController();
    try {
      return await Promise.race([
        answer,
        sleep(this.limits.answerMs, null, { signal: limit.signal }).then(() => {
          throw new Error('It does not answer in time.');
        }),
      ]);
    } finally {
      limit.abort();
    }
  }
}
