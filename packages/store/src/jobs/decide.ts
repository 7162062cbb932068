/** A job is one visit to one instrument, walked through its stages to a signature. */
import type { Act } from '@barys/core/adjust';
import { lackInWords, lacksOf } from '@barys/core/hookup';
import { adjustmentsOfJob, refuseFixedLoop } from './adjust';
import { keepAdvice } from './advice';
import { appendAllToTrail, appendToTrail } from '../db/audit';
import { isSameRange } from '../registers/configuration';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { missingPoints, verdictOfStoredRun } from '../runs/evaluation';
import { verdictOfCheck } from '../runs/loop-check';
import { copyInstrument, copyOf, instrumentOfJob } from './instrument-copy';
import type { Instrument } from '../registers/instrument';
import { findInstrument, instrumentsOf } from '../registers/instruments';
import { withLoop } from '../registers/loops';
import { setupReadingsOfJob } from '../registers/setup-readings';
import { whyNotFor } from './checklists';
import { addLists, linesOfJob, listsFor } from './lists';
import { lockJobAt, moveJob, reasonOfJob, type Passage } from './move';
import type { AskingStage, JobReason, Stage } from './stages';
import { requirePlanner, requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { currentPass, lastRunOf, runsOfJob } from '../runs/load';
import { startRunAfter } from '../runs/start';
import type { Run, RunKind } from '../runs/copy';
import { answersOf, circumstancesOf, questionsAt, unanswered } from './questions';
import { movesOfJob, valvesOfJob } from './valves';

/** Why there is no job on an instrument, in words; null where there can be one. */
export function whyNotWalkable({ state }: Pick<Instrument, 'state'>): string | null {
  if (state === 'retired') return 'The instrument is retired.';
  return null;
}

/** Why there is no check of the loop of one of some instruments, in words; null where there can be one, or none is asked. */
async function whyNoLoop(
  tx: Queryable,
  reason: JobReason,
  instrumentIds: readonly number[],
): Promise<(instrument: Pick<Instrument, 'id' | 'tag'>) => string | null> {
  if (reason !== 'loop check') return () => null;
  const having = await withLoop(tx, instrumentIds);
  return ({ id, tag }) =>
    having.has(id)
      ? null
      : `No loop of ${tag} is kept. Draw it in the workshop and keep it with the instrument.`;
}

/**
 * Opens a visit to an instrument.
 * @throws StoreError `not-walkable`, `no-such`, `job-already-open`, `unknown-person`, `not-allowed`
 */
export async function openJob(tx: Queryable, actor: Actor, tag: string, reason: JobReason): Promise<number> {
  await requirePlanner(tx, actor);
  const instrument = await findInstrument(tx, { tag });
  const why =
    whyNotWalkable(instrument) ??
    whyNotFor(reason, instrument) ??
    (await whyNoLoop(tx, reason, [instrument.id]))(instrument);
  if (why !== null) throw new StoreError({ code: 'not-walkable', why });
  const [opened] = await tx.query<{ id: number }>(
    `insert into job (instrument_id, reason, opened_by, opened_at, instrument_copy) values ($1, $2, $3, $4, $5)
     on conflict (instrument_id) where signed_at is null and cancelled_at is null do nothing returning id`,
    [instrument.id, reason, actor.personId, actor.at, JSON.stringify(copyOf(instrument))],
  );
  if (opened === undefined) {
    const [standing] = await tx.query<{ id: number }>(
      'select id from job where instrument_id = $1 and signed_at is null and cancelled_at is null',
      [instrument.id],
    );
    throw new StoreError({ code: 'job-already-open', tag, jobId: standing?.id ?? 0 });
  }
  await addLists(tx, actor, [opened.id], listsFor(reason));
  await appendToTrail(tx, actor, {
    act: 'open job',
    subject: { kind: 'job', id: opened.id },
    detail: { tag, reason },
  });
  return opened.id;
}

/**
 * Opens a visit to each of several instruments; those that cannot be opened are told with their reason. One statement in
 * the order of the instruments, so that people who open jobs at once do not wait for each other in a ring.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function openJobsFor(
  tx: Queryable,
  actor: Actor,
  instrumentIds: readonly number[],
  reason: JobReason,
): Promise<{ opened: number; refused: readonly string[] }> {
  await requirePlanner(tx, actor);
  const wanted = await instrumentsOf(tx, instrumentIds);
  const withoutLoop = await whyNoLoop(tx, reason, instrumentIds);
  const whyNot = (instrument: Instrument) =>
    whyNotWalkable(instrument) ?? whyNotFor(reason, instrument) ?? withoutLoop(instrument);
  const walkable = wanted.filter((instrument) => whyNot(instrument) === null).sort((a, b) => a.id - b.id);
  const opened = await tx.query<{ id: number; instrumentId: number }>(
    `insert into job (instrument_id, reason, opened_by, opened_at, instrument_copy)
     select id, $3, $4, $5, copy from unnest($1::bigint[], $2::jsonb[]) as wanted (id, copy) order by id
     on conflict (instrument_id) where signed_at is null and cancelled_at is null do nothing
     returning id, instrument_id as "instrumentId"`,
    [
      walkable.map(({ id }) => id),
      walkable.map((instrument) => JSON.stringify(copyOf(instrument))),
      reason,
      actor.personId,
      actor.at,
    ],
  );
  const jobOf = new Map(opened.map(({ id, instrumentId }) => [instrumentId, id]));
  await addLists(
    tx,
    actor,
    opened.map(({ id }) => id),
    listsFor(reason),
  );
  await appendAllToTrail(
    tx,
    actor,
    walkable.flatMap(({ id, tag }) => {
      const job = jobOf.get(id);
      return job === undefined
        ? []
        : [{ act: 'open job', subject: { kind: 'job', id: job }, detail: { tag, reason } }];
    }),
  );
  const left = wanted.filter(({ id }) => !jobOf.has(id));
  const standing = await tx.query<{ id: number; instrumentId: number }>(
    `select id, instrument_id as "instrumentId" from job
     where instrument_id = any($1) and signed_at is null and cancelled_at is null`,
    [left.map(({ id }) => id)],
  );
  const refused = left.map((instrument) => {
    const { tag } = instrument;
    const why = whyNot(instrument);
    if (why !== null) return `${tag}: ${why}`;
    const jobId = standing.find(({ instrumentId }) => instrumentId === instrument.id)?.id ?? 0;
    return new StoreError({ code: 'job-already-open', tag, jobId }).message;
  });
  return { opened: opened.length, refused };
}

async function passStage(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  passage: Passage,
  act: string,
): Promise<void> {
  await moveJob(tx, actor, jobId, passage);
  await appendToTrail(tx, actor, { act, subject: { kind: 'job', id: jobId }, detail: { ...passage } });
}

/** What follows a stage that is passed by answering. A hot check is made while the instrument measures. */
const stageAfter = (stage: AskingStage, reason: JobReason): Stage =>
  stage === 'authorise' && reason === 'hot check' ? 'return' : AFTER[stage];
const AFTER: Readonly<Record<AskingStage, Stage>> = {
  brief: 'authorise',
  authorise: 'isolate',
  isolate: 'connect',
  return: 'sign',
};

/**
 * Passes a stage with its questions answered and, where it has valves, with these standing right; or passes over it with
 * a reason, which the record keeps.
 * @throws StoreError `unanswered`, `valves-not-right`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function passAsked(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  stage: AskingStage,
  { given, skipReason }: { readonly given: Readonly<Record<string, string>>; readonly skipReason: string },
): Promise<void> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, stage);
  // Until the valves are moved the register is followed, so that what is found wrong on the spot can be put right there.
  if (stage === 'brief' || stage === 'authorise') await copyInstrument(tx, jobId, instrumentId, false);
  const instrument = await instrumentOfJob(tx, jobId);
  const state = valvesOfJob(instrument.hookUp, await movesOfJob(tx, jobId));
  const reason = await reasonOfJob(tx, jobId);
  const circumstances = circumstancesOf({
    reason,
    isLegLost: state.isLegLost,
    setups: await setupReadingsOfJob(tx, jobId),
    lines: await linesOfJob(tx, jobId),
  });
  const questions = questionsAt(stage, instrument, circumstances);
  const isSkip = skipReason.trim() !== '';
  if (!isSkip) {
    const open = unanswered(questions, given);
    if (open.length > 0)
      throw new StoreError({ code: 'unanswered', questions: open.map(({ text }) => text) });
    const lacks =
      stage === 'isolate' || stage === 'return'
        ? lacksOf(instrument.hookUp, state, stage === 'isolate' ? 'isolated' : 'in-service')
        : [];
    if (lacks.length > 0)
      throw new StoreError({
        code: 'valves-not-right',
        lacks: lacks.map((lack) => lackInWords(instrument.hookUp, lack)),
      });
  }
  const answers = answersOf(questions, given);
  await passStage(
    tx,
    actor,
    jobId,
    { from: stage, to: stageAfter(stage, reason), note: skipReason.trim(), isSkip, answers },
    isSkip ? `pass over ${stage}` : `pass ${stage}`,
  );
}

/**
 * Ends a run that has a reading at every point: as found goes on to be judged, as left to the return.
 * @throws StoreError `run-incomplete`, `run-empty`, `wrong-stage`
 */
export async function finishRun(tx: Queryable, actor: Actor, jobId: number, kind: RunKind): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, kind);
  const run = await lastRunOf(tx, jobId, kind);
  const missing = missingPoints(run);
  if (missing > 0) throw new StoreError({ code: 'run-incomplete', missing });
  if (run.readings.length === 0) throw new StoreError({ code: 'run-empty' });
  await passStage(
    tx,
    actor,
    jobId,
    { from: kind, to: kind === 'as-found' ? 'judge' : 'return' },
    'finish run',
  );
}

