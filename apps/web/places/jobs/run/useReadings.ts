'use client';
/**
 * The readings of a run at the desk. A reading entered is shown at once, kept in the browser, and sent in the order of
 * entry until the server has it; only then is it called saved. A reload or a lost server changes nothing of that.
 */
import { useCallback, useEffect, useMemo, useReducer, useState, useSyncExternalStore } from 'react';
import {
  keptStore,
  NOT_READ_YET,
  type Draft,
  type Kept,
  type Waiting,
  type WaitingMark,
  type WaitingReading,
} from './keep';
import { Sender } from './sender';
import { entriesOf, heard, marksOf, problemOf, standingOf } from './standing';
import { deskId } from './useDesk';
import type { Entry, ShownMark, ShownReading, ShownRun } from './types';

const RETRY_MS = 1500;

export interface Readings {
  /** What stands at each point, saved or on its way, by position. */
  readonly entries: ReadonlyMap<number, Entry>;
  /** Marks at the points, saved or on their way. */
  readonly marks: readonly ShownMark[];
  readonly drafts: Kept['drafts'];
  /** How many readings are not saved yet. */
  readonly waitingCount: number;
  /** When the last reading was saved, by the server's clock. */
  readonly savedClock: string | null;
  /** Why readings wait, or why one was refused. */
  readonly problem: string | null;
  keepDraft(this: void, position: number, draft: Draft | null): void;
  /** @param takenAt when it was taken, where that was not now: from a field sheet */
  enter(
    this: void,
    reading: Omit<WaitingReading, 'clientKey' | 'kind' | 'takenAt'>,
    takenAt: Date | null,
  ): void;
  mark(this: void, mark: Omit<WaitingMark, 'clientKey' | 'kind'>): void;
  /** Readings that a link keeps meanwhile. */
  learn(this: void, readings: readonly ShownReading[]): void;
}

const without = (drafts: Kept['drafts'], position: number): Kept['drafts'] =>
  Object.fromEntries(Object.entries(drafts).filter(([key]) => Number(key) !== position));

export function useReadings(run: ShownRun): Readings {
  const store = keptStore(run.id);
  const kept = useSyncExternalStore(store.subscribe, store.get, () => NOT_READ_YET);
  const [standing, hear] = useReducer(heard, run, standingOf);
  // The sender outlives renders.
  const [sender] = useState(() => {
    const ids = new Map(run.readings.map((reading) => [reading.position, reading.id]));
    return new Sender(run.id, store, ids, deskId, hear);
  });
  const sendAll = useCallback(() => void sender.sendAll(), [sender]);

  // While anything waits it is tried again, so that nobody has to.
  const isWaiting = kept.waiting.length > 0;
  useEffect(() => {
    if (!isWaiting) return;
    sendAll();
    const timer = setInterval(sendAll, RETRY_MS);
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

  const queue = useCallback(
    (next: Waiting) => {
      const { drafts, waiting } = store.get();
      store.set({ drafts: without(drafts, next.position), waiting: [...waiting, next] });
      sendAll();
    },
    [store, sendAll],
  );
  const enter = useCallback<Readings['enter']>(
    (reading, takenAt) =>
      queue({
        ...reading,
        kind: 'reading',
        clientKey: crypto.randomUUID(),
        takenAt: (takenAt ?? new Date()).toISOString(),
      }),
    [queue],
  );
  const mark = useCallback<Readings['mark']>(
    (entry) => queue({ ...entry, kind: 'mark', clientKey: crypto.randomUUID() }),
    [queue],
  );

  const learn = useCallback(
    (readings: readonly ShownReading[]) => {
      sender.learn(readings);
      hear({ kind: 'others', readings });
    },
    [sender],
  );

  const entries = useMemo(() => entriesOf(standing, kept.waiting), [standing, kept.waiting]);
  const marks = useMemo(() => marksOf(standing, kept.waiting), [standing, kept.waiting]);
  return {
    entries,
    marks,
    drafts: kept.drafts,
    waitingCount: kept.waiting.length,
    savedClock: standing.savedClock,
    problem: problemOf(run, standing),
    keepDraft,
    enter,
    mark,
    learn,
  };
}
