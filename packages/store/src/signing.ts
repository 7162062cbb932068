/** The end of a job: the technician's signature, a second person's review, and what may still be said afterwards. */
import { parseTyped } from '@barys/core';
import { appendToTrail } from './audit';
import type { Queryable } from './database';
import { StoreError } from './errors';
import { evaluateStoredRun, missingPoints } from './evaluation';
import { lockJobAt, moveJob } from './job-stages';
import { asFoundRun, asLeftRun } from './job-file';
import { hasPassword, isPasswordOf } from './sessions';
import { requireReviewer, requireWorker, type Actor } from './people';
import { runsOfJob, type Run } from './runs';
import { findSite } from './site';

/**
 * The signer's password again. A person of the demo, who has none, signs without.
 * @throws StoreError `wrong-password`
 */
async function requirePassword(tx: Queryable, { personId }: Actor, password: string): Promise<void> {
  if (!(await hasPassword(tx, personId))) return;
  if (!(await isPasswordOf(tx, personId, password))) throw new StoreError({ code: 'wrong-password' });
}

async function runsToSign(tx: Queryable, jobId: number): Promise<{ asFound: Run; asLeft: Run }> {
  const runs = await runsOfJob(tx, jobId);
  const asFound = asFoundRun({ runs });
  if (asFound === null) throw new StoreError({ code: 'no-such', what: 'as-found run of job', name: jobId });
  const asLeft = asLeftRun({ runs }) ?? asFound;
  for (const run of [asFound, asLeft])
    if (missingPoints(run) > 0) throw new StoreError({ code: 'run-incomplete', missing: missingPoints(run) });
  return { asFound, asLeft };
}

/**
 * Signs a job and sets the instrument's next due date: the interval counted from the day of signing. An instrument left
 * outside its tolerance keeps its due date, since it was not brought into order. Where the site has a second person
 * review, the job waits for that, else it is closed.
 * @throws StoreError `wrong-password`, `reason-needed`, `run-incomplete`, `wrong-stage`, `unknown-person`, `not-allowed`
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
  const { asFound, asLeft } = await runsToSign(tx, jobId);
  const found = evaluateStoredRun(asFound).verdict;
  const left = evaluateStoredRun(asLeft).verdict;
  const said = remark.trim();
  if (left === 'outside' && said === '')
    throw new StoreError({ code: 'reason-needed', why: 'the instrument is left outside its tolerance' });
  if (left === 'not-judged' && said === '')
    throw new StoreError({
      code: 'reason-needed',
      why: 'whether it is left inside its tolerance could not be judged with this standard',
    });
  const site = await findSite(tx);
  const to = site?.review === 'none' ? 'closed' : 'review';
  await tx.query(
    `insert into stage_passed (job_id, stage, note, done_by, done_at) values ($1, 'sign', $2, $3, $4)`,
    [jobId, said, actor.personId, actor.at],
  );
  await tx.query(
    `update job set stage = $7, signed_by = $2, signed_at = $3, remark = $4, as_found_verdict = $5,
       as_left_verdict = $6, letterhead = $8 where id = $1`,
    [jobId, actor.personId, actor.at, said, found, left, to, site?.letterhead ?? null],
  );
  if (left !== 'outside')
    await tx.query(
      `update instrument set due_on = ($2::date + make_interval(months => interval_months))::date,
         revision = revision + 1
       where id = $1`,
      [instrumentId, actor.today],
    );
  await appendToTrail(tx, actor, {
    act: 'sign job',
    subject: { kind: 'job', id: jobId },
    detail: { as: signer.name, asFound: found, asLeft: left, remark: said },
  });
}

/** Who had a hand in a job: readings, marks, adjustments, connection, valves, stages, signature. */
async function handsIn(tx: Queryable, jobId: number): Promise<ReadonlySet<number>> {
  const rows = await tx.query<{ id: number }>(
    `select read_by as id from reading join run on run.id = run_id where job_id = $1
     union select marked_by from point_mark join run on run.id = run_id where job_id = $1
     union select made_by from connection where job_id = $1
     union select moved_by from valve_move where job_id = $1
     union select made_by from adjustment where job_id = $1
     union select done_by from stage_passed where job_id = $1 and stage <> 'review'
     union select signed_by from job where id = $1`,
    [jobId],
  );
  return new Set(rows.map(({ id }) => id));
}

