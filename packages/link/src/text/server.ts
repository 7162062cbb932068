/**
 * A stand-in that is spoken to in text: an instrument of a simulated world behind a TCP port on loopback. Message syntax after
 * IEEE 488.2, the queue of errors after SCPI-1999, volume 1, 19.8 (both from memory).
 */
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';

/** Answers a command; undefined of one that is not known, null of one that is done without an answer. */
export type Instrument = (command: string, argument: string) => string | null | undefined;

const MOST_ERRORS = 20;
/** No command is as long; who sends more is hung up on. */
const LONGEST_BYTES = 2048;

/** An instrument with the common commands: identity, clear, and its queue of errors. */
class Conversation {
  private errors: string[] = [];
  constructor(
    private readonly identity: string,
    private readonly instrument: Instrument,
  ) {}
  /** The answer to a line; null where there is none. */
  hear(line: string): string | null {
    const [command = '', ...rest] = line.trim().split(/\s+/);
    switch (command.toUpperCase()) {
      case '':
        return null;
      case '*IDN?':
        return this.identity;
      case '*CLS':
        this.errors = [];
        return null;
      case '*OPC?':
        return '1';
      case 'SYST:ERR?':
        return this.errors.shift() ?? '0,"No error"';
    }
    try {
      const answer = this.instrument(command.toUpperCase(), rest.join(' '));
      if (answer !== undefined) return answer;
      this.complain('-113,"Undefined header"');
    } catch (error) {
      this.complain(
        `-222,"${error instanceof Error ? error.message.replaceAll('"', "'") : 'Data out of range'}"`,
      );
    }
    return null;
  }
  private complain(words: string): void {
    if (this.errors.length < MOST_ERRORS) this.errors.push(words);
  }
}

export interface TextServer {
  readonly port: number;
  close(this: void): Promise<void>;
}

/** Serves an instrument on loopback; every connection is a conversation of its own. */
export function serveText(identity: string, instrument: Instrument, port = 0): Promise<TextServer> {
  const open = new Set<Socket>();
  const server: Server = createServer((socket) => {
    open.add(socket);
    const conversation = new Conversation(identity, instrument);
    let pending = '';
    socket.setNoDelay(true);
    socket.on('close', () => open.delete(socket));
    socket.on('error', () => socket.destroy());
    socket.on('data', (bytes: Buffer) => {
      pending += bytes.toString('latin1');
      for (let end = pending.indexOf('\n'); end !== -1; end = pending.indexOf('\n')) {
        const answer = conversation.hear(pending.slice(0, end));
        pending = pending.slice(end + 1);
        if (answer !== null) socket.write(`${answer}\n`);
      }
      if (pending.length > LONGEST_BYTES) socket.destroy();
    });
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () =>
      resolve({
        port: (server.address() as AddressInfo).port,
        close: () =>
          new Promise((done) => {
            for (const socket of open) socket.destroy();
            server.close(() => done());
          }),
      }),
    );
  });
}
