/** What is asked of instruments at a bench beside their readings: asked here, done by the link, answered in its next words. */
import type { BenchRequest, RequestAnswer } from '@barys/core/port';
import { z } from 'zod';
import type { Queryable } from '../db/database';
import type { Actor } from '../people/actor';
import { requireWorker } from '../people/people';
import { StoreError } from '../db/errors';
import { findInstrument } from '../registers/instruments';
import type { Bench } from './benches';

/** Nobody looks at an answer that is older. */
const KEPT_DAYS = 1;

/** @returns number of the request */
export async function addRequest(
  tx: Queryable,
  { at }: Pick<Actor, 'at'>,
  bench: Bench,
  device: string,
  request: BenchRequest,
): Promise<number> {
  await tx.query(`delete from bench_request where asked_at < $1::timestamptz - $2 * interval '1 day'`, [
    at,
    KEPT_DAYS,
  ]);
  const [row] = await tx.query<{ id: number }>(
    'insert into bench_request (token_id, device, request, asked_at) values ($1, $2, $3, $4) returning id',
    [bench.id, device, JSON.stringify(request), at],
  );
  return row?.id ?? 0;
}

/**
 * Wants the settings of an instrument read, by one that is at a bench now.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function askForSetup(
  tx: Queryable,
  actor: Actor,
  tag: string,
  { bench, device }: { readonly bench: number; readonly device: string },
): Promise<number> {
  await requireWorker(tx, actor);
  const { configuration } = await findInstrument(tx, { tag });
  const [there] = await tx.query<Bench>(
    `select id, name from api_token
     where id = $1 and scope = 'link' and revoked_at is null and expires_at > $3
       and exists (select from bench_value where token_id = api_token.id and bench_value.device = $2)`,
    [bench, device, actor.at],
  );
  if (there === undefined)
    throw new StoreError({ code: 'no-such', what: 'instrument at a bench', name: device });
  const { lrv, urv, inputUnit, dampingS, transferFunction } = configuration;
  return addRequest(tx, actor, there, device, {
    kind: 'set-up',
    configuration: { tag, lrv, urv, inputUnit, dampingS, transferFunction },
  });
}

/** What a link has to do. What was asked long ago nobody waits for. */
export const requestsOf = (
  db: Queryable,
  bench: Bench,
  now: Date,
): Promise<{ id: number; device: string; request: BenchRequest }[]> =>
  db.query(
    `select id, device, request from bench_request
     where token_id = $1 and answer is null and asked_at > $2::timestamptz - interval '10 minutes' order by id limit 20`,
    [bench.id, now],
    'requests-of-bench',
  );

const figure = z.number();
export const requestAnswerSchema = z.object({
  id: z.number().int().positive(),
  answer: z.discriminatedUnion('kind', [
    z.object({
      kind: z.literal('trial'),
      tried: z
        .array(
          z.object({
            what: z.string().max(60),
            asked: z.string().max(400),
            answered: z.string().max(5000),
            words: z.string().max(400),
            isGood: z.boolean(),
          }),
        )
        .max(40),
    }),
    z.object({
      kind: z.literal('set-up'),
      setup: z.object({
        tag: z.string().max(80),
        unit: z.string().max(40),
        lrv: figure,
        urv: figure,
        dampingS: figure,
        transfer: z.enum(['linear', 'square-root']).nullable(),
        isProtected: z.boolean(),
        milliamp: figure,
        temperaturesC: z.array(figure).max(4),
        volts: figure.nullable(),
      }),
    }),
    z.object({ kind: z.literal('trouble'), words: z.string().max(400) }),
  ]) satisfies z.ZodType<RequestAnswer>,
});

/** Keeps what came of a request; it is answered once. */
export const keepAnswer = (
  tx: Queryable,
  bench: Bench,
  { id, answer }: z.infer<typeof requestAnswerSchema>,
) =>
  tx.query('update bench_request set answer = $3 where id = $1 and token_id = $2 and answer is null', [
    id,
    bench.id,
    JSON.stringify(answer),
  ]);

export interface AskedRequest {
  readonly id: number;
  readonly bench: Bench;
  /** Null until the link has told. */
  readonly answer: RequestAnswer | null;
}

/** @throws StoreError `no-such` of one that was never asked, or long ago */
export async function requestById(db: Queryable, id: number): Promise<AskedRequest> {
  const [found] = await db.query<AskedRequest>(
    `select bench_request.id, json_build_object('id', token_id, 'name', api_token.name) as bench, answer
     from bench_request join api_token on api_token.id = token_id where bench_request.id = $1`,
    [id],
  );
  if (found === undefined) throw new StoreError({ code: 'no-such', what: 'request', name: id });
  return found;
}
