/** What an error is answered with. */
import { z } from 'zod';
import { isDatabaseAway, isDiskFull, isNeverKept, StoreError, type Refusal } from '@barys/store/db';
import { answerTo, DISK_FULL, log } from './answerTo';
import { COME_AGAIN_S, notNow, problemDetails } from './problem-details';

const STATUS: Partial<Record<Refusal['code'], number>> = {
  'no-such': 404,
  'unknown-person': 401,
  'not-allowed': 403,
  'too-many-tries': 429,
};

/** Any other refusal is a conflict with what stands; input that cannot be read is unprocessable. */
const statusOf = (error: unknown): number =>
  error instanceof StoreError ? (STATUS[error.refusal.code] ?? 409) : 422;

const NEVER_KEPT =
  'This cannot be kept: it holds a character or a length that a record cannot hold. Type it again.';

/** An error as problem details. */
export function problemResponse(error: unknown): Response {
  if (isDatabaseAway(error))
    return notNow(
      `Barys cannot reach its database. What was saved is kept; ask again in ${COME_AGAIN_S} seconds.`,
    );
  if (isDiskFull(error)) {
    log.error({ err: error }, 'the disk is full');
    return notNow(DISK_FULL);
  }
  const known = isNeverKept(error) ? { error: NEVER_KEPT } : answerTo(error);
  if (known === null) log.error({ err: error }, 'a request failed');
  const status = known === null ? 500 : statusOf(error);
  return problemDetails({
    status,
    title: known === null ? 'Server error' : 'Not kept',
    detail: known?.error ?? 'The server could not keep this. It will be tried again.',
    ...(known?.field === undefined ? {} : { more: { field: known.field } }),
  });
}

/** Of an answer of a line, which is not worth packing: that would cost more than it takes to send. */
export const UNPACKED = { 'cache-control': 'no-store, no-transform' };

/** The same for a request whose body is JSON: one that is none is an entry that cannot be read. */
export const problemOfBody = (error: unknown): Response =>
  problemResponse(error instanceof SyntaxError ? new z.ZodError([]) : error);

/** A PDF that the browser keeps under a name. */
export const pdfResponse = (pdf: Buffer, name: string): Response =>
  new Response(new Uint8Array(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'private, no-store',
    },
  });
