'use client';
/**
 * The readings of a run at the desk. A reading entered is shown at once, kept in the browser, and sent in the order of
 * entry until the server has it; only then is it called saved. A reload or a lost server changes nothing of that.
 */
import { parseTyped } from '@barys/core/text';
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import {
  keptStore,
  NOT_READ_YET,
  type Draft,
  type Kept,
  type Waiting,
  type WaitingMark,
  type WaitingReading,
} from './keep';
import { Sender, type SenderEvent } from './sender';
import { pointWords } from '@/ui/figures';
import { deskId } from './useDesk';
import type { Entry, ShownMark, ShownRun } from './types';

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
}

interface Saved extends Entry {
  readonly id: number;
}

const toEntry = ({ position, appliedText, outputText, more }: WaitingReading): Entry => ({
  position,
  appliedText,
  outputText,
  more,
  applied: parseTyped(appliedText).value,
  output: parseTyped(outputText).value,
  isSaved: false,
});

const toMark = ({ position, mark, appliedText, outputText, remark }: WaitingMark): ShownMark => ({
  position,
  kind: mark,
  appliedText,
  outputText,
  remark,
});

const without = (drafts: Kept['drafts'], position: number): Kept['drafts'] =>
  Object.fromEntries(Object.entries(drafts).filter(([key]) => Number(key) !== position));

function lastClock({ readings }: ShownRun): string | null {
  return [...readings].sort((a, b) => a.id - b.id).at(-1)?.savedClock ?? null;
}

/** What was not kept, and at which points; null where all is. */
function refusalInWords({ madeWith }: ShownRun, refused: ReadonlyMap<number, string>): string | null {
  const said = [...refused].map(([position, why]) => {
    const point = madeWith.points.find((one) => one.position === position);
    return `Not kept at ${point === undefined ? `point ${position}` : pointWords(point)}: ${why}`;
  });
  return said.length === 0 ? null : said.join(' ');
}

export function useReadings(run: ShownRun): Readings {
  const store = keptStore(run.id);
  const kept = useSyncExternalStore(store.subscribe, store.get, () => NOT_READ_YET);
  const [saved, setSaved] = useState<ReadonlyMap<number, Saved>>(
    () => new Map(run.readings.map((reading) => [reading.position, { ...reading, isSaved: true }])),
  );
  const [savedMarks, setSavedMarks] = useState<readonly ShownMark[]>(run.marks);
  const [savedClock, setSavedClock] = useState(() => lastClock(run));
  const [problem, setProblem] = useState<string | null>(null);
  // What the server will never have stands aside, named, while the others go on.
  const [refused, setRefused] = useState<ReadonlyMap<number, string>>(new Map());
  const hear = useCallback((event: SenderEvent) => {
    setProblem(event.kind === 'later' ? event.why : null);
    if (event.kind === 'later') return;
    const { sent } = event;
    if (event.kind === 'refused') {
      setRefused((before) => new Map(before).set(sent.position, event.why));
      return;
    }
    if (sent.kind === 'mark') setSavedMarks((before) => [...before, toMark(sent)]);
    else
      setSaved((before) =>
        new Map(before).set(sent.position, { ...toEntry(sent), isSaved: true, id: event.id }),
      );
    setSavedClock(event.savedClock);
    setRefused((before) => new Map([...before].filter(([position]) => position !== sent.position)));
  }, []);
  // The sender outlives renders.
  const [sender] = useState(
    () =>
      new Sender(
        run.id,
        store,
        new Map(run.readings.map((reading) => [reading.position, reading.id])),
        deskId,
        hear,
      ),
  );
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

  const entries = useMemo(() => {
    const all = new Map<number, Entry>(saved);
    for (const waiting of kept.waiting)
      if (waiting.kind === 'reading') all.set(waiting.position, toEntry(waiting));
    return all;
  }, [saved, kept.waiting]);
  const marks = useMemo(
    () => [...savedMarks, ...kept.waiting.flatMap((one) => (one.kind === 'mark' ? [toMark(one)] : []))],
    [savedMarks, kept.waiting],
  );

  return {
    entries,
    marks,
    drafts: kept.drafts,
    waitingCount: kept.waiting.length,
    savedClock,
    problem: problem ?? refusalInWords(run, refused),
    keepDraft,
    enter,
    mark,
  };
}
