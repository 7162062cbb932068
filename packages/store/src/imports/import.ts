/** Files brought in: kept as they came, looked at, checked, and taken over whole or in part. */
import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Body } from '../registers/body';
import { listBodies } from '../registers/bodies';
import { CONFIGURATION_COLUMNS, type NewConfiguration } from '../registers/configuration';
import type { Bulk, Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { requireAdministrator } from '../people/people';
import type { Actor } from '../people/actor';
import { listPolicies } from '../intervals/policy';
import { listProcedures } from '../registers/procedures';
import { findSite } from '../people/site';
import { Taking } from './apply';
import type { Answers } from './cells';
import { checkRows, type Checked, type CheckWatch, type RowsOf } from './check';
import { guessMapping, type ImportKind, type Mapping } from './columns';
import { parseCsv, toCsv, type ParsedCsv } from './csv';
import type { Lookups } from './rows';

export const LARGEST_IMPORT_BYTES = 64 * 1024 * 1024;
const MOST_ROWS = 200_000;

export const importChoiceSchema = z.object({
  mapping: z.record(z.string(), z.number().int().min(0).max(500).nullable()),
  answers: z.object({
    dateOrder: z.enum(['day first', 'month first']).nullable(),
    units: z.record(z.string().max(60), z.string().max(60)),
  }),
});
export type ImportChoice = { readonly mapping: Mapping; readonly answers: Answers };

export interface ImportFile {
  readonly id: number;
  readonly kind: ImportKind;
  readonly name: string;
  readonly sha256: string;
  readonly broughtAt: Date;
  readonly importedAt: Date | null;
}

/** For how long the file that was read last is remembered, ms: it is brought, looked at, checked and taken over. */
const REMEMBERED_MS = 60_000;
let lastRead: { readonly sha256: string; readonly csv: ParsedCsv } | null = null;

/** Reads a file, or remembers it. */
async function readCsv(sha256: string, bytes: () => Promise<Uint8Array>): Promise<ParsedCsv> {
  if (lastRead?.sha256 === sha256) return lastRead.csv;
  const read = { sha256, csv: parseCsv(await bytes()) };
  lastRead = read;
  setTimeout(() => {
    if (lastRead === read) lastRead = null;
  }, REMEMBERED_MS).unref();
  return read.csv;
}

/**
 * Keeps a file for importing.
 * @throws StoreError `file-unreadable`, `unknown-person`, `not-allowed`
 */
export async function bringFile(
  tx: Queryable,
  actor: Actor,
  { kind, name, bytes }: { readonly kind: ImportKind; readonly name: string; readonly bytes: Uint8Array },
): Promise<number> {
  await requireAdministrator(tx, actor);
  if (bytes.length > LARGEST_IMPORT_BYTES)
    throw new StoreError({ code: 'file-unreadable', why: 'it is larger than 64 MB' });
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const { header, rows } = await readCsv(sha256, () => Promise.resolve(bytes));
  if (header.length < 2 || rows.length === 0)
    throw new StoreError({ code: 'file-unreadable', why: 'it has no rows below a line of headings' });
  if (rows.length > MOST_ROWS)
    throw new StoreError({
      code: 'file-unreadable',
      why: `it has ${rows.length} rows; ${MOST_ROWS} are taken at once`,
    });
  const [row] = await tx.query<{ id: number }>(
    `insert into import_file (kind, name, bytes, sha256, brought_by, brought_at)
     values ($1, $2, $3, decode($4, 'hex'), $5, $6) returning id`,
    [kind, name.slice(0, 200), Buffer.from(bytes), sha256, actor.personId, actor.at],
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, {
    act: 'bring file',
    subject: { kind: 'import', id },
    detail: { kind, name: name.slice(0, 200), rows: rows.length },
  });
  return id;
}

async function loadImport(db: Queryable, id: number): Promise<{ file: ImportFile; csv: ParsedCsv }> {
  const [file] = await db.query<ImportFile>(
    `select id, kind, name, encode(sha256, 'hex') as sha256, brought_at as "broughtAt",
       imported_at as "importedAt" from import_file where id = $1`,
    [id],
  );
  if (file === undefined) throw new StoreError({ code: 'no-such', what: 'import', name: id });
  const csv = await readCsv(file.sha256, async () => {
    const [row] = await db.query<{ bytes: Uint8Array }>('select bytes from import_file where id = $1', [id]);
    return row?.bytes ?? new Uint8Array();
  });
  return { file, csv };
}

const headerText = (header: readonly string[]): string => JSON.stringify(header);

/** A file as its page begins with it: what it looks like, and how its columns were read the last time or seem to be. */
export async function openImport(
  db: Queryable,
  id: number,
): Promise<{
  readonly file: ImportFile;
  readonly encoding: string;
  readonly delimiter: string;
  readonly header: readonly string[];
  readonly rowCount: number;
  readonly sample: readonly (readonly string[])[];
  readonly choice: ImportChoice;
}> {
  const { file, csv } = await loadImport(db, id);
  const [kept] = await db.query<{ mapping: ImportChoice }>(
    'select mapping from import_mapping where kind = $1 and header = $2',
    [file.kind, headerText(csv.header)],
  );
  return {
    file,
    encoding: csv.encoding,
    delimiter: csv.delimiter,
    header: csv.header,
    rowCount: csv.rows.length,
    sample: csv.rows.slice(0, 5).map(({ cells }) => cells),
    choice: kept?.mapping ?? {
      mapping: guessMapping(file.kind, csv.header),
      answers: { dateOrder: null, units: {} },
    },
  };
}

type Known = ReadonlyMap<string, unknown>;

/** All that makes a range the same one. */
const RANGE_KEYS = (Object.keys(CONFIGURATION_COLUMNS) as (keyof NewConfiguration)[]).filter(
  (key) => key !== 'reason',
);
const RANGE_PAIRS = RANGE_KEYS.map((key) => `'${key}', ${CONFIGURATION_COLUMNS[key].column}`).join(', ');

async function lookupsFor(db: Queryable, kind: ImportKind, today: string): Promise<Lookups> {
  // One after the other: all of it may run in one transaction, which has one connection.
  const bodies = await listBodies(db);
  const procedures = await listProcedures(db);
  const site = await findSite(db);
  const byId = new Map(bodies.map((body) => [body.id, body]));
  const instruments =
    kind === 'configurations' || kind === 'results'
      ? await db.query<{ tag: string; id: number; bodyId: number; lrv: number; urv: number }>(
          `select distinct on (instrument.id) tag, instrument.id, body_id as "bodyId", lrv, urv
           from instrument join configuration on instrument_id = instrument.id
           order by instrument.id, version desc`,
        )
      : [];
  return {
    bodies: new Map(bodies.map((body) => [body.model.toLowerCase(), body])),
    procedures: new Map(procedures.map(({ id, name }) => [name.toLowerCase(), id])),
    usualProcedure: procedures[0]?.id ?? 0,
    instruments: new Map(
      instruments.map(({ tag, bodyId, ...rest }) => [tag, { ...rest, body: byId.get(bodyId) as Body }]),
    ),
    today,
    site: site?.siteName ?? '',
    longestMonths: new Map(
      (await listPolicies(db)).map(({ criticality, longestMonths }) => [criticality, longestMonths]),
    ),
  };
}

/** The keys of what the register has already. */
const KEYS_SQL: Readonly<Record<Exclude<ImportKind, 'configurations'>, string>> = {
  instruments: 'select tag as key from instrument',
  references: `select tag || ' ' || name as key from reference_module
    join reference_standard on reference_standard.id = reference_id`,
  results: `select tag || ' ' || done_on || ' ' || past_result.kind || ' ' || direction || ' ' ||
      trim_scale(nominal_percent) as key
    from past_result join instrument on instrument.id = instrument_id`,
};

/** What the register has already, by the key of the kind; of a range all that it says. */
async function knownFor(db: Queryable, kind: ImportKind): Promise<Known> {
  if (kind !== 'configurations') {
    // In one value: a row for each of a hundred thousand takes ten times as long to read.
    const [row] = await db.query<{ keys: string[] | null }>(
      `select json_agg(key) as keys from (${KEYS_SQL[kind]}) known`,
    );
    return new Map((row?.keys ?? []).map((key) => [key, null]));
  }
  const rows = await db.query<{ key: string; value: unknown }>(
    `select distinct on (instrument_id) tag as key, jsonb_build_object(${RANGE_PAIRS}) as value
     from configuration join instrument on instrument.id = instrument_id order by instrument_id, version desc`,
  );
  return new Map(rows.map(({ key, value }) => [key, value]));
}

function isKnownIn(known: Known, kind: ImportKind): (entry: RowsOf[ImportKind], key: string) => boolean {
  if (kind !== 'configurations') return (_entry, key) => known.has(key);
  return (entry, key) => {
    const { configuration, kept } = entry as RowsOf['configurations'];
    const there = known.get(key) as Partial<NewConfiguration> | undefined;
    return RANGE_KEYS.every(
      (part) =>
        (kept as readonly string[]).includes(part) || isDeepStrictEqual(there?.[part], configuration[part]),
    );
  };
}

type ImportWatch = Pick<CheckWatch, 'onProgress' | 'signal'>;

async function checkFile(
  db: Queryable,
  { file, csv }: Awaited<ReturnType<typeof loadImport>>,
  { mapping, answers }: ImportChoice,
  today: string,
  watch: CheckWatch,
): Promise<Checked> {
  const lookups = await lookupsFor(db, file.kind, today);
  const isKnown = isKnownIn(await knownFor(db, file.kind), file.kind);
  return checkRows(file.kind, csv, mapping, answers, lookups, isKnown, watch);
}

/**
 * Checks a file against the registers and changes nothing.
 * @throws StoreError `no-such`
 */
export async function checkImport(
  db: Queryable,
  id: number,
  choice: ImportChoice,
  today: string,
  watch: ImportWatch = {},
): Promise<{ readonly file: ImportFile; readonly header: readonly string[]; readonly checked: Checked }> {
  const loaded = await loadImport(db, id);
  const checked = await checkFile(db, loaded, choice, today, watch);
  return { file: loaded.file, header: loaded.csv.header, checked };
}

/**
 * Takes a file over: its good rows, or all of its rows or none. Rows that the registers have already are left alone, so
 * that a file brought in twice doubles nothing.
 * @throws StoreError `rows-bad` where all are wanted and some are bad, `no-such`, `unknown-person`, `not-allowed`
 */
export async function takeImport(
  tx: Bulk,
  actor: Actor,
  id: number,
  choice: ImportChoice,
  wanted: 'good rows' | 'all or none',
  watch: ImportWatch = {},
): Promise<Checked> {
  await requireAdministrator(tx, actor);
  // One import at a time: what one takes over is known to the next.
  await tx.query('set local lock_timeout = 0');
  await tx.query('set local statement_timeout = 0');
  await tx.query("select pg_advisory_xact_lock(hashtext('import'))");
  const loaded = await loadImport(tx, id);
  const { file, csv } = loaded;
  const taking = new Taking(tx, actor, file, csv.rows.length);
  let checked: Checked;
  try {
    checked = await checkFile(tx, loaded, choice, actor.today, {
      ...watch,
      onGood: (rows) => taking.take(rows),
    });
  } finally {
    await taking.settled();
  }
  // What was written of a file that is wanted whole or not at all goes with the transaction.
  if (wanted === 'all or none' && checked.bad.length > 0)
    throw new StoreError({ code: 'rows-bad', count: checked.bad.length });
  watch.signal?.throwIfAborted();
  await taking.end(checked);
  await tx.query(
    `insert into import_mapping (kind, header, mapping) values ($1, $2, $3)
     on conflict (kind, header) do update set mapping = excluded.mapping`,
    [file.kind, headerText(csv.header), JSON.stringify(choice)],
  );
  return checked;
}

/** The rows left out as a file like the one they came from, with the reason in a column of its own. */
export function leftOutAsCsv(header: readonly string[], { bad }: Checked): string {
  return toCsv(
    [...header, 'reason'],
    bad.map(({ cells, reason }) => [...header.map((_, index) => cells[index] ?? ''), reason]),
  );
}
