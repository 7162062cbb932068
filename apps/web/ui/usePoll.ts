'use client';
import { useEffect, useState } from 'react';

const ANSWER_MS = 4000;

/**
 * Asks the server again and again, one question at a time.
 * @param path null asks nothing
 * @param learn hears each answer; the same function at every picture
 * @returns whether the last question had no answer: what is known is old
 */
export function usePoll(path: string | null, everyMs: number, learn: (value: never) => void): boolean {
  const [isAway, setIsAway] = useState(false);
  useEffect(() => {
    if (path === null) return;
    let isHere = true;
    let timer: ReturnType<typeof setTimeout>;
    const look = async () => {
      const found = await fetch(path, { signal: AbortSignal.timeout(ANSWER_MS) })
        .then((answer) => (answer.ok ? (answer.json() as Promise<object>) : null))
        .catch(() => null);
      if (!isHere) return;
      setIsAway(found === null);
      if (found !== null) learn(found as never);
      timer = setTimeout(() => void look(), everyMs);
    };
    timer = setTimeout(() => void look(), everyMs);
    return () => {
      isHere = false;
      clearTimeout(timer);
    };
  }, [path, everyMs, learn]);
  return isAway;
}
