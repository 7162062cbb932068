'use client';
import { useState, useTransition, type SubmitEvent } from 'react';
import { DONE, type Answer } from '@/server/answer';

/**
 * Sends a form to an act and keeps its answer. Unlike a form's own `action`, it leaves the fields as they were typed
 * when the act is refused.
 */
export function useAct(action: (before: Answer, form: FormData) => Promise<Answer>) {
  const [answer, setAnswer] = useState<Answer>(DONE);
  const [isPending, startTransition] = useTransition();
  const onSubmit = (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget, event.nativeEvent.submitter);
    startTransition(async () => {
      try {
        setAnswer(await action(answer, form));
      } catch (error) {
        // A redirect travels as a thrown value and is the router's; only a lost server is told here.
        if (!(error instanceof TypeError)) throw error;
        setAnswer({ error: 'The server does not answer. Nothing was lost; try again in a moment.' });
      }
    });
  };
  return { answer, isPending, onSubmit };
}
