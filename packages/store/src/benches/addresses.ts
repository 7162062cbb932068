/** How references are reached by the links of benches: entered by administrators, tried by links. */
import { CHANNELS, PARITIES, type End, type Wire } from '@barys/core/port';
import { isUnit } from '@barys/core/units';
import isSafe from 'safe-regex2';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireAdministrator } from '../people/people';
import type { Bench } from './benches';
import { addRequest } from './requests';

const command = z
  .string()
  .min(1)
  .max(200)
  .regex(/^[\x20-\x7e]*$/, 'A command is one line of plain characters.');
const pattern = z
  .string()
  .min(1)
  .max(300)
  .refine((text) => {
    try {
      return Boolean(new RegExp(text));
    } catch {
      return false;
    }
  }, 'The pattern of the answer is no regular expression.')
  .refine(
    (text) => isSafe(text),
    'The pattern repeats what repeats: a strange answer could take for ever to be held against it.',
  );

const question = z.object({ ask: command, answer: pattern });

/** A receiver may show per cent of its scale, which is no unit of a quantity. */
const unit = z.string().refine((text) => text === '%' || isUnit(text), 'This is no unit that Barys knows.');

/** `Driver` of the core, which says what each part is. */
export const driverSchema = z
  .object({
    name: z.string().trim().min(1, 'A driver has a name.').max(80),
    identify: question,
    reads: z.partialRecord(z.enum(CHANNELS), question.extend({ unit: unit.nullable() })),
    units: z
      .array(
        z.object({
          theirs: z.string().min(1, 'Say what the instrument calls it: KPA = kPa.').max(20),
          ours: unit,
        }),
      )
      .max(60),
    begin: z.array(command).max(20),
    set: z.array(command).max(10).nullable(),
    hold: z.array(command).max(10).nullable(),
    vent: z.array(command).max(10).nullable(),
    errors: question.nullable(),
    answerMs: z.number({ error: 'The time for an answer is a number.' }).int().min(10).max(60_000),
    pauseMs: z.number({ error: 'The pause is a number.' }).int().min(0).max(10_000),
  })
  .superRefine(({ reads, units, set, hold, vent }, context) => {
    const refuse = (path: string, message: string) =>
      context.addIssue({ code: 'custom', path: path.split('.'), message });
    const said = Object.entries(reads);
    if (said.length === 0) refuse('reads', 'Say how at least one quantity is read.');
    for (const [channel, { answer, unit: meant }] of said) {
      if (!answer.includes('(?<value>'))
        refuse(
          `reads.${channel}.answer`,
          'The answer of a reading has a group (?<value>…) where the figure stands.',
        );
      if (meant === null && !answer.includes('(?<unit>'))
        refuse(`reads.${channel}.unit`, 'Where the answer says no unit, choose the one that it is in.');
      if (meant === null && units.length === 0)
        refuse('units', 'Say what its units are called, one a line: KPA = kPa.');
    }
    if (set === null) return;
    if (!set.some((one) => one.includes('{value}')))
      refuse('set', 'What sets a pressure holds {value}, where the figure goes.');
    if (units.length === 0) refuse('units', 'A pressure is set in the first of its units: name it.');
    if (hold === null || vent === null)
      refuse(
        hold === null ? 'hold' : 'vent',
        'What can be set has to be held and vented: nothing is left under pressure.',
      );
  });

const host = z
  .string()
  .trim()
  .min(1, 'Say at which name or address it is.')
  .max(200)
  .regex(/^[A-Za-z0-9.:_-]+$/, 'A name or an address holds letters, digits, dots, colons and hyphens.');
const port = z
  .number({ error: 'A port is a whole number.' })
  .int('A port is a whole number.')
  .min(1, 'A port is 1 to 65535.')
  .max(65_535, 'A port is 1 to 65535.');
const tcp = z.object({ kind: z.literal('tcp'), host, port });
const serial = z.object({
  kind: z.literal('serial'),
  path: z
    .string()
    .trim()
    .regex(/^(\/dev(\/[\w-][\w.-]*)+|COM\d+)$/, 'A serial port is called like /dev/ttyUSB0 or COM3.')
    .max(100),
  baud: z.number({ error: 'The rate is a whole number.' }).int().min(50).max(4_000_000),
  dataBits: z.union([z.literal(7), z.literal(8)]),
  parity: z.enum(PARITIES),
  stopBits: z.union([z.literal(1), z.literal(2)]),
});
export const wireSchema = z.discriminatedUnion('speaks', [
  z.object({
    speaks: z.literal('text'),
    at: z.discriminatedUnion('kind', [tcp, serial]),
    driver: driverSchema,
  }),
  z.object({
    speaks: z.literal('HART-IP'),
    at: z.object({ kind: z.enum(['tcp', 'udp']), host, port }),
    pollingAddress: z
      .number({ error: 'A polling address is a whole number.' })
      .int('A polling address is a whole number.')
      .min(0, 'A polling address is 0 to 63.')
      .max(63, 'A polling address is 0 to 63.'),
  }),
]) satisfies z.ZodType<Wire>;

