'use client';
import type { RequestAnswer } from '@barys/core/port';
import { useCallback, useState } from 'react';
import type { Answer } from '@/server/answer';
import { usePoll } from '@/ui/usePoll';
import { useSubmit } from '@/ui/useSubmit';

const EVERY_MS = 500;
const NO_ANSWER =
  'No answer came. Where something was to be changed, read the instrument before you go on: it may have been done.';

/** What is seen of a request. */
export interface SeenRequest {
  readonly bench: string;
  /** Whether the link is heard of. */
  readonly isThere: boolean;
  /** Null until the link has told. */
  readonly answer: RequestAnswer | null;
  /** Nobody needs to wait any longer. */
  readonly isLost: boolean;
}

/** An act that asks something of an instrument, with the number under which the answer is found. */
export interface Asked extends Answer {
  readonly request?: number;
}

/**
 * Asks something of an instrument at a bench, and waits for what comes.
 * @param heard is told once what came
 */
export function useRequest<T>(action: (entry: T) => Promise<Asked>, heard?: (answer: RequestAnswer) => void) {
  const [asked, setAsked] = useState<number | null>(null);
  const [seen, setSeen] = useState<SeenRequest | null>(null);
  const { answer, isPending, submit } = useSubmit(async (entry: T) => {
    const found = await action(entry);
    if (found.request !== undefined) {
      setSeen(null);
      setAsked(found.request);
    }
    return found;
  });
  const learn = useCallback(
    (found: SeenRequest) => {
      setSeen(found);
      const came: RequestAnswer | null =
        found.answer ?? (found.isLost ? { kind: 'trouble', words: NO_ANSWER } : null);
      if (came === null) return;
      setAsked(null);
      setSeen({ ...found, answer: came });
      heard?.(came);
    },
    [heard],
  );
  const isAway = usePoll(asked === null ? null : `/api/v1/bench/requests/${asked}`, EVERY_MS, learn);
  const waiting =
    asked === null
      ? null
      : isAway
        ? 'The server does not answer.'
        : seen?.isThere === false
          ? `Nothing is heard of the link of ${seen.bench}: start it beside the instrument.`
          : 'The link asks it.';
  return {
    /** Nothing more as long as it waits: what is changed twice is not as it was meant. */
    ask: (entry: T) => {
      if (asked === null) submit(entry);
    },
    /** Why it was not asked. */
    refused: answer,
    isPending,
    /** What it waits for, in words; null where nothing was asked, or it is there. */
    waiting,
    answer: asked === null ? (seen?.answer ?? null) : null,
  };
}
