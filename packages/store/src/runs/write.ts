/** The statement that writes readings, and how those of many desks share one. */
import DataLoader from 'dataloader';
import { setTimeout as sleep } from 'node:timers/promises';
import { isDatabaseAway, type Database, type Queryable } from '../db/database';
import type { Standing } from '../jobs/stages';
import { WORKER_SQL, type Person } from '../people/people';
import { sessionStands } from '../people/sessions';
import type { ReadingSource, RunKind } from './copy';

/** What is written of an entry, and of whom it has to be: as the statement names it. */
const COLUMNS = {
  run_id: 'bigint',
  position: 'int',
  client_key: 'uuid',
  applied_text: 'text',
  applied: 'numeric',
  applied_as: 'text',
  output_text: 'text',
  output: 'numeric',
  read_by: 'bigint',
  read_at: 'timestamptz',
  supersedes: 'bigint',
  more: 'jsonb',
  taken_at: 'timestamptz',
  source: 'jsonb',
  desk: 'uuid',
  act: 'text',
  detail: 'jsonb',
  /** Whether it is refused for want of a desk. */
  needs_desk: 'boolean',
  /** SHA-256 of the session's token; null where no session is to be made sure of. */
  token_hash: 'bytea',
  idle_since: 'timestamptz',
} as const;

export interface ReadingRow {
  readonly run_id: number;
  readonly position: number;
  readonly client_key: string;
  readonly applied_text: string;
  readonly applied: number;
  readonly applied_as: 'set' | 'read';
  readonly output_text: string;
  readonly output: number;
  readonly read_by: number;
  readonly read_at: Date;
  readonly supersedes: number | null;
  readonly more: Readonly<Record<string, string>>;
  readonly taken_at: Date | null;
  readonly source: ReadingSource | null;
  readonly desk: string | null;
  readonly act: string;
  readonly detail: Readonly<Record<string, unknown>>;
  readonly needs_desk: boolean;
  readonly token_hash: string | null;
  readonly idle_since: Date;
}

