'use client';
import { useCallback, useRef } from 'react';

const PREFIX = 'barys.form.';
/** What nobody came back for is dropped. */
const KEPT_DAYS = 7;

type Field = HTMLInputElement | HTMLTextAreaElement;

interface KeptForm {
  readonly at: number;
  /** Texts by the field's name; of boxes and choices, those that are ticked. */
  readonly texts: Readonly<Record<string, string>>;
  readonly ticked: Readonly<Record<string, readonly string[]>>;
}

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

const isText = (value: unknown): boolean => typeof value === 'string';
const isTextList = (value: unknown): boolean => Array.isArray(value) && value.every(isText);

/** By hand, since every page loads this and a schema would be the heaviest part of many. */
function isKept(value: unknown): value is KeptForm {
  if (typeof value !== 'object' || value === null) return false;
  const { at, texts, ticked } = value as Record<string, unknown>;
  const isRecordOf = (record: unknown, is: (one: unknown) => boolean): boolean =>
    typeof record === 'object' && record !== null && Object.values(record).every(is);
  return typeof at === 'number' && isRecordOf(texts, isText) && isRecordOf(ticked, isTextList);
}

/** What is kept under a key; null where there is nothing, or nothing that can be read any more. */
function keptAt(key: string): KeptForm | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
    return isKept(kept) ? kept : null;
  } catch {
    return null;
  }
}

/** A browser that keeps nothing is no reason not to work; what is typed is then only on the page. */
function keepAt(key: string, form: KeptForm): void {
  try {
    localStorage.setItem(key, JSON.stringify(form));
  } catch {
    // Full, or forbidden.
  }
}

function prune(): void {
  for (const key of Object.keys(localStorage).filter((one) => one.startsWith(PREFIX))) {
    const kept = keptAt(key);
    if (kept === null || Date.now() - kept.at > KEPT_DAYS * 24 * 3600 * 1000) localStorage.removeItem(key);
  }
}

/**
 * Keeps what is typed into a form in the browser until it is sent, so that a reload loses nothing. Passwords and files
 * are never kept.
 * @param name of the form, its job in it; null keeps nothing
 * @returns the form's ref, and what forgets it once it was sent
 */
export function useFormKeep(name: string | null) {
  const key = name === null ? null : PREFIX + name;
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
    if (key !== null) localStorage.removeItem(key);
  }, [key]);
  return { ref, forget };
}
