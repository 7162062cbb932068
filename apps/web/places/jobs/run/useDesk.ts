'use client';
/**
 * Whether this browser is at the job. It looks when the page is opened, when somebody comes back to it, and once a minute;
 * an entry that comes too late is refused by the server and stays as it was typed.
 */
import { useCallback, useEffect, useState } from 'react';

const ASK_MS = 60_000;
const KEY = 'barys.desk';

/** This browser's own number, made once and kept. */
export function deskId(): string {
  const known = localStorage.getItem(KEY);
  if (known !== null) return known;
  const made = crypto.randomUUID();
  localStorage.setItem(KEY, made);
  return made;
}

export interface DeskState {
  /** Also while the server does not answer: entering goes on. */
  readonly isMine: boolean;
  /** Who is at it otherwise, or why this person may not be. */
  readonly words: string;
  readonly canTakeOver: boolean;
}

const MINE: DeskState = { isMine: true, words: '', canTakeOver: false };

export function useDesk(jobId: number): { readonly desk: DeskState; readonly takeOver: () => void } {
  const [desk, setDesk] = useState<DeskState>(MINE);
  const ask = useCallback(
    async (isTakingOver: boolean): Promise<DeskState | null> => {
      try {
        const response = await fetch(`/api/v1/jobs/${jobId}/desk`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ desk: deskId(), isTakingOver }),
          signal: AbortSignal.timeout(8000),
        });
        const body = (await response.json()) as {
          isMine?: boolean;
          by?: string;
          sinceClock?: string;
          detail?: string;
        };
        if (response.status === 403) return { isMine: false, words: body.detail ?? '', canTakeOver: false };
        if (!response.ok) return null;
        return body.isMine === true
          ? MINE
          : {
              isMine: false,
              words: `${body.by ?? 'Somebody'} is at this job since ${body.sinceClock ?? ''}, in another browser.`,
              canTakeOver: true,
            };
      } catch {
        return null;
      }
    },
    [jobId],
  );
  useEffect(() => {
    let isHere = true;
    const look = () =>
      void ask(false).then((found) => {
        if (isHere && found !== null) setDesk(found);
      });
    look();
    const timer = setInterval(look, ASK_MS);
    const onReturn = () => {
      if (document.visibilityState === 'visible') look();
    };
    window.addEventListener('focus', onReturn);
    document.addEventListener('visibilitychange', onReturn);
    return () => {
      isHere = false;
      clearInterval(timer);
      window.removeEventListener('focus', onReturn);
      document.removeEventListener('visibilitychange', onReturn);
    };
  }, [ask]);
  // Loaded anew: what the other browser has entered meanwhile is not on this page yet.
  const takeOver = useCallback(
    () =>
      void ask(true).then((found) => {
        if (found?.isMine) window.location.reload();
      }),
    [ask],
  );
  return { desk, takeOver };
}
