/** Writing one reading. */
import type { ExtraColumn, MadeWith, Reading, RunKind } from './copy';
import { READING_SQL } from './load';
import { parseTyped } from '@barys/core/text';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { requireDesk } from '../jobs/desk';
import { StoreError } from '../db/errors';
import { lockJobAt } from '../jobs/move';
import { requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { requireRunCounts } from './counts';

export interface TypedReading {
  readonly position: number;
  /** A UUID made by the writer; the same one twice is the same reading sent twice. */
  readonly clientKey: string;
  readonly appliedText: string;
  readonly appliedAs: 'set' | 'read';
  readonly outputText: string;
  readonly more?: Readonly<Partial<Record<ExtraColumn, string>>>;
  /** By the clock of whoever took it. */
  readonly takenAt?: Date | null;
  /** The browser that sends it; null for a program. */
  readonly desk?: string | null;
  /** The reading that this one corrects, or null for the first at its point. */
  readonly supersedes: number | null;
}

async function standingReading(tx: Queryable, runId: number, position: number): Promise<Reading | undefined> {
  const [row] = await tx.query<Reading>(
    `${READING_SQL} where run_id = $1 and position = $2
       and not exists (select from reading later where later.supersedes = reading.id)`,
    [runId, position],
  );
  return row;
}

/**
 * The reading that was kept under a key before.
 * @throws StoreError `key-used` where the key was another reading's
 */
async function keptReading(
  tx: Queryable,
  runId: number,
  { clientKey, position, appliedText, outputText }: TypedReading,
): Promise<{ id: number; savedAt: Date } | undefined> {
  const [row] = await tx.query<{ id: number; savedAt: Date; isSame: boolean }>(
    `select id, read_at as "savedAt",
       run_id = $2 and position = $3 and applied_text = $4 and output_text = $5 as "isSame"
     from reading where client_key = $1`,
    [clientKey, runId, position, parseTyped(appliedText).text, parseTyped(outputText).text],
  );
  if (row === undefined) return undefined;
  if (!row.isSame) throw new StoreError({ code: 'key-used' });
  return { id: row.id, savedAt: row.savedAt };
}

/**
 * Writes one reading. Sent again with the same key, it is answered with the reading already kept.
 * @throws StoreError `no-such`, `wrong-stage`, `no-such-point`, `run-superseded`, `reading-exists`, `key-used`, `desk-taken`, `unknown-person`,
 *   `not-allowed`; CoreError for text that is no number
 */
export async function saveReading(
  tx: Queryable,
  actor: Actor,
  runId: number,
  entry: TypedReading,
): Promise<{ id: number; savedAt: Date }> {
  await requireWorker(tx, actor);
  const [run] = await tx.query<{ jobId: number; kind: RunKind; pass: number; points: MadeWith['points'] }>(
    `select job_id as "jobId", kind, pass, made_with -> 'points' as points from run where id = $1`,
    [runId],
  );
  if (run === undefined) throw new StoreError({ code: 'no-such', what: 'run', name: runId });
  // A reading that was kept stays kept, also when its run was finished before the answer came through.
  const kept = await keptReading(tx, runId, entry);
  if (kept !== undefined) return kept;
  await lockJobAt(tx, run.jobId, run.kind);
  const keptMeanwhile = await keptReading(tx, runId, entry);
  if (keptMeanwhile !== undefined) return keptMeanwhile;
  await requireRunCounts(tx, runId);
  await requireDesk(tx, actor, run.jobId, entry.desk ?? null);
  const isNewest = await tx.query('select from run where job_id = $1 and kind = $2 and pass > $3', [
    run.jobId,
    run.kind,
    run.pass,
  ]);
  if (isNewest.length > 0) throw new StoreError({ code: 'run-superseded' });
  if (!run.points.some((point) => point.position === entry.position))
    throw new StoreError({ code: 'no-such-point', position: entry.position });
  const standing = await standingReading(tx, runId, entry.position);
  if ((standing?.id ?? null) !== entry.supersedes)
    throw new StoreError({
      code: 'reading-exists',
      output: standing?.outputText ?? 'none',
      by: standing?.readBy ?? 'nobody',
    });
  const applied = parseTyped(entry.appliedText);
  const output = parseTyped(entry.outputText);
  const more = Object.fromEntries(
    Object.entries(entry.more ?? {}).map(([column, text]) => [column, parseTyped(text).text]),
  );
  const [saved] = await tx.query<{ id: number; savedAt: Date }>(
    `insert into reading (run_id, position, client_key, applied_text, applied, applied_as, output_text, output,
       read_by, read_at, supersedes, more, taken_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) returning id, read_at as "savedAt"`,
    [
      runId,
      entry.position,
      entry.clientKey,
      applied.text,
      applied.value,
      entry.appliedAs,
      output.text,
      output.value,
      actor.personId,
      actor.at,
      entry.supersedes,
      JSON.stringify(more),
      entry.takenAt ?? null,
    ],
  );
  if (saved === undefined) throw new Error('PostgreSQL returned no row for an inserted reading');
  await appendToTrail(tx, actor, {
    act: entry.supersedes === null ? 'save reading' : 'correct reading',
    subject: { kind: 'job', id: run.jobId },
    detail: {
      run: runId,
      reading: saved.id,
      position: entry.position,
      applied: applied.text,
      output: output.text,
      ...more,
      ...(standing === undefined ? {} : { before: standing.outputText, supersedes: standing.id }),
    },
  });
  return saved;
}
