/** The way to PostgreSQL: one pool a process, plain parameterised SQL, numbers as numbers. */
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';

/**
 * PostgreSQL's own words for: not now. Classes 08 (connection) and 57 (operator), too many connections, a database that is
 * just being put in place by a restore, a lock that was not to be had in time, a statement that took too long.
 */
const AWAY = /^(08|57P)|^(53300|3D000|55P03|57014)$/;
/** What the way to it says when there is nobody at its end. */
const NOBODY = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'EHOSTUNREACH'];

/** And of a connection that ended before, or was not to be had in time. */
const LOST = /connection terminated|is not queryable|timeout exceeded when trying to connect/i;

/** Two transactions that got in each other's way: the one that PostgreSQL ended is run again. */
const RETRIED = ['40001', '40P01'];
const MOST_RUNS = 4;
/** How long an act waits for another one, and how long one statement may take; both far above what work takes. */
const LOCK_TIMEOUT_MS = 10_000;
const STATEMENT_TIMEOUT_MS = 60_000;

const isInTheWay = (error: unknown): boolean =>
  error instanceof pg.DatabaseError && RETRIED.includes(error.code ?? '');

/** Whether an error only says that the database is away, so that the same thing may work a little later. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const { code } = error as { code?: unknown };
  if (typeof code === 'string' && (AWAY.test(code) || NOBODY.includes(code))) return true;
  if (error instanceof AggregateError && error.errors.some(isDatabaseAway)) return true;
  return LOST.test(error.message);
}

/** Whether PostgreSQL has no room left to write to. */
export const isDiskFull = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && (error.code === '53100' || error.code === 'ENOSPC');

/** Too long, too large, no date, a NUL, no value of its type, against a rule of a table. */
const NEVER_KEPT = ['22001', '22003', '22007', '22008', '22021', '22P02', '22P05', '23514'];

/** Whether PostgreSQL said that it can never keep a value. A division by zero is no such value but a fault of ours. */
export const isNeverKept = (error: unknown): boolean =>
  error instanceof pg.DatabaseError && NEVER_KEPT.includes(error.code ?? '');

/** Whether PostgreSQL was asked for text that it cannot write (22021 and 22P05: a NUL), so that nothing has that name. */
export const isUnwritable = (error: unknown): boolean =>
  error instanceof pg.DatabaseError && (error.code === '22021' || error.code === '22P05');

/** What a query runs on: the pool, or one transaction of it. */
export interface Queryable {
  /**
   * @param name of a statement that is asked often: PostgreSQL then plans it once a connection. One name, one text.
   */
  query<Row extends object>(sql: string, values?: readonly unknown[], name?: string): Promise<Row[]>;
}

/** A transaction that brings much in. */
export interface Bulk extends Queryable {
  /**
   * Writes rows by PostgreSQL's own fastest way.
   * @param sql a `copy ... from stdin`
   * @param lines of its text format (`copyOf`), some at a time, made as they are taken
   */
  copy(sql: string, lines: Iterable<string>): Promise<void>;
}

export interface Database extends Queryable {
  /** Runs an act whole or not at all; again, where another one was in its way and PostgreSQL ended this one. */
  transaction<T>(act: (tx: Queryable) => Promise<T>): Promise<T>;
  /**
   * The same for an act that brings much in. It has a connection of its own, so that nobody waits for one meanwhile; one such
   * act at a time goes on in a process.
   */
  bulk<T>(act: (tx: Bulk) => Promise<T>): Promise<T>;
  /** The same for an act that writes in one statement, which is a transaction by itself. */
  statement<T>(act: (db: Queryable) => Promise<T>): Promise<T>;
  /** A view of one moment, for reading over more than one query; it holds a connection until it is ended. */
  snapshot(): Promise<Queryable & { end(): Promise<void> }>;
  close(): Promise<void>;
}

