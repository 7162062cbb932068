/** Writing one reading. */
import { checkWorker, requireWorker } from '../people/people';
import { madeWithSchema, type ExtraColumn, type ReadingSource } from './copy';
import { isDeviation, keptDeviation, parseOutput } from '@barys/core/adjust';
import { parseTyped } from '@barys/core/text';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { hashOfToken, idleSince } from '../people/sessions';
import { writingIn, type Found, type ReadingRow, type WriteReading } from './write';

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
  /** Where it comes from; null of one that was typed. */
  readonly source?: ReadingSource | null;
}

/**
 * A deviation names the end that it is from, so that its record says the output by itself; that end has to be the point's.
 * @throws CoreError `undefined-result`; StoreError `no-such`
 */
async function requireNullPoint(tx: Queryable, runId: number, position: number, text: string): Promise<void> {
  const [row] = await tx.query<{ madeWith: unknown }>(
    'select made_with as "madeWith" from run where id = $1',
    [runId],
  );
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'run', name: runId });
  const { configuration, points } = madeWithSchema.parse(row.madeWith);
  const point = points.find((one) => one.position === position);
  keptDeviation(configuration, point?.nominalPercent ?? NaN, text);
}

/** Waits until nobody has the job of a run in hand. */
async function waitForJob(tx: Queryable, actor: Actor, runId: number): Promise<void> {
  await requireWorker(tx, actor);
  const there = await tx.query(
    'select from run join job on job.id = job_id where run.id = $1 for update of job',
    [runId],
  );
  if (there.length === 0) throw new StoreError({ code: 'no-such', what: 'run', name: runId });
}

/** Why nothing was written; null where nothing stood in the way, so that another one came in between. */
function refusalOf(
  found: Found,
  { position, supersedes }: TypedReading,
  needsDesk: boolean,
): StoreError | null {
  const { kind, stage } = found;
  if (found.isSame === false) return new StoreError({ code: 'key-used' });
  if (stage !== kind) return new StoreError({ code: 'wrong-stage', stage, wanted: kind });
  if (!found.hasPoint) return new StoreError({ code: 'no-such-point', position });
  if (needsDesk) return new StoreError({ code: 'desk-needed' });
  if (!found.counts) return new StoreError({ code: 'run-superseded' });
  if (found.deskTakenBy !== null) return new StoreError({ code: 'desk-taken', by: found.deskTakenBy });
  if (found.standingId === supersedes) return null;
  return new StoreError({
    code: 'reading-exists',
    output: found.standingOutput ?? 'none',
    by: found.standingBy ?? 'nobody',
  });
}

/**
 * What is written of an entry.
 * @throws CoreError for text that is no number; as `requireNullPoint`
 */
async function rowOf(
  tx: Queryable,
  actor: Actor,
  runId: number,
  entry: TypedReading,
  needsDesk: boolean,
): Promise<ReadingRow> {
  const applied = parseTyped(entry.appliedText);
  const output = parseOutput(entry.outputText);
  if (isDeviation(output.text)) await requireNullPoint(tx, runId, entry.position, output.text);
  const more = Object.fromEntries(
    Object.entries(entry.more ?? {}).map(([column, text]) => [column, parseTyped(text).text]),
  );
  return {
    run_id: runId,
    position: entry.position,
    client_key: entry.clientKey,
    applied_text: applied.text,
    applied: applied.value,
    applied_as: entry.appliedAs,
    output_text: output.text,
    output: output.value,
    read_by: actor.personId,
    read_at: actor.at,
    supersedes: entry.supersedes,
    more,
    taken_at: entry.takenAt ?? null,
    source: entry.source ?? null,
    desk: entry.desk ?? null,
    act: entry.supersedes === null ? 'save reading' : 'correct reading',
    detail: {
      run: runId,
      position: entry.position,
      applied: applied.text,
      output: output.text,
      ...more,
      ...(entry.source == null ? {} : { link: entry.source.link }),
    },
    needs_desk: needsDesk,
    token_hash: actor.session === undefined ? null : `\\x${hashOfToken(actor.session).toString('hex')}`,
    idle_since: idleSince(actor.at),
  };
}

/** One look where nobody else is at the job; one more for each who comes in between. */
const MOST_LOOKS = 50;

/**
 * Writes one reading, in one statement: with a database that is no transaction it is kept once this ends. Sent again with the
 * same key, it is answered with the reading already kept, also when its run was finished before the answer came through.
 * @param write how it is written; with `writingTogether` it shares its statement with those that come at the same moment
 * @throws StoreError `no-such`, `wrong-stage`, `no-such-point`, `run-superseded`, `reading-exists`, `key-used`, `desk-taken`,
 *   `desk-needed`, `unknown-person`, `password-to-change`, `not-allowed`; CoreError for text that is no number
 */
export async function saveReading(
  tx: Queryable,
  actor: Actor,
  runId: number,
  entry: TypedReading,
  write: WriteReading = writingIn(tx),
): Promise<{ id: number; savedAt: Date }> {
  const needsDesk = entry.desk == null && actor.via === 'session';
  const row = await rowOf(tx, actor, runId, entry, needsDesk).catch(async (error: unknown) => {
    // Who may not enter anything hears that first.
    await requireWorker(tx, actor);
    throw error;
  });
  for (let look = 0; look < MOST_LOOKS; look += 1) {
    const written = await write(row);
    if (written === null) {
      await waitForJob(tx, actor, runId);
      continue;
    }
    if (written.found === null) return { id: written.id, savedAt: written.savedAt };
    if (!written.found.isSignedIn) throw new StoreError({ code: 'unknown-person' });
    const { isSame, keptId, keptAt } = checkWorker(written.found);
    if (keptId !== null && keptAt !== null && isSame === true)
      return { id: keptId, savedAt: new Date(keptAt) };
    const refusal = refusalOf(written.found, entry, needsDesk);
    if (refusal !== null) throw refusal;
  }
  throw new Error(`reading ${entry.clientKey} was neither kept nor refused`);
}

/**
 * Writes several readings in their order, all or none.
 * @throws StoreError as `saveReading`, of the first that is refused
 */
export async function saveReadings(
  tx: Queryable,
  actor: Actor,
  runId: number,
  entries: readonly TypedReading[],
): Promise<{ id: number; savedAt: Date }[]> {
  await requireWorker(tx, actor);
  const saved: { id: number; savedAt: Date }[] = [];
  for (const entry of entries) saved.push(await saveReading(tx, actor, runId, entry));
  return saved;
}
