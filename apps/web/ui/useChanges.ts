'use client';
import { useEffect, useRef } from 'react';

const AGAIN_MS = 5000;

/**
 * Hears when something changed at a bench, as long as the page is looked at.
 * @param bench null listens to none: a browser has few ways to a server
 */
export function useChanges(bench: number | null, onChange: () => void): void {
  const told = useRef(onChange);
  useEffect(() => {
    told.current = onChange;
  });
  useEffect(() => {
    if (bench === null) return;
    let source: EventSource | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const close = () => {
      clearTimeout(timer);
      source?.close();
      source = null;
    };
    const open = () => {
      close();
      if (document.visibilityState !== 'visible') return;
      const made = new EventSource(`/api/v1/bench/changes?bench=${bench}`);
      source = made;
      made.onmessage = () => told.current();
      // The page asks now and then meanwhile; the browser's own trials would come every few seconds for ever.
      made.onerror = () => {
        made.close();
        clearTimeout(timer);
        timer = setTimeout(open, AGAIN_MS);
      };
    };
    open();
    document.addEventListener('visibilitychange', open);
    return () => {
      document.removeEventListener('visibilitychange', open);
      close();
    };
  }, [bench]);
}
