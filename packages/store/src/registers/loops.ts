/** The loops that instruments send their signals through, in versions. */
import { CoreError } from '@barys/core/errors';
import { tapsOf } from '@barys/core/loop';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireKeeper } from '../people/people';
import { findInstrument } from './instruments';
import { loopContentSchema, type LoopContent } from './loop-content';

export const loopSchema = z.object({
  /** The texts of the tool's fields. */
  fields: z.record(z.string().max(60), z.string().max(20_000)),
  content: loopContentSchema,
  reason: z.string().trim().min(1, 'Say why: the reason stays with this version.').max(500),
});
export type NewLoop = z.infer<typeof loopSchema>;

export interface LoopVersion extends Readonly<NewLoop> {
  readonly version: number;
  readonly madeBy: string;
  readonly madeAt: Date;
}

/** What is wrong with a loop as that of one instrument; null where nothing is. */
function whyNoLoop({ items }: LoopContent): string | null {
  const heads = items.filter(({ from }) => from === null);
  if (heads.length !== 1)
    return `one item reads what is applied, the instrument itself; here ${heads.length === 0 ? 'none does' : `${heads.length} do`}.`;
  try {
    tapsOf(items, items[0]?.input.low ?? 0);
    return null;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return error.message;
  }
}

/**
 * Keeps a new version of the loop of an instrument.
 * @throws StoreError `no-such`, `not-walkable` of what is no chain behind one instrument, `unknown-person`, `not-allowed`
 */
export async function keepLoop(tx: Queryable, actor: Actor, tag: string, entry: NewLoop): Promise<void> {
  await requireKeeper(tx, actor);
  const { id } = await findInstrument(tx, { tag });
  const why = whyNoLoop(entry.content);
  if (why !== null) throw new StoreError({ code: 'not-walkable', why: `This is no loop of ${tag}: ${why}` });
  // One version after the other, also where two people enter one at once.
  await tx.query('select from instrument where id = $1 for no key update', [id]);
  const [kept] = await tx.query<{ version: number }>(
    `insert into loop (instrument_id, version, fields, content, reason, made_by, made_at)
     select $1, coalesce(max(version), 0) + 1, $2, $3, $4, $5, $6 from loop where instrument_id = $1
     returning version`,
    [id, JSON.stringify(entry.fields), JSON.stringify(entry.content), entry.reason, actor.personId, actor.at],
  );
  await appendToTrail(tx, actor, {
    act: 'enter loop',
    subject: { kind: 'instrument', id },
    detail: { version: kept?.version, content: entry.content, reason: entry.reason },
  });
}

/** The versions of the loop of an instrument, the newest first. */
export async function loopsOf(db: Queryable, instrumentId: number): Promise<LoopVersion[]> {
  const rows = await db.query<Omit<LoopVersion, 'content'> & { content: unknown }>(
    `select version, fields, content, reason, name_at(made_by, made_at) as "madeBy", made_at as "madeAt"
     from loop where instrument_id = $1 order by version desc`,
    [instrumentId],
  );
  return rows.map((row) => ({ ...row, content: loopContentSchema.parse(row.content) }));
}

/** Of some instruments, those that have a loop. */
export async function withLoop(
  db: Queryable,
  instrumentIds: readonly number[],
): Promise<ReadonlySet<number>> {
  const rows = await db.query<{ id: number }>(
    'select distinct instrument_id as id from loop where instrument_id = any($1)',
    [instrumentIds],
  );
  return new Set(rows.map(({ id }) => id));
}
