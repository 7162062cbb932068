/**
 * How fast entries may come. Counted in the database, so that several web servers of one installation share one count; in
 * this process where the database is away. What people type does not wait for the count: it is stopped once the count says so,
 * or once this process alone has let by its share.
 */
import {
  RateLimiterMemory,
  RateLimiterPostgres,
  RateLimiterRes,
  type RateLimiterAbstract,
} from 'rate-limiter-flexible';
import { ADDRESS_HEADER, isOfApi, type Asked } from './asked';
import { database } from './database';
import { problemDetails } from './problem-details';

const WINDOW_S = 10;
const COMPUTE = /^\/api\/v1\/compute\/[^/]+$/;

const storeClient = {
  async query({ text, values, name }: { text: string; values: unknown[]; name?: string }) {
    const rows = await database().query(text, values, name);
    return { rows, rowCount: rows.length };
  },
};

function limiter(keyPrefix: string, points: number): RateLimiterAbstract {
  const count = { keyPrefix, points, duration: WINDOW_S };
  return new RateLimiterPostgres({
    ...count,
    storeClient,
    storeType: 'client',
    tableName: 'request_rate',
    tableCreated: true,
    clearExpiredByTimeout: true,
    // Who is over the limit is not counted on in the database as well.
    inMemoryBlockOnConsumed: points + 1,
    insuranceLimiter: new RateLimiterMemory(count),
  });
}

/** Far above what fingers do, far below what a runaway script does. */
const MOST_WRITES = 300;
const writes = limiter('writes', MOST_WRITES);
/** What this process lets somebody enter without waiting for the count of all. */
const share = new RateLimiterMemory({
  keyPrefix: 'share',
  points: Math.floor(MOST_WRITES / Number(process.env['BARYS_PROCESSES'] ?? 1)),
  duration: WINDOW_S,
});
/** Strangers have a bucket of their own for what they may ask to be computed, and a small one for the rest. */
const strangersComputing = limiter('compute', 300);
const strangers = limiter('stranger', 60);

const isLeft = (counted: Promise<unknown>): Promise<boolean> =>
  counted.then(
    () => true,
    () => false,
  );

/** What was let by here and is not in the count of all yet, by person or bench. */
const untold = new Map<string, number>();
/** Several entries are counted at once: a statement for each would cost as much as keeping a third of it. */
const TELL_AFTER_MS = 200;

/**
 * Adds to the count of all what was let by since, and entries that wait to hear what it says; where that is no, those after
 * them wait too.
 */
async function tell(key: string, waiting: 0 | 1): Promise<boolean> {
  const points = waiting + (untold.get(key) ?? 0);
  untold.delete(key);
  try {
    if (points > 0) await writes.consume(key, points);
    return true;
  } catch (why) {
    const leftS = why instanceof RateLimiterRes ? Math.ceil(why.msBeforeNext / 1000) : WINDOW_S;
    // None at all would be for ever.
    await share.block(key, Math.max(1, leftS));
    return false;
  }
}

/** Whether somebody known may go on: by the share of this process at once, beyond it by the count of all. */
async function mayWrite(key: string): Promise<boolean> {
  if (!(await isLeft(share.consume(key)))) return tell(key, 1);
  if (!untold.has(key)) setTimeout(() => void tell(key, 0), TELL_AFTER_MS).unref();
  untold.set(key, (untold.get(key) ?? 0) + 1);
  return true;
}

/**
 * Who sends an entry too fast.
 * @param who a person or a bench, counted as such; null is anybody else, counted by the address that the server saw
 */
export async function tooFast(asked: Asked, who: string | null): Promise<Response | null> {
  const address = asked.header(ADDRESS_HEADER) ?? 'unknown';
  const isComputing = COMPUTE.test(asked.pathname);
  // Only a route of the API looks at a token; elsewhere the header buys nobody a larger bucket.
  const hasToken = isOfApi(asked) && asked.header('authorization') !== null;
  const ofStrangers = isComputing ? strangersComputing : hasToken ? writes : strangers;
  if (await (who === null ? isLeft(ofStrangers.consume(address)) : mayWrite(who))) return null;
  return problemDetails({
    status: 429,
    title: 'Too fast',
    detail: 'Too many entries at once. Wait a few seconds; nothing typed is lost.',
    headers: { 'retry-after': String(WINDOW_S) },
  });
}
