/** What may still be said of a closed record: what it said stays and is read beside the amendment. */
import { parseTyped } from '@barys/core/text';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { lockJobAt } from './move';
import { loadJob, type JobFile } from './file';
import { requireReviewer, requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { AMENDABLE, amendmentsOfJob, type AmendableField, type Amendment } from './amendments';
import { handsIn, requirePassword } from './sign';
import { findSite } from '../people/site';
import { keepResults } from '../results/keep';

export interface NewAmendment {
  /** A reading's output by the reading's number, or null for what `field` names. */
  readonly readingId: number | null;
  readonly field: AmendableField;
  /** What it is, in words, where it is something else. */
  readonly what: string;
  readonly afterText: string;
  readonly reason: string;
  readonly password: string;
}

/** What a signed record says of a field, before any amendment. */
export function recordSays(job: JobFile, field: AmendableField): string {
  const connection = job.connections.at(-1);
  switch (field) {
    case 'remark':
      return job.remark;
    case 'serial':
    case 'service':
    case 'area':
      return job.instrument[field];
    case 'place':
      return connection?.place ?? '';
    case 'ambient':
      return connection === undefined
        ? ''
        : `${connection.ambient.temperatureC} °C, ${connection.ambient.humidityPercent} %, ${connection.ambient.barometerHpa} hPa`;
    case 'other':
      return '';
  }
}

/** What is amended and what the record says of it now: as amended last, else as signed. */
function standingText(
  job: JobFile,
  amendments: readonly Amendment[],
  { readingId, field, what }: NewAmendment,
): { readonly what: string; readonly text: string } {
  const run = job.runs.find(({ readings }) => readings.some(({ id }) => id === readingId));
  const reading = run?.readings.find(({ id }) => id === readingId);
  if (readingId !== null && (run === undefined || reading === undefined))
    throw new StoreError({ code: 'no-such', what: 'reading', name: readingId });
  const named =
    run === undefined || reading === undefined
      ? field === 'other'
        ? what.trim()
        : AMENDABLE[field]
      : `${run.kind.replace('-', ' ')}, reading at point ${reading.position}`;
  if (named === '') throw new StoreError({ code: 'reason-needed', why: 'what of the record is amended' });
  const same = amendments.filter((one) =>
    readingId === null ? one.readingId === null && one.what === named : one.readingId === readingId,
  );
  if (same.some(({ state }) => state === 'waits')) throw new StoreError({ code: 'amendment-waits' });
  const last = same.filter(({ state }) => state === 'in force').at(-1);
  return { what: named, text: last?.afterText ?? reading?.outputText ?? recordSays(job, field) };
}

/**
 * Amends a closed record. Where the site has a second person review, it counts when that one has agreed to it.
 * @throws StoreError `wrong-password`, `reason-needed`, `amendment-waits`, `no-such`, `wrong-stage`, `unknown-person`,
 *   `not-allowed`; CoreError for a reading that is no number
 */
export async function amendJob(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  entry: NewAmendment,
): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'closed');
  await requirePassword(tx, actor, entry.password);
  const reason = entry.reason.trim();
  if (reason === '') throw new StoreError({ code: 'reason-needed', why: 'an amendment keeps its reason' });
  const standing = standingText(await loadJob(tx, jobId), await amendmentsOfJob(tx, jobId), entry);
  const after = entry.readingId === null ? entry.afterText.trim() : parseTyped(entry.afterText).text;
  if (after === '' || after === standing.text)
    throw new StoreError({ code: 'reason-needed', why: 'what it should have said, other than what it says' });
  const needsReview = (await findSite(tx))?.review !== 'none';
  await tx.query(
    `insert into amendment (job_id, reading_id, what, before_text, after_text, reason, amended_by, amended_at,
       needs_review)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [
      jobId,
      entry.readingId,
      standing.what,
      standing.text,
      after,
      reason,
      actor.personId,
      actor.at,
      needsReview,
    ],
  );
  if (!needsReview) await keepResults(tx, jobId);
  await appendToTrail(tx, actor, {
    act: 'amend job',
    subject: { kind: 'job', id: jobId },
    detail: { what: standing.what, before: standing.text, after, reason },
  });
}

/**
 * A second person agrees to an amendment or refuses it: somebody with no hand in the job or in the amendment, unless the
 * site lets anybody review.
 * @throws StoreError `wrong-password`, `own-work`, `reason-needed`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function reviewAmendment(
  tx: Queryable,
  actor: Actor,
  amendmentId: number,
  entry: { readonly isAccepted: boolean; readonly remark: string; readonly password: string },
): Promise<void> {
  await requireReviewer(tx, actor);
  const [amendment] = await tx.query<{ jobId: number; amendedBy: number; what: string }>(
    `select job_id as "jobId", amended_by as "amendedBy", what from amendment
     where id = $1 and needs_review`,
    [amendmentId],
  );
  // Two who decide at once wait for each other here.
  if (amendment !== undefined) await lockJobAt(tx, amendment.jobId, 'closed');
  const reviewed = await tx.query('select from amendment_review where amendment_id = $1', [amendmentId]);
  if (amendment === undefined || reviewed.length > 0)
    throw new StoreError({ code: 'no-such', what: 'amendment that waits,', name: amendmentId });
  const { jobId, amendedBy, what } = amendment;
  const hands = await handsIn(tx, jobId);
  const isOwn = amendedBy === actor.personId || hands.has(actor.personId);
  if ((await findSite(tx))?.review !== 'anybody' && isOwn) throw new StoreError({ code: 'own-work' });
  await requirePassword(tx, actor, entry.password);
  const remark = entry.remark.trim();
  if (!entry.isAccepted && remark === '')
    throw new StoreError({ code: 'reason-needed', why: 'whoever amended it has to know' });
  await tx.query(
    `insert into amendment_review (amendment_id, is_accepted, remark, reviewed_by, reviewed_at)
     values ($1, $2, $3, $4, $5)`,
    [amendmentId, entry.isAccepted, remark, actor.personId, actor.at],
  );
  if (entry.isAccepted) await keepResults(tx, jobId);
  await appendToTrail(tx, actor, {
    act: entry.isAccepted ? 'accept amendment' : 'refuse amendment',
    subject: { kind: 'job', id: jobId },
    detail: { what, remark },
  });
}
