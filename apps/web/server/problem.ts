/** Errors of the API as problem details (RFC 9457). */
import { StoreError } from '@barys/store';
import { answerTo, log } from './act';

function statusOf(error: unknown): number {
  if (!(error instanceof StoreError)) return 422;
  switch (error.refusal.code) {
    case 'no-such':
      return 404;
    case 'unknown-person':
      return 401;
    case 'not-allowed':
      return 403;
    default:
      return 409;
  }
}

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
