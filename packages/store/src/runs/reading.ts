/** Writing one reading. */
import { checkWorker, requireWorker, WORKER_SQL, type Person } from '../people/people';
import type { Standing } from '../jobs/stages';
import { madeWithSchema, type ExtraColumn, type ReadingSource, type RunKind } from './copy';
import { isDeviation, keptDeviation, parseOutput } from '@barys/core/adjust';
import { parseTyped } from '@barys/core/text';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { hashOfToken, idleSince, sessionStands } from '../people/sessions';

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

/** Who writes, and what stands in the way. */
interface Found extends Pick<Person, 'name' | 'role' | 'isActive' | 'mustChangePassword'> {
  /** Whether the session stands that the writer came by; true where none was to be made sure of. */
  readonly isSignedIn: boolean;
  readonly kind: RunKind;
  readonly stage: Standing;
  readonly hasPoint: boolean;
  readonly counts: boolean;
  readonly keptId: number | null;
  /** ISO 8601. */
  readonly keptAt: string | null;
  readonly isSame: boolean | null;
  readonly standingId: number | null;
  readonly standingOutput: string | null;
  readonly standingBy: string | null;
  readonly deskTakenBy: string | null;
}

/** The reading, or why there is none. */
type Written =
  | { readonly id: number; readonly savedAt: Date; readonly found: null }
  | { readonly id: null; readonly savedAt: null; readonly found: Found };

/**
 * Looks, takes the job, and writes what nothing stands in the way of; by itself it is a transaction. It sees what was so when
 * it began, so it does not wait for a job that somebody else has in hand, but finds none; where another one wrote the same
 * at that moment, the rules of the table let it write nothing. Each reading of a point corrects the one before, so that the
 * last one stands.
 */
const WRITE_SQL = `
  with standing as (
    select id, output_text, read_by, read_at from reading where run_id = $1 and position = $2 order by id desc limit 1
  ), kept as (
    select id, read_at, run_id = $1 and position = $2 and applied_text = $4 and output_text = $7 as is_same
    from reading where client_key = $3
  ), taken as (
    select person.name as by from desk join person on person.id = person_id
    where job_id = (select job_id from run where id = $1) and $14::uuid is not null
      and (desk <> $14 or person_id <> $9)
  ), standing_run as (
    select job_id, kind, stage,
      made_with -> 'points' @> jsonb_build_array(jsonb_build_object('position', $2::int)) as has_point,
      not exists (select from run_thrown_away where run_id = $1) and not exists (
        select from run newer where newer.job_id = run.job_id and newer.kind = run.kind and newer.pass > run.pass
      ) as counts,
      name, role, is_active, must_change_password, ${WORKER_SQL} as is_worker,
      $19::bytea is null or exists (
        select from session where person_id = $9 and ${sessionStands('$19', '$10', '$20')}
      ) as is_signed_in
    from run join job on job.id = job_id, person where run.id = $1 and person.id = $9
    for update of job skip locked
  ), saved as (
    insert into reading (run_id, position, client_key, applied_text, applied, applied_as, output_text, output,
      read_by, read_at, supersedes, more, taken_at, source)
    select $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $17
    from standing_run
    where is_signed_in and is_worker and counts and has_point and stage = kind and not $18 and not exists (select from kept)
      and not exists (select from taken) and (select id from standing) is not distinct from $11
    on conflict do nothing
    returning id, read_at
  ), entry as (
    insert into audit_entry (at, person_id, act, subject_kind, subject_id, detail)
    select $10, $9, $15, 'job', (select job_id from standing_run), $16::jsonb || jsonb_build_object('reading', saved.id)
      || case when $11::bigint is null then '{}'
         else jsonb_build_object('before', (select output_text from standing), 'supersedes', $11::bigint) end
    from saved
  )
  select saved.id, saved.read_at as "savedAt", case when saved.id is null then jsonb_build_object(
    'name', name, 'role', role, 'isActive', is_active, 'mustChangePassword', must_change_password,
    'isSignedIn', is_signed_in, 'kind', kind, 'stage', stage, 'hasPoint', has_point, 'counts', counts,
    'keptId', kept.id, 'keptAt', kept.read_at, 'isSame', is_same,
    'standingId', standing.id, 'standingOutput', standing.output_text, 'standingBy', name_at(standing.read_by, standing.read_at),
    'deskTakenBy', taken.by) end as found
  from standing_run left join saved on true left join kept on true left join standing on true left join taken on true`;

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
 * What is written of an entry, in the order in which the statement names it.
 * @throws CoreError for text that is no number; as `requireNullPoint`
 */
async function readable(
  tx: Queryable,
  actor: Actor,
  runId: number,
  entry: TypedReading,
  needsDesk: boolean,
): Promise<unknown[]> {
  const applied = parseTyped(entry.appliedText);
  const output = parseOutput(entry.outputText);
  if (isDeviation(output.text)) await requireNullPoint(tx, runId, entry.position, output.text);
  const more = Object.fromEntries(
    Object.entries(entry.more ?? {}).map(([column, text]) => [column, parseTyped(text).text]),
  );
  return [
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
    entry.desk ?? null,
    entry.supersedes === null ? 'save reading' : 'correct reading',
    JSON.stringify({
      run: runId,
      position: entry.position,
      applied: applied.text,
      output: output.text,
      ...more,
      ...(entry.source == null ? {} : { link: entry.source.link }),
    }),
    entry.source == null ? null : JSON.stringify(entry.source),
    needsDesk,
    actor.session === undefined ? null : hashOfToken(actor.session),
    idleSince(actor.at),
  ];
}

/** One look where nobody else is at the job; one more for each who comes in between. */
const MOST_LOOKS = 50;

/**
 * Writes one reading, in one statement: with a database that is no transaction it is kept once this ends. Sent again with the
 * same key, it is answered with the reading already kept, also when its run was finished before the answer came through.
 * @throws StoreError `no-such`, `wrong-stage`, `no-such-point`, `run-superseded`, `reading-exists`, `key-used`, `desk-taken`,
 *   `desk-needed`, `unknown-person`, `password-to-change`, `not-allowed`; CoreError for text that is no number
 */
export async function saveReading(
  tx: Queryable,
  actor: Actor,
  runId: number,
  entry: TypedReading,
): Promise<{ id: number; savedAt: Date }> {
  const needsDesk = entry.desk == null && actor.via === 'session';
  const values = await readable(tx, actor, runId, entry, needsDesk).catch(async (error: unknown) => {
    // Who may not enter anything hears that first.
    await requireWorker(tx, actor);
    throw error;
  });
  for (let look = 0; look < MOST_LOOKS; look += 1) {
    const [written] = await tx.query<Written>(WRITE_SQL, values, 'write-reading');
    if (written === undefined) {
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
