/** Runs and their readings. A run keeps what it was made with; a reading is written at once and never changed. */
import { isPressureUnit, parseTyped, plannedPoints, type PressureUnit } from '@barys/core';
import { z } from 'zod';
import { appendToTrail } from './audit';
import { configurationCopySchema } from './configurations';
import type { Connection } from './connections';
import type { Queryable } from './database';
import { requireDesk } from './desks';
import { StoreError } from './errors';
import { toleranceOf, type Instrument } from './instruments';
import { lockJobAt } from './job-stages';
import { requireWorker, type Actor } from './people';
import { marksOfRuns, type PointMark } from './point-marks';
import { decisionRuleSchema, settleWaitS } from './procedures';
import { betterStandard } from './reference-fit';
import { certificateResultSchema } from './references';
import { requireRunCounts } from './run-counts';

const finite = z.number();

/** Readings beside the output: before a gauge is tapped, the digital value, another indication. */
export const EXTRA_COLUMNS = ['before-tap', 'digital', 'second'] as const;
export type ExtraColumn = (typeof EXTRA_COLUMNS)[number];
/** Scale of a second indication, and its own tolerance. */
export const secondScaleSchema = z.object({
  unit: z.string().trim().max(20),
  low: finite,
  high: finite,
  percentOfSpan: finite.positive('The tolerance of the second indication is greater than zero.'),
});
export type SecondScale = z.infer<typeof secondScaleSchema>;

const pressureUnit = z.string().refine((unit): unit is PressureUnit => isPressureUnit(unit));

const referenceCopy = z.object({
  tag: z.string(),
  /** The module used; empty where the reference has one range. */
  name: z.string().default(''),
  description: z.string(),
  serial: z.string(),
  unit: z.string(),
  rangeLow: finite,
  rangeHigh: finite,
  resolution: finite,
  certificate: z.string(),
  calibratedOn: z.string().nullable(),
  dueOn: z.string().nullable(),
  // Copies made before runs had an uncertainty say nothing of the specification.
  percentOfReading: finite.default(0),
  percentOfRange: finite.default(0),
  floor: finite.default(0),
  driftPercentOfReadingPerYear: finite.default(0),
  percentOfReadingPerK: finite.default(0),
  uncertaintyPercentOfRange: finite.nullable().default(null),
  /** Of the range used. Copies of before certificates were kept point by point have none, and correct nothing. */
  results: z.array(certificateResultSchema.readonly()).readonly().default([]),
});

/** The run's own copy of all that it was made with, so that later changes elsewhere leave its record as it was. */
const madeWithSchema = z.object({
  body: z.object({
    model: z.string(),
    unit: pressureUnit,
    lowerRangeLimit: finite,
    upperRangeLimit: finite,
    leastSpan: finite,
    greatestSpan: finite.nullable().default(null),
  }),
  configuration: configurationCopySchema,
  /** Runs begun before there were procedures name none. */
  procedure: z
    .object({ name: z.string(), version: z.number().int(), isAsFoundOnly: z.boolean().default(false) })
    .nullable()
    .default(null),
  tolerance: z.object({
    percentOfSpan: finite,
    middlePercentOfSpan: finite.nullable().default(null),
    percentOfReading: finite.default(0),
    adjustAbovePercentOfLimit: finite,
  }),
  decisionRule: decisionRuleSchema.default({ kind: 'simple' }),
  /** Runs of before points could not be judged were judged however large the uncertainty was, and stay so. */
  judgesBeyondUncertainty: z.boolean().default(true),
  /** The least ratio of limit to uncertainty that the procedure asked for. */
  leastRatio: finite.default(4),
  settle: z.object({ waitS: finite, holdS: finite, bandPercent: finite }).nullable().default(null),
  points: z.array(
    z.object({
      position: z.number().int(),
      /** Which climb of the run, from 1. */
      cycle: z.number().int().default(1),
      direction: z.enum(['up', 'down']),
      nominalPercent: finite,
      /** In the input unit. */
      nominalApplied: finite,
      /** Which of two standards measures it. */
      standard: z.enum(['first', 'second']).default('first'),
    }),
  ),
  pressureReference: referenceCopy,
  secondReference: referenceCopy.nullable().default(null),
  /** Null where the output is read by eye. */
  meter: referenceCopy.nullable(),
  /** What the instrument sees more than the standard, in the input unit. */
  head: finite.default(0),
  /** What is read at each point beside the output, in the order it is typed. */
  columns: z.array(z.enum(EXTRA_COLUMNS)).default([]),
  secondIndication: z.string().default(''),
  /** What the second indication shows over the range; null where nobody said, or there is none. */
  secondScale: secondScaleSchema.nullable().default(null),
  /** ISO date; drift of the references is counted up to it. */
  takenOn: z.string().default(''),
  /** Whether drift is counted up to the day of each reading; runs of before that count it up to `takenOn`. */
  driftsToReading: z.boolean().default(false),
  ambient: z.object({ temperatureC: finite, humidityPercent: finite, barometerHpa: finite }),
});
export type MadeWith = z.infer<typeof madeWithSchema>;

