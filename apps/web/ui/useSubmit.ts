'use client';
import { useState, useTransition } from 'react';
import { DONE, type Answer } from '@/server/answer';

/** Sends what a form holds to an act and keeps the answer; what was typed stays where it is. */
export function useSubmit<T>(action: (entry: T) => Promise<Answer>) {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [isPending, startTransition] = useTransition();
  const submit = (entry: T, onKept?: () => void) =>
    startTransition(async () => {
      try {
        const found = await action(entry);
        setAnswer(found);
        if (found.error === null) onKept?.();
      } catch (error) {
        // A redirect travels as a thrown value and is the router's; only a lost server is told here.
        if (!(error instanceof TypeError)) throw error;
        setAnswer({ error: 'The server does not answer. Nothing was lost; try again in a moment.' });
      }
    });
  const isKept = !isPending && answer?.error === null;
  return { answer: answer ?? DONE, isKept, isPending, submit };
}
