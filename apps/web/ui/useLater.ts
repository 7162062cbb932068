'use client';
import { useEffect, useState } from 'react';

/**
 * A part of the page that is heavy and seldom seen first, fetched once it is shown. Without a server the page goes on
 * without it, which a lazy component would not: its failure takes the page with it.
 * @param load the same function every time
 * @returns the part, null while it is on its way, or 'away'
 */
export function useLater<Part extends object>(load: () => Promise<Part>): Part | 'away' | null {
  const [part, setPart] = useState<Part | 'away' | null>(null);
  useEffect(() => {
    let isGone = false;
    const settle = (found: Part | 'away') => {
      if (!isGone) setPart(found);
    };
    load().then(settle, () => settle('away'));
    return () => {
      isGone = true;
    };
  }, [load]);
  return part;
}
