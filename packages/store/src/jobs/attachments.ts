/** Notes and photographs that are kept with a job, at the stage where they were made. */
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Standing } from './stages';
import { requireReviewer, requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import { handsIn } from './sign';

/** What may be kept: what a camera or a scanner makes. */
export const MEDIA_TYPES = ['image/jpeg', 'image/png', 'image/webp', 'application/pdf'] as const;
export type MediaType = (typeof MEDIA_TYPES)[number];

export const LARGEST_ATTACHMENT_BYTES = 10 * 1024 * 1024;

export interface Attachment {
  readonly id: number;
  readonly stage: Standing;
  /** The point of a run that it is of; both null where it is of the stage. */
  readonly runId: number | null;
  readonly position: number | null;
  readonly remark: string;
  /** Empty where there is a note alone. */
  readonly fileName: string;
  readonly mediaType: MediaType | '';
  readonly addedBy: string;
  readonly addedAt: Date;
}

/** The notes and photographs of a job, in their order, without the files themselves. */
export function attachmentsOfJob(db: Queryable, jobId: number): Promise<Attachment[]> {
  return db.query<Attachment>(
    `select attachment.id, stage, run_id as "runId", position, remark, file_name as "fileName", media_type as "mediaType", name_at(added_by, added_at) as "addedBy",
       added_at as "addedAt"
     from attachment where job_id = $1 order by attachment.id`,
    [jobId],
  );
}

/** First bytes of each kind of file, so that a name alone does not make a picture. */
const SIGNATURES: Readonly<Record<MediaType, readonly number[]>> = {
  'image/jpeg': [0xff, 0xd8, 0xff],
  'image/png': [0x89, 0x50, 0x4e, 0x47],
  'image/webp': [0x52, 0x49, 0x46, 0x46],
  'application/pdf': [0x25, 0x50, 0x44, 0x46],
};

const mediaTypeOf = (bytes: Buffer): MediaType | undefined =>
  MEDIA_TYPES.find((type) => SIGNATURES[type].every((byte, index) => bytes[index] === byte));

export interface NewAttachment {
  readonly remark: string;
  readonly file: { readonly name: string; readonly bytes: Buffer } | null;
  /** The point of a run of this job that it is of; left out where it is of the stage. */
  readonly point?: { readonly runId: number; readonly position: number } | null;
}

async function requirePoint(
  tx: Queryable,
  jobId: number,
  { runId, position }: { readonly runId: number; readonly position: number },
): Promise<void> {
  const [run] = await tx.query<{ hasPoint: boolean }>(
    `select exists (select from jsonb_array_elements(made_with -> 'points') point
       where (point ->> 'position')::int = $3) as "hasPoint"
     from run where id = $1 and job_id = $2`,
    [runId, jobId, position],
  );
  if (run === undefined) throw new StoreError({ code: 'no-such', what: 'run', name: runId });
  if (!run.hasPoint) throw new StoreError({ code: 'no-such-point', position });
}

/**
 * Who may add to a job: whoever works on instruments, and once it is signed those whose work it is and
 * those who may review it.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
async function requireAdder(tx: Queryable, actor: Actor, jobId: number, stage: Standing): Promise<void> {
  if (stage !== 'review') {
    await requireWorker(tx, actor);
    return;
  }
  const isHand = (await handsIn(tx, jobId)).has(actor.personId);
  await (isHand ? requireWorker(tx, actor) : requireReviewer(tx, actor));
}

/**
 * Keeps a note, a photograph or both at the stage where the job stands, or at a point of one of its runs.
 * @throws StoreError `reason-needed`, `file-unreadable`, `no-such`, `no-such-point`, `wrong-stage`, `unknown-person`,
 *   `not-allowed`
 */
export async function attach(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  entry: NewAttachment,
): Promise<void> {
  const [job] = await tx.query<{ stage: Standing }>('select stage from job where id = $1 for update', [
    jobId,
  ]);
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  await requireAdder(tx, actor, jobId, job.stage);
  if (job.stage === 'closed' || job.stage === 'cancelled')
    throw new StoreError({ code: 'wrong-stage', stage: job.stage, wanted: 'an open job' });
  const remark = entry.remark.trim();
  if (remark === '' && entry.file === null)
    throw new StoreError({ code: 'reason-needed', why: 'there is neither a note nor a photograph' });
  if (entry.file !== null && entry.file.bytes.length > LARGEST_ATTACHMENT_BYTES)
    throw new StoreError({ code: 'file-unreadable', why: 'it is larger than 10 MB' });
  const mediaType = entry.file === null ? '' : mediaTypeOf(entry.file.bytes);
  if (mediaType === undefined)
    throw new StoreError({ code: 'file-unreadable', why: 'it is no JPEG, PNG, WebP or PDF' });
  const point = entry.point ?? null;
  if (point !== null) await requirePoint(tx, jobId, point);
  await tx.query(
    `insert into attachment (job_id, stage, remark, file_name, media_type, file, added_by, added_at, run_id, position)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [
      jobId,
      job.stage,
      remark,
      entry.file?.name.slice(0, 200) ?? '',
      mediaType,
      entry.file?.bytes ?? null,
      actor.personId,
      actor.at,
      point?.runId ?? null,
      point?.position ?? null,
    ],
  );
  await appendToTrail(tx, actor, {
    act: 'attach',
    subject: { kind: 'job', id: jobId },
    detail: { stage: job.stage, remark, file: entry.file?.name ?? null, point },
  });
}

/**
 * The file of an attachment.
 * @throws StoreError `no-such`
 */
export async function fileOfAttachment(
  db: Queryable,
  jobId: number,
  id: number,
): Promise<{ readonly name: string; readonly mediaType: MediaType; readonly bytes: Buffer }> {
  const [row] = await db.query<{ name: string; mediaType: MediaType; bytes: Buffer }>(
    `select file_name as name, media_type as "mediaType", file as bytes from attachment
     where id = $1 and job_id = $2 and file is not null`,
    [id, jobId],
  );
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'photograph', name: id });
  return row;
}
