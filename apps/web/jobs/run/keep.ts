/** What a run keeps in the browser until the server has it: typed digits, and readings on their way. */

export interface Draft {
  readonly output: string;
  /** As typed; null while the reference is set to the nominal value. */
  readonly applied: string | null;
}

export interface Waiting {
  readonly position: number;
  readonly clientKey: string;
  readonly appliedText: string;
  readonly appliedAs: 'set' | 'read';
  readonly outputText: string;
}

export interface Kept {
  readonly drafts: Readonly<Record<number, Draft>>;
  /** In the order they were entered. */
  readonly waiting: readonly Waiting[];
}

const NOTHING: Kept = { drafts: {}, waiting: [] };
const keyOf = (runId: number): string => `barys.run.${runId}`;

export function readKept(runId: number): Kept {
  const text = localStorage.getItem(keyOf(runId));
  return text === null ? NOTHING : (JSON.parse(text) as Kept);
}

export function writeKept(runId: number, kept: Kept): void {
  if (kept.waiting.length === 0 && Object.keys(kept.drafts).length === 0) localStorage.removeItem(keyOf(runId));
  else localStorage.setItem(keyOf(runId), JSON.stringify(kept));
}
