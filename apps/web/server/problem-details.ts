/** Errors of the API as problem details (RFC 9457); the one place that makes them. */

/** How soon to come again, s. */
export const COME_AGAIN_S = 5;

export interface Problem {
  readonly status: number;
  readonly title: string;
  readonly detail: string;
  /** A URN where the kind of problem has a name. */
  readonly type?: string;
  /** Members of its own, such as the field. */
  readonly more?: Readonly<Record<string, unknown>>;
  readonly headers?: Readonly<Record<string, string>>;
}

export const problemDetails = ({
  status,
  title,
  detail,
  type = 'about:blank',
  more = {},
  headers = {},
}: Problem): Response =>
  Response.json(
    { type, title, status, detail, ...more },
    { status, headers: { ...headers, 'content-type': 'application/problem+json' } },
  );

/** What cannot be done now and may be in a while. */
export const notNow = (detail: string, seconds = COME_AGAIN_S): Response =>
  problemDetails({ status: 503, title: 'Not now', detail, headers: { 'retry-after': String(seconds) } });
