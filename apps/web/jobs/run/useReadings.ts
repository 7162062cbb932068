'use client';
/**
 * The readings of a run at the desk. A reading entered is shown at once, kept in the browser, and sent in the order of
 * entry until the server has it; only then is it called saved. A reload or a lost server changes nothing of that.
 */
import { parseTyped } from '@barys/core';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { keptStore, NOT_READ_YET, type Draft, type Kept, type Waiting } from './keep';
import { sendReading } from './send';
import type { Entry, ShownRun } from './types';

const RETRY_MS = 1500;

export interface Readings {
  /** What stands at each point, saved or on its way, by position. */
  readonly entries: ReadonlyMap<number, Entry>;
  readonly drafts: Kept['drafts'];
  /** How many readings are not saved yet. */
  readonly waitingCount: number;
  /** When the last reading was saved, by the server's clock. */
  readonly savedClock: string | null;
  /** Why readings wait, or why one was refused. */
  readonly problem: string | null;
  keepDraft(this: void, position: number, draft: Draft | null): void;
  enter(this: void, reading: Omit<Waiting, 'clientKey'>): void;
}

interface Saved extends Entry {
  readonly id: number;
}

const toEntry = (waiting: Waiting): Entry => ({
  ...waiting,
  applied: parseTyped(waiting.appliedText).value,
  output: parseTyped(waiting.outputText).value,
  isSaved: false,
});

const without = (drafts: Kept['drafts'], position: number): Kept['drafts'] =>
  Object.fromEntries(Object.entries(drafts).filter(([key]) => Number(key) !== position));

function lastClock({ readings }: ShownRun): string | null {
  return [...readings].sort((a, b) => a.id - b.id).at(-1)?.savedClock ?? null;
}

export function useReadings(run: ShownRun): Readings {
  const store = keptStore(run.id);
  const kept = useSyncExternalStore(store.subscribe, store.get, () => NOT_READ_YET);
  const [saved, setSaved] = useState<ReadonlyMap<number, Saved>>(
    () => new Map(run.readings.map((reading) => [reading.position, { ...reading, isSaved: true }])),
  );
  const [savedClock, setSavedClock] = useState(() => lastClock(run));
  const [problem, setProblem] = useState<string | null>(null);
  // The sender outlives renders: which reading stands where, for the next one to correct.
  const standingIds = useRef(new Map(run.readings.map((reading) => [reading.position, reading.id])));
  const isSending = useRef(false);

  const send = useCallback(
    async (sent: Waiting): Promise<'done' | 'later'> => {
      const outcome = await sendReading(run.id, sent, standingIds.current.get(sent.position) ?? null);
      if (outcome.kind === 'later') {
        setProblem(outcome.why);
        return 'later';
      }
      const { drafts, waiting } = store.get();
      const rest = waiting.filter(({ clientKey }) => clientKey !== sent.clientKey);
      if (outcome.kind === 'saved') {
        standingIds.current.set(sent.position, outcome.id);
        setSaved((before) =>
          new Map(before).set(sent.position, { ...toEntry(sent), isSaved: true, id: outcome.id }),
        );
        setSavedClock(outcome.savedClock);
        setProblem(null);
        store.set({ drafts, waiting: rest });
      } else {
        setProblem(outcome.why);
        // Back to a draft: what was typed is not lost, and it is plain that it is not kept.
        const draft: Draft = {
          output: sent.outputText,
          applied: sent.appliedAs === 'read' ? sent.appliedText : null,
        };
        store.set({ drafts: { ...drafts, [sent.position]: draft }, waiting: rest });
      }
      return 'done';
    },
    [run.id, store],
  );

  const sendAll = useCallback(async () => {
    if (isSending.current) return;
    isSending.current = true;
    try {
      for (let next = store.get().waiting[0]; next !== undefined; next = store.get().waiting[0])
        if ((await send(next)) === 'later') break;
    } finally {
      isSending.current = false;
    }
  }, [send, store]);

  // While anything waits it is tried again, so that nobody has to.
  const isWaiting = kept.waiting.length > 0;
  useEffect(() => {
    if (!isWaiting) return;
    void sendAll();
    const timer = setInterval(() => void sendAll(), RETRY_MS);
    return () => clearInterval(timer);
  }, [isWaiting, sendAll]);

  const keepDraft = useCallback(
    (position: number, draft: Draft | null) => {
      const { drafts, waiting } = store.get();
      const others = without(drafts, position);
      store.set({ waiting, drafts: draft === null ? others : { ...others, [position]: draft } });
    },
    [store],
  );

  const enter = useCallback(
    (reading: Omit<Waiting, 'clientKey'>) => {
      const { drafts, waiting } = store.get();
      store.set({
        drafts: without(drafts, reading.position),
        waiting: [...waiting, { ...reading, clientKey: crypto.randomUUID() }],
      });
      void sendAll();
    },
    [store, sendAll],
  );

  const entries = useMemo(() => {
    const all = new Map<number, Entry>(saved);
    for (const waiting of kept.waiting) all.set(waiting.position, toEntry(waiting));
    return all;
  }, [saved, kept.waiting]);

  return {
    entries,
    drafts: kept.drafts,
    waitingCount: kept.waiting.length,
    savedClock,
    problem,
    keepDraft,
    enter,
  };
}
