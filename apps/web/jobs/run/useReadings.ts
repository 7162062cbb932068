'use client';
/**
 * The readings of a run at the desk. A reading entered is shown at once, kept in the browser, and sent in the order of
 * entry until the server has it; only then is it called saved. A reload or a lost server changes nothing of that.
 */
import { parseTyped } from '@barys/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { readKept, writeKept, type Draft, type Kept, type Waiting } from './keep';
import { sendReading } from './send';
import type { Entry, ShownRun } from './types';

const RETRY_MS = 1500;

export interface Readings {
  /** What stands at each point, saved or on its way, by position. */
  readonly entries: ReadonlyMap<number, Entry>;
  readonly drafts: Kept['drafts'];
  /** Whether what the browser had kept is in `entries` and `drafts` by now. */
  readonly isRestored: boolean;
  /** How many readings are not saved yet. */
  readonly waitingCount: number;
  /** When the last reading was saved, by the server's clock. */
  readonly savedClock: string | null;
  /** Why readings wait, or why one was refused. */
  readonly problem: string | null;
  keepDraft(position: number, draft: Draft | null): void;
  enter(reading: Omit<Waiting, 'clientKey'>): void;
}

const toEntry = (waiting: Waiting): Entry => ({
  ...waiting,
  applied: parseTyped(waiting.appliedText).value,
  output: parseTyped(waiting.outputText).value,
  isSaved: false,
});

function latestClock(run: ShownRun): string | null {
  return run.readings.reduce<ShownRun['readings'][number] | null>(
    (latest, reading) => (latest === null || reading.id > latest.id ? reading : latest),
    null,
  )?.savedClock ?? null;
}

export function useReadings(run: ShownRun): Readings {
  const [entries, setEntries] = useState<ReadonlyMap<number, Entry>>(
    () => new Map(run.readings.map((reading) => [reading.position, { ...reading, isSaved: true }])),
  );
  const [kept, setKept] = useState<Kept>({ drafts: {}, waiting: [] });
  const [isRestored, setIsRestored] = useState(false);
  const [savedClock, setSavedClock] = useState(() => latestClock(run));
  const [problem, setProblem] = useState<string | null>(null);
  // The sender outlives renders, so what it works on lies in refs; state follows for the drawing.
  const keptNow = useRef<Kept>({ drafts: {}, waiting: [] });
  const savedIds = useRef(new Map(run.readings.map((reading) => [reading.position, reading.id])));
  const isSending = useRef(false);
  const retry = useRef<ReturnType<typeof setTimeout>>(undefined);

  const keep = useCallback(
    (next: Kept) => {
      keptNow.current = next;
      writeKept(run.id, next);
      setKept(next);
    },
    [run.id],
  );

  const settle = useCallback(
    (sent: Waiting, drafts: Kept['drafts']) =>
      keep({ drafts, waiting: keptNow.current.waiting.filter(({ clientKey }) => clientKey !== sent.clientKey) }),
    [keep],
  );

  const sendAll = useCallback(async () => {
    if (isSending.current) return;
    isSending.current = true;
    for (let next = keptNow.current.waiting[0]; next !== undefined; next = keptNow.current.waiting[0]) {
      const sent = next;
      const outcome = await sendReading(run.id, sent, savedIds.current.get(sent.position) ?? null);
      if (outcome.kind === 'later') {
        setProblem(outcome.why);
        retry.current = setTimeout(() => void sendAll(), RETRY_MS);
        break;
      }
      if (outcome.kind === 'saved') {
        savedIds.current.set(sent.position, outcome.id);
        setSavedClock(outcome.savedClock);
        setProblem(null);
        setEntries((before) => new Map(before).set(sent.position, { ...toEntry(sent), isSaved: true }));
        settle(sent, keptNow.current.drafts);
      } else {
        setProblem(outcome.why);
        // Back to a draft: what was typed is not lost, and it is plain that it is not kept.
        setEntries((before) => new Map([...before].filter(([position]) => position !== sent.position)));
        settle(sent, { ...keptNow.current.drafts, [sent.position]: { output: sent.outputText, applied: sent.appliedText } });
      }
    }
    isSending.current = false;
  }, [run.id, settle]);

  useEffect(() => {
    const found = readKept(run.id);
    keptNow.current = found;
    setKept(found);
    setEntries((before) => {
      const after = new Map(before);
      for (const waiting of found.waiting) after.set(waiting.position, toEntry(waiting));
      return after;
    });
    setIsRestored(true);
    void sendAll();
    return () => clearTimeout(retry.current);
  }, [run.id, sendAll]);

  const keepDraft = useCallback(
    (position: number, draft: Draft | null) => {
      const { [position]: _replaced, ...others } = keptNow.current.drafts;
      keep({ ...keptNow.current, drafts: draft === null ? others : { ...others, [position]: draft } });
    },
    [keep],
  );

  const enter = useCallback(
    (reading: Omit<Waiting, 'clientKey'>) => {
      const waiting: Waiting = { ...reading, clientKey: crypto.randomUUID() };
      const { [reading.position]: _done, ...drafts } = keptNow.current.drafts;
      keep({ drafts, waiting: [...keptNow.current.waiting, waiting] });
      setEntries((before) => new Map(before).set(reading.position, toEntry(waiting)));
      void sendAll();
    },
    [keep, sendAll],
  );

  return { entries, drafts: kept.drafts, isRestored, waitingCount: kept.waiting.length, savedClock, problem, keepDraft, enter };
}