/**
 * Back to the as-found readings to correct one; not once something was adjusted.
 * @throws StoreError `already-adjusted`, `wrong-stage`
 */
export async function reopenAsFound(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'judge');
  if ((await adjustmentsOfJob(tx, jobId)).length > 0) throw new StoreError({ code: 'already-adjusted' });
  await passStage(tx, actor, jobId, { from: 'judge', to: 'as-found' }, 'reopen run');
}

/** What can be decided on the readings as found. */
export const DECISIONS_ON_RUN = [
  'leave',
  'adjust',
  'repair',
  'replace',
  'range change',
  'further tests',
] as const;
export type DecisionOnRun = (typeof DECISIONS_ON_RUN)[number];

const BECAUSE: Partial<Record<DecisionOnRun, string>> = {
  repair: 'what is to be repaired',
  replace: 'what is wrong with it, and what it is replaced by',
  'range change': 'which range is asked for, and why',
  'further tests': 'what is to be tested again, and why',
};

/**
 * Decides on the readings as found. Adjusting, repairing and a range change go on to the log of what is done; leaving
 * and replacing go on to the return; further tests begin another run of the same points. What was advised is kept with it.
 * @param act what is to be adjusted, where it is not what the advice says
 * @throws StoreError `reason-needed`, `as-found-only`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function decideOnRun(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  {
    decision,
    note,
    act = null,
  }: { readonly decision: DecisionOnRun; readonly note: string; readonly act?: Act | null },
): Promise<void> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'judge');
  const run = await lastRunOf(tx, jobId, 'as-found');
  const said = note.trim();
  const why = decision === 'leave' ? leavingNeeds(run) : BECAUSE[decision];
  if (why !== undefined && said === '') throw new StoreError({ code: 'reason-needed', why });
  const isChanging = decision === 'adjust' || decision === 'repair' || decision === 'range change';
  const { procedure } = run.madeWith;
  if (isChanging && procedure?.isAsFoundOnly)
    throw new StoreError({ code: 'as-found-only', procedure: procedure.name });
  const to = isChanging ? 'adjust' : decision === 'further tests' ? 'as-found' : 'return';
  const answers = [{ question: 'Decision', answer: decision }];
  const { body } = await findInstrument(tx, { id: instrumentId });
  await keepAdvice(tx, actor, jobId, { run, body, decision, act });
  await passStage(tx, actor, jobId, { from: 'judge', to, note: said, answers }, 'decide');
  if (decision === 'range change') await addLists(tx, actor, [jobId], listsFor('range change'));
  if (decision !== 'further tests') return;
  await startRunAfter(tx, actor, jobId, run, { kind: 'as-found', pass: run.pass + 1 });
}

function leavingNeeds(run: Run): string | undefined {
  if (verdictOfCheck(run) === 'within') return undefined;
  return verdictOfStoredRun(run) === 'within'
    ? 'the instrument is right, and its loop is not'
    : 'the readings ask for an adjustment';
}

/**
 * Throws the run in hand away, with a reason that stays, and begins it anew.
 * @throws StoreError `reason-needed`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function throwRunAway(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  kind: RunKind,
  reason: string,
): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, kind);
  if (reason.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: 'a run that was begun stays in the record' });
  const run = await lastRunOf(tx, jobId, kind);
  await tx.query(
    'insert into run_thrown_away (run_id, reason, thrown_by, thrown_at) values ($1, $2, $3, $4)',
    [run.id, reason.trim(), actor.personId, actor.at],
  );
  await startRunAfter(tx, actor, jobId, run, { kind, pass: run.pass + 1 });
  await appendToTrail(tx, actor, {
    act: 'throw run away',
    subject: { kind: 'job', id: jobId },
    detail: { run: run.id, kind, reason: reason.trim() },
  });
}

/** Whether another version of the configuration came in force after a run was begun. */
const isConfiguredSince = (
  { madeWith }: Pick<Run, 'madeWith'>,
  { configuration }: Pick<Instrument, 'configuration'>,
): boolean => configuration.version !== madeWith.configuration.version;

