/** Views of a list that a person keeps: each is the query part of the list's address. */
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { findPerson } from './people';
import type { Actor } from './actor';

export interface SavedView {
  readonly id: number;
  readonly name: string;
  readonly query: string;
}

/** Lists whose views are kept. */
export const VIEW_PLACES = ['instruments', 'jobs'] as const;
export type ViewPlace = (typeof VIEW_PLACES)[number];

export function viewsOf(db: Queryable, personId: number, place: ViewPlace): Promise<SavedView[]> {
  return db.query<SavedView>(
    'select id, name, query from saved_view where person_id = $1 and place = $2 order by name',
    [personId, place],
  );
}

/**
 * Keeps a view under a name; one of that name is replaced. A person's own convenience, so no act of the trail.
 * @throws StoreError `unknown-person`
 */
export async function keepView(
  tx: Queryable,
  actor: Actor,
  place: ViewPlace,
  view: Omit<SavedView, 'id'>,
): Promise<void> {
  if ((await findPerson(tx, actor.personId)) === null) throw new StoreError({ code: 'unknown-person' });
  await tx.query(
    `insert into saved_view (person_id, place, name, query) values ($1, $2, $3, $4)
     on conflict (person_id, place, name) do update set query = excluded.query`,
    [actor.personId, place, view.name, view.query],
  );
}

/** Drops a view of one's own. */
export async function dropView(tx: Queryable, actor: Actor, id: number): Promise<void> {
  await tx.query('delete from saved_view where id = $1 and person_id = $2', [id, actor.personId]);
}
