import type { Queryable } from './database';

/**
 * The different values of an indexed text column, in their order. It steps from value to value along the index: a table
 * grows long, the list of its values does not.
 */
export async function distinctValues(
  db: Queryable,
  column: 'instrument.area' | 'instrument.owner' | 'audit_entry.act' | 'audit_entry.subject_kind',
): Promise<string[]> {
  const [table, name] = column.split('.');
  const rows = await db.query<{ value: string }>(
    `with recursive one as (
       (select ${name} as value from ${table} order by 1 limit 1)
       union all
       select (select ${name} from ${table} where ${name} > one.value order by 1 limit 1)
       from one where one.value is not null
     ) select value from one where value <> ''`,
  );
  return rows.map(({ value }) => value);
}
