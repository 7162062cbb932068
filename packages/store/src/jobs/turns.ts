/** Turns off the usual way of a job: given up because it was opened by mistake, or connected once more. */
import { lacksOf } from '@barys/core/hookup';
import { adjustmentsOfJob } from './adjust';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { instrumentOfJob } from './instrument-copy';
import { lockJob, moveJob } from './move';
import { STAGES, type Stage } from './stages';
import { requirePlanner, requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { lastRunOf } from '../runs/load';
import { movesOfJob, valvesOfJob } from './valves';

/** From where a job can be connected once more: the readings as found, and what is decided on them. */
const BEFORE_AS_LEFT: readonly Stage[] = ['as-found', 'judge', 'adjust'];

/**
 * Cancels a job that should not have been opened. It stays readable; its instrument is free for another one. Nothing may
 * be adjusted yet, and where valves were moved somebody has to say that they are back.
 * @param isBack whether the instrument is said to be back in service
 * @throws StoreError `reason-needed`, `not-cancellable`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function cancelJob(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { reason, isBack }: { readonly reason: string; readonly isBack: boolean },
): Promise<void> {
  // Whoever may open one may take it back.
  await requirePlanner(tx, actor);
  const { stage } = await lockJob(tx, jobId);
  if (!(STAGES as readonly string[]).includes(stage))
    throw new StoreError({ code: 'wrong-stage', stage, wanted: 'a job that is not signed' });
  if (reason.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: 'a job that was opened stays in the list' });
  if ((await adjustmentsOfJob(tx, jobId)).length > 0)
    throw new StoreError({
      code: 'not-cancellable',
      why: 'an adjustment is logged. Take the as-left readings and sign what was done.',
    });
  const { hookUp } = await instrumentOfJob(tx, jobId);
  const valves = valvesOfJob(hookUp, await movesOfJob(tx, jobId));
  const isMoved = lacksOf(hookUp, valves, 'in-service').length > 0;
  if (isMoved && !isBack)
    throw new StoreError({
      code: 'not-cancellable',
      why: 'its valves were moved. Bring the instrument back to service first, and say so.',
    });
  await tx.query(
    `update job set stage = 'cancelled', cancelled_by = $2, cancelled_at = $3, cancel_reason = $4 where id = $1`,
    [jobId, actor.personId, actor.at, reason.trim()],
  );
  await appendToTrail(tx, actor, {
    act: 'cancel job',
    subject: { kind: 'job', id: jobId },
    detail: { stage, reason: reason.trim(), ...(isMoved ? { saidToBeBackInService: true } : {}) },
  });
}

/**
 * Back to Connect: another standard, hose or meter is needed. A run in hand no longer counts; the connection that it was
 * made under stays on record, and so do runs that were finished.
 * @throws StoreError `reason-needed`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function connectAgain(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  reason: string,
): Promise<void> {
  await requireWorker(tx, actor);
  const { stage } = await lockJob(tx, jobId);
  const from = BEFORE_AS_LEFT.find((one) => one === stage);
  if (from === undefined)
    throw new StoreError({ code: 'wrong-stage', stage, wanted: 'a job before its as-left run' });
  const said = reason.trim();
  if (said === '') throw new StoreError({ code: 'reason-needed', why: 'it is connected once more' });
  if (from === 'as-found') {
    const run = await lastRunOf(tx, jobId, 'as-found');
    await tx.query(
      'insert into run_thrown_away (run_id, reason, thrown_by, thrown_at) values ($1, $2, $3, $4)',
      [run.id, `connected once more: ${said}`, actor.personId, actor.at],
    );
  }
  await moveJob(tx, actor, jobId, { from, to: 'connect', note: `connected once more: ${said}` });
  await appendToTrail(tx, actor, {
    act: 'connect again',
    subject: { kind: 'job', id: jobId },
    detail: { from, reason: said },
  });
}
