'use client';
/**
 * The bench in the browser: it is stepped by its own time, so that a slow machine loses frames and never steps. What is done is
 * kept in the browser at once, and made again after a reload.
 */
import { PracticeBench, replayed, type Act, type Done, type Lesson, type Pass } from '@barys/rig/practice';
import { useCallback, useEffect, useRef, useState } from 'react';
import { dropAllOf } from '@/ui/keptForms';

/** As often as a figure on a meter changes. */
const FRAME_MS = 100;
/** A page that slept does not run through what it missed. */
const MOST_AT_ONCE_S = 1;

export interface Kept {
  readonly clientKey: string;
  readonly record: readonly Done[];
  readonly timeS: number;
}

const keyOf = (lesson: Lesson, seed: number): string => `barys practice ${lesson.id} ${seed}`;
/** Where what is typed at a lesson, and not entered yet, stands in this browser. */
export const draftsKey = (lesson: Lesson, seed: number, pass: Pass): string =>
  `barys practice draft ${lesson.id} ${seed} ${pass}`;

/** Under which name the texts of an attempt stand in this browser. */
export const deskName = (lesson: Lesson, seed: number): string => `practice ${lesson.id} ${seed}`;

function keptOf(lesson: Lesson, seed: number): Kept | null {
  try {
    const text = localStorage.getItem(keyOf(lesson, seed));
    return text === null ? null : (JSON.parse(text) as Kept);
  } catch {
    return null;
  }
}

export interface BenchDesk {
  readonly bench: PracticeBench;
  readonly clientKey: string;
  do(this: void, act: Act): string | null;
  /** Lets time pass at once. */
  pass(this: void, seconds: number): void;
  stop(this: void): void;
}

/** Forgets what was kept of an attempt, once it is scored or given up. */
export function forgetBench(lesson: Lesson, seed: number): void {
  try {
    localStorage.removeItem(keyOf(lesson, seed));
    for (const pass of ['as found', 'as left'] as const)
      localStorage.removeItem(draftsKey(lesson, seed, pass));
  } catch {
    // Nothing was kept.
  }
  dropAllOf(deskName(lesson, seed));
}

/** The bench of a lesson. Only for the browser: the caller waits until the page is mounted. */
export function useBench(lesson: Lesson, seed: number): BenchDesk {
  const [{ bench, clientKey }] = useState(() => {
    const kept = keptOf(lesson, seed);
    return {
      bench:
        kept === null ? new PracticeBench(lesson, seed) : replayed(lesson, seed, kept.record, kept.timeS),
      clientKey: kept?.clientKey ?? crypto.randomUUID(),
    };
  });
  const isStopped = useRef(false);
  const [, draw] = useState(0);

  const keep = useCallback(() => {
    const kept: Kept = { clientKey, record: bench.done, timeS: bench.timeS };
    try {
      localStorage.setItem(keyOf(lesson, seed), JSON.stringify(kept));
    } catch {
      // A browser without storage practises all the same; a reload begins anew.
    }
    draw((count) => count + 1);
  }, [bench, clientKey, lesson, seed]);

  useEffect(() => {
    let last = performance.now();
    const timer = setInterval(() => {
      const now = performance.now();
      const seconds = Math.min(MOST_AT_ONCE_S, (now - last) / 1000);
      last = now;
      if (isStopped.current || document.hidden) return;
      bench.advance(seconds);
      draw((count) => count + 1);
    }, FRAME_MS);
    return () => clearInterval(timer);
  }, [bench]);

  return {
    bench,
    clientKey,
    do: useCallback(
      (act) => {
        const answer = bench.act(act);
        keep();
        return answer;
      },
      [bench, keep],
    ),
    pass: useCallback(
      (seconds) => {
        bench.advance(seconds);
        keep();
      },
      [bench, keep],
    ),
    stop: useCallback(() => {
      isStopped.current = true;
    }, []),
  };
}