export type RunKind = 'as-found' | 'as-left';

export interface Reading {
  readonly id: number;
  readonly position: number;
  readonly appliedText: string;
  readonly applied: number;
  readonly appliedAs: 'set' | 'read';
  readonly outputText: string;
  readonly output: number;
  /** As typed, by their column. */
  readonly more: Readonly<Partial<Record<ExtraColumn, string>>>;
  /** By the clock of whoever took it; null where that was the server's. */
  readonly takenAt: Date | null;
  /** ISO date, in the days of the site, on which it was taken; never after it was kept, whatever a browser's clock says. */
  readonly day: string;
  readonly readBy: string;
  readonly readAt: Date;
}

export interface Run {
  readonly id: number;
  readonly kind: RunKind;
  readonly pass: number;
  readonly madeWith: MadeWith;
  /** The connection it was made under; null of runs begun before runs named theirs. */
  readonly connectionId: number | null;
  readonly startedBy: string;
  readonly startedAt: Date;
  /** Where it does not count: why, by whom and when. */
  readonly thrownAway: { readonly reason: string; readonly by: string; readonly at: string } | null;
  /** The readings that stand, by position. */
  readonly readings: readonly Reading[];
  /** Readings that were corrected since, oldest first. */
  readonly superseded: readonly Reading[];
  readonly marks: readonly PointMark[];
}

const READING_SQL = `
  select reading.id, run_id as "runId", position, applied_text as "appliedText", applied, applied_as as "appliedAs",
    output_text as "outputText", output, more, taken_at as "takenAt",
    to_char(least(coalesce(taken_at, read_at), read_at) at time zone coalesce((select time_zone from installation), 'UTC'),
      'YYYY-MM-DD') as day, name_at(read_by, read_at) as "readBy", read_at as "readAt",
    exists (select from reading later where later.supersedes = reading.id) as "isSuperseded"
  from reading`;

type ReadingRow = Reading & { runId: number; isSuperseded: boolean };

async function runsWhere(db: Queryable, condition: string, value: unknown): Promise<Run[]> {
  const runs = await db.query<Omit<Run, 'readings' | 'superseded' | 'marks'>>(
    `select run.id, kind, pass, made_with as "madeWith", connection_id as "connectionId", name_at(started_by, started_at) as "startedBy", started_at as "startedAt",
       (select json_build_object('reason', reason, 'by', name_at(thrown_by, thrown_at), 'at', thrown_at)
        from run_thrown_away where run_id = run.id) as "thrownAway"
     from run where ${condition} order by kind, pass`,
    [value],
  );
  const rows = await db.query<ReadingRow>(
    `${READING_SQL} where run_id = any($1) order by position, reading.id`,
    [runs.map(({ id }) => id)],
  );
  const marks = await marksOfRuns(
    db,
    runs.map(({ id }) => id),
  );
  const byRun = new Map<number, ReadingRow[]>(runs.map(({ id }) => [id, []]));
  for (const row of rows) byRun.get(row.runId)?.push(row);
  return runs.map((run) => {
    const own = byRun.get(run.id) ?? [];
    const pick = (isSuperseded: boolean): Reading[] =>
      own
        .filter((row) => row.isSuperseded === isSuperseded)
        .map(({ runId: _run, isSuperseded: _was, ...row }) => row);
    return {
      ...run,
      madeWith: madeWithSchema.parse(run.madeWith),
      readings: pick(false),
      superseded: pick(true),
      marks: marks.filter(({ runId }) => runId === run.id),
    };
  });
}

