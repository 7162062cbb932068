'use client';
import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

/** False on the server and while its page is taken over, true after: for what only the browser knows. */
export function useIsMounted(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}
