/** What the last calculation advised, as a list to work through. */
import type { Anomaly } from '@barys/core/drift';
import { z } from 'zod';
import type { Queryable } from '../db/database';
import type { Criticality } from '../registers/instrument';
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

const WHERE = `
  from interval_advice join instrument on instrument.id = instrument_id join body on body.id = body_id
  where ($1 = '' or ($1 = 'worth a look' and anomalies <> '[]') or interval_advice.kind = $1)
    and ($2 = '' or instrument.search like '%' || lower($2) || '%')`;

/** What may stand for a letter in a pattern is taken as itself. */
const literal = (text: string): string => text.replace(/[\\%_]/g, '\\$&');

/** One page of the advice, what matters most first: to shorten, to look at, to lengthen. */
export async function listAdvice(
  db: Queryable,
  { kind, q, page }: AdviceQuery,
): Promise<{ readonly lines: AdviceLine[]; readonly count: number }> {
  const values = [kind, literal(q)];
  const [lines, [counted]] = [
    await db.query<AdviceLine>(
      `select instrument_id as "instrumentId", tag, service, area, criticality, model,
         interval_months as "monthsToday", computed_on as "computedOn", advice as advised, anomalies ${WHERE}
       order by array_position(array['shorter', 'look', 'longer', 'keep', 'none'], interval_advice.kind),
         outside_part desc nulls last, tag limit ${ADVICE_PAGE} offset $3`,
      [...values, page * ADVICE_PAGE],
    ),
    await db.query<{ count: number }>(`select count(*)::integer as count ${WHERE}`, values),
  ];
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
