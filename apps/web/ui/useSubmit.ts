'use client';
import { useRef, useState, useTransition, type SubmitEvent } from 'react';
import { DONE, type Answer } from '@/server/answer';
import { useFormKeep } from './useFormKeep';

interface Sent<T> {
  readonly entry: T;
  readonly onKept: (() => void) | undefined;
}

const digestOf = (error: unknown): string =>
  error instanceof Error && 'digest' in error ? String(error.digest) : '';
const isRedirect = (error: unknown): boolean => digestOf(error).startsWith('NEXT_REDIRECT');
/** A redirect, or a page that is not there. */
const isRouters = (error: unknown): boolean => digestOf(error).startsWith('NEXT_');

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

/** For a form whose act reads its fields by their names. */
export const asItStands = (fields: FormData): FormData => fields;

/**
 * Sends what a form holds to an act and keeps the answer. Unlike a form's own `action`, it leaves what was typed where it
 * is when the act is refused.
 * @param name of the form with what it is about, under which the browser keeps what stands in its fields until it is sent;
 *   null where nothing is kept, or `useTyped` keeps it
 */
export function useSubmit<T>(action: (entry: T) => Promise<Answer>, name: string | null = null) {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [isPending, startTransition] = useTransition();
  const isBusy = useRef(false);
  const waiting = useRef<Sent<T> | null>(null);
  const { ref, forget } = useFormKeep(name);

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
        // A redirect travels as a thrown value and is the router's. A server that is lost, or refuses to listen for a
        // while, is told here: an error page would take away what was typed.
        if (isRouters(error)) throw error;
        setAnswer({ error: 'The server does not answer. Nothing was lost; try again in a moment.' });
      } finally {
        isBusy.current = false;
        waiting.current = null;
      }
    });
  };
  /** What a form element takes; `onKept` is told once its entry is kept. */
  const form = (entryOf: (fields: FormData) => T, onKept?: () => void) => ({
    method: 'post' as const,
    ref,
    onSubmit: (event: SubmitEvent<HTMLFormElement>) => {
      event.preventDefault();
      submit(entryOf(new FormData(event.currentTarget, event.nativeEvent.submitter)), () => {
        forget();
        onKept?.();
      });
    },
  });
  const isKept = !isPending && answer?.error === null;
  return { answer: answer ?? DONE, isKept, isPending, submit, form };
}
