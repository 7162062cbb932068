/** What was read at an instrument, compared with what has to be set there; kept as it was found. */
import { compareSetups, type Difference, type Setup } from '@barys/core/setup';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireWorker } from '../people/people';
import { setupReadSchema, wantedSetup } from './configuration';
import { findInstrument } from './instruments';
import { requireOpenJob } from './open-job';
import { judgeChecks, setupTolerance, type CheckResult, type SetupChecks, type SetupMoment } from './setup';

export interface NewSetupReading {
  /** Null for a walk outside a job. */
  readonly job: { readonly id: number; readonly moment: SetupMoment } | null;
  /** The version that was on the screen. */
  readonly version: number;
  readonly settings: Setup;
  readonly checks: SetupChecks;
  readonly remark: string;
}

export interface SetupReading {
  readonly id: number;
  readonly jobId: number | null;
  readonly moment: SetupMoment | 'walk';
  readonly version: number;
  readonly settings: Setup;
  readonly differences: readonly Difference[];
  readonly checks: readonly CheckResult[];
  readonly remark: string;
  readonly readBy: string;
  readonly readAt: Date;
}

/**
 * Compares what was read with what has to be set, and keeps both.
 * @throws StoreError `no-such`, `changed-meanwhile` where another version is in force by now, `reason-needed` where nothing
 *   was read, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function keepSetupReading(
  tx: Queryable,
  actor: Actor,
  tag: string,
  { job, version, settings, checks, remark }: NewSetupReading,
): Promise<void> {
  await requireWorker(tx, actor);
  const instrument = await findInstrument(tx, { tag });
  if (job !== null) await requireOpenJob(tx, job.id, instrument);
  if (instrument.configuration.version !== version)
    throw new StoreError({ code: 'changed-meanwhile', what: `The configuration of ${tag}` });
  const tolerance = setupTolerance(instrument);
  const judged = judgeChecks(checks, instrument.configuration, tolerance);
  if (judged.length === 0 && Object.values(settings).every((value) => value === null))
    throw new StoreError({ code: 'reason-needed', why: 'nothing was read' });
  const { differences } = compareSetups(wantedSetup(instrument.configuration, tolerance), settings);
  const moment = job?.moment ?? 'walk';
  await tx.query(
    `insert into setup_reading
       (instrument_id, job_id, moment, version, settings, differences, checks, remark, read_by, read_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [
      instrument.id,
      job?.id ?? null,
      moment,
      version,
      JSON.stringify(settings),
      JSON.stringify(differences),
      JSON.stringify(judged),
      remark.trim(),
      actor.personId,
      actor.at,
    ],
  );
  await appendToTrail(tx, actor, {
    act: 'read set-up',
    subject: job === null ? { kind: 'instrument', id: instrument.id } : { kind: 'job', id: job.id },
    detail: {
      moment,
      version,
      matters: differences.filter((one) => one.matters === 'yes').map(({ name }) => name),
    },
  });
}

const READING_SQL = `
  select id, job_id as "jobId", moment, version, settings, differences, checks, remark,
    name_at(read_by, read_at) as "readBy", read_at as "readAt"
  from setup_reading`;

const parsed = (rows: readonly SetupReading[]): SetupReading[] =>
  rows.map((row) => ({ ...row, settings: setupReadSchema.parse(row.settings) }));

/** What was read at an instrument, the newest first. */
export const setupReadingsOf = async (
  db: Queryable,
  instrumentId: number,
  limit: number,
): Promise<SetupReading[]> =>
  parsed(
    await db.query<SetupReading>(
      `${READING_SQL} where instrument_id = $1 order by setup_reading.id desc limit $2`,
      [instrumentId, limit],
    ),
  );

/** What was read in a job, in order. */
export const setupReadingsOfJob = async (db: Queryable, jobId: number): Promise<SetupReading[]> =>
  parsed(await db.query<SetupReading>(`${READING_SQL} where job_id = $1 order by setup_reading.id`, [jobId]));
