'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useChanges } from '@/ui/useChanges';
import type { Seen } from './seen';

/** How often is asked while a run goes by itself, where nothing is heard of changes, and while none does. */
const OFTEN_MS = 500;
const SELDOM_MS = 5000;
/** Where there is no bench at all, one comes seldom. */
const NONE_MS = 60_000;
const ANSWER_MS = 4000;

/** What was said at one time, s. */
export interface Moment {
  readonly at: number;
  readonly benches: Seen['benches'];
}
export const HISTORY_S = 120;

/**
 * What is seen of the benches and of the run; null before the first answer. One question at a time; a server that is away is
 * asked again.
 * @param learn hears of readings that a link keeps
 */
export function useSeen(
  runId: number,
  learn: (readings: Seen['readings']) => void,
): {
  readonly seen: Seen | null;
  readonly history: readonly Moment[];
  /** Whether the last question had no answer: what was seen is old. */
  readonly isAway: boolean;
  readonly ask: () => void;
} {
  const [seen, setSeen] = useState<Seen | null>(null);
  const [isAway, setIsAway] = useState(false);
  const [history, setHistory] = useState<readonly Moment[]>([]);
  const asked = useRef<() => void>(() => undefined);
  const isGoing = useRef(false);
  useEffect(() => {
    let isHere = true;
    let timer: ReturnType<typeof setTimeout>;
    let isAsking = false;
    let isAgain = false;
    const look = async () => {
      if (isAsking) {
        isAgain = true;
        return;
      }
      isAsking = true;
      clearTimeout(timer);
      let next = isGoing.current ? OFTEN_MS * 4 : SELDOM_MS;
      let isAnswered = false;
      try {
        const answer = await fetch(`/api/v1/runs/${runId}/automatic`, {
          signal: AbortSignal.timeout(ANSWER_MS),
        });
        if (answer.ok && isHere) {
          const found = (await answer.json()) as Seen;
          next = found.automatic !== null ? OFTEN_MS : found.benches.length === 0 ? NONE_MS : SELDOM_MS;
          isAnswered = true;
          isGoing.current = found.automatic !== null;
          setSeen(found);
          const at = Date.now() / 1000;
          setHistory((before) => [
            ...before.filter((one) => at - one.at <= HISTORY_S),
            { at, benches: found.benches },
          ]);
          learn(found.readings);
        }
      } catch {
        // Said below, and asked again.
      }
      isAsking = false;
      if (!isHere) return;
      setIsAway(!isAnswered);
      // What changed while it was on its way is asked at once, unless nobody answers.
      timer = setTimeout(() => void look(), isAgain && isAnswered ? 0 : next);
      isAgain = false;
    };
    asked.current = () => void look();
    void look();
    return () => {
      isHere = false;
      clearTimeout(timer);
    };
  }, [runId, learn]);
  const ask = useCallback(() => asked.current(), []);
  useChanges(seen?.automatic?.bench.id ?? null, ask);
  return { seen, history, isAway, ask };
}
