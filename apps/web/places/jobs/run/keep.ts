/** What a run keeps in the browser until the server has it: typed digits, and readings on their way. */

import type { MarkKind } from '@barys/store/runs';
import type { More } from './types';

export interface Draft {
  readonly output: string;
  /** As typed; null while the reference is set to the nominal value. */
  readonly applied: string | null;
  readonly more?: More;
}

export interface WaitingReading {
  readonly kind: 'reading';
  readonly position: number;
  readonly clientKey: string;
  readonly appliedText: string;
  readonly appliedAs: 'set' | 'read';
  readonly outputText: string;
  readonly more: More;
  /** By this browser's clock, which may be wrong; the server keeps its own beside it. */
  readonly takenAt: string;
}

export interface WaitingMark {
  readonly kind: 'mark';
  readonly position: number;
  readonly clientKey: string;
  readonly mark: MarkKind;
  readonly appliedText: string;
  readonly outputText: string;
  readonly remark: string;
}

export type Waiting = WaitingReading | WaitingMark;

export interface Kept {
  readonly drafts: Readonly<Record<number, Draft>>;
  /** In the order they were entered. */
  readonly waiting: readonly Waiting[];
}

/** What is known before the browser's storage could be read. */
export const NOT_READ_YET: Kept = { drafts: {}, waiting: [] };

export interface KeptStore {
  get(this: void): Kept;
  set(this: void, next: Kept): void;
  subscribe(this: void, onChange: () => void): () => void;
}

const stores = new Map<number, KeptStore>();

/** The one place in this page where a run's digits are kept; every change is in the browser's storage at once. */
export function keptStore(runId: number): KeptStore {
  const known = stores.get(runId);
  if (known !== undefined) return known;
  const key = `barys.run.${runId}`;
  const listeners = new Set<() => void>();
  let kept: Kept | null = null;
  const read = (): Kept => {
    const text = localStorage.getItem(key);
    return text === null ? { drafts: {}, waiting: [] } : (JSON.parse(text) as Kept);
  };
  const store: KeptStore = {
    get: () => (kept ??= read()),
    set(next) {
      kept = next;
      if (next.waiting.length === 0 && Object.keys(next.drafts).length === 0) localStorage.removeItem(key);
      else localStorage.setItem(key, JSON.stringify(next));
      for (const listener of listeners) listener();
    },
    subscribe(onChange) {
      // Another tab on the same run writes the same place: what it kept must not be written over from memory.
      const onStorage = (event: StorageEvent) => {
        if (event.key !== key) return;
        kept = read();
        onChange();
      };
      listeners.add(onChange);
      window.addEventListener('storage', onStorage);
      return () => {
        listeners.delete(onChange);
        window.removeEventListener('storage', onStorage);
      };
    },
  };
  stores.set(runId, store);
  return store;
}
