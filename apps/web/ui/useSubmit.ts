'use client';
import { useRef, useState, useTransition } from 'react';
import { DONE, type Answer } from '@/server/answer';

interface Sent<T> {
  readonly entry: T;
  readonly onKept: (() => void) | undefined;
}

const isRedirect = (error: unknown): boolean =>
  error instanceof Error && 'digest' in error && String(error.digest).startsWith('NEXT_REDIRECT');

/** A redirect travels as a thrown value: what it answers was kept. */
async function keptOnTheWay<T>(
  { entry, onKept }: Sent<T>,
  action: (entry: T) => Promise<Answer>,
): Promise<Answer> {
  try {
    return await action(entry);
  } catch (error) {
    if (isRedirect(error)) onKept?.();
    throw error;
  }
}

/** Sends what a form holds to an act and keeps the answer; what was typed stays where it is. */
export function useSubmit<T>(action: (entry: T) => Promise<Answer>) {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [isPending, startTransition] = useTransition();
  const isBusy = useRef(false);
  const waiting = useRef<Sent<T> | null>(null);

  /** Sends one, and what was sent meanwhile if this one was refused: an Enter during an answer is not swallowed. */
  const sendAll = async (first: Sent<T>): Promise<void> => {
    for (let next: Sent<T> | null = first; next !== null;) {
      const found = await keptOnTheWay(next, action);
      setAnswer(found);
      if (found.error === null) {
        next.onKept?.();
        return;
      }
      next = waiting.current;
      waiting.current = null;
    }
  };

  const submit = (entry: T, onKept?: () => void) => {
    if (isBusy.current) {
      waiting.current = { entry, onKept };
      return;
    }
    isBusy.current = true;
    startTransition(async () => {
      try {
        await sendAll({ entry, onKept });
      } catch (error) {
        // A redirect travels as a thrown value and is the router's; only a lost server is told here.
        if (!(error instanceof TypeError)) throw error;
        setAnswer({ error: 'The server does not answer. Nothing was lost; try again in a moment.' });
      } finally {
        isBusy.current = false;
        waiting.current = null;
      }
    });
  };
  const isKept = !isPending && answer?.error === null;
  return { answer: answer ?? DONE, isKept, isPending, submit };
}
