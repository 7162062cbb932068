/** What is asked of instruments at a bench beside their readings: asked here, done by the link, answered in its next words. */
import type { BenchRequest, ReadSetup, RequestAnswer } from '@barys/core/port';
import { z } from 'zod';
import type { Queryable } from '../db/database';
import type { Actor } from '../people/actor';
import { requireWorker } from '../people/people';
import { StoreError } from '../db/errors';
import { findInstrument } from '../registers/instruments';
import type { Bench } from './benches';

/** Nobody looks at an answer that is older. */
const KEPT_DAYS = 1;
/** Nor waits for one for longer. */
const WAITED_S = 60;

/** The job in which something is changed, and what is applied meanwhile, as typed. */
export interface RequestOfJob {
  readonly id: number;
  readonly atAppliedText: string;
}

/** @returns number of the request */
export async function addRequest(
  tx: Queryable,
  { personId, at }: Pick<Actor, 'personId' | 'at'>,
  bench: Bench,
  device: string,
  request: BenchRequest,
  job: RequestOfJob | null = null,
): Promise<number> {
  await tx.query(`delete from bench_request where asked_at < $1::timestamptz - $2 * interval '1 day'`, [
    at,
    KEPT_DAYS,
  ]);
  const [row] = await tx.query<{ id: number }>(
    `insert into bench_request (token_id, device, request, asked_by, asked_at, job)
     values ($1, $2, $3, $4, $5, $6) returning id`,
    [bench.id, device, JSON.stringify(request), personId, at, job === null ? null : JSON.stringify(job)],
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

/**
 * What a link has to do, told once: a link that dies with it leaves it undone, and whoever waits is told that no answer came.
 * What was asked a while ago nobody waits for.
 */
export const takeRequests = (
  tx: Queryable,
  bench: Bench,
  now: Date,
): Promise<{ id: number; device: string; request: BenchRequest }[]> =>
  tx.query(
    `update bench_request set told_at = $2 where id in (
       select id from bench_request where token_id = $1 and told_at is null
         and asked_at > $2::timestamptz - $3 * interval '1 second' order by id limit 10)
     returning id, device, request`,
    [bench.id, now, WAITED_S],
    'take-requests',
  );

const figure = z.number();
const readSetupSchema = z.object({
  tag: z.string().max(80),
  serial: z.string().max(40),
  unit: z.string().max(40),
  lrv: figure,
  urv: figure,
  dampingS: figure,
  transfer: z.enum(['linear', 'square-root']).nullable(),
  isProtected: z.boolean(),
  value: figure,
  milliamp: figure,
  isFixed: z.boolean(),
  temperaturesC: z.array(figure).max(4),
  volts: figure.nullable(),
}) satisfies z.ZodType<ReadSetup>;
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
    z.object({ kind: z.literal('set-up'), setup: readSetupSchema }),
    z.object({ kind: z.literal('write'), before: readSetupSchema, after: readSetupSchema }),
    z.object({ kind: z.literal('trouble'), words: z.string().max(400) }),
  ]) satisfies z.ZodType<RequestAnswer>,
});

export type AnswerOfLink = z.infer<typeof requestAnswerSchema>;

/**
 * Keeps what came of a request; it is answered once.
 * @returns what was asked; null where nobody asked this bench, or it was answered before
 */
export async function keepAnswer(tx: Queryable, bench: Bench, { id, answer }: AnswerOfLink) {
  const [asked] = await tx.query<{
    readonly device: string;
    readonly request: BenchRequest;
    readonly askedBy: number;
    readonly job: RequestOfJob | null;
  }>(
    `update bench_request set answer = $3 where id = $1 and token_id = $2 and answer is null
     returning device, request, asked_by as "askedBy", job`,
    [id, bench.id, JSON.stringify(answer)],
  );
  return asked ?? null;
}

export interface AskedRequest {
  readonly id: number;
  readonly bench: Bench;
  /** Null until the link has told. */
  readonly answer: RequestAnswer | null;
  /** Whether nobody needs to wait any longer. */
  readonly isLost: boolean;
}

/** Null of one that was never asked, or long ago. */
export async function requestById(db: Queryable, id: number, now: Date): Promise<AskedRequest | null> {
  const [found] = await db.query<AskedRequest>(
    `select bench_request.id, json_build_object('id', token_id, 'name', api_token.name) as bench, answer,
       answer is null and asked_at < $2::timestamptz - $3 * interval '1 second' as "isLost"
     from bench_request join api_token on api_token.id = token_id where bench_request.id = $1`,
    [id, now, WAITED_S],
  );
  return found ?? null;
}
