/** What is kept at a point beside the reading that counts: an approach that overshot, why nothing was read, a note. */
import { parseTyped } from '@barys/core/text';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { requireDesk } from '../jobs/desk';
import { StoreError } from '../db/errors';
import { lockJobAt } from '../jobs/move';
import { requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { requireRunCounts } from './counts';

export const MARK_KINDS = ['overshot', 'no reading', 'note'] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

export interface PointMark {
  readonly id: number;
  readonly runId: number;
  readonly position: number;
  readonly kind: MarkKind;
  /** What was applied and read on an approach that does not count, as typed; empty where it was not read. */
  readonly appliedText: string;
  readonly outputText: string;
  readonly remark: string;
  readonly markedBy: string;
  readonly markedAt: Date;
}

/** The marks of several runs, in their order. */
export function marksOfRuns(db: Queryable, runIds: readonly number[]): Promise<PointMark[]> {
  return db.query<PointMark>(
    `select point_mark.id, run_id as "runId", position, kind, applied_text as "appliedText",
       output_text as "outputText", remark, name_at(marked_by, marked_at) as "markedBy", marked_at as "markedAt"
     from point_mark where run_id = any($1) order by point_mark.id`,
    [runIds],
  );
}

export interface NewMark {
  readonly position: number;
  /** A UUID made by the writer; the same one twice is the same mark sent twice. */
  readonly clientKey: string;
  readonly kind: MarkKind;
  readonly appliedText: string;
  readonly outputText: string;
  readonly remark: string;
  /** The browser that sends it; null for a program. */
  readonly desk?: string | null;
}

/**
 * The mark that was kept under a key before.
 * @throws StoreError `key-used` where the key was another mark's
 */
async function keptMark(
  tx: Queryable,
  runId: number,
  { clientKey, position, kind, remark }: NewMark,
): Promise<{ id: number; savedAt: Date } | undefined> {
  const [row] = await tx.query<{ id: number; savedAt: Date; isSame: boolean }>(
    `select id, marked_at as "savedAt", run_id = $2 and position = $3 and kind = $4 and remark = $5 as "isSame"
     from point_mark where client_key = $1`,
    [clientKey, runId, position, kind, remark.trim()],
  );
  if (row === undefined) return undefined;
  if (!row.isSame) throw new StoreError({ code: 'key-used' });
  return { id: row.id, savedAt: row.savedAt };
}

const typedOrEmpty = (text: string): string => (text.trim() === '' ? '' : parseTyped(text).text);

/**
 * Keeps a mark at a point of the run in hand. Sent again with the same key, it is answered with the one already kept.
 * @throws StoreError `no-such`, `no-such-point`, `reason-needed`, `wrong-stage`, `unknown-person`, `not-allowed`; CoreError
 *   for a text that is no number
 */
export async function keepMark(
  tx: Queryable,
  actor: Actor,
  runId: number,
  entry: NewMark,
): Promise<{ id: number; savedAt: Date }> {
  await requireWorker(tx, actor);
  const [run] = await tx.query<{ jobId: number; kind: 'as-found' | 'as-left'; hasPoint: boolean }>(
    `select job_id as "jobId", kind,
       exists (select from jsonb_array_elements(made_with -> 'points') point
         where (point ->> 'position')::int = $2) as "hasPoint"
     from run where id = $1`,
    [runId, entry.position],
  );
  if (run === undefined) throw new StoreError({ code: 'no-such', what: 'run', name: runId });
  if (!run.hasPoint) throw new StoreError({ code: 'no-such-point', position: entry.position });
  const kept = await keptMark(tx, runId, entry);
  if (kept !== undefined) return kept;
  await lockJobAt(tx, run.jobId, run.kind);
  const keptMeanwhile = await keptMark(tx, runId, entry);
  if (keptMeanwhile !== undefined) return keptMeanwhile;
  await requireRunCounts(tx, runId);
  await requireDesk(tx, actor, run.jobId, entry.desk ?? null);
  const remark = entry.remark.trim();
  if (entry.kind !== 'overshot' && remark === '')
    throw new StoreError({
      code: 'reason-needed',
      why: entry.kind === 'note' ? 'a note has to say something' : 'why there is no reading at this point',
    });
  const values = [typedOrEmpty(entry.appliedText), typedOrEmpty(entry.outputText)];
  const [saved] = await tx.query<{ id: number; savedAt: Date }>(
    `insert into point_mark (run_id, position, client_key, kind, applied_text, output_text, remark, marked_by, marked_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9) returning id, marked_at as "savedAt"`,
    [runId, entry.position, entry.clientKey, entry.kind, ...values, remark, actor.personId, actor.at],
  );
  if (saved === undefined) throw new Error('PostgreSQL returned no row for an inserted mark');
  await appendToTrail(tx, actor, {
    act: 'mark point',
    subject: { kind: 'job', id: run.jobId },
    detail: { run: runId, position: entry.position, mark: entry.kind, values, remark },
  });
  return saved;
}
