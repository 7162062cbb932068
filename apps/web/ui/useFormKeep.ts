'use client';
import { useCallback, useRef } from 'react';
import { drop, keepAt, keptAt, keyOf, prune, type KeptForm } from './keptForms';

type Field = HTMLInputElement | HTMLTextAreaElement;

const fieldsOf = (form: HTMLFormElement): Field[] =>
  [...form.elements].filter(
    (one): one is Field =>
      (one instanceof HTMLInputElement || one instanceof HTMLTextAreaElement) &&
      one.name !== '' &&
      !['password', 'file', 'submit', 'button'].includes(one.type) &&
      // Hidden fields say which form it is; those of a select are hidden in another way and do belong to it.
      one.type !== 'hidden',
  );

const isTick = (field: Field): field is HTMLInputElement =>
  field.type === 'checkbox' || field.type === 'radio';

function read(form: HTMLFormElement): KeptForm {
  const texts: Record<string, string> = {};
  const ticked: Record<string, string[]> = {};
  for (const field of fieldsOf(form))
    if (!isTick(field)) texts[field.name] = field.value;
    else {
      const values = (ticked[field.name] ??= []);
      if (field.checked) values.push(field.value);
    }
  return { at: Date.now(), texts, ticked };
}

/** Types into a field as a person would, so that whoever listens to it hears it. */
function type(field: Field, text: string): void {
  const prototype = field instanceof HTMLTextAreaElement ? HTMLTextAreaElement : HTMLInputElement;
  Object.getOwnPropertyDescriptor(prototype.prototype, 'value')?.set?.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

function putBack(form: HTMLFormElement, kept: KeptForm, done: Set<Field>): void {
  for (const field of fieldsOf(form)) {
    if (done.has(field)) continue;
    done.add(field);
    const text = kept.texts[field.name];
    if (isTick(field)) {
      const wanted = kept.ticked[field.name];
      if (wanted === undefined || wanted.includes(field.value) === field.checked) continue;
      // A choice is left by choosing another one.
      if (field.type === 'checkbox' || !field.checked) field.click();
    } else if (text !== undefined && text !== field.value) type(field, text);
  }
}

/**
 * Keeps what is typed into a form in the browser until it is sent, so that a reload loses nothing. Passwords and files
 * are never kept.
 * @param name of the form, its job in it; null keeps nothing
 * @returns the form's ref, and what forgets it once it was sent
 */
export function useFormKeep(name: string | null) {
  const key = keyOf(name);
  const clean = useRef<(() => void) | null>(null);
  const isSent = useRef(false);
  const ref = useCallback(
    (form: HTMLFormElement | null) => {
      clean.current?.();
      clean.current = null;
      if (form === null || key === null) return;
      isSent.current = false;
      const done = new Set<Field>();
      prune();
      const kept = keptAt(key);
      // What is put back can open further fields, which are filled when they are there.
      const timers = [0, 150, 400].map((ms) =>
        setTimeout(() => {
          if (kept !== null) putBack(form, kept, done);
        }, ms),
      );
      const keep = () => {
        if (!isSent.current) keepAt(key, read(form));
      };
      form.addEventListener('input', keep);
      form.addEventListener('change', keep);
      clean.current = () => {
        timers.forEach(clearTimeout);
        form.removeEventListener('input', keep);
        form.removeEventListener('change', keep);
      };
    },
    [key],
  );
  const forget = useCallback(() => {
    isSent.current = true;
    drop(key);
  }, [key]);
  return { ref, forget };
}
