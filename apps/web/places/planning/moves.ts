/** Cards that were moved by hand and are not kept yet. */
import type { Card } from './shape';

interface Moved {
  readonly personId: number;
  readonly day: string;
  /** Revision that the plan has once this is kept. */
  readonly revision: number;
}

export type Moves = ReadonlyMap<number, Moved>;
export const NONE: Moves = new Map();

/** Moves that the server has not shown yet: what it has taken in, or has no card of any more, is done with. */
export function stillMoved(moved: Moves, cards: readonly Card[]): Moves {
  const revisions = new Map(cards.map(({ instrumentId, revision }) => [instrumentId, revision ?? 0]));
  const left = [...moved].filter(([id, { revision }]) => (revisions.get(id) ?? Infinity) < revision);
  return left.length === 0 ? NONE : new Map(left);
}

/** What was put elsewhere and is not kept yet stands there at once. */
const standing = (card: Card, moved: Moved | undefined): Card =>
  moved === undefined
    ? card
    : { ...card, personId: moved.personId, day: moved.day, revision: moved.revision, isFixed: true };

/** The cards as they stand for whoever moved them. */
export const shownCards = (cards: readonly Card[], moved: Moves): readonly Card[] =>
  cards.map((card) => standing(card, moved.get(card.instrumentId)));