export interface ReferenceAddress {
  readonly referenceId: number;
  readonly tag: string;
  readonly bench: Bench;
  readonly wire: Wire;
  readonly revision: number;
}

const ADDRESS_SQL = `
  select reference_id as "referenceId", tag, json_build_object('id', token_id, 'name', api_token.name) as bench, wire,
    reference_address.revision
  from reference_address join reference_standard on reference_standard.id = reference_id
    join api_token on api_token.id = token_id`;

/** Null where it has none. */
export async function addressOf(db: Queryable, referenceId: number): Promise<ReferenceAddress | null> {
  const [address] = await db.query<ReferenceAddress>(`${ADDRESS_SQL} where reference_id = $1`, [referenceId]);
  return address ?? null;
}

/** A bench in the middle of a run stays as it is: what is under pressure there is not let go of. */
async function refuseBusy(tx: Queryable, benches: readonly (number | undefined)[]): Promise<void> {
  const asked = benches.filter((one) => one !== undefined);
  // One that is being started waits, and then does not find it.
  const names = await tx.query<{ name: string; isBusy: boolean }>(
    `select name, exists (select from automatic_run where token_id = api_token.id and ended_at is null) as "isBusy"
     from api_token where id = any($1) order by id for update`,
    [asked],
  );
  const busy = names.find(({ isBusy }) => isBusy);
  if (busy !== undefined) throw new StoreError({ code: 'bench-busy', bench: busy.name });
}

/**
 * Enters how a reference is reached, or changes what was being edited.
 * @param revision that was being edited; null where it had none
 * @throws StoreError `no-such`, `bench-busy`, `changed-meanwhile`, `taken`, `unknown-person`, `not-allowed`
 */
export async function keepAddress(
  tx: Queryable,
  actor: Actor,
  { referenceId, revision }: { readonly referenceId: number; readonly revision: number | null },
  entry: { readonly bench: number; readonly wire: Wire },
): Promise<void> {
  await requireAdministrator(tx, actor);
  const before = await addressOf(tx, referenceId);
  const [bench] = await tx.query<Bench>(
    `select id, name from api_token where id = $1 and scope = 'link' and revoked_at is null and expires_at > $2`,
    [entry.bench, actor.at],
  );
  if (bench === undefined) throw new StoreError({ code: 'no-such', what: 'bench', name: entry.bench });
  await refuseBusy(tx, [before?.bench.id, bench.id]);
  const values = [referenceId, bench.id, JSON.stringify(entry.wire)];
  const kept = await refuseTaken({ what: 'reference', name: `at this address of ${bench.name}` }, () =>
    revision === null
      ? tx.query(
          `insert into reference_address (reference_id, token_id, wire) values ($1, $2, $3)
           on conflict (reference_id) do nothing returning reference_id`,
          values,
        )
      : tx.query(
          `update reference_address set token_id = $2, wire = $3, revision = revision + 1
           where reference_id = $1 and revision = $4 returning reference_id`,
          [...values, revision],
        ),
  );
  if (kept.length === 0) throw new StoreError({ code: 'changed-meanwhile', what: 'the address' });
  await appendToTrail(tx, actor, {
    act: before === null ? 'add address' : 'change address',
    subject: { kind: 'reference', id: referenceId },
    detail: before === null ? { ...entry } : { before, after: entry },
  });
}

/**
 * No link reaches it any more.
 * @throws StoreError `bench-busy`, `changed-meanwhile`, `unknown-person`, `not-allowed`
 */
export async function dropAddress(
  tx: Queryable,
  actor: Actor,
  { referenceId, revision }: { readonly referenceId: number; readonly revision: number },
): Promise<void> {
  await requireAdministrator(tx, actor);
  const before = await addressOf(tx, referenceId);
  await refuseBusy(tx, [before?.bench.id]);
  const dropped = await tx.query(
    'delete from reference_address where reference_id = $1 and revision = $2 returning reference_id',
    [referenceId, revision],
  );
  if (dropped.length === 0) throw new StoreError({ code: 'changed-meanwhile', what: 'the address' });
  await appendToTrail(tx, actor, {
    act: 'remove address',
    subject: { kind: 'reference', id: referenceId },
    detail: { before },
  });
}

/** All that the link of a bench may open. What is retired is left alone. */
export const endsOf = (db: Queryable, bench: Bench): Promise<End[]> =>
  db.query<End>(
    `select tag as device, wire from reference_address
       join reference_standard on reference_standard.id = reference_id
     where token_id = $1 and state <> 'retired' order by tag`,
    [bench.id],
    'ends-of-bench',
  );

/**
 * Wants the link to try a reference.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function askForTrial(tx: Queryable, actor: Actor, referenceId: number): Promise<number> {
  await requireAdministrator(tx, actor);
  const address = await addressOf(tx, referenceId);
  if (address === null)
    throw new StoreError({ code: 'no-such', what: 'address of reference', name: referenceId });
  const id = await addRequest(tx, actor, address.bench, address.tag, { kind: 'trial' });
  await appendToTrail(tx, actor, {
    act: 'try address',
    subject: { kind: 'reference', id: referenceId },
    detail: { bench: address.bench.name },
  });
  return id;
}
