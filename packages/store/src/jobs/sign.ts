/** The end of a job: the technician's signature, and a second person's review. */
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { missingPoints } from '../runs/evaluation';
import { verdictOfCheck } from '../runs/loop-check';
import { lockJobAt, moveJob, reasonOfJob } from './move';
import { copyInstrument } from './instrument-copy';
import { asFoundRun, asLeftRun, lastDay } from './file';
import { hasPassword, isPasswordOf } from '../people/sessions';
import { requireReviewer, requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { runsOfJob } from '../runs/load';
import type { Run } from '../runs/copy';
import { findSite, type Site } from '../people/site';
import { dropResults, keepResults } from '../results/keep';
import { movesOfJob } from './valves';
import { markDone, markUndone } from '../planning/done';

/**
 * The signer's password again. A person of the demo, who has none, signs without.
 * @throws StoreError `wrong-password`
 */
export async function requirePassword(tx: Queryable, { personId }: Actor, password: string): Promise<void> {
  if (!(await hasPassword(tx, personId))) return;
  if (!(await isPasswordOf(tx, personId, password))) throw new StoreError({ code: 'wrong-password' });
}

/** The runs that a signature is for; null of a hot check, which has none. */
async function runsToSign(tx: Queryable, jobId: number): Promise<{ asFound: Run; asLeft: Run } | null> {
  if ((await reasonOfJob(tx, jobId)) === 'hot check') return null;
  const runs = await runsOfJob(tx, jobId);
  const asFound = asFoundRun({ runs });
  if (asFound === null) throw new StoreError({ code: 'no-such', what: 'as-found run of job', name: jobId });
  const asLeft = asLeftRun({ runs }) ?? asFound;
  for (const run of [asFound, asLeft])
    if (missingPoints(run) > 0) throw new StoreError({ code: 'run-incomplete', missing: missingPoints(run) });
  return { asFound, asLeft };
}

/**
 * Signs a job. Where the site has a second person review, the job waits for that; else it is closed, and the instrument
 * has its next due date.
 * @throws StoreError `wrong-password`, `reason-needed`, `run-incomplete`, `letterhead-missing`, `wrong-stage`,
 *   `unknown-person`, `not-allowed`
 */
export async function signJob(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { remark, password }: { readonly remark: string; readonly password: string },
): Promise<void> {
  const signer = await requireWorker(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'sign');
  await requirePassword(tx, actor, password);
  const runs = await runsToSign(tx, jobId);
  const found = runs === null ? null : verdictOfCheck(runs.asFound);
  const left = runs === null ? null : verdictOfCheck(runs.asLeft);
  const said = remark.trim();
  // What was said where it was decided to leave it so is not asked for once more.
  const isExplained = said !== '' || (await reasonToLeave(tx, jobId));
  if (left === 'outside' && !isExplained)
    throw new StoreError({ code: 'reason-needed', why: 'the instrument is left outside its tolerance' });
  if (left === 'not-judged' && !isExplained)
    throw new StoreError({
      code: 'reason-needed',
      why: 'whether it is left inside its tolerance could not be judged with this standard',
    });
  const site = await findSite(tx);
  await requireLetterhead(tx, site);
  const to = site?.review === 'none' ? 'closed' : 'review';
  await tx.query(
    `insert into stage_passed (job_id, stage, note, done_by, done_at) values ($1, 'sign', $2, $3, $4)`,
    [jobId, said, actor.personId, actor.at],
  );
  await copyInstrument(tx, jobId, instrumentId, (await movesOfJob(tx, jobId)).length > 0);
  await tx.query(
    `update job set stage = $7, signed_by = $2, signed_at = $3, remark = $4, as_found_verdict = $5,
       as_left_verdict = $6, letterhead = $8,
       next_due = case when $6 = 'outside' or $9::date is null then null else ($9::date + make_interval(months =>
         (select interval_months from instrument where id = instrument_id)))::date end
     where id = $1`,
    [
      jobId,
      actor.personId,
      actor.at,
      said,
      found,
      left,
      to,
      site?.letterhead ?? null,
      runs === null ? null : lastDay(runs.asLeft),
    ],
  );
  await keepResults(tx, jobId);
  if (runs !== null) await markDone(tx, instrumentId, jobId);
  const due = to === 'closed' ? await moveDueDate(tx, jobId) : null;
  await appendToTrail(tx, actor, {
    act: 'sign job',
    subject: { kind: 'job', id: jobId },
    detail: { as: signer.name, asFound: found, asLeft: left, remark: said, ...(due === null ? {} : { due }) },
  });
}

/**
 * Moves the due date of a job's instrument to the one that the signature set: the interval counted from the day of the
 * last readings, as left. An instrument left outside its tolerance keeps its due date, since it was not brought into order.
 * @returns before and after, or null where it stays
 */
async function moveDueDate(tx: Queryable, jobId: number): Promise<{ before: string; after: string } | null> {
  const [moved] = await tx.query<{ before: string; after: string }>(
    `update instrument set due_on = job.next_due, revision = instrument.revision + 1
     from instrument old, job where job.id = $1 and job.next_due is not null
       and instrument.id = job.instrument_id and old.id = instrument.id
     returning old.due_on as before, instrument.due_on as after`,
    [jobId],
  );
  return moved ?? null;
}

/**
 * The first certificate says who calibrated: asked for before the first signature.
 * @throws StoreError `letterhead-missing`
 */
async function requireLetterhead(tx: Queryable, site: Site | null): Promise<void> {
  if (site === null || site.letterhead.laboratory !== '') return;
  const signed = await tx.query('select from job where signed_at is not null limit 1');
  if (signed.length === 0) throw new StoreError({ code: 'letterhead-missing' });
}

/** Whether a reason was given when it was decided on the readings that count. */
export async function reasonToLeave(db: Queryable, jobId: number): Promise<boolean> {
  const [last] = await db.query<{ note: string }>(
    `select note from stage_passed where job_id = $1 and stage = 'judge' and answers @> '[{"answer": "leave"}]'
       and id = (select max(id) from stage_passed where job_id = $1 and stage = 'judge')`,
    [jobId],
  );
  return last !== undefined && last.note !== '';
}

/**
 * Whether a job is somebody's own work, which they do not review where the site wants another person for that.
 */
export const isOwnWork = async (db: Queryable, personId: number, jobId: number): Promise<boolean> =>
  (await findSite(db))?.review !== 'anybody' && (await handsIn(db, jobId)).has(personId);

/** Who had a hand in a job: readings, marks, adjustments, connection, valves, stages, signature. */
export async function handsIn(tx: Queryable, jobId: number): Promise<ReadonlySet<number>> {
  const rows = await tx.query<{ id: number }>(
    `select read_by as id from reading join run on run.id = run_id where job_id = $1
     union select marked_by from point_mark join run on run.id = run_id where job_id = $1
     union select made_by from connection where job_id = $1
     union select moved_by from valve_move where job_id = $1
     union select made_by from adjustment where job_id = $1
     union select done_by from stage_passed where job_id = $1 and stage <> 'review'
     union select read_by from setup_reading where job_id = $1
     union select chosen_by from cause where job_id = $1
     union select done_by from job_line_tick join job_line line on line.id = line_id where job_id = $1
     union select made_by from bias where job_id = $1
     union select signed_by from job where id = $1`,
    [jobId],
  );
  return new Set(rows.map(({ id }) => id));
}

/** @throws StoreError `job-open-since` where the instrument has another job by now, beside which this one cannot stand open */
async function refuseBesideAnother(tx: Queryable, jobId: number, instrumentId: number): Promise<void> {
  const [other] = await tx.query<{ id: number }>(
    'select id from job where instrument_id = $1 and id <> $2 and signed_at is null and cancelled_at is null',
    [instrumentId, jobId],
  );
  if (other !== undefined) throw new StoreError({ code: 'job-open-since', jobId: other.id });
}

/**
 * A second person accepts a signed job, which closes it, or sends it back to the signature with a remark.
 * @throws StoreError `wrong-password`, `own-work`, `reason-needed`, `job-open-since`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function reviewJob(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  entry: { readonly isAccepted: boolean; readonly remark: string; readonly password: string },
): Promise<void> {
  await requireReviewer(tx, actor);
  const { instrumentId } = await lockJobAt(tx, jobId, 'review');
  if (await isOwnWork(tx, actor.personId, jobId)) throw new StoreError({ code: 'own-work' });
  await requirePassword(tx, actor, entry.password);
  const remark = entry.remark.trim();
  if (!entry.isAccepted && remark === '')
    throw new StoreError({ code: 'reason-needed', why: 'the technician has to know what to put right' });
  let due: { before: string; after: string } | null = null;
  if (entry.isAccepted) {
    due = await moveDueDate(tx, jobId);
    await tx.query(
      `insert into stage_passed (job_id, stage, note, done_by, done_at) values ($1, 'review', $2, $3, $4)`,
      [jobId, remark, actor.personId, actor.at],
    );
    await tx.query(
      `update job set stage = 'closed', reviewed_by = $2, reviewed_at = $3, review_remark = $4 where id = $1`,
      [jobId, actor.personId, actor.at, remark],
    );
  } else {
    await refuseBesideAnother(tx, jobId, instrumentId);
    await dropResults(tx, jobId);
    await markUndone(tx, jobId);
    await tx.query(
      `update job set stage = 'sign', signed_by = null, signed_at = null, as_found_verdict = null,
         as_left_verdict = null where id = $1`,
      [jobId],
    );
    await tx.query(
      `insert into stage_passed (job_id, stage, note, done_by, done_at) values ($1, 'review', $2, $3, $4)`,
      [jobId, `sent back: ${remark}`, actor.personId, actor.at],
    );
  }
  await appendToTrail(tx, actor, {
    act: entry.isAccepted ? 'accept job' : 'send job back',
    subject: { kind: 'job', id: jobId },
    detail: { remark, ...(due === null ? {} : { due }) },
  });
}

/**
 * Back from the signature to the stage before it, where something has to be put right first.
 * @throws StoreError `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function backToReturn(tx: Queryable, actor: Actor, jobId: number): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'sign');
  await moveJob(tx, actor, jobId, { from: 'sign', to: 'return' });
  await appendToTrail(tx, actor, { act: 'return to return', subject: { kind: 'job', id: jobId } });
}
