/** Errors of the API as problem details (RFC 9457). */
import { StoreError, type Refusal } from '@barys/store';
import { answerTo, log } from './act';

const STATUS: Partial<Record<Refusal['code'], number>> = {
  'no-such': 404,
  'unknown-person': 401,
  'not-allowed': 403,
};

/** Any other refusal is a conflict with what stands; input that cannot be read is unprocessable. */
const statusOf = (error: unknown): number =>
  error instanceof StoreError ? (STATUS[error.refusal.code] ?? 409) : 422;

export function problemResponse(error: unknown): Response {
  const known = answerTo(error);
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
