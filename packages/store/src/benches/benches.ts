/** Links and what their instruments say. A link comes with a token of its own, which reaches for nothing but this. */
import { CHANNELS } from '@barys/core/port';
import { createHash } from 'node:crypto';
import { z } from 'zod';
import type { Queryable } from '../db/database';

export interface Bench {
  readonly id: number;
  readonly name: string;
}

/** The bench whose link a token is; null where it is none, or is over. */
export async function benchOfToken(db: Queryable, token: string, at: Date): Promise<Bench | null> {
  const [bench] = await db.query<Bench>(
    `select id, name from api_token
     where token_hash = $1 and revoked_at is null and expires_at > $2 and scope = 'link'`,
    [createHash('sha256').update(token).digest(), at],
    'bench-of-token',
  );
  return bench ?? null;
}

export const channelSchema = z.enum(CHANNELS);

/** What a link says of one channel of an instrument. */
export const benchValueSchema = z.object({
  device: z.string().min(1).max(60),
  channel: channelSchema,
  /** What it says of itself; empty where it has not said it. */
  model: z.string().max(200),
  serial: z.string().max(80),
  value: z.number().nullable(),
  unit: z.string().max(20),
  raw: z.string().max(400),
  isStable: z.boolean().nullable(),
  state: z.string().max(40),
  trouble: z.string().max(400),
  /** By the clock of the link. */
  at: z.coerce.date(),
});
export type BenchValue = Readonly<z.infer<typeof benchValueSchema>>;

/** Where pages hear that something changed at a bench: its number. */
export const BENCH_CHANNEL = 'bench';

/** Replaces what was heard of a bench before by what its link says now. */
export async function keepValues(
  tx: Queryable,
  bench: Bench,
  values: readonly BenchValue[],
  at: Date,
): Promise<void> {
  // One way to the database: what it no longer speaks of is no longer there, and pages hear that something changed.
  await tx.query(
    `with forgotten as (
       delete from bench_value where token_id = $1 and (device, channel) not in
         (select device, channel from jsonb_to_recordset($2::jsonb) as heard (device text, channel text))
     ), kept as (
       insert into bench_value (token_id, device, channel, model, serial, value, unit, raw, is_stable, state, trouble, at, seen_at)
       select $1, device, channel, model, serial, value, unit, raw, "isStable", state, trouble, at, $3
       from jsonb_to_recordset($2::jsonb) as heard (device text, channel text, model text, serial text,
         value double precision, unit text, raw text, "isStable" boolean, state text, trouble text, at timestamptz)
       on conflict (token_id, device, channel) do update set model = excluded.model, serial = excluded.serial,
         value = excluded.value, unit = excluded.unit, raw = excluded.raw, is_stable = excluded.is_stable,
         state = excluded.state, trouble = excluded.trouble, at = excluded.at, seen_at = excluded.seen_at
     )
     select pg_notify($4, $1::text)`,
    [bench.id, JSON.stringify(values), at, BENCH_CHANNEL],
    'keep-bench-values',
  );
}

/** A link that was not heard of for so long is away. */
export const AWAY_MS = 5000;

export interface ShownValue extends BenchValue {
  readonly benchId: number;
}

export interface ShownBench extends Bench {
  readonly madeBy: string;
  /** When it was last heard of; null where never, or not since a crash. */
  readonly seenAt: Date | null;
  readonly isThere: boolean;
  readonly values: readonly ShownValue[];
}

/** All benches whose token is good, with what is at them now. */
export async function listBenches(db: Queryable, now: Date): Promise<ShownBench[]> {
  const benches = await db.query<{ id: number; name: string; madeBy: string }>(
    `select api_token.id, api_token.name, person.name as "madeBy" from api_token join person on person.id = person_id
     where scope = 'link' and revoked_at is null and expires_at > $1 order by api_token.name, api_token.id`,
    [now],
  );
  const values = await db.query<ShownValue & { seenAt: Date }>(
    `select token_id as "benchId", device, channel, model, serial, value, unit, raw, is_stable as "isStable", state, trouble, at,
       seen_at as "seenAt"
     from bench_value where token_id = any($1) order by device, channel`,
    [benches.map(({ id }) => id)],
  );
  return benches.map((bench) => {
    const own = values.filter(({ benchId }) => benchId === bench.id);
    const seenAt = own.reduce<Date | null>(
      (last, one) => (last === null || one.seenAt > last ? one.seenAt : last),
      null,
    );
    return {
      ...bench,
      seenAt,
      isThere: seenAt !== null && now.getTime() - seenAt.getTime() < AWAY_MS,
      values: own.map(({ seenAt: _seenAt, ...value }) => value),
    };
  });
}
