/** What pages hear without asking: that something changed at a bench. One connection a process, whatever the pages are. */
import { BENCH_CHANNEL } from '@barys/store/benches';
import { listen, type Notices } from '@barys/store/db';
import { personOfSession } from '@barys/store/people';
import { database } from './database';

// Kept on the global object, so that development reloads do not open a connection each.
const kept = globalThis as typeof globalThis & { barysNotices?: Notices; barysStreams?: Set<() => void> };

/** A line now and then keeps the way open, and tells the page that the server is there. */
const PING_MS = 15_000;
/** More pages than these ask now and then instead. */
const MOST_STREAMS = 200;

function notices(): Notices {
  const url = process.env['DATABASE_URL'];
  if (url === undefined) throw new Error('DATABASE_URL is not set; start Barys with "npm start".');
  return (kept.barysNotices ??= listen(url, BENCH_CHANNEL));
}

function streams(): Set<() => void> {
  if (kept.barysStreams !== undefined) return kept.barysStreams;
  const open = new Set<() => void>();
  // A server that is stopped does not wait for pages that only listen.
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      for (const end of open) end();
    });
  return (kept.barysStreams = open);
}

/**
 * Says each time that something changed at a bench, as server-sent events, until the page goes or its session ends.
 * @param session token of whoever listens
 * @returns null where too many listen
 */
export function benchChanges(bench: number, session: string, signal: AbortSignal): Response | null {
  const open = streams();
  if (open.size >= MOST_STREAMS) return null;
  const encoder = new TextEncoder();
  let end: () => void = () => undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (text: string) => {
        // A page that does not take what it is told falls behind, and hears the next.
        if ((controller.desiredSize ?? 0) > 0) controller.enqueue(encoder.encode(text));
      };
      const forget = notices().hear((words) => {
        // Something may have been missed: whatever it was, the page asks.
        if (words === null || words === String(bench)) say('data: changed\n\n');
      });
      const ping = setInterval(() => {
        say(': there\n\n');
        personOfSession(database(), session, new Date()).then(
          (person) => person === null && end(),
          // A database that is away ends no session.
          () => undefined,
        );
      }, PING_MS);
      end = () => {
        forget();
        clearInterval(ping);
        if (!open.delete(end)) return;
        try {
          controller.close();
        } catch {
          // The page has closed it already.
        }
      };
      open.add(end);
      signal.addEventListener('abort', end);
      if (signal.aborted) end();
      else say(': there\n\n');
    },
    // The page went.
    cancel: () => end(),
  });
  return new Response(body, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}
