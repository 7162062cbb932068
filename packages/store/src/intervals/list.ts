/** What the last calculation advised, as a list to work through. */
import type { Anomaly } from '@barys/core/drift';
import { z } from 'zod';
import type { Queryable } from '../db/database';
import type { Criticality } from '../registers/instrument';
import { escapeLike } from '../registers/instrument-list';
import type { Advised } from './advise';

export const ADVICE_KINDS = ['shorter', 'longer', 'look', 'keep', 'none'] as const;

export const adviceQuerySchema = z.object({
  kind: z.enum(['', ...ADVICE_KINDS, 'worth a look']).catch(''),
  q: z.string().trim().max(100).catch(''),
  page: z.coerce.number().int().min(0).max(100_000).catch(0),
});
export type AdviceQuery = z.infer<typeof adviceQuerySchema>;

export interface AdviceLine {
  readonly instrumentId: number;
  readonly tag: string;
  readonly service: string;
  readonly area: string;
  readonly criticality: Criticality;
  readonly model: string;
  /** Interval in force today, which may be another than the one that was advised on. */
  readonly monthsToday: number;
  readonly computedOn: string;
  readonly advised: Omit<Advised, 'anomalies'>;
  readonly anomalies: readonly Anomaly[];
}

export const ADVICE_PAGE = 25;

function conditionsOf({ kind, q }: AdviceQuery): { readonly where: string; readonly values: unknown[] } {
  const values: unknown[] = [];
  const conditions: string[] = [];
  if (kind === 'worth a look') conditions.push(`anomalies <> '[]'`);
  else if (kind !== '') conditions.push(`interval_advice.kind = $${values.push(kind)}`);
  if (q !== '')
    conditions.push(
      `instrument_id in (select id from instrument where search like $${values.push(`%${escapeLike(q.toLowerCase())}%`)})`,
    );
  return { where: conditions.length === 0 ? '' : `where ${conditions.join(' and ')}`, values };
}

const ORDER = 'rank, outside_part desc nulls last, instrument_id';

/** One page of the advice, what matters most first: to shorten, to look at, to lengthen. */
export async function listAdvice(
  db: Queryable,
  query: AdviceQuery,
): Promise<{ readonly lines: AdviceLine[]; readonly count: number }> {
  const { where, values } = conditionsOf(query);
  const [lines, [counted]] = await Promise.all([
    db.query<AdviceLine>(
      // Only the lines of the page are joined with what belongs to them.
      `with page as (
         select * from interval_advice ${where} order by ${ORDER}
         limit ${ADVICE_PAGE} offset $${values.length + 1}
       )
       select instrument_id as "instrumentId", tag, service, area, criticality, model,
         interval_months as "monthsToday", computed_on as "computedOn", advice as advised, anomalies
       from page join instrument on instrument.id = instrument_id join body on body.id = body_id order by ${ORDER}`,
      [...values, query.page * ADVICE_PAGE],
    ),
    db.query<{ count: number }>(`select count(*)::integer as count from interval_advice ${where}`, values),
  ]);
  return { lines, count: counted?.count ?? 0 };
}

/** How many instruments are advised what, and how many are worth a look. */
export async function countAdvice(db: Queryable): Promise<ReadonlyMap<string, number>> {
  const rows = await db.query<{ kind: string; count: number }>(
    `select kind, count(*)::integer as count from interval_advice group by kind
     union all select 'worth a look', count(*)::integer from interval_advice where anomalies <> '[]'`,
  );
  return new Map(rows.map(({ kind, count }) => [kind, count]));
}
