/** The server's log, line by line on its output. */
import { writeSync } from 'node:fs';
import pino, { type Logger } from 'pino';

/** A line that cannot be written is lost: a full disk must not keep the server from its work, nor turn it in a ring. */
const output = {
  write(line: string): void {
    try {
      writeSync(1, line);
    } catch {
      // There is nowhere left to say it.
    }
  },
};

export const logOf = (name: string): Logger => pino({ name }, output);
