'use client';
import type { SubmitEvent } from 'react';
import { DONE, type Answer } from '@/server/answer';
import { useSubmit } from './useSubmit';

/**
 * Sends a form to an act and keeps its answer. Unlike a form's own `action`, it leaves the fields as they were typed
 * when the act is refused.
 */
export function useAct(action: (before: Answer, form: FormData) => Promise<Answer>) {
  const { submit, ...state } = useSubmit((form: FormData) => action(DONE, form));
  const onSubmit = (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    submit(new FormData(event.currentTarget, event.nativeEvent.submitter));
  };
  return { ...state, onSubmit };
}
