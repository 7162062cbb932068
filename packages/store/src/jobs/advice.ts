/** Advice in a job: what is worked out at Judge, kept with what was made of it, and held against the run that follows. */
import { ACTS, SCHOOLS, worstOf, type Act, type Advice } from '@barys/core/adjust';
import { z } from 'zod';
import type { Queryable } from '../db/database';
import type { Actor } from '../people/actor';
import type { Instrument } from '../registers/instrument';
import { setupReadingsOfJob, type SetupReading } from '../registers/setup-readings';
import { adviceOnRun } from '../runs/advice';
import type { Run } from '../runs/copy';
import { evaluateStoredRun } from '../runs/evaluation';

const estimate = z.object({ value: z.number(), uncertainty: z.number().nullable() }).nullable();

/** Advice as it was shown; a record of it reads back whatever the arithmetic says later. */
const adviceCopySchema = z.object({
  school: z.enum(SCHOOLS),
  lead: z.enum(ACTS),
  /** What was done about it; null where nothing was adjusted. */
  act: z.enum(ACTS).nullable(),
  portrait: z.object({ zero: estimate, gain: estimate, bow: estimate, hysteresis: estimate }),
  incurable: z.array(z.object({ what: z.string(), size: z.number(), allowed: z.number() })),
  acts: z.array(
    z.object({
      act: z.enum(ACTS),
      /** Largest error left, per cent of span; null where it cannot be told. */
      worstPercentSpan: z.number().nullable(),
      suffices: z.enum(['surely', 'likely', 'no']).nullable(),
      hides: z.boolean(),
    }),
  ),
  /** What the act that was done, or else the leading one, would leave at each point of the run. */
  predicted: z.array(
    z.object({
      position: z.number().int(),
      errorPercentSpan: z.number(),
      uncertaintyPercentSpan: z.number().nullable(),
    }),
  ),
});
export type AdviceCopy = z.infer<typeof adviceCopySchema>;

export const MADE_OF_IT = ['taken', 'changed', 'ignored'] as const;
export type MadeOfIt = (typeof MADE_OF_IT)[number];

export interface KeptAdvice {
  readonly id: number;
  readonly runId: number;
  readonly content: AdviceCopy;
  readonly madeOfIt: MadeOfIt;
  readonly givenTo: string;
  readonly givenAt: Date;
}

export async function adviceOfJob(db: Queryable, jobId: number): Promise<KeptAdvice[]> {
  const rows = await db.query<Omit<KeptAdvice, 'content'> & { content: unknown }>(
    `select id, run_id as "runId", content, made_of_it as "madeOfIt", name_at(given_to, given_at) as "givenTo",
       given_at as "givenAt" from advice where job_id = $1 order by id`,
    [jobId],
  );
  return rows.map((row) => ({ ...row, content: adviceCopySchema.parse(row.content) }));
}

/** Settings of the range: where one of them was read otherwise than it has to be, trims would hide it. */
const OF_RANGE: ReadonlySet<string> = new Set(['lrv', 'urv', 'transferFunction']);

/**
 * Whether the instrument was last read with another range than its own.
 * @param rangedAt when a range was set in it since; null where none was
 */
function isRangeReadWrong(
  setups: readonly Pick<SetupReading, 'settings' | 'differences' | 'readAt'>[],
  rangedAt: Date | null,
): boolean {
  const last = setups.filter(({ settings }) => settings.lrv !== null || settings.urv !== null).at(-1);
  if (last === undefined || (rangedAt !== null && rangedAt >= last.readAt)) return false;
  return last.differences.some(({ key, matters }) => OF_RANGE.has(key) && matters === 'yes');
}

/** When a range was last set in the instrument of a job; null where none was. */
async function rangedAt(db: Queryable, jobId: number): Promise<Date | null> {
  const [last] = await db.query<{ at: Date | null }>(
    `select max(made_at) as at from adjustment
     where job_id = $1 and (kind = 're-range' or over_link -> 'act' ->> 'kind' = 'range')`,
    [jobId],
  );
  return last?.at ?? null;
}

/** Whether the instrument of a job has another range set in it than its own, as far as the job knows. */
export const isRangeWrongIn = async (db: Queryable, jobId: number): Promise<boolean> =>
  isRangeReadWrong(await setupReadingsOfJob(db, jobId), await rangedAt(db, jobId));

