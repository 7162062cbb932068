/** Writing one reading. */
import { checkWorker, requireWorker, type Person } from '../people/people';
import type { Standing } from '../jobs/stages';
import { madeWithSchema, type ExtraColumn, type ReadingSource, type RunKind } from './copy';
import { isDeviation, keptDeviation, parseOutput } from '@barys/core/adjust';
import { parseTyped } from '@barys/core/text';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';

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

type Look = Pick<Person, 'name' | 'role' | 'isActive' | 'mustChangePassword'>;

/** Who enters, into which run; its job is taken for this transaction. */
const LOOK_SQL = `
  select person.name, role, is_active as "isActive", must_change_password as "mustChangePassword"
  from person, run join job on job.id = run.job_id
  where person.id = $1 and run.id = $2
  for update of job`;

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

/** What the write found once the job was taken: what stands in its way, or the reading. */
interface Written {
  readonly kind: RunKind;
  readonly stage: Standing;
  readonly hasPoint: boolean;
  readonly id: number | null;
  readonly savedAt: Date | null;
  readonly keptId: number | null;
  readonly keptAt: Date | null;
  readonly isSame: boolean | null;
  readonly counts: boolean;
  readonly standingId: number | null;
  readonly standingOutput: string | null;
  readonly standingBy: string | null;
  readonly deskTakenBy: string | null;
}

// Each reading of a point corrects the one before, so that the last one stands. It looks with eyes of its own, after the
// job is locked: what the statement that locks it sees may be older than the lock.
const WRITE_SQL = `
  with standing as (
    select id, output_text, name_at(read_by, read_at) as by
    from (select * from reading where run_id = $1 and position = $2 order by id desc limit 1) last
  ), kept as (
    select id, read_at, run_id = $1 and position = $2 and applied_text = $4 and output_text = $7 as is_same
    from reading where client_key = $3
  ), taken as (
    select person.name as by from desk join person on person.id = person_id
    where job_id = (select job_id from run where id = $1) and $14::uuid is not null
      and (desk <> $14 or person_id <> $9)
  ), standing_run as (
    select job_id, kind, stage,
      exists (select from jsonb_array_elements(made_with -> 'points') point
        where (point ->> 'position')::int = $2) as has_point,
      not exists (select from run_thrown_away where run_id = $1) and not exists (
        select from run newer where newer.job_id = run.job_id and newer.kind = run.kind and newer.pass > run.pass
      ) as counts
    from run join job on job.id = job_id where run.id = $1
  ), saved as (
    insert into reading (run_id, position, client_key, applied_text, applied, applied_as, output_text, output,
      read_by, read_at, supersedes, more, taken_at, source)
    select $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $17
    from standing_run join person on person.id = $9
    where counts and has_point and stage = kind and not $18 and not exists (select from kept)
      and not exists (select from taken) and (select id from standing) is not distinct from $11
    returning id, read_at
  ), entry as (
    insert into audit_entry (at, person_id, act, subject_kind, subject_id, detail)
    select $10, $9, $15, 'job', (select job_id from standing_run), $16::jsonb || jsonb_build_object('reading', saved.id)
      || case when $11::bigint is null then '{}'
         else jsonb_build_object('before', (select output_text from standing), 'supersedes', $11::bigint) end
    from saved
  )
  select kind, stage, has_point as "hasPoint", counts,
    saved.id, saved.read_at as "savedAt", kept.id as "keptId", kept.read_at as "keptAt", is_same as "isSame",
    standing.id as "standingId", standing.output_text as "standingOutput", standing.by as "standingBy",
    taken.by as "deskTakenBy"
  from standing_run left join saved on true left join kept on true left join standing on true left join taken on true`;

/** Why nothing was written. */
function refusalOf(written: Written, position: number, needsDesk: boolean): StoreError {
  const { kind, stage } = written;
  if (written.isSame === false) return new StoreError({ code: 'key-used' });
  if (stage !== kind) return new StoreError({ code: 'wrong-stage', stage, wanted: kind });
  if (!written.hasPoint) return new StoreError({ code: 'no-such-point', position });
  if (needsDesk) return new StoreError({ code: 'desk-needed' });
  if (!written.counts) return new StoreError({ code: 'run-superseded' });
  if (written.deskTakenBy !== null) return new StoreError({ code: 'desk-taken', by: written.deskTakenBy });
  return new StoreError({
    code: 'reading-exists',
    output: written.standingOutput ?? 'none',
    by: written.standingBy ?? 'nobody',
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
  ];
}

/**
 * Writes one reading. Sent again with the same key, it is answered with the reading already kept, also when its run was
 * finished before the answer came through.
 * @throws StoreError `no-such`, `wrong-stage`, `no-such-point`, `run-superseded`, `reading-exists`, `key-used`, `desk-taken`,
 *   `desk-needed`, `unknown-person`, `not-allowed`; CoreError for text that is no number
 */
export async function saveReading(
  tx: Queryable,
  actor: Actor,
  runId: number,
  entry: TypedReading,
): Promise<{ id: number; savedAt: Date }> {
  const needsDesk = entry.desk == null && actor.via === 'session';
  const looking = () => tx.query<Look>(LOOK_SQL, [actor.personId, runId], 'look-at-run');
  const allowed = async ([look]: readonly Look[]) => {
    if (look !== undefined) return checkWorker(look);
    await requireWorker(tx, actor);
    throw new StoreError({ code: 'no-such', what: 'run', name: runId });
  };
  const values = await readable(tx, actor, runId, entry, needsDesk).catch(async (error: unknown) => {
    // Who may not enter anything hears that first.
    await looking().then(allowed);
    throw error;
  });
  // Both go on their way at once, which saves waiting in between; what the look does not allow is not committed.
  const [looked, wrote] = await Promise.allSettled([
    looking(),
    tx.query<Written>(WRITE_SQL, values, 'write-reading'),
  ]);
  if (looked.status === 'rejected') throw looked.reason;
  await allowed(looked.value);
  if (wrote.status === 'rejected') throw wrote.reason;
  const [written] = wrote.value;
  if (written === undefined) throw new Error('PostgreSQL returned no row for an inserted reading');
  const { id, savedAt, keptId, keptAt, isSame } = written;
  if (id !== null && savedAt !== null) return { id, savedAt };
  if (keptId !== null && keptAt !== null && isSame === true) return { id: keptId, savedAt: keptAt };
  throw refusalOf(written, entry.position, needsDesk);
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
