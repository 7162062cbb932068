/** What is known of a job: lines of lists, and the whole file. */
import type { Verdict } from '@barys/core';
import { adjustmentsOfJob, type Adjustment } from './adjustments';
import { isSameRange } from './configurations';
import { connectionsOfJob, type Connection } from './connections';
import type { Queryable } from './database';
import { StoreError } from './errors';
import { findInstrument, type Instrument } from './instruments';
import type { Stage, Standing } from './job-stages';
import { runsOfJob, type Run } from './runs';
import { letterheadOf, type Letterhead } from './site';
import type { Answer } from './stage-questions';
import { movesOfJob, type MadeMove } from './valve-moves';

export const JOB_REASONS = ['due', 'fault', 'check', 'range change', 'new'] as const;
export type JobReason = (typeof JOB_REASONS)[number];

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

/** All that is known of a job. */
export interface JobFile extends JobLine {
  /** As it was when the job was signed; null before, and of jobs signed before there was one. */
  readonly letterhead: Letterhead | null;
  readonly instrument: Instrument;
  /** The connections, in order; the last is in force. */
  readonly connections: readonly Connection[];
  readonly runs: readonly Run[];
  readonly adjustments: readonly Adjustment[];
  readonly moves: readonly MadeMove[];
  readonly passed: readonly StageRecord[];
}

const JOB_SQL = `
  select job.id, instrument_id as "instrumentId", tag, service, area, reason, stage, opener.name as "openedBy", opened_at as "openedAt",
    signer.name as "signedBy", signed_at as "signedAt", remark, reviewer.name as "reviewedBy", reviewed_at as "reviewedAt",
    review_remark as "reviewRemark", as_found_verdict as "asFoundVerdict",
    as_left_verdict as "asLeftVerdict"
  from job
    join instrument on instrument.id = instrument_id
    join person opener on opener.id = opened_by
    left join person signer on signer.id = signed_by
    left join person reviewer on reviewer.id = reviewed_by`;

/** Jobs not signed yet, the newest first. */
export function openJobs(db: Queryable, limit: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where signed_at is null order by opened_at desc limit $1`, [limit]);
}

/** Signed jobs, the newest first. */
export function closedJobs(db: Queryable, limit: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where signed_at is not null order by signed_at desc limit $1`, [
    limit,
  ]);
}

/** Jobs that wait for a second person, the longest waiting first. */
export function jobsToReview(db: Queryable, limit: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where stage = 'review' order by signed_at limit $1`, [limit]);
}

/** All jobs of one instrument, the newest first. */
export function jobsOfInstrument(db: Queryable, instrumentId: number): Promise<JobLine[]> {
  return db.query<JobLine>(`${JOB_SQL} where instrument_id = $1 order by opened_at desc`, [instrumentId]);
}

/** @throws StoreError `no-such` */
export async function loadJob(db: Queryable, jobId: number): Promise<JobFile> {
  const [job] = await db.query<JobLine>(`${JOB_SQL} where job.id = $1`, [jobId]);
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  const [kept] = await db.query<{ letterhead: unknown }>('select letterhead from job where id = $1', [jobId]);
  return {
    ...job,
    letterhead: kept?.letterhead == null ? null : letterheadOf(kept.letterhead),
    instrument: await findInstrument(db, { id: job.instrumentId }),
    connections: await connectionsOfJob(db, jobId),
    runs: await runsOfJob(db, jobId),
    adjustments: await adjustmentsOfJob(db, jobId),
    moves: await movesOfJob(db, jobId),
    passed: await db.query<StageRecord>(
      `select stage, note, is_skip as "isSkip", answers, person.name as "doneBy", done_at as "doneAt"
       from stage_passed join person on person.id = done_by where job_id = $1 order by stage_passed.id`,
      [jobId],
    ),
  };
}

/** The as-found run of a job that is decided on: the newest that counts, after further tests theirs; null before it begins. */
export function asFoundRun(job: Pick<JobFile, 'runs'>): Run | null {
  return job.runs.filter((run) => run.kind === 'as-found' && run.thrownAway === null).at(-1) ?? null;
}

/** Whether two runs have the same points of the same range, so that they can stand side by side. */
export const hasSamePoints = ({ madeWith: a }: Run, { madeWith: b }: Run): boolean =>
  isSameRange(a.configuration, b.configuration) && JSON.stringify(a.points) === JSON.stringify(b.points);

/** The last as-left run of a job, or null where nothing was adjusted. */
export function asLeftRun(job: Pick<JobFile, 'runs'>): Run | null {
  return job.runs.filter((run) => run.kind === 'as-left' && run.thrownAway === null).at(-1) ?? null;
}