/**
 * A second person accepts a signed job, which closes it, or sends it back to the signature with a remark.
 * @throws StoreError `wrong-password`, `own-work`, `reason-needed`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function reviewJob(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  entry: { readonly isAccepted: boolean; readonly remark: string; readonly password: string },
): Promise<void> {
  await requireReviewer(tx, actor);
  await lockJobAt(tx, jobId, 'review');
  if ((await findSite(tx))?.review !== 'anybody' && (await handsIn(tx, jobId)).has(actor.personId))
    throw new StoreError({ code: 'own-work' });
  await requirePassword(tx, actor, entry.password);
  const remark = entry.remark.trim();
  if (!entry.isAccepted && remark === '')
    throw new StoreError({ code: 'reason-needed', why: 'the technician has to know what to put right' });
  if (entry.isAccepted) {
    await tx.query(
      `insert into stage_passed (job_id, stage, note, done_by, done_at) values ($1, 'review', $2, $3, $4)`,
      [jobId, remark, actor.personId, actor.at],
    );
    await tx.query(
      `update job set stage = 'closed', reviewed_by = $2, reviewed_at = $3, review_remark = $4 where id = $1`,
      [jobId, actor.personId, actor.at, remark],
    );
  } else {
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
    detail: { remark },
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

export interface Amendment {
  readonly id: number;
  /** The reading that was wrong, or null. */
  readonly readingId: number | null;
  readonly what: string;
  readonly beforeText: string;
  readonly afterText: string;
  readonly reason: string;
  readonly amendedBy: string;
  readonly amendedAt: Date;
}

/** The amendments of a job, in their order. */
export function amendmentsOfJob(db: Queryable, jobId: number): Promise<Amendment[]> {
  return db.query<Amendment>(
    `select amendment.id, reading_id as "readingId", what, before_text as "beforeText", after_text as "afterText", reason,
       person.name as "amendedBy", amended_at as "amendedAt"
     from amendment join person on person.id = amended_by where job_id = $1 order by amendment.id`,
    [jobId],
  );
}

export interface NewAmendment {
  /** A reading's output by the reading's number, or what else of the record is amended, in words. */
  readonly readingId: number | null;
  readonly what: string;
  readonly beforeText: string;
  readonly afterText: string;
  readonly reason: string;
}

/** The output of a reading as it stands: amended or as read. */
async function outputNow(
  tx: Queryable,
  jobId: number,
  readingId: number,
): Promise<{ what: string; text: string }> {
  const [row] = await tx.query<{ kind: string; position: number; text: string }>(
    `select kind, position, coalesce((select after_text from amendment where reading_id = reading.id
       order by id desc limit 1), output_text) as text
     from reading join run on run.id = run_id where reading.id = $1 and job_id = $2
       and not exists (select from reading later where later.supersedes = reading.id)`,
    [readingId, jobId],
  );
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'reading', name: readingId });
  return { what: `${row.kind.replace('-', ' ')}, reading at point ${row.position}`, text: row.text };
}

/**
 * Amends a closed record: what it said stays and is read beside the amendment.
 * @throws StoreError `reason-needed`, `no-such`, `wrong-stage`, `unknown-person`, `not-allowed`; CoreError for a reading
 *   that is no number
 */
export async function amendJob(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  entry: NewAmendment,
): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'closed');
  const reason = entry.reason.trim();
  if (reason === '') throw new StoreError({ code: 'reason-needed', why: 'an amendment keeps its reason' });
  const standing =
    entry.readingId === null
      ? { what: entry.what.trim(), text: entry.beforeText.trim() }
      : await outputNow(tx, jobId, entry.readingId);
  if (standing.what === '')
    throw new StoreError({ code: 'reason-needed', why: 'what of the record is amended' });
  const after = entry.readingId === null ? entry.afterText.trim() : parseTyped(entry.afterText).text;
  if (after === '' || after === standing.text)
    throw new StoreError({ code: 'reason-needed', why: 'what it should have said, other than what it says' });
  await tx.query(
    `insert into amendment (job_id, reading_id, what, before_text, after_text, reason, amended_by, amended_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [jobId, entry.readingId, standing.what, standing.text, after, reason, actor.personId, actor.at],
  );
  await appendToTrail(tx, actor, {
    act: 'amend job',
    subject: { kind: 'job', id: jobId },
    detail: { ...standing, after, reason },
  });
}

/** A run with its readings as amended, to be judged beside the run as signed; null where nothing of it was amended. */
export function amendedRun(run: Run, amendments: readonly Amendment[]): Run | null {
  const last = new Map(amendments.map(({ readingId, afterText }) => [readingId, afterText]));
  if (!run.readings.some(({ id }) => last.has(id))) return null;
  return {
    ...run,
    readings: run.readings.map((reading) => {
      const text = last.get(reading.id);
      return text === undefined ? reading : { ...reading, outputText: text, output: parseTyped(text).value };
    }),
  };
}
