'use client';
import { useCallback, useState } from 'react';

/** The texts of a form, and how one of them changes. */
export function useTyped<T extends Readonly<Record<string, string>>>(
  initial: T,
): readonly [T, (patch: Partial<T>) => void] {
  const [fields, setFields] = useState(initial);
  const change = useCallback((patch: Partial<T>) => setFields((before) => ({ ...before, ...patch })), []);
  return [fields, change];
}
