'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { addressOf } from './addressOf';

/** What is changed after a pause as long as this is a state of its own, to which Back returns. */
const PAUSE_MS = 1000;

/**
 * Keeps what a page shows in its address, so that a link, a reload and Back bring it again.
 * @param query of the address, without its question mark
 * @param restore shows what another address says, and gives its query; the same function as long as the page is the same
 */
export function useHistory(query: string, restore: (given: URLSearchParams) => string): void {
  const last = useRef({ query, at: Infinity });
  useEffect(() => {
    // What comes right after the page, such as a draft, is no state to go back from.
    last.current.at = Date.now();
    const back = () => {
      last.current = { query: restore(new URLSearchParams(window.location.search)), at: 0 };
    };
    window.addEventListener('popstate', back);
    return () => window.removeEventListener('popstate', back);
  }, [restore]);
  useEffect(() => {
    if (query === last.current.query) return;
    const at = Date.now();
    const isNew = at - last.current.at > PAUSE_MS;
    last.current = { query, at };
    window.history[isNew ? 'pushState' : 'replaceState'](null, '', `?${query}`);
  }, [query]);
}

const queryOf = (fields: Readonly<Record<string, string>>): string => String(new URLSearchParams(fields));

/** Texts of a form that stand in the page's address as well, so that a reload, a link or Back brings them again. */
export function useAddress<T extends Readonly<Record<string, string>>>(
  initial: T,
): readonly [T, (patch: Partial<T>) => void] {
  const [fields, setFields] = useState(initial);
  const first = useRef(initial);
  const restore = useCallback((given: URLSearchParams) => {
    const next = addressOf(first.current, Object.fromEntries(given));
    setFields(next);
    return queryOf(next);
  }, []);
  useHistory(queryOf(fields), restore);
  const change = useCallback((patch: Partial<T>) => setFields((before) => ({ ...before, ...patch })), []);
  return [fields, change];
}