async function newestRun(tx: Queryable, jobId: number): Promise<Run> {
  const run = (await runsOfJob(tx, jobId)).filter(({ thrownAway }) => thrownAway === null).at(-1);
  if (run === undefined) throw new StoreError({ code: 'no-such', what: 'run of job', name: jobId });
  return run;
}

/**
 * Back from Adjust to Judge, where nothing was touched after all.
 * @throws StoreError `already-adjusted`, `wrong-stage`
 */
export async function backToJudge(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'adjust');
  const run = await newestRun(tx, jobId);
  const isTouched =
    (await adjustmentsOfJob(tx, jobId)).length > 0 ||
    isConfiguredSince(run, await findInstrument(tx, { id: instrumentId }));
  if (isTouched) throw new StoreError({ code: 'already-adjusted' });
  await passStage(tx, actor, jobId, { from: 'adjust', to: 'judge' }, 'return to judge');
}

/**
 * Begins the as-left run after the adjustments of this pass, or goes to connect once more for a range that is new.
 * @throws StoreError `nothing-adjusted`, `loop-fixed`, `wrong-stage`
 */
export async function beginAsLeft(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'adjust');
  await refuseFixedLoop(tx, jobId);
  const pass = await currentPass(tx, jobId);
  const made = (await adjustmentsOfJob(tx, jobId)).filter((adjustment) => adjustment.pass === pass);
  const run = await newestRun(tx, jobId);
  const instrument = await findInstrument(tx, { id: instrumentId });
  if (made.length === 0 && !isConfiguredSince(run, instrument))
    throw new StoreError({ code: 'nothing-adjusted' });
  if (!isSameRange(run.madeWith.configuration, instrument.configuration)) {
    const passage = { from: 'adjust', to: 'connect', note: 'for the new range' } as const;
    await passStage(tx, actor, jobId, passage, 'connect anew');
    return;
  }
  await moveJob(tx, actor, jobId, { from: 'adjust', to: 'as-left' });
  const { configuration } = instrument;
  await startRunAfter(tx, actor, jobId, run, { kind: 'as-left', pass }, configuration);
}

/**
 * From the return back to another adjustment, where the as-left run is not good enough; not once valves were moved back.
 * @throws StoreError `returning-already`, `as-found-only`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function adjustAgain(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'return');
  if ((await movesOfJob(tx, jobId)).some(({ stage }) => stage === 'return'))
    throw new StoreError({ code: 'returning-already' });
  const { procedure } = (await lastRunOf(tx, jobId, 'as-found')).madeWith;
  if (procedure?.isAsFoundOnly) throw new StoreError({ code: 'as-found-only', procedure: procedure.name });
  await passStage(tx, actor, jobId, { from: 'return', to: 'adjust' }, 'adjust again');
}
