/** Densities of the plant's liquids by temperature. */
import { checkDensityTable, type DensityPoint } from '@barys/core/level';
import { CoreError } from '@barys/core/errors';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireKeeper } from '../people/people';

export const liquidSchema = z
  .object({
    name: z.string().trim().min(1, 'A liquid needs a name.').max(80),
    source: z.string().trim().min(1, 'Say where the figures come from.').max(300),
    /** Rising in temperature. */
    points: z.array(
      z.object({
        temperatureC: z.number({ error: 'A temperature is a number.' }),
        densityKgPerM3: z.number({ error: 'A density is a number.' }),
      }),
    ),
  })
  .superRefine(({ points }, context) => {
    try {
      checkDensityTable(points);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      context.addIssue({ code: 'custom', path: ['points'], message: error.message });
    }
  });
export type NewLiquid = z.infer<typeof liquidSchema>;

export interface Liquid {
  readonly id: number;
  readonly name: string;
  readonly source: string;
  readonly points: readonly DensityPoint[];
  readonly revision: number;
}

const LIQUID_SQL = 'select id, name, source, points, revision from liquid';

export const listLiquids = (db: Queryable): Promise<Liquid[]> =>
  db.query<Liquid>(`${LIQUID_SQL} order by lower(name)`);

/** @throws StoreError `no-such` */
export async function findLiquid(db: Queryable, id: number): Promise<Liquid> {
  const [liquid] = await db.query<Liquid>(`${LIQUID_SQL} where id = $1`, [id]);
  if (liquid === undefined) throw new StoreError({ code: 'no-such', what: 'liquid', name: id });
  return liquid;
}

/**
 * Enters a liquid, or changes the one that was being edited.
 * @param edited which, and the revision that was being edited; null for a new one
 * @throws StoreError `no-such`, `changed-meanwhile`, `taken`, `unknown-person`, `not-allowed`
 */
export async function keepLiquid(
  tx: Queryable,
  actor: Actor,
  edited: { readonly id: number; readonly revision: number } | null,
  entry: NewLiquid,
): Promise<number> {
  await requireKeeper(tx, actor);
  const before = edited === null ? null : await findLiquid(tx, edited.id);
  const values = [entry.name, entry.source, JSON.stringify(entry.points)];
  const [kept] = await refuseTaken({ what: 'liquid', name: entry.name }, () =>
    edited === null
      ? tx.query<{ id: number }>(
          'insert into liquid (name, source, points) values ($1, $2, $3) returning id',
          values,
        )
      : tx.query<{ id: number }>(
          `update liquid set name = $1, source = $2, points = $3, revision = revision + 1
           where id = $4 and revision = $5 returning id`,
          [...values, edited.id, edited.revision],
        ),
  );
  if (kept === undefined) throw new StoreError({ code: 'changed-meanwhile', what: entry.name });
  await appendToTrail(tx, actor, {
    act: before === null ? 'add liquid' : 'change liquid',
    subject: { kind: 'liquid', id: kept.id },
    detail: before === null ? { ...entry } : { before, after: entry },
  });
  return kept.id;
}
