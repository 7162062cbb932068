/** Errors of the API as problem details (RFC 9457). */
import { isDatabaseAway, isDiskFull, isNeverKept, StoreError, type Refusal } from '@barys/store/db';
import { answerTo, DISK_FULL, log } from './act';

const STATUS: Partial<Record<Refusal['code'], number>> = {
  'no-such': 404,
  'unknown-person': 401,
  'not-allowed': 403,
  'too-many-tries': 429,
};

/** Any other refusal is a conflict with what stands; input that cannot be read is unprocessable. */
const statusOf = (error: unknown): number =>
  error instanceof StoreError ? (STATUS[error.refusal.code] ?? 409) : 422;

/** How soon to come again, s. */
export const COME_AGAIN_S = 5;

const NEVER_KEPT =
  'This cannot be kept: it holds a character or a length that a record cannot hold. Type it again.';

const notNow = (detail: string): Response =>
  Response.json(
    {
      type: 'about:blank',
      title: 'Not now',
      status: 503,
      detail,
    },
    {
      status: 503,
      headers: { 'content-type': 'application/problem+json', 'retry-after': String(COME_AGAIN_S) },
    },
  );

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
  const body = {
    type: 'about:blank',
    title: known === null ? 'Server error' : 'Not kept',
    status,
    detail: known?.error ?? 'The server could not keep this. It will be tried again.',
    ...(known?.field === undefined ? {} : { field: known.field }),
  };
  return Response.json(body, { status, headers: { 'content-type': 'application/problem+json' } });
}

/** A PDF that the browser keeps under a name. */
export const pdfResponse = (pdf: Buffer, name: string): Response =>
  new Response(new Uint8Array(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'private, no-store',
    },
  });
