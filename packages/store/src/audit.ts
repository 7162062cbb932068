/** The trail: one entry for each act, in the act's own transaction, chained by hash in the database. */
import type { Queryable } from './database';
import type { Actor } from './people';

export interface AuditEntry {
  readonly act: string;
  readonly subject: { readonly kind: string; readonly id: number };
  readonly detail?: Record<string, unknown>;
}

/** Appends to the trail. Call it last in a transaction: it holds the chain's lock until the commit. */
export async function appendToTrail(tx: Queryable, actor: Actor, entry: AuditEntry): Promise<void> {
  await tx.query(
    `insert into audit_entry (at, person_id, act, subject_kind, subject_id, detail)
     values ($1, $2, $3, $4, $5, $6)`,
    [
      actor.at,
      actor.personId,
      entry.act,
      entry.subject.kind,
      entry.subject.id,
      JSON.stringify(entry.detail ?? {}),
    ],
  );
}

/** The number of the first entry that is missing or altered, or null of a sound trail. */
export async function firstBrokenEntry(db: Queryable): Promise<number | null> {
  const [row] = await db.query<{ broken: number | null }>('select first_broken_audit_entry() as broken');
  return row?.broken ?? null;
}
