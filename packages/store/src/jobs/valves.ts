/** Isolating an instrument and bringing it back: the valves as they were moved. */
import {
  afterMoves,
  HOOK_UPS,
  inService,
  moveValve,
  valveOf,
  type Arrangement,
  type HookUpFault,
  type HookUpState,
  type ValveId,
  type ValveMove,
} from '@barys/core/hookup';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { instrumentOfJob } from './instrument-copy';
import { lockJobAt } from './move';
import { requireWorker } from '../people/people';
import type { Actor } from '../people/actor';

export const VALVE_STAGES = ['isolate', 'return'] as const;
export type ValveStage = (typeof VALVE_STAGES)[number];

export interface MadeMove extends ValveMove {
  readonly id: number;
  readonly stage: ValveStage;
  readonly faults: readonly HookUpFault[];
  readonly movedBy: string;
  readonly movedAt: Date;
}

/** The moves of a job, in their order. */
export function movesOfJob(db: Queryable, jobId: number): Promise<MadeMove[]> {
  return db.query<MadeMove>(
    `select valve_move.id, stage, valve, moved_to as "to", faults, name_at(moved_by, moved_at) as "movedBy", moved_at as "movedAt"
     from valve_move where job_id = $1 order by valve_move.id`,
    [jobId],
  );
}

/** How the valves stand after the moves of a job, which began with the instrument in service. */
export const valvesOfJob = (arrangement: Arrangement, moves: readonly ValveMove[]): HookUpState =>
  afterMoves(arrangement, inService(arrangement), moves);

/**
 * Keeps a move of a valve. One that leaves a fault is kept only where the technician says that it was really made.
 * @param known how many moves the technician had seen, so that two people do not move one valve twice
 * @throws StoreError `valve-fault`, `changed-meanwhile`, `wrong-stage`, `unknown-person`, `not-allowed`; CoreError
 *   `unknown-name`
 */
export async function keepMove(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  {
    stage,
    valve,
    to,
    isMadeAnyway,
    known,
  }: ValveMove & {
    readonly stage: ValveStage;
    readonly isMadeAnyway: boolean;
    readonly known: number;
  },
): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, stage);
  const { hookUp } = await instrumentOfJob(tx, jobId);
  const made = await movesOfJob(tx, jobId);
  if (made.length !== known) throw new StoreError({ code: 'changed-meanwhile', what: 'the valves' });
  const before = valvesOfJob(hookUp, made);
  const { name } = valveOf(HOOK_UPS[hookUp], valve);
  if (before.valves[valve] === to) return;
  const { faults } = moveValve(hookUp, before, { valve, to });
  if (faults.length > 0 && !isMadeAnyway) throw new StoreError({ code: 'valve-fault', valve: name });
  await tx.query(
    `insert into valve_move (job_id, stage, valve, moved_to, faults, moved_by, moved_at)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [jobId, stage, valve satisfies ValveId, to, faults, actor.personId, actor.at],
  );
  await appendToTrail(tx, actor, {
    act: 'move valve',
    subject: { kind: 'job', id: jobId },
    detail: { stage, valve: name, to, ...(faults.length === 0 ? {} : { faults }) },
  });
}
