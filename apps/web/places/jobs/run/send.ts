/** Sends one reading or mark and says how it went. */
import type { Waiting } from './keep';

export type Outcome =
  | { kind: 'saved'; id: number; savedClock: string }
  /** The server answered that it will not have it: sending it again cannot help. */
  | { kind: 'refused'; why: string }
  /** No answer, or one that may be different later. */
  | { kind: 'later'; why: string };

const NO_ANSWER = 'The server does not answer.';
/** Who is working can be chosen, a rate comes down, a server comes back. */
const MAY_PASS_LATER = [401, 403, 408, 429];

/**
 * @param desk the browser that sends it
 * @param supersedes the reading at the point that this one corrects, or null
 */
export async function send(
  runId: number,
  waiting: Waiting,
  supersedes: number | null,
  desk: string,
): Promise<Outcome> {
  const { kind, ...entry } = waiting;
  try {
    const response = await fetch(`/api/v1/runs/${runId}/${kind}s`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(kind === 'reading' ? { ...entry, desk, supersedes } : { ...entry, desk }),
      signal: AbortSignal.timeout(10_000),
    });
    const body = (await response.json()) as { id: number; savedClock: string; detail?: string };
    if (response.ok) return { kind: 'saved', id: body.id, savedClock: body.savedClock };
    const why = body.detail ?? NO_ANSWER;
    const mayPass = response.status >= 500 || MAY_PASS_LATER.includes(response.status);
    return { kind: mayPass ? 'later' : 'refused', why };
  } catch {
    return { kind: 'later', why: NO_ANSWER };
  }
}
