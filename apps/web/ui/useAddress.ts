'use client';
import { useCallback, useState } from 'react';

/** Texts of a form that stand in the page's address as well, so that a reload or a link brings them back. */
export function useAddress<T extends Readonly<Record<string, string>>>(
  initial: T,
): readonly [T, (patch: Partial<T>) => void] {
  const [fields, setFields] = useState(initial);
  const change = useCallback(
    (patch: Partial<T>) =>
      setFields((before) => {
        const next = { ...before, ...patch };
        window.history.replaceState(null, '', `?${new URLSearchParams(next)}`);
        return next;
      }),
    [],
  );
  return [fields, change];
}
