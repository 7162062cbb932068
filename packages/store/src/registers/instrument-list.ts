/** The list of instruments: found, filtered, ordered and paged in the database, for 100,000 of them. */
import { SIGNALS } from '@barys/core/signal';
import { isUnit, PRESSURE_KINDS, unitLabel } from '@barys/core/units';
import { z } from 'zod';
import { NO_POINTS, type ConfigurationVersion } from './configuration';
import type { Queryable } from '../db/database';
import { distinctValues } from '../db/distinct';
import { keysWith, selectOf } from './fields';
import {
  CRITICALITIES,
  FILE_FIELDS,
  INSTRUMENT_FIELDS,
  MEASURES,
  STATES,
  type Instrument,
  type ListedField,
} from './instrument';

export const PAGE_SIZES = [25, 50, 100] as const;

const LISTED = keysWith(INSTRUMENT_FIELDS, 'isListed') as ListedField[];
export type ListOrder = ListedField | 'tolerance';

/** What PostgreSQL orders before the tag, where that is not the column alone. */
const ORDER: Readonly<Partial<Record<ListOrder, string>>> = {
  tag: '',
  walk: 'area {dir}, walk {dir}',
  tolerance: 'tolerance_percent_of_span {dir}',
  // What is retired never comes due, so it stands last either way.
  dueOn: "(state = 'retired'), due_on {dir}",
};

const orders: readonly ListOrder[] = [...LISTED, 'tolerance'];

/** What a list shows, as an address says it; anything else falls back to the whole list in the order it comes due. */
export const listQuerySchema = z.object({
  /** Words that all have to occur in tag, service, description, serial or loop. */
  q: z.string().max(100).catch(''),
  area: z.string().max(60).catch(''),
  owner: z.string().max(60).catch(''),
  state: z.enum(['', ...STATES]).catch(''),
  measures: z.enum(['', ...MEASURES]).catch(''),
  kind: z.enum(['', ...PRESSURE_KINDS]).catch(''),
  criticality: z.enum(['', ...CRITICALITIES]).catch(''),
  /**
   * Overdue, overdue but in grace, overdue beyond grace, due within so many days, due in a month that is not past (`2026-05`), or on a
   * day (`2026-05-31`).
   */
  due: z
    .union([
      z.enum(['', 'overdue', 'grace', 'late', '7', '30', '90']),
      z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/),
      z.iso.date(),
    ])
    .catch(''),
  sort: z.enum(orders).catch('dueOn'),
  dir: z.enum(['asc', 'desc']).catch('asc'),
  page: z.coerce.number().int().min(0).max(100000).catch(0),
  size: z.coerce
    .number()
    .refine((size) => PAGE_SIZES.some((one) => one === size))
    .catch(PAGE_SIZES[0]),
});
export type ListQuery = z.infer<typeof listQuerySchema>;

export interface InstrumentLine extends Pick<Instrument, 'id' | ListedField> {
  readonly tolerancePercentOfSpan: number;
  readonly model: string;
  readonly range: Pick<
    ConfigurationVersion,
    'lrv' | 'urv' | 'inputUnit' | 'outputLow' | 'outputHigh' | 'outputUnit'
  >;
}

export interface InstrumentPage {
  readonly lines: readonly InstrumentLine[];
  /** How many the search and the filters leave. */
  readonly total: number;
}

/** In a LIKE pattern, what was typed stands for itself. */
export const escapeLike = (word: string): string => word.replace(/[\\%_]/g, (sign) => `\\${sign}`);

/** Days after its due date on which an instrument is in grace. */
export const GRACE_SQL = '(select coalesce(max(grace_days), 0) from installation)';

function conditionsOf(query: ListQuery, today: string): { where: string; values: unknown[] } {
  const conditions: string[] = [];
  const values: unknown[] = [];
  const add = (condition: (place: string) => string, value: unknown) => {
    values.push(value);
    conditions.push(condition(`$${values.length}`));
  };
  for (const word of query.q.toLowerCase().split(/\s+/).filter(Boolean))
    add((place) => `search like ${place}`, `%${escapeLike(word)}%`);
  for (const column of ['area', 'owner', 'state', 'measures', 'kind', 'criticality'] as const)
    if (query[column] !== '') add((place) => `${column} = ${place}`, query[column]);
  if (query.due === 'overdue') add((place) => `due_on < ${place}`, today);
  else if (query.due === 'late') add((place) => `due_on < ${place}::date - ${GRACE_SQL}`, today);
  else if (query.due === 'grace') {
    add((place) => `due_on < ${place}`, today);
    add((place) => `due_on >= ${place}::date - ${GRACE_SQL}`, today);
  } else if (query.due.length === 10) add((place) => `due_on = ${place}`, query.due);
  else if (query.due.includes('-')) {
    add((place) => `due_on >= ${place}`, [`${query.due}-01`, today].sort().at(-1));
    add((place) => `due_on < ${place}::date + interval '1 month'`, `${query.due}-01`);
  } else if (query.due !== '') add((place) => `due_on <= ${place}::date + ${Number(query.due)}`, today);
  return { where: conditions.length === 0 ? '' : `where ${conditions.join(' and ')}`, values };
}

/** The tag decides last, so that the same line never stands on two pages. */
const orderOf = ({ sort, dir }: ListQuery): string =>
  [(ORDER[sort] ?? `${columnOf(sort)} {dir}`).replaceAll('{dir}', dir), `tag ${dir}`]
    .filter(Boolean)
    .join(', ');

