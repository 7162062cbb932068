/** What one process tells the others by way of PostgreSQL: `listen` hears what `pg_notify` tells. */
import pg from 'pg';

const AGAIN_MS = 1000;

export interface Notices {
  /** Hears what is told, and null where something may have been missed. @returns what ends it */
  hear(this: void, listener: (words: string | null) => void): () => void;
  close(this: void): Promise<void>;
}

/**
 * Listens on a channel, over a connection of its own that is made again when it is lost.
 * @param url a `postgresql://` URL
 * @param channel a plain word
 */
export function listen(url: string, channel: string): Notices {
  const listeners = new Set<(words: string | null) => void>();
  let client: pg.Client | null = null;
  let timer: NodeJS.Timeout | undefined;
  let isClosed = false;
  const tell = (words: string | null) => {
    for (const listener of listeners) listener(words);
  };
  const again = (gone: pg.Client) => {
    if (client !== gone || isClosed) return;
    client = null;
    gone.end().catch(() => undefined);
    timer = setTimeout(() => void open(), AGAIN_MS);
  };
  const open = async () => {
    const made = new pg.Client({ connectionString: url, keepAlive: true });
    client = made;
    made.on('error', () => again(made));
    made.on('end', () => again(made));
    made.on('notification', ({ payload }) => tell(payload ?? ''));
    try {
      await made.connect();
      await made.query(`listen ${pg.escapeIdentifier(channel)}`);
      // What was told meanwhile nobody heard here.
      tell(null);
    } catch {
      again(made);
    }
  };
  void open();
  return {
    hear: (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    close: async () => {
      isClosed = true;
      clearTimeout(timer);
      await client?.end().catch(() => undefined);
    },
  };
}