/** The runs of a job, as found first, then as left by pass. */
export const runsOfJob = (db: Queryable, jobId: number): Promise<Run[]> =>
  runsWhere(db, 'job_id = $1', jobId);

/**
 * The last run of a kind, whether it counts or not.
 * @throws StoreError `no-such`
 */
export async function lastRunOf(tx: Queryable, jobId: number, kind: RunKind): Promise<Run> {
  const run = (await runsOfJob(tx, jobId)).filter((one) => one.kind === kind).at(-1);
  if (run === undefined) throw new StoreError({ code: 'no-such', what: `${kind} run of job`, name: jobId });
  return run;
}

/** Several runs, by their numbers. */
export async function runsById(db: Queryable, ids: readonly number[]): Promise<ReadonlyMap<number, Run>> {
  const runs = await runsWhere(db, 'run.id = any($1)', ids);
  return new Map(runs.map((run) => [run.id, run]));
}

/** The pass that comes next: one after the last as-left run. */
export async function currentPass(db: Queryable, jobId: number): Promise<number> {
  const [row] = await db.query<{ pass: number }>(
    `select coalesce(max(pass), 0) + 1 as pass from run where job_id = $1 and kind = 'as-left'`,
    [jobId],
  );
  return row?.pass ?? 1;
}

/** Begins a run with copies of what is in force now. The caller has checked the stage. */
export async function startRun(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { kind, pass }: { kind: RunKind; pass: number },
  instrument: Instrument,
  connection: Connection,
): Promise<void> {
  const { procedure, configuration } = instrument;
  const { content } = procedure;
  const { pressureReference, secondReference } = connection;
  const { head } = connection;
  const madeWith = madeWithSchema.parse({
    body: instrument.body,
    configuration,
    tolerance: toleranceOf(instrument),
    decisionRule: content.decisionRule,
    judgesBeyondUncertainty: false,
    leastRatio: content.leastRatio,
    settle: {
      waitS: settleWaitS(content, configuration.dampingS),
      holdS: content.settle.holdS,
      bandPercent: content.settle.bandPercent,
    },
    procedure: { name: procedure.name, version: procedure.version, isAsFoundOnly: content.isAsFoundOnly },
    points: plannedPoints(content, configuration).map(({ applied, ...point }) => ({
      ...point,
      nominalApplied: applied,
      standard:
        betterStandard(pressureReference, secondReference, instrument, applied, {
          today: actor.today,
          head,
        }) ?? 'first',
    })),
    pressureReference,
    secondReference,
    meter: connection.meter,
    head,
    columns: [
      ...(instrument.body.technology === 'dial gauge' ? ['before-tap' as const] : []),
      ...(connection.readsDigital ? ['digital' as const] : []),
      ...(connection.secondIndication === '' ? [] : ['second' as const]),
    ],
    secondIndication: connection.secondIndication,
    secondScale: connection.secondScale,
    takenOn: actor.today,
    driftsToReading: true,
    ambient: connection.ambient,
  } satisfies MadeWith & Record<string, unknown>);
  await keepRun(tx, actor, jobId, { kind, pass }, madeWith, connection.id);
}

/**
 * Begins another run of a job as the run before it was: same points, tolerance, procedure and standards, whatever has
 * changed in the registers since.
 * @param configuration what was set in the instrument meanwhile, in the same range
 */
export async function startRunAfter(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  before: Run,
  which: { readonly kind: RunKind; readonly pass: number },
  configuration: MadeWith['configuration'] = before.madeWith.configuration,
): Promise<void> {
  const madeWith = { ...before.madeWith, configuration, takenOn: actor.today };
  await keepRun(tx, actor, jobId, which, madeWithSchema.parse(madeWith), before.connectionId);
}

async function keepRun(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { kind, pass }: { readonly kind: RunKind; readonly pass: number },
  madeWith: MadeWith,
  connectionId: number | null,
): Promise<void> {
  const [run] = await tx.query<{ id: number }>(
    `insert into run (job_id, kind, pass, made_with, started_by, started_at, connection_id)
     values ($1, $2, $3, $4, $5, $6, $7) returning id`,
    [jobId, kind, pass, JSON.stringify(madeWith), actor.personId, actor.at, connectionId],
  );
  await appendToTrail(tx, actor, {
    act: 'start run',
    subject: { kind: 'job', id: jobId },
    detail: { run: run?.id, kind, pass },
  });
}

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
