/** What is known of a job: lines of lists, and the whole file. */
import type { Verdict } from '@barys/core/run';
import { adjustmentsOfJob, type Adjustment } from './adjust';
import { adviceOfJob, isRangeWrongIn, type KeptAdvice } from './advice';
import { isSameRange } from '../registers/configuration';
import { causesOfJob, type Cause } from './causes';
import { connectionsOfJob, type Connection } from './connection';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { changedSince, instrumentCopySchema, type Since } from './instrument-copy';
import type { Instrument } from '../registers/instrument';
import { findInstrument } from '../registers/instruments';
import { biasesOfJob, type Bias } from '../registers/notes';
import { setupReadingsOfJob, type SetupReading } from '../registers/setup-readings';
import type { JobReason, Stage, Standing } from './stages';
import { runsOfJob } from '../runs/load';
import type { Run } from '../runs/copy';
import { letterheadOf, type Letterhead } from '../people/site';
import type { Answer } from './questions';
import { linesOfJob, type JobListLine } from './lists';
import { rangePlanOf, type RangePlan } from './plan-kept';
import { movesOfJob, type MadeMove } from './valves';

export interface JobLine {
  readonly id: number;
  readonly instrumentId: number;
  readonly tag: string;
  readonly service: string;
  readonly area: string;
  readonly reason: JobReason;
  readonly stage: Standing;
  readonly openedBy: string;
  readonly openedAt: Date;
  readonly signedBy: string | null;
  readonly signedAt: Date | null;
  readonly remark: string;
  readonly reviewedBy: string | null;
  readonly reviewedAt: Date | null;
  readonly reviewRemark: string;
  readonly cancelledBy: string | null;
  readonly cancelledAt: Date | null;
  readonly cancelReason: string;
  readonly asFoundVerdict: Verdict | null;
  readonly asLeftVerdict: Verdict | null;
}

export interface StageRecord {
  readonly stage: Stage | 'review';
  readonly note: string;
  readonly isSkip: boolean;
  readonly answers: readonly Answer[];
  readonly doneBy: string;
  readonly doneAt: Date;
}

/** Somebody's name in a record, and the one of today. */
export interface Renamed {
  readonly then: string;
  readonly today: string;
}

/** Whoever had a hand in a job and is called otherwise today. */
const RENAMED_SQL = `
  select distinct name_at(hand.person, hand.at) as then, person.name as today
  from (
    select opened_by as person, opened_at as at from job where id = $1
    union all select signed_by, signed_at from job where id = $1
    union all select reviewed_by, reviewed_at from job where id = $1
    union all select cancelled_by, cancelled_at from job where id = $1
    union all select done_by, done_at from stage_passed where job_id = $1
    union all select made_by, made_at from connection where job_id = $1
    union all select started_by, started_at from run where job_id = $1
    union all select read_by, read_at from reading join run on run.id = run_id where job_id = $1
    union all select made_by, made_at from adjustment where job_id = $1
    union all select given_to, given_at from advice where job_id = $1
    union all select chosen_by, chosen_at from cause where job_id = $1
    union all select moved_by, moved_at from valve_move where job_id = $1
    union all select amended_by, amended_at from amendment where job_id = $1
    union all select read_by, read_at from setup_reading where job_id = $1
    union all select done_by, done_at from job_line_tick join job_line line on line.id = line_id where job_id = $1
    union all select made_by, made_at from bias where job_id = $1
  ) hand join person on person.id = hand.person
  where name_at(hand.person, hand.at) <> person.name order by 1`;

/** All that is known of a job. */
export interface JobFile extends JobLine {
  /** As it was when the job was signed; null before, and of jobs signed before there was one. */
  readonly letterhead: Letterhead | null;
  /** When the instrument is due after it, ISO date; null before the signature and where the due date stays. */
  readonly nextDue: string | null;
  /** As the job keeps it. */
  readonly instrument: Instrument;
  /** Where the register says otherwise today. */
  readonly since: readonly Since[];
  /** Who had a hand in it under a name that is another today. */
  readonly renamed: readonly Renamed[];
  /** The connections, in order; the last is in force. */
  readonly connections: readonly Connection[];
  readonly runs: readonly Run[];
  readonly adjustments: readonly Adjustment[];
  /** What was advised, and what was made of it, in order. */
  readonly advice: readonly KeptAdvice[];
  /** What was found to be behind the readings, in order; with what was taken back. */
  readonly causes: readonly Cause[];
  /** Whether another range was read from the instrument than its own, and none was set since. */
  readonly isRangeWrong: boolean;
  readonly moves: readonly MadeMove[];
  /** What was read of its set-up, in order. */
  readonly setups: readonly SetupReading[];
  /** The range that it was opened for; null where it was not opened for one. */
  readonly plan: RangePlan | null;
  /** The offsets that were entered in it. */
  readonly biases: readonly Bias[];
  /** The lines of its lists, in order. */
  readonly lines: readonly JobListLine[];
  readonly passed: readonly StageRecord[];
}

export const JOB_SQL = `
  select job.id, instrument_id as "instrumentId", job.instrument_copy ->> 'tag' as tag,
    job.instrument_copy ->> 'service' as service, job.instrument_copy ->> 'area' as area, reason, stage,
    name_at(opened_by, opened_at) as "openedBy", opened_at as "openedAt", name_at(signed_by, signed_at) as "signedBy",
    signed_at as "signedAt", remark, name_at(reviewed_by, reviewed_at) as "reviewedBy", reviewed_at as "reviewedAt",
    review_remark as "reviewRemark", name_at(cancelled_by, cancelled_at) as "cancelledBy",
    cancelled_at as "cancelledAt", cancel_reason as "cancelReason", as_found_verdict as "asFoundVerdict",
    as_left_verdict as "asLeftVerdict"
  from job`;

