/** The plant's catalogue of bodies: what a model can be ranged to, which trims it has, how it is exchanged. */
import { CoreError } from '@barys/core/errors';
import { evaluateFormula, parseFormula } from '@barys/core/formula';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';
import { bodyShape, type Body, type NewBody } from './body';
import { columnsOf, jsonOf, keysOf, rowOf, type Column } from './fields';

const isAccuracy = (text: string): boolean => {
  if (text === '') return true;
  try {
    const value = evaluateFormula(parseFormula(text), { span: 1, URL: 2 });
    return Number.isFinite(value);
  } catch (error) {
    if (error instanceof CoreError) return false;
    throw error;
  }
};

export const bodySchema = bodyShape.superRefine(({ accuracy }, context) => {
  if (!isAccuracy(accuracy))
    context.addIssue({
      code: 'custom',
      path: ['accuracy'],
      message: 'The accuracy is a formula in span and URL, such as 0.05 + 0.005 * URL / span.',
    });
});

const BODY_COLUMNS = {
  model: { column: 'model', type: 'text' },
  kind: { column: 'pressure_kind', type: 'text' },
  technology: { column: 'technology', type: 'text' },
  unit: { column: 'unit', type: 'text' },
  lowerRangeLimit: { column: 'lower_range_limit', type: 'numeric' },
  upperRangeLimit: { column: 'upper_range_limit', type: 'numeric' },
  leastSpan: { column: 'least_span', type: 'numeric' },
  greatestSpan: { column: 'greatest_span', type: 'numeric' },
  greatestElevationPercent: { column: 'greatest_elevation_percent', type: 'numeric' },
  greatestSuppressionPercent: { column: 'greatest_suppression_percent', type: 'numeric' },
  stampedTurndown: { column: 'stamped_turndown', type: 'numeric' },
  outputs: { column: 'outputs', type: 'text[]' },
  trims: { column: 'trims', type: 'text[]' },
  spanClasses: { column: 'span_classes', type: 'jsonb' },
  accuracy: { column: 'accuracy', type: 'text' },
  swapChecklist: { column: 'swap_checklist', type: 'jsonb' },
} as const satisfies Record<keyof NewBody, Column>;

/** A body as JSON of PostgreSQL, for the queries that join it. */
export const BODY_JSON = jsonOf({
  id: { column: 'body.id' },
  ...BODY_COLUMNS,
  unit: { column: 'body.unit' },
  revision: { column: 'body.revision' },
});

const COLUMNS = columnsOf(BODY_COLUMNS);
const KEYS = keysOf(BODY_COLUMNS);
const ROW = rowOf(BODY_COLUMNS);

export async function listBodies(db: Queryable): Promise<Body[]> {
  const rows = await db.query<{ body: Body }>(`select ${BODY_JSON} as body from body order by model`);
  return rows.map(({ body }) => body);
}

/** @throws StoreError `no-such` */
export async function findBody(db: Queryable, id: number): Promise<Body> {
  const [row] = await db.query<{ body: Body }>(`select ${BODY_JSON} as body from body where id = $1`, [id]);
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'body', name: id });
  return row.body;
}

/** @throws StoreError `taken`, `unknown-person`, `not-allowed` */
export async function addBody(tx: Queryable, actor: Actor, entry: NewBody): Promise<number> {
  await requireKeeper(tx, actor);
  const [row] = await refuseTaken({ what: 'body', name: entry.model }, () =>
    tx.query<{ id: number }>(
      `insert into body (${COLUMNS}) select ${KEYS} from jsonb_to_record($1::jsonb) as entry (${ROW}) returning id`,
      [JSON.stringify(entry)],
    ),
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, { act: 'add body', subject: { kind: 'body', id }, detail: { ...entry } });
  return id;
}

/**
 * Changes a body. Ranges in force are not touched; one that no longer fits shows so on its instrument.
 * @param revision the one that was being edited
 * @throws StoreError `no-such`, `changed-meanwhile`, `taken`, `unknown-person`, `not-allowed`
 */
export async function changeBody(
  tx: Queryable,
  actor: Actor,
  id: number,
  revision: number,
  entry: NewBody,
): Promise<void> {
  await requireKeeper(tx, actor);
  const before = await findBody(tx, id);
  const changed = await refuseTaken({ what: 'body', name: entry.model }, () =>
    tx.query(
      `update body set (${COLUMNS}, revision) =
         (select ${KEYS}, $2::integer + 1 from jsonb_to_record($3::jsonb) as entry (${ROW}))
       where id = $1 and revision = $2 returning id`,
      [id, revision, JSON.stringify(entry)],
    ),
  );
  if (changed.length === 0) throw new StoreError({ code: 'changed-meanwhile', what: before.model });
  await appendToTrail(tx, actor, {
    act: 'change body',
    subject: { kind: 'body', id },
    detail: { before, after: entry },
  });
}

/**
 * Accuracy of a body at a span, per cent of span, by its maker's formula; null where none is entered.
 * @param span in the body's unit
 */
export function accuracyOfBody(
  body: Pick<Body, 'accuracy' | 'upperRangeLimit'>,
  span: number,
): number | null {
  if (body.accuracy === '') return null;
  return evaluateFormula(parseFormula(body.accuracy), { span, URL: body.upperRangeLimit });
}
