/** What PostgreSQL's own refusals are taken for: a busy moment, a value that nothing can hold, or a fault. */
import { expect, it } from 'vitest';
import { isDatabaseAway, isDiskFull, isNeverKept, isUnwritable } from '../src/db';
import { openWorks } from './works';

const { base } = await openWorks();

const refusalOf = (sql: string, values: readonly unknown[] = []): Promise<unknown> =>
  base.app.query(sql, values).then(
    () => null,
    (error: unknown) => error,
  );

const MEANINGS = { isDatabaseAway, isDiskFull, isNeverKept, isUnwritable };

/** The names of all that an error is taken for. */
const meaningsOf = (error: unknown): string[] =>
  Object.entries(MEANINGS).flatMap(([name, isSo]) => (isSo(error) ? [name] : []));

it.each([
  ['a NUL in a name', 'select id from instrument where tag = $1', ['PT\0'], ['isNeverKept', 'isUnwritable']],
  ['a NUL in JSON', 'select $1::jsonb', ['"\\u0000"'], ['isNeverKept', 'isUnwritable']],
  ['a number that no column holds', 'select $1::int', ['99999999999'], ['isNeverKept']],
  ['text where a number should be', 'select $1::int', ['x'], ['isNeverKept']],
  ['a date that is none', 'select $1::date', ['2026-02-30'], ['isNeverKept']],
  ['what a rule of a table forbids', 'update instrument set state = $1', ['nowhere'], ['isNeverKept']],
  ['a statement that was cancelled', 'select pg_cancel_backend(pg_backend_pid())', [], ['isDatabaseAway']],
  ['a division by nothing', 'select 1 / $1::int', [0], []],
  ['a statement that is none', 'selekt', [], []],
] as const)('%s', async (_what, sql, values, meanings) => {
  const error = await refusalOf(sql, values);
  expect(error).toBeInstanceOf(Error);
  expect(meaningsOf(error)).toEqual(meanings);
});
