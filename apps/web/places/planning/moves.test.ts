/** Cards that were moved and are not kept yet: shown where they go, until the server shows them there or has them no more. */
import { expect, it } from 'vitest';
import { NONE, shownCards, stillMoved, type Moves } from './moves';
import type { Card } from './shape';

const card = (instrumentId: number, revision: number | null, day = '2026-05-04'): Card =>
  ({ instrumentId, revision, day, personId: 1, isFixed: false }) as Card;
const moved: Moves = new Map([[1, { personId: 2, day: '2026-05-06', revision: 4 }]]);

it('a moved card stands at its new place at once, fixed, and the others where they were', () => {
  const [one, two] = shownCards([card(1, 3), card(2, 9)], moved);
  expect(one).toMatchObject({ personId: 2, day: '2026-05-06', revision: 4, isFixed: true });
  expect(two).toEqual(card(2, 9));
});

it('cards that nobody moved stay the same objects, so that nothing is looked for again', () => {
  const cards = [card(1, 3), card(2, 9)];
  expect(shownCards(cards, NONE)[0]).toBe(cards[0]);
  expect(shownCards(cards, moved)[1]).toBe(cards[1]);
});

it('a move is done with once the server shows it, or something later', () => {
  expect(stillMoved(moved, [card(1, 3)])).toEqual(moved);
  expect(stillMoved(moved, [card(1, 4)])).toBe(NONE);
  expect(stillMoved(moved, [card(1, 5)])).toBe(NONE);
});

it('a card that was taken out and put in anew begins with its first revision, and stands where it was put', () => {
  // Taken out, it has no card: the move before is forgotten.
  const afterwards = stillMoved(moved, [card(2, 9)]);
  expect(afterwards).toBe(NONE);
  expect(shownCards([card(1, 1, '2026-05-05')], afterwards)[0]).toMatchObject({ day: '2026-05-05' });
});

it('of several moves those that are not shown yet stay', () => {
  const both: Moves = new Map([...moved, [2, { personId: 2, day: '2026-05-07', revision: 10 }]]);
  expect([...stillMoved(both, [card(1, 4), card(2, 9)]).keys()]).toEqual([2]);
  // One that is put in from nothing has no revision before.
  const first: Moves = new Map([[3, { personId: 2, day: '2026-05-07', revision: 1 }]]);
  expect(stillMoved(first, [card(3, null)])).toEqual(first);
  expect(stillMoved(first, [card(3, 1)])).toBe(NONE);
});