/** Who writes, and what stands in the way. */
export interface Found extends Pick<Person, 'name' | 'role' | 'isActive' | 'mustChangePassword'> {
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
export type Written =
  | { readonly id: number; readonly savedAt: Date; readonly found: null }
  | { readonly id: null; readonly savedAt: null; readonly found: Found };

/** Writes one reading; null where there is no such run, or where somebody else has its job in hand. */
export type WriteReading = (row: ReadingRow) => Promise<Written | null>;

const TO_RUN = `run_id, position, client_key, applied_text, applied, applied_as, output_text, output, read_by, read_at,
  supersedes, more, taken_at, source`;

/**
 * Looks, takes the jobs, and writes what nothing stands in the way of, of one entry a run; by itself it is a transaction. It
 * sees what was so when it began, so it does not wait for a job that somebody else has in hand, but finds none; where another
 * one wrote the same at that moment, the rules of the table let it write nothing. Each reading of a point corrects the one
 * before, so that the last one stands. Each look has a limit, so that it goes by an index however many entries PostgreSQL
 * takes there to be.
 */
const WRITE_SQL = `
  with found as (
    select asked.*, run.*, stage, person.*, standing.*, kept.*, taken_by,
      asked.token_hash is null or exists (
        select from session where session.person_id = asked.read_by
          and ${sessionStands('asked.token_hash', 'asked.read_at', 'asked.idle_since')}
      ) as is_signed_in
    from json_to_recordset($1) as asked (${Object.entries(COLUMNS)
      .map((column) => column.join(' '))
      .join(', ')})
    cross join lateral (
      select job_id, kind,
        made_with -> 'points' @> jsonb_build_array(jsonb_build_object('position', asked.position)) as has_point,
        not exists (select from run_thrown_away where run_id = run.id) and not exists (
          select from run newer where newer.job_id = run.job_id and newer.kind = run.kind and newer.pass > run.pass
        ) as counts
      from run where id = asked.run_id limit 1
    ) run
    cross join lateral (
      select name, role, is_active, must_change_password, ${WORKER_SQL} as is_worker
      from person where id = asked.read_by limit 1
    ) person
    left join lateral (
      select id as standing_id, output_text as standing_output, read_by as standing_by, read_at as standing_at
      from reading where run_id = asked.run_id and position = asked.position order by id desc limit 1
    ) standing on true
    left join lateral (
      select id as kept_id, read_at as kept_at, run_id = asked.run_id and position = asked.position
        and applied_text = asked.applied_text and output_text = asked.output_text as is_same
      from reading where client_key = asked.client_key limit 1
    ) kept on true
    left join lateral (
      select person.name as taken_by from desk join person on person.id = person_id
      where job_id = run.job_id and (desk.desk <> asked.desk or person_id <> asked.read_by) limit 1
    ) taken on asked.desk is not null
    cross join lateral (select stage from job where id = run.job_id for update skip locked) job
  ), saved as (
    insert into reading (${TO_RUN})
    select ${TO_RUN} from found
    where is_signed_in and is_worker and counts and has_point and stage = kind and not needs_desk
      and kept_id is null and taken_by is null and standing_id is not distinct from supersedes
    on conflict do nothing
    returning run_id, id, read_at
  ), entry as (
    insert into audit_entry (at, person_id, act, subject_kind, subject_id, detail)
    select found.read_at, read_by, act, 'job', job_id, detail || jsonb_build_object('reading', saved.id)
      || case when supersedes is null then '{}'
         else jsonb_build_object('before', standing_output, 'supersedes', supersedes) end
    from saved join found using (run_id)
  )
  select run_id as "runId", saved.id, saved.read_at as "savedAt", case when saved.id is null then jsonb_build_object(
    'name', name, 'role', role, 'isActive', is_active, 'mustChangePassword', must_change_password,
    'isSignedIn', is_signed_in, 'kind', kind, 'stage', stage, 'hasPoint', has_point, 'counts', counts,
    'keptId', kept_id, 'keptAt', kept_at, 'isSame', is_same,
    'standingId', standing_id, 'standingOutput', standing_output, 'standingBy', name_at(standing_by, standing_at),
    'deskTakenBy', taken_by) end as found
  from found left join saved using (run_id)`;

/** Writes an entry for each of several runs. */
async function writeReadings(
  db: Queryable,
  rows: readonly ReadingRow[],
): Promise<(run: ReadingRow) => Written | null> {
  const written = await db.query<Written & { readonly runId: number }>(
    WRITE_SQL,
    [JSON.stringify(rows)],
    'write-readings',
  );
  const byRun = new Map(written.map((one) => [one.runId, one]));
  return ({ run_id }) => byRun.get(run_id) ?? null;
}

/** Writes each reading by itself. */
export const writingIn =
  (db: Queryable): WriteReading =>
  async (row) =>
    (await writeReadings(db, [row]))(row);

/** Beyond that many, those who come go with the next statement. */
const MOST_TOGETHER = 100;
/** How long those who come wait for the statement that is under way: one that is held up holds up nobody else. */
const LONGEST_WAIT_MS = 20;

/**
 * Writes together what comes while a statement is under way: what PostgreSQL does for a statement, for a commit and for the
 * trail it then does once for many desks. Nobody waits where nothing is under way. Of a run that comes twice, the second is
 * told that somebody else has its job in hand; where a statement fails for what it holds, each is written by itself, so
 * that nobody's entry is refused for somebody else's.
 */
export function writingTogether(db: Database): WriteReading {
  let underWay: Promise<unknown> | null = null;
  /** Lets those who come meanwhile wait for it. */
  const ahead = <T>(written: Promise<T>): Promise<T> => {
    const ended = written.then(noted, noted);
    function noted(): void {
      if (underWay === ended) underWay = null;
    }
    underWay = ended;
    return written;
  };
  const write = (rows: readonly ReadingRow[]) => db.statement((one) => writeReadings(one, rows));
  const alone = async (row: ReadingRow): Promise<Written | null> => (await write([row]))(row);
  const together = async (rows: readonly ReadingRow[]): Promise<(Written | null | Error)[]> => {
    const first = new Map<number, ReadingRow>();
    for (const row of rows) if (!first.has(row.run_id)) first.set(row.run_id, row);
    try {
      const writtenOf = await write([...first.values()]);
      return rows.map((row) => (first.get(row.run_id) === row ? writtenOf(row) : null));
    } catch (error) {
      if (isDatabaseAway(error)) return rows.map(() => error as Error);
      return Promise.all(rows.map((row) => alone(row).catch((cause: unknown) => cause as Error)));
    }
  };
  const waiting = new DataLoader<ReadingRow, Written | null>((rows) => ahead(together(rows)), {
    cache: false,
    maxBatchSize: MOST_TOGETHER,
    batchScheduleFn: (go) => void Promise.race([underWay, sleep(LONGEST_WAIT_MS)]).then(go),
  });
  return (row) => (underWay === null ? ahead(alone(row)) : waiting.load(row));
}
