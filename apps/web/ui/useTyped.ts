'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { drop, keepAt, keptAt, keyOf, prune } from './keptForms';

/** What was typed before and never sent: whether it is back, and what lets it go. */
export interface DraftOfForm {
  readonly isBack: boolean;
  readonly forget: () => void;
}

const NONE = [] as const;

/**
 * The texts of a form, and how one of them changes. They are kept in the browser until they are sent.
 * @param name of the form with what it is about, and its revision where it changes something; null keeps nothing
 * @param secret fields that are never kept
 */
export function useTyped<T extends Readonly<Record<string, string>>>(
  initial: T,
  name: string | null = null,
  secret: readonly (keyof T)[] = NONE,
): readonly [T, (patch: Partial<T>) => void, DraftOfForm] {
  const key = keyOf(name);
  const [fields, setFields] = useState(initial);
  const [isBack, setIsBack] = useState(false);
  const isTyped = useRef(false);
  useEffect(() => {
    if (key === null) return;
    // After the first picture, which is the server's.
    const timer = setTimeout(() => {
      prune();
      const kept = keptAt(key);
      if (kept === null) return;
      setFields((before) => ({ ...before, ...kept.texts }));
      setIsBack(true);
    });
    return () => clearTimeout(timer);
  }, [key]);
  useEffect(() => {
    if (key === null || !isTyped.current) return;
    const texts = Object.fromEntries(Object.entries(fields).filter(([field]) => !secret.includes(field)));
    keepAt(key, { at: Date.now(), texts, ticked: {} });
  }, [key, fields, secret]);
  const change = useCallback((patch: Partial<T>) => {
    isTyped.current = true;
    setFields((before) => ({ ...before, ...patch }));
  }, []);
  const forget = useCallback(() => {
    isTyped.current = false;
    setIsBack(false);
    drop(key);
  }, [key]);
  return [fields, change, { isBack, forget }];
}
