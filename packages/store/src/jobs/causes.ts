/** What somebody finds to be behind the readings of a run: a suspicion that is taken into the record, and taken back. */
import { SUSPICION_NAMES, suspectWords, type Suspicion } from '@barys/core/suspects';
import { parseTyped } from '@barys/core/text';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireWorker } from '../people/people';
import { suspectUnitsOf, weighRun } from '../runs/suspects';
import { lastRunOf } from '../runs/load';
import { instrumentOfJob } from './instrument-copy';
import { knownBeside } from './known-beside';
import { lockJobAt } from './move';

/** As it was shown when it was chosen; a record of it reads back whatever is weighed later. */
const contentSchema = z.object({
  title: z.string(),
  figure: z.string(),
  test: z.string(),
  probability: z.number(),
  /** Whether the readings told it from the others. */
  isTold: z.boolean(),
  residualPercent: z.number(),
  scatterPercent: z.number(),
  /** Output with both sides open, as typed; null where it was not read. */
  vented: z.string().nullable(),
});

export interface Cause {
  readonly id: number;
  readonly runId: number;
  readonly suspicion: Suspicion;
  readonly content: z.infer<typeof contentSchema>;
  readonly remark: string;
  readonly chosenBy: string;
  readonly chosenAt: Date;
  /** Who took it back; null of one that stands. */
  readonly takenBack: { readonly by: string; readonly at: Date; readonly remark: string } | null;
}

interface CauseRow extends Omit<Cause, 'takenBack' | 'content'> {
  readonly content: unknown;
  readonly isTakenBack: boolean;
}

/** All that was chosen in a job, in order. */
export async function causesOfJob(db: Queryable, jobId: number): Promise<Cause[]> {
  const rows = await db.query<CauseRow>(
    `select id, run_id as "runId", suspicion, content, remark, is_taken_back as "isTakenBack",
       name_at(chosen_by, chosen_at) as "chosenBy", chosen_at as "chosenAt"
     from cause where job_id = $1 order by id`,
    [jobId],
  );
  const causes: Cause[] = [];
  for (const { isTakenBack, content, ...row } of rows) {
    const at = causes.findIndex(
      (one) => one.runId === row.runId && one.suspicion === row.suspicion && one.takenBack === null,
    );
    const standing = causes[at];
    if (!isTakenBack) causes.push({ ...row, content: contentSchema.parse(content), takenBack: null });
    else if (standing !== undefined)
      causes[at] = {
        ...standing,
        takenBack: { by: row.chosenBy, at: row.chosenAt, remark: row.remark },
      };
  }
  return causes;
}

export interface ChosenCause {
  readonly suspicion: Suspicion;
  /** Output with both sides drained and open, as typed; empty where it was not read. */
  readonly vented: string;
  readonly remark: string;
}

/** @throws StoreError `wrong-stage`, `unknown-person`, `not-allowed` */
async function atJudge(tx: Queryable, actor: Actor, jobId: number) {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'judge');
  const run = await lastRunOf(tx, jobId, 'as-found');
  const standing = (await causesOfJob(tx, jobId)).filter(
    (one) => one.runId === run.id && one.takenBack === null,
  );
  return { instrumentId, run, standing };
}

async function keep(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  row: Pick<Cause, 'runId' | 'suspicion' | 'content' | 'remark'> & { readonly isTakenBack: boolean },
): Promise<void> {
  await tx.query(
    `insert into cause (job_id, run_id, suspicion, content, remark, is_taken_back, chosen_by, chosen_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [
      jobId,
      row.runId,
      row.suspicion,
      JSON.stringify(row.content),
      row.remark,
      row.isTakenBack,
      actor.personId,
      actor.at,
    ],
  );
  await appendToTrail(tx, actor, {
    act: row.isTakenBack ? 'take back cause' : 'choose cause',
    subject: { kind: 'job', id: jobId },
    detail: { suspicion: row.suspicion, figure: row.content.figure, remark: row.remark },
  });
}

/**
 * Takes a suspicion into the record of a job at Judge, as it is weighed now from the run itself.
 * @throws StoreError `taken` where it stands already, `no-such` where it was not weighed, `wrong-stage`, `unknown-person`,
 *   `not-allowed`; CoreError for a vented reading that is no number
 */
export async function chooseCause(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { suspicion, vented, remark }: ChosenCause,
): Promise<void> {
  const { instrumentId, run, standing } = await atJudge(tx, actor, jobId);
  if (standing.some((one) => one.suspicion === suspicion))
    throw new StoreError({ code: 'taken', what: 'finding', name: SUSPICION_NAMES[suspicion] });
  const { kind } = await instrumentOfJob(tx, jobId);
  const known = await knownBeside(tx, { id: jobId, instrumentId }, run);
  const read = vented.trim();
  const found = weighRun(run, kind, known, read === '' ? undefined : parseTyped(read).value);
  const suspect = found?.weighed.suspects.find((one) => one.suspicion === suspicion);
  if (found === null || suspect === undefined)
    throw new StoreError({ code: 'no-such', what: 'suspicion', name: suspicion });
  await keep(tx, actor, jobId, {
    runId: run.id,
    suspicion,
    content: {
      ...suspectWords(suspect, found.suspected, suspectUnitsOf(run)),
      probability: suspect.probability,
      isTold: found.weighed.told === suspicion,
      residualPercent: suspect.residualPercent,
      scatterPercent: suspect.scatterPercent,
      vented: read === '' ? null : read,
    },
    remark: remark.trim(),
    isTakenBack: false,
  });
}

/**
 * Takes a chosen cause back; both stay in the record.
 * @throws StoreError `no-such`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function takeBackCause(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { suspicion, remark }: { readonly suspicion: Suspicion; readonly remark: string },
): Promise<void> {
  const { standing } = await atJudge(tx, actor, jobId);
  const cause = standing.find((one) => one.suspicion === suspicion);
  if (cause === undefined) throw new StoreError({ code: 'no-such', what: 'finding', name: suspicion });
  await keep(tx, actor, jobId, { ...cause, remark: remark.trim(), isTakenBack: true });
}