const columnOf = (key: ListOrder): string => (key === 'tolerance' ? key : INSTRUMENT_FIELDS[key].column);

/**
 * One page of the list.
 * @param today ISO date that "overdue" counts from
 */
export async function listInstruments(
  db: Queryable,
  query: ListQuery,
  today: string,
): Promise<InstrumentPage> {
  const { where, values } = conditionsOf(query, today);
  const order = orderOf(query);
  const [lines, [counted]] = await Promise.all([
    db.query<InstrumentLine>(
      // Only the lines of the page are joined with what belongs to them.
      `with page as (
         select id from instrument ${where} order by ${order} limit $${values.length + 1} offset $${values.length + 2}
       )
       select instrument.id, ${selectOf(INSTRUMENT_FIELDS, LISTED)},
         tolerance_percent_of_span as "tolerancePercentOfSpan", model,
         json_build_object('lrv', lrv, 'urv', urv, 'inputUnit', input_unit, 'outputLow', output_low,
           'outputHigh', output_high, 'outputUnit', output_unit) as range
       from page
         join instrument on instrument.id = page.id
         join body on body.id = body_id
         join lateral (
           select * from configuration where instrument_id = instrument.id order by version desc limit 1
         ) configuration on true
       order by ${order}`,
      [...values, query.size, query.page * query.size],
    ),
    db.query<{ total: number }>(`select count(*)::int as total from instrument ${where}`, values),
  ]);
  return { lines, total: counted?.total ?? 0 };
}

/** Signals as people say them, and as an import reads them back; the labels are constants of the core. */
const SIGNAL_WORDS = `case signal ${Object.entries(SIGNALS)
  .map(([name, { label }]) => `when '${name}' then '${label}'`)
  .join(' ')} end`;

/** The range, between the body of an instrument and the rest of its columns. */
const RANGE_COLUMNS: Readonly<Record<string, string>> = {
  LRV: 'lrv',
  URV: 'urv',
  Unit: 'input_unit',
  Signal: SIGNAL_WORDS,
  'Output at 0 %': 'output_low',
  'Output at 100 %': 'output_high',
  'Output unit': 'output_unit',
  'Transfer function': `case transfer_function ->> 'kind'
    when 'square-root-linear-start' then 'square root, linear start'
    when 'square-root-slope-one' then 'square root, slope one'
    when 'linear' then 'linear' when 'table' then 'table' else 'square root' end`,
  'Low-flow cut-off, % of flow': `(transfer_function ->> 'cutOffPercentOfFlow')::numeric`,
  'Linear start to, %': `coalesce((transfer_function ->> 'linearToPercentOfFlow')::numeric,
    (transfer_function ->> 'linearToPercentOfInput')::numeric)`,
  'Display at 0 %': 'display_low',
  'Display at 100 %': 'display_high',
  'Display unit': 'display_unit',
  'Damping, s': 'damping_s',
  'Scale division': 'scale_division',
  'Damping of the display, s': 'display_damping_s',
  'Application set': 'application',
  'Start view': 'start_view',
  'Output driven by': 'driven_by',
  'Switching points': `coalesce((
    select string_agg((point ->> 'name') || ': ' || (point ->> 'on') || ' / ' || (point ->> 'off'), '; '
      order by place) from jsonb_array_elements(switching_points) with ordinality as listed (point, place)
  ), '${NO_POINTS}')`,
};

const EXPORT_COLUMNS: Readonly<Record<string, string>> = Object.fromEntries(
  FILE_FIELDS.flatMap(([key, field]) => [
    [field.heading, field.exported ?? field.column],
    ...(key === 'bodyId' ? Object.entries(RANGE_COLUMNS) : []),
  ]),
);

/** The whole list as it is filtered and ordered, under the headings that an import of instruments reads. */
export async function allInstruments(
  db: Queryable,
  query: ListQuery,
  today: string,
): Promise<{ readonly header: readonly string[]; readonly rows: readonly (readonly unknown[])[] }> {
  const { where, values } = conditionsOf(query, today);
  const header = Object.keys(EXPORT_COLUMNS);
  const columns = Object.values(EXPORT_COLUMNS).map((column, index) => `${column} as c${index}`);
  const rows = await db.query<Record<string, unknown>>(
    `select ${columns.join(', ')}
     from (select * from instrument ${where}) instrument
       join body on body.id = body_id
       join procedure on procedure.id = procedure_id
       join lateral (
         select * from configuration where instrument_id = instrument.id order by version desc limit 1
       ) configuration on true
     order by ${orderOf(query)}`,
    values,
  );
  return {
    header,
    rows: rows.map((row) =>
      header.map((heading, index) => {
        const value = row[`c${index}`];
        return heading === 'Unit' && typeof value === 'string' && isUnit(value) ? unitLabel(value) : value;
      }),
    ),
  };
}

/** Areas and owners that the list can be filtered by. */
export async function listFacets(
  db: Queryable,
): Promise<{ readonly areas: readonly string[]; readonly owners: readonly string[] }> {
  const [areas, owners] = await Promise.all([
    distinctValues(db, 'instrument.area'),
    distinctValues(db, 'instrument.owner'),
  ]);
  return { areas, owners };
}
