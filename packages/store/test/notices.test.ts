/** What processes tell each other by way of PostgreSQL. */
import { afterEach, expect, it } from 'vitest';
import type { Queryable } from '../src/db/database';
import { listen, type Notices } from '../src/db/notices';
import { openWorks } from './works';

const { base } = await openWorks();
const open: Notices[] = [];
const notify = (tx: Queryable, channel: string, words: string) =>
  tx.query('select pg_notify($1, $2)', [channel, words]);
afterEach(async () => {
  for (const one of open.splice(0)) await one.close();
});

async function heard(): Promise<{
  notices: Notices;
  words: (string | null)[];
  until: (count: number) => Promise<void>;
}> {
  const notices = listen(base.ownerUrl, 'bench');
  open.push(notices);
  const words: (string | null)[] = [];
  notices.hear((one) => words.push(one));
  const until = (count: number) =>
    expect.poll(() => words.length, { timeout: 10_000 }).toBeGreaterThanOrEqual(count);
  // Once it listens it says that something may have been missed.
  await until(1);
  return { notices, words, until };
}

it('is heard by all once it is committed, and not where it was undone', async () => {
  const [one, other] = [await heard(), await heard()];
  await base.app.transaction((tx) => notify(tx, 'bench', '7'));
  await expect(
    base.app.transaction(async (tx) => {
      await notify(tx, 'bench', '8');
      throw new Error('undone');
    }),
  ).rejects.toThrow('undone');
  await base.app.transaction((tx) => notify(tx, 'other', '9'));
  await base.app.transaction((tx) => notify(tx, 'bench', '10'));
  await one.until(3);
  await other.until(3);
  expect([one.words, other.words]).toEqual([
    [null, '7', '10'],
    [null, '7', '10'],
  ]);
});

it('is heard again after its connection was lost, and says that something may have been missed', async () => {
  const { words, until } = await heard();
  await base.owner.query(
    `select pg_terminate_backend(pid) from pg_stat_activity where query = 'listen "bench"'`,
  );
  await until(2);
  expect(words).toEqual([null, null]);
  await base.app.transaction((tx) => notify(tx, 'bench', '11'));
  await until(3);
  expect(words.at(-1)).toBe('11');
});

it('is not heard by who has gone', async () => {
  const { notices, words } = await heard();
  const gone: (string | null)[] = [];
  const end = notices.hear((one) => gone.push(one));
  end();
  await base.app.transaction((tx) => notify(tx, 'bench', '12'));
  await expect.poll(() => words.at(-1)).toBe('12');
  expect(gone).toEqual([]);
});
