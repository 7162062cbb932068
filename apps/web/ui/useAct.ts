'use client';
import type { SubmitEvent } from 'react';
import { DONE, type Answer } from '@/server/answer';
import { useFormKeep } from './useFormKeep';
import { useSubmit } from './useSubmit';

/**
 * Sends a form to an act and keeps its answer. Unlike a form's own `action`, it leaves the fields as they were typed
 * when the act is refused.
 * @param name of the form with its job, under which the browser keeps what is typed until it is sent; the form takes `ref`
 */
export function useAct(
  action: (before: Answer, form: FormData) => Promise<Answer>,
  name: string | null = null,
) {
  const { ref, forget } = useFormKeep(name);
  const { submit, ...state } = useSubmit((form: FormData) => action(DONE, form));
  const onSubmit = (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    submit(new FormData(event.currentTarget, event.nativeEvent.submitter), forget);
  };
  return { ...state, onSubmit, ref };
}
