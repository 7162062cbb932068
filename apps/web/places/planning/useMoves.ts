'use client';
import { useCallback, useMemo, useRef, useState } from 'react';
import { DONE, type Answer } from '@/server/answer';
import { putAction } from './actions';
import { NONE, shownCards, stillMoved } from './moves';
import type { Card } from './shape';

/** Moves cards: each stands at its new place at once, and is kept one after the other. */
export function useMoves(cards: readonly Card[]) {
  const [moved, setMoved] = useState(NONE);
  const [seen, setSeen] = useState(cards);
  const [answer, setAnswer] = useState<Answer>(DONE);
  if (cards !== seen) {
    setSeen(cards);
    setMoved(stillMoved(moved, cards));
  }
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
      if (found.error !== null) setMoved(NONE);
    });
  }, []);
  const shown = useMemo(() => shownCards(cards, moved), [cards, moved]);
  return { cards: shown, answer, move };
}