export interface SentBack {
  readonly id: number;
  readonly tag: string;
  readonly service: string;
  readonly why: string;
  readonly by: string;
}

/** Jobs that a review sent back and nobody has signed since, the longest waiting first. */
export const jobsSentBack = (db: Queryable, limit: number): Promise<SentBack[]> =>
  db.query<SentBack>(
    `select job.id, job.instrument_copy ->> 'tag' as tag, job.instrument_copy ->> 'service' as service,
       last.note as why, name_at(last.done_by, last.done_at) as by
     from job join lateral (
       select note, done_by, done_at from stage_passed
       where job_id = job.id and stage = 'review' order by stage_passed.id desc limit 1
     ) last on true
     where signed_at is null and cancelled_at is null order by last.done_at limit $1`,
    [limit],
  );

/** How many jobs are open. */
export async function countOpenJobs(db: Queryable): Promise<number> {
  const [row] = await db.query<{ count: number }>(
    'select count(*)::int as count from job where signed_at is null and cancelled_at is null',
  );
  return row?.count ?? 0;
}

/** Jobs not signed yet, the newest first. */
export function openJobs(db: Queryable, limit: number): Promise<JobLine[]> {
  return db.query<JobLine>(
    `${JOB_SQL} where signed_at is null and cancelled_at is null order by opened_at desc limit $1`,
    [limit],
  );
}

/** Jobs that are signed or were cancelled, the newest first. */
export function closedJobs(db: Queryable, limit: number): Promise<JobLine[]> {
  return db.query<JobLine>(
    `${JOB_SQL} where signed_at is not null or cancelled_at is not null
     order by coalesce(signed_at, cancelled_at) desc limit $1`,
    [limit],
  );
}

/** Jobs that wait for a second person, the longest waiting first. */
export function jobsToReview(db: Queryable, limit: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where stage = 'review' order by signed_at limit $1`, [limit]);
}

/** All jobs of one instrument, the newest first. */
export function jobsOfInstrument(db: Queryable, instrumentId: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where instrument_id = $1 order by opened_at desc`, [instrumentId]);
}

/** A connection with its standards as its runs keep them, whatever the registers say of them by now. */
function asRun(connection: Connection, runs: readonly Run[]): Connection {
  const run = runs.find(({ connectionId }) => connectionId === connection.id);
  if (run === undefined) return connection;
  const { pressureReference, secondReference, meter } = run.madeWith;
  return {
    ...connection,
    pressureReference: { ...connection.pressureReference, ...pressureReference },
    secondReference:
      connection.secondReference === null ? null : { ...connection.secondReference, ...secondReference },
    meter: connection.meter === null ? null : { ...connection.meter, ...meter },
  };
}

/** @throws StoreError `no-such` */
export async function loadJob(db: Queryable, jobId: number): Promise<JobFile> {
  const [job] = await db.query<JobLine>(`${JOB_SQL} where job.id = $1`, [jobId]);
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  const [kept] = await db.query<{ letterhead: unknown; copy: unknown; nextDue: string | null }>(
    'select letterhead, instrument_copy as copy, next_due as "nextDue" from job where id = $1',
    [jobId],
  );
  const copy = instrumentCopySchema.parse(kept?.copy);
  const register = await findInstrument(db, { id: job.instrumentId });
  const runs = await runsOfJob(db, jobId);
  return {
    ...job,
    letterhead: kept?.letterhead == null ? null : letterheadOf(kept.letterhead),
    nextDue: kept?.nextDue ?? null,
    instrument: { ...register, ...copy },
    since: changedSince(copy, register),
    renamed: await db.query<Renamed>(RENAMED_SQL, [jobId]),
    connections: (await connectionsOfJob(db, jobId)).map((connection) => asRun(connection, runs)),
    runs,
    adjustments: await adjustmentsOfJob(db, jobId),
    advice: await adviceOfJob(db, jobId),
    causes: await causesOfJob(db, jobId),
    isRangeWrong: await isRangeWrongIn(db, jobId),
    moves: await movesOfJob(db, jobId),
    setups: await setupReadingsOfJob(db, jobId),
    lines: await linesOfJob(db, jobId),
    plan: await rangePlanOf(db, jobId),
    biases: await biasesOfJob(db, jobId),
    passed: await db.query<StageRecord>(
      `select stage, note, is_skip as "isSkip", answers, name_at(done_by, done_at) as "doneBy", done_at as "doneAt"
       from stage_passed where job_id = $1 order by stage_passed.id`,
      [jobId],
    ),
  };
}

/** The as-found run of a job that is decided on: the newest that counts, after further tests theirs; null before it begins. */
export function asFoundRun(job: Pick<JobFile, 'runs'>): Run | null {
  return job.runs.filter((run) => run.kind === 'as-found' && run.thrownAway === null).at(-1) ?? null;
}

/** ISO date, in the days of the site, of the last reading of a run that stands. */
export const lastDay = ({ readings, madeWith }: Pick<Run, 'readings' | 'madeWith'>): string =>
  readings
    .map(({ day }) => day)
    .sort()
    .at(-1) ?? madeWith.takenOn;

/** Whether two runs have the same points of the same range, so that they can stand side by side. */
export const hasSamePoints = ({ madeWith: a }: Run, { madeWith: b }: Run): boolean =>
  isSameRange(a.configuration, b.configuration) && JSON.stringify(a.points) === JSON.stringify(b.points);

/** The last as-left run of a job, or null where nothing was adjusted. */
export function asLeftRun(job: Pick<JobFile, 'runs'>): Run | null {
  return job.runs.filter((run) => run.kind === 'as-left' && run.thrownAway === null).at(-1) ?? null;
}
