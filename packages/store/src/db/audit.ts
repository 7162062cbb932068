/**
 * The trail: one entry for each act, in the act's own transaction. The records that the act adds or changes are written
 * beside it by triggers (migration 0020); `seals.ts` seals both.
 */
import type { Queryable } from './database';
import type { Actor } from '../people/actor';

/** Who did it and when; nobody, where a stranger tried to sign in. */
type Doer = Pick<Actor, 'at'> & { readonly personId: number | null };

export interface AuditEntry {
  readonly act: string;
  readonly subject: { readonly kind: string; readonly id: number };
  readonly detail?: Record<string, unknown>;
}

/** Appends to the trail. */
export async function appendToTrail(tx: Queryable, actor: Doer, entry: AuditEntry): Promise<void> {
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

/** Appends several entries of one act, such as one for each of a list, in one statement. */
export async function appendAllToTrail(
  tx: Queryable,
  actor: Doer,
  entries: readonly AuditEntry[],
): Promise<void> {
  if (entries.length === 0) return;
  await tx.query(
    `insert into audit_entry (at, person_id, act, subject_kind, subject_id, detail)
     select $1, $2, act, kind, id, detail
     from unnest($3::text[], $4::text[], $5::bigint[], $6::jsonb[]) as entry (act, kind, id, detail)`,
    [
      actor.at,
      actor.personId,
      entries.map(({ act }) => act),
      entries.map(({ subject }) => subject.kind),
      entries.map(({ subject }) => subject.id),
      entries.map(({ detail }) => JSON.stringify(detail ?? {})),
    ],
  );
}