// Every numeric column holds at most 15 significant digits (checked where it is typed), which a double gives back.
const types = new pg.TypeOverrides();
types.setTypeParser(pg.types.builtins.INT8, Number);
types.setTypeParser(pg.types.builtins.NUMERIC, Number);
types.setTypeParser(pg.types.builtins.DATE, (text) => text);

const queryable = (client: pg.Pool | pg.ClientBase): Queryable => ({
  async query<Row extends object>(
    text: string,
    values: readonly unknown[] = [],
    name?: string,
  ): Promise<Row[]> {
    const { rows } = await client.query<Row>({
      text,
      values: [...values],
      ...(name === undefined ? {} : { name }),
    });
    return rows;
  },
});

/** A transaction on a connection of its own, which has no pipeline: rows that are copied would get between its questions. */
async function onceInBulk<T>(way: pg.ClientConfig, act: (tx: Bulk) => Promise<T>): Promise<T> {
  const client = new pg.Client(way);
  // A connection that ends is told by the statement that is under way.
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.query('begin');
    const result = await act({
      ...queryable(client),
      copy: (sql, lines) => pipeline(Readable.from(lines), client.query(copyFrom(sql))),
    });
    await client.query('commit');
    return result;
  } finally {
    // What was not committed goes with it.
    await client.end();
  }
}

/** Acts again where another one was in the way. */
async function again<T>(act: () => Promise<T>): Promise<T> {
  for (let run = 1; ; run += 1)
    try {
      return await act();
    } catch (error) {
      if (!isInTheWay(error) || run === MOST_RUNS) throw error;
      await sleep(run * 20 * (1 + Math.random()));
    }
}

/**
 * Opens a pool. Connections are made when first needed.
 * @param url a `postgresql://` URL; its role must be `barys_app` or one that may become it
 * @param as the application's rights, or all that the URL's role has (planting, migrating)
 */
export function openDatabase(url: string, as: 'application' | 'owner' = 'application'): Database {
  const way: pg.ClientConfig = {
    connectionString: url,
    connectionTimeoutMillis: 10_000,
    // Statements are short: compiling one costs more than it ever saves.
    options: `-c timezone=UTC -c jit=off${as === 'application' ? ` -c role=barys_app -c lock_timeout=${LOCK_TIMEOUT_MS} -c statement_timeout=${STATEMENT_TIMEOUT_MS}` : ''}`,
    types,
  };
  // What is asked at once is sent at once, and not each after the answer before it.
  const pool = new pg.Pool({ ...way, max: 10, pipeline: true });
  // A connection that the server closed is replaced where it is idle, and told by the next question where an act has it;
  // without a listener it would end the process.
  pool.on('error', () => undefined);
  pool.on('connect', (client) => void client.on('error', () => undefined));
  const once = async <T>(act: (tx: Queryable) => Promise<T>): Promise<T> => {
    const client = await pool.connect();
    let broken: Error | undefined;
    try {
      // Sent along with the first statement of the act: where it fails, that fails too.
      const begun = client.query('begin');
      begun.catch(() => undefined);
      const result = await act(queryable(client));
      await begun;
      await client.query('commit');
      return result;
    } catch (error) {
      await client.query('rollback').catch((cause: unknown) => {
        broken = cause instanceof Error ? cause : new Error(String(cause));
      });
      throw error;
    } finally {
      client.release(broken);
    }
  };
  const each = queryable(pool);
  let bulk: Promise<unknown> = Promise.resolve();
  return {
    ...each,
    transaction: (act) => again(() => once(act)),
    bulk(act) {
      const done = bulk.then(() => again(() => onceInBulk(way, act)));
      bulk = done.catch(() => undefined);
      return done;
    },
    statement: (act) => again(() => act(each)),
    async snapshot() {
      const client = await pool.connect();
      try {
        await client.query('begin isolation level repeatable read read only');
      } catch (error) {
        client.release(true);
        throw error;
      }
      return {
        ...queryable(client),
        async end() {
          await client.query('rollback').then(
            () => client.release(),
            () => client.release(true),
          );
        },
      };
    },
    close: () => pool.end(),
  };
}
