'use client';
import { useCallback, useMemo, useRef, useState } from 'react';
import { DONE, type Answer } from '@/server/answer';
import { putAction } from './actions';
import type { Card } from './shape';

interface Moved {
  readonly personId: number;
  readonly day: string;
  /** Revision that the plan has once this is kept. */
  readonly revision: number;
}

type Moves = ReadonlyMap<number, Moved>;
const NONE: Moves = new Map();

/** Moves that the server has not shown yet: what it has taken in, or has no card of any more, is done with. */
function stillMoved(moved: Moves, cards: readonly Card[]): Moves {
  const revisions = new Map(cards.map(({ instrumentId, revision }) => [instrumentId, revision ?? 0]));
  const left = [...moved].filter(([id, { revision }]) => (revisions.get(id) ?? Infinity) < revision);
  return left.length === 0 ? NONE : new Map(left);
}

/** What was put elsewhere and is not kept yet stands there at once. */
const standing = (card: Card, moved: Moved | undefined): Card =>
  moved === undefined
    ? card
    : { ...card, personId: moved.personId, day: moved.day, revision: moved.revision, isFixed: true };

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
  const shown = useMemo(
    () => cards.map((card) => standing(card, moved.get(card.instrumentId))),
    [cards, moved],
  );
  return { cards: shown, answer, move };
}
