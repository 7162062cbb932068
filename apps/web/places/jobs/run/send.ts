/** Sends one reading or mark and says how it went. */
import type { Waiting, WaitingReading } from './keep';

export type Outcome =
  | { kind: 'saved'; id: number; savedClock: string }
  /** The server answered that it will not have it: sending it again cannot help. */
  | { kind: 'refused'; why: string }
  /** No answer, or one that may be different later. */
  | { kind: 'later'; why: string };

const NO_ANSWER = 'The server does not answer.';
/** Who is working can be chosen, a rate comes down, a server comes back. */
const MAY_PASS_LATER = [401, 403, 408, 429];

type Answered = { readonly ok: true; readonly body: unknown } | Exclude<Outcome, { kind: 'saved' }>;

async function ask(path: string, entry: unknown): Promise<Answered> {
  try {
    const response = await fetch(path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(entry),
      signal: AbortSignal.timeout(10_000),
    });
    const body = (await response.json()) as { detail?: string };
    if (response.ok) return { ok: true, body };
    const mayPass = response.status >= 500 || MAY_PASS_LATER.includes(response.status);
    return { kind: mayPass ? 'later' : 'refused', why: body.detail ?? NO_ANSWER };
  } catch {
    return { kind: 'later', why: NO_ANSWER };
  }
}

interface SavedLine {
  readonly id: number;
  readonly savedClock: string;
}

/**
 * @param desk the browser that sends it
 * @param supersedes the reading at the point that this one corrects, or null
 */
export async function send(
  runId: number,
  { kind, ...entry }: Waiting,
  supersedes: number | null,
  desk: string,
): Promise<Outcome> {
  const line = kind === 'reading' ? { ...entry, desk, supersedes } : { ...entry, desk };
  const answered = await ask(`/api/v1/runs/${runId}/${kind}s`, line);
  return 'ok' in answered ? { kind: 'saved', ...(answered.body as SavedLine) } : answered;
}

/**
 * Several readings in one request, kept all or none.
 * @returns how it went with each, or null where one of them was refused
 */
export async function sendTogether(
  runId: number,
  readings: readonly WaitingReading[],
  standing: ReadonlyMap<number, number>,
  desk: string,
): Promise<readonly Outcome[] | null> {
  const lines = readings.map(({ kind: _kind, ...entry }) => ({
    ...entry,
    desk,
    supersedes: standing.get(entry.position) ?? null,
  }));
  const answered = await ask(`/api/v1/runs/${runId}/readings`, lines);
  if ('ok' in answered) return (answered.body as SavedLine[]).map((line) => ({ kind: 'saved', ...line }));
  return answered.kind === 'refused' ? null : [answered];
}
