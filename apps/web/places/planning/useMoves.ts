'use client';
import { useCallback, useRef, useState } from 'react';
import { DONE, type Answer } from '@/server/answer';
import { putAction } from './actions';
import type { Card } from './shape';

interface Moved {
  readonly personId: number;
  readonly day: string;
  /** Revision that the plan has once this is kept. */
  readonly revision: number;
}

/** What was put elsewhere and is not kept yet stands there at once. */
const standing = (card: Card, moved: Moved | undefined): Card =>
  moved === undefined || (card.revision ?? 0) >= moved.revision
    ? card
    : { ...card, personId: moved.personId, day: moved.day, revision: moved.revision, isFixed: true };

/** Moves cards: each stands at its new place at once, and is kept one after the other. */
export function useMoves(cards: readonly Card[]) {
  const [moved, setMoved] = useState<ReadonlyMap<number, Moved>>(new Map());
  const [answer, setAnswer] = useState<Answer>(DONE);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const move = useCallback((card: Card, personId: number, day: string) => {
    setMoved((before) =>
      new Map(before).set(card.instrumentId, { personId, day, revision: (card.revision ?? 0) + 1 }),
    );
    const put = () =>
      putAction([
        {
          instrumentId: card.instrumentId,
          seen: card.revision,
          personId,
          day,
          minutes: card.minutes,
          references: card.references,
        },
      ]).catch(() => ({ error: 'The server does not answer. The move is not kept; try again in a moment.' }));
    queue.current = queue.current.then(async () => {
      const found = await put();
      setAnswer(found);
      // What was refused goes back to where the server has it.
      if (found.error !== null) setMoved(new Map());
    });
  }, []);
  return { cards: cards.map((card) => standing(card, moved.get(card.instrumentId))), answer, move };
}
