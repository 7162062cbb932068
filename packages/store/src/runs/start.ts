/** Beginning a run: with copies of what is in force, or as the run before it. */
import { madeWithSchema, TAP_COLUMNS, type MadeWith, type Run, type RunKind } from './copy';
import { plannedPoints } from '@barys/core/procedure';
import { appendToTrail } from '../db/audit';
import type { Connection } from '../jobs/connection';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { JobReason } from '../jobs/stages';
import { toleranceOf, type Instrument } from '../registers/instrument';
import type { Actor } from '../people/actor';
import { loopWith, tapsToRead } from '../registers/loop-content';
import { loopsOf } from '../registers/loops';
import { settleWaitS } from '../registers/procedures';
import { betterStandard } from './fit';

/** The loop that a job checks, with the instrument in it as it is set; null of a job of another kind. */
async function loopToCheck(tx: Queryable, jobId: number, instrument: Instrument): Promise<MadeWith['loop']> {
  const [job] = await tx.query<{ reason: JobReason }>('select reason from job where id = $1', [jobId]);
  if (job?.reason !== 'loop check') return null;
  const [last] = await loopsOf(tx, instrument.id);
  if (last === undefined) throw new StoreError({ code: 'no-such', what: 'loop of', name: instrument.tag });
  const content = loopWith(last.content, instrument.configuration, instrument.tolerance.percentOfSpan);
  return { version: last.version, content, taps: tapsToRead(content).slice(0, TAP_COLUMNS.length) };
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
  const loop = await loopToCheck(tx, jobId, instrument);
  const { content } = procedure;
  const { pressureReference, secondReference } = connection;
  const { head } = connection;
  const madeWith = madeWithSchema.parse({
    body: instrument.body,
    configuration,
    tolerance: toleranceOf(instrument),
    decisionRule: content.decisionRule,
    school: content.school ?? 'past the adjust limit',
    judgesBeyondUncertainty: false,
    leastRatio: content.leastRatio,
    settle: {
      waitS: settleWaitS(content, configuration.dampingS),
      holdS: content.settle.holdS,
      bandPercent: content.settle.bandPercent,
    },
    approach: content.approach ?? null,
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
      ...TAP_COLUMNS.slice(0, loop?.taps.length ?? 0),
    ],
    loop,
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
