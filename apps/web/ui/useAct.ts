'use client';
import { useState, useTransition, type FormEvent } from 'react';
import { DONE, type Answer } from '@/server/answer';

/**
 * Sends a form to an act and keeps its answer. Unlike a form's own `action`, it leaves the fields as they were typed
 * when the act is refused.
 */
export function useAct(action: (before: Answer, form: FormData) => Promise<Answer>) {
  const [answer, setAnswer] = useState<Answer>(DONE);
  const [isPending, startTransition] = useTransition();
  const onSubmit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const { submitter } = event.nativeEvent as SubmitEvent;
    const form = new FormData(event.currentTarget, submitter);
    startTransition(async () => {
      try {
        setAnswer((await action(answer, form)) ?? DONE);
      } catch (error) {
        // A redirect travels as a thrown value and is the router's; only a lost server is told here.
        if (!(error instanceof TypeError)) throw error;
        setAnswer({ error: 'The server does not answer. Nothing was lost; try again in a moment.' });
      }
    });
  };
  return { answer, isPending, onSubmit };
}
