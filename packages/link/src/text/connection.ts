/**
 * A line of text for a line of text, one question at a time. After anything that was not to be expected the
 * connection is given up and made anew: so no late answer is ever taken for that of the next question.
 */
import type { SerialAddress, TcpAddress } from '@barys/core/port';
import type { Duplex } from 'node:stream';
import { setTimeout as sleep } from 'node:timers/promises';
import { openStream } from './stream';

export interface Limits {
  readonly answerMs: number;
  readonly pauseMs: number;
}

/** No answer of an instrument is as long. */
const LONGEST_BYTES = 4096;

export class TextConnection {
  private stream: Duplex | null = null;
  /** What has come and is no whole line yet. */
  private pending = '';
  private onLine: ((line: string) => void) | null = null;
  private onGone: ((error: Error) => void) | null = null;
  private before: Promise<unknown> = Promise.resolve();
  private connections = 0;
  private isClosed = false;

  constructor(
    private readonly at: TcpAddress | SerialAddress,
    private readonly limits: Limits,
  ) {}

  /** Which connection is open, counted from 1; null where none is. What was set in an earlier one has to be set again. */
  get session(): number | null {
    return this.stream === null ? null : this.connections;
  }

  /** Does something with nothing else in between. */
  alone<T>(work: () => Promise<T>): Promise<T> {
    const done = this.before.then(work, work);
    this.before = done.catch(() => undefined);
    return done;
  }

  /** A question and its answer; within `alone`. */
  async ask(command: string): Promise<string> {
    return this.guarded(async (stream) => {
      const answer = new Promise<string>((resolve, reject) => {
        this.onLine = resolve;
        this.onGone = reject;
      });
      stream.write(`${command}\n`);
      const line = await this.inTime(answer);
      await sleep(this.limits.pauseMs);
      // What comes after the answer, before anything else was asked, belongs to no question.
      if (this.pending !== '' || this.stream !== stream) throw new Error('More came than the answer.');
      return line;
    });
  }

  /** A command that is not answered; within `alone`. */
  async tell(command: string): Promise<void> {
    await this.guarded(async (stream) => {
      stream.write(`${command}\n`);
      await sleep(this.limits.pauseMs);
      if (this.stream !== stream) throw new Error('It sends what nobody asked for, or hung up.');
    });
  }

  /** For good: it opens no other. */
  close(): void {
    this.isClosed = true;
    this.giveUp(new Error('The connection was closed.'));
  }

  private async guarded<T>(work: (stream: Duplex) => Promise<T>): Promise<T> {
    const stream = this.stream ?? (await this.open());
    try {
      return await work(stream);
    } catch (error) {
      this.giveUp(error instanceof Error ? error : new Error(String(error)));
      throw error;
    } finally {
      this.onLine = null;
      this.onGone = null;
    }
  }

  private async open(): Promise<Duplex> {
    const stream = await openStream(this.at, this.limits.answerMs);
    if (this.isClosed) {
      stream.destroy();
      throw new Error('The connection was closed.');
    }
    stream.on('data', (bytes: Buffer) => this.take(stream, bytes));
    stream.on('error', (error) => this.gone(stream, error));
    stream.on('close', () => this.gone(stream, new Error('The instrument ended the connection.')));
    stream.resume();
    this.stream = stream;
    this.pending = '';
    this.connections += 1;
    return stream;
  }

  private take(stream: Duplex, bytes: Buffer): void {
    if (this.stream !== stream) return;
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

  private gone(stream: Duplex, error: Error): void {
    if (this.stream === stream) this.giveUp(error);
  }

  private giveUp(error: Error): void {
    this.stream?.destroy();
    this.stream = null;
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
