/**
 * Register entries as tables: one line says all there is to know of a field, and the statements of SQL, the schema, the
 * columns of files and what a job copies are made from it.
 */
import { z } from 'zod';

/** How a cell of a file, or a field of a form, is read: as text, or as this. */
export type Reading = 'text' | 'number' | 'date' | 'list' | Readonly<Record<string, string>>;

/** Column of a register's table, and its type there. */
export interface Column {
  readonly column: string;
  readonly type: 'text' | 'text[]' | 'integer' | 'bigint' | 'numeric' | 'date' | 'jsonb' | 'boolean';
}
export type Columns = Readonly<Record<string, Column>>;

export interface RegisterField<S extends z.ZodType = z.ZodType> extends Column {
  readonly schema: S;
  /** What a file calls it, and what other headings may mean it, in small letters and digits alone. */
  readonly heading: string;
  readonly known?: readonly string[];
  /** Under which name a file's mapping is kept, where that is not the field's own. */
  readonly inFile?: string;
  readonly isRequired?: true;
  /** What a file shows, in SQL, where that is not the column itself. */
  readonly exported?: string;
  /** How it is read from text; text where nothing is said. */
  readonly read?: Reading;
  /** What an empty cell or a new form stands for. */
  readonly usual?: string | number;
  /** Whether the list shows it, and can be ordered by it. */
  readonly isListed?: true;
  /** Whether a job keeps a copy of it. */
  readonly isCopied?: true;
}

export type RegisterFields = Readonly<Record<string, RegisterField>>;

type Schemas<F extends RegisterFields> = { [K in keyof F]: F[K]['schema'] };

/** The schema of an entry, from the schemas of its fields. */
export const schemaOf = <F extends RegisterFields>(fields: F): z.ZodObject<Schemas<F>> =>
  z.object(
    Object.fromEntries(Object.entries(fields).map(([key, { schema }]) => [key, schema])) as Schemas<F>,
  );

const quoted = (key: string): string => `"${key}"`;

/** The columns of a table in SQL, in the order of `keysOf`. */
export const columnsOf = (fields: Columns): string =>
  Object.values(fields)
    .map(({ column }) => column)
    .join(', ');

/** The keys of an entry in SQL. */
export const keysOf = (fields: Columns): string => Object.keys(fields).map(quoted).join(', ');

/** The row that `jsonb_to_record` makes of an entry. */
export const rowOf = (fields: Columns): string =>
  Object.entries(fields)
    .map(([key, { type }]) => `${quoted(key)} ${type}`)
    .join(', ');

/** What stands for itself otherwise in the text format of COPY. */
const SPECIAL: Readonly<Record<string, string>> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };
const copyText = (text: string): string =>
  /[\\\t\n\r]/.test(text) ? text.replace(/[\\\t\n\r]/g, (one) => SPECIAL[one] ?? one) : text;
const arrayText = (items: readonly unknown[]): string =>
  `{${items.map((item) => `"${String(item).replace(/["\\]/g, '\\$&')}"`).join(',')}}`;

/** A value as COPY reads it (PostgreSQL's manual, COPY, Text Format). */
function copyValue(type: Column['type'], value: unknown): string {
  if (typeof value === 'number') return String(value);
  if (value == null) return '\\N';
  if (type === 'jsonb') return copyText(JSON.stringify(value));
  if (Array.isArray(value)) return copyText(arrayText(value));
  return copyText(typeof value === 'string' ? value : JSON.stringify(value));
}

/** Makes of an entry what COPY reads for `columnsOf`, without the end of the line. */
export function copyOf(fields: Columns): (entry: Readonly<Record<string, unknown>>) => string {
  const all = Object.entries(fields).map(([key, { type }]) => ({ key, type }));
  return (entry) => {
    let line = '';
    let between = '';
    for (const { key, type } of all) {
      line += between + copyValue(type, entry[key]);
      between = '\t';
    }
    return line;
  };
}

/** Columns of a table, each under the key of its field. */
export const selectOf = (fields: Columns, keys: readonly string[] = Object.keys(fields)): string =>
  keys.map((key) => `${fields[key]?.column ?? key} as ${quoted(key)}`).join(', ');

/** The same as one object of JSON. */
export const jsonOf = (fields: Readonly<Record<string, Pick<Column, 'column'>>>): string =>
  `json_build_object(${Object.entries(fields)
    .map(([key, { column }]) => `'${key}', ${column}`)
    .join(', ')})`;

type Mark = 'isListed' | 'isCopied';

/** The keys of the fields that have a mark. */
export const keysWith = <F extends RegisterFields>(fields: F, mark: Mark): (keyof F & string)[] =>
  Object.keys(fields).filter((key) => fields[key]?.[mark] === true);

export type KeyWith<F extends RegisterFields, M extends Mark> = {
  [K in keyof F]: F[K] extends Readonly<Record<M, true>> ? K : never;
}[keyof F] &
  string;