/** What was made of advice by deciding. */
export function madeOf(lead: Act, decision: string, act: Act | null): MadeOfIt {
  const isAdjusting = decision === 'adjust';
  if (lead === 'none') return decision === 'leave' ? 'taken' : isAdjusting ? 'changed' : 'ignored';
  if (lead === 'repair')
    return decision === 'repair' || decision === 'replace' ? 'taken' : isAdjusting ? 'changed' : 'ignored';
  if (isAdjusting) return (act ?? lead) === lead ? 'taken' : 'changed';
  return decision === 'repair' || decision === 'replace' || decision === 'range change'
    ? 'changed'
    : 'ignored';
}

function copyOfAdvice(run: Run, advice: Advice, lead: Act, act: Act | null): AdviceCopy {
  const { portrait, acts } = advice;
  const shown = acts.find((one) => one.act === (act ?? lead));
  return {
    school: advice.school,
    lead,
    act,
    portrait: {
      zero: portrait.zero,
      gain: portrait.gain,
      bow: portrait.bow,
      hysteresis: portrait.hysteresis,
    },
    incurable: advice.incurable.map(({ what, size, allowed }) => ({ what, size, allowed })),
    acts: acts.map((one) => ({
      act: one.act,
      worstPercentSpan: worstOf(one),
      suffices: one.suffices,
      hides: one.hides,
    })),
    predicted: (shown?.points ?? []).flatMap(({ errorPercentSpan, uncertaintyPercentSpan }, i) => {
      const reading = run.readings[i];
      return reading === undefined
        ? []
        : [{ position: reading.position, errorPercentSpan, uncertaintyPercentSpan }];
    }),
  };
}

/** Keeps what was advised and what was made of it; nothing where the readings could not be judged. */
export async function keepAdvice(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  {
    run,
    body,
    decision,
    act,
  }: {
    readonly run: Run;
    readonly body: Instrument['body'];
    readonly decision: string;
    readonly act: Act | null;
  },
): Promise<void> {
  const advice = adviceOnRun(run, body, await isRangeWrongIn(tx, jobId));
  if (advice === null || advice.lead === null) return;
  const { lead } = advice;
  const isAdjusting = decision === 'adjust';
  const done = isAdjusting ? (act ?? (lead === 'none' || lead === 'repair' ? null : lead)) : null;
  const madeOfIt = madeOf(lead, decision, done);
  await tx.query(
    'insert into advice (job_id, run_id, content, made_of_it, given_to, given_at) values ($1, $2, $3, $4, $5, $6)',
    [
      jobId,
      run.id,
      JSON.stringify(copyOfAdvice(run, advice, lead, done)),
      madeOfIt,
      actor.personId,
      actor.at,
    ],
  );
}

/** A point as it was predicted and as it came out, per cent of span. */
export interface Outcome {
  readonly position: number;
  readonly predicted: number;
  readonly uncertainty: number | null;
  readonly real: number;
  /** Whether it came out as said; null where nothing was said of how sure it is. */
  readonly isAsSaid: boolean | null;
}

/**
 * What advice predicted beside what was read as left, point by point; null where the two cannot be compared: nothing was
 * predicted, another range was set, or something else was done.
 */
export function outcomesOf({ content }: Pick<KeptAdvice, 'content'>, asLeft: Run): readonly Outcome[] | null {
  if (content.act === null || content.predicted.length === 0) return null;
  const { readings } = evaluateStoredRun(asLeft);
  const outcomes = content.predicted.flatMap(({ position, errorPercentSpan, uncertaintyPercentSpan }) => {
    const place = asLeft.readings.findIndex((reading) => reading.position === position);
    const judged = readings[place];
    if (judged === undefined) return [];
    const apart = Math.abs(judged.errorPercentSpan - errorPercentSpan);
    return [
      {
        position,
        predicted: errorPercentSpan,
        uncertainty: uncertaintyPercentSpan,
        real: judged.errorPercentSpan,
        isAsSaid: uncertaintyPercentSpan === null ? null : apart <= uncertaintyPercentSpan * (1 + 1e-9),
      },
    ];
  });
  return outcomes.length === 0 ? null : outcomes;
}
