/**
 * Verification: seals against their keys and the anchor file, entries against their seals, records against their entries
 * and entries against their records. It stops at the first thing that differs and names it.
 */
import { createHash, verify } from 'node:crypto';
import type { Queryable } from './database';
import { hashOfSeal, sealsAfter, type Anchor, type Seal } from './seals';

/** What is trusted of the installation outside the database. */
export interface Trusted {
  /** Public keys whose seals are believed, as PEM by name. */
  readonly keys: ReadonlyMap<string, string>;
  readonly anchors: readonly Anchor[];
}

export interface Progress {
  readonly what: string;
  readonly done: number;
  readonly of: number;
}

export type Verified =
  | { readonly isSound: true; readonly seals: number; readonly entries: number; readonly records: number }
  | { readonly isSound: false; readonly where: string };

/** The tables whose rows the trail holds, and whether rows are only ever added to them. */
export const KEPT_KINDS = {
  adjustment: true,
  advice: true,
  amendment: true,
  amendment_review: true,
  attachment: true,
  automatic_order: true,
  automatic_run: false,
  bias: true,
  body: false,
  cause: true,
  certificate_result: true,
  configuration: true,
  connection: true,
  finding_decision: true,
  finding_release: true,
  import_file: false,
  installation: false,
  instrument: false,
  instrument_former_tag: true,
  instrument_note: true,
  interval_change: true,
  interval_policy: true,
  job: false,
  job_line: true,
  job_line_tick: true,
  liquid: false,
  loop: true,
  past_result: true,
  person: false,
  person_former_name: true,
  point_mark: true,
  procedure: false,
  procedure_version: true,
  range_plan: true,
  reading: true,
  reference_address: false,
  reference_certificate: true,
  reference_finding: true,
  reference_module: false,
  reference_standard: false,
  run: true,
  run_thrown_away: true,
  setup_reading: true,
  stage_passed: true,
  valve_move: true,
  vessel: true,
} as const;
type KeptKind = keyof typeof KEPT_KINDS;
const KINDS = Object.keys(KEPT_KINDS) as KeptKind[];

// The hashes and what is kept of a row, as in migration 0020: functions in the database could be altered with it.
const ACT_HASH = `sha256(convert_to((jsonb_build_array(id,
    to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US'), person_id, act, subject_kind, subject_id, detail)
  || case when previous_hash is null then jsonb_build_array(xact::text) else '[]' end)::text, 'UTF8')
  || coalesce(previous_hash, ''))`;
const RECORD_HASH = `sha256(convert_to(
  jsonb_build_array(id, xact::text, kind, record_id, change, before, after)::text, 'UTF8'))`;

/** What the trail keeps of a row `r` of a table, as SQL. */
async function recordSql(db: Queryable, kind: KeptKind): Promise<string> {
  const columns = await db.query<{ name: string; type: string }>(
    `select attname as name, format_type(atttypid, null) as type from pg_attribute
     where attrelid = $1::regclass and attnum > 0 and not attisdropped and attgenerated = '' order by attnum`,
    [`public.${kind}`],
  );
  const parts = columns.map(({ name, type }) => {
    if (type === 'bytea') return `'${name}', encode(sha256(r."${name}"), 'hex')`;
    return name === 'password_hash'
      ? `'${name}', encode(sha256(convert_to(r."${name}", 'UTF8')), 'hex')`
      : `'${name}', r."${name}"`;
  });
  return `jsonb_strip_nulls(jsonb_build_object(${parts.join(', ')}))`;
}

/** Thrown inside to leave at the first finding. */
class Finding extends Error {}

const find = (where: string): never => {
  throw new Finding(where);
};

const SEALS_AT_ONCE = 200;
const RECORDS_AT_ONCE = 20_000;

/** Seals as the anchor file says they were; a backup that was restored takes back those after it. */
function checkAnchors(anchors: readonly Anchor[], seals: ReadonlyMap<number, string>): void {
  const wanted = new Map<number, string>();
  for (const anchor of anchors)
    if (anchor.restored) {
      for (const number of [...wanted.keys()]) if (number > anchor.number) wanted.delete(number);
    } else {
      const known = wanted.get(anchor.number);
      if (known !== undefined && known !== anchor.hash)
        find(`seal ${anchor.number}: the anchor file has two of this number`);
      wanted.set(anchor.number, anchor.hash);
    }
  for (const [number, hash] of wanted) {
    const kept = seals.get(number);
    if (kept === undefined) find(`seal ${number}: the anchor file has it and the database does not`);
    if (kept !== hash) find(`seal ${number}: it is not the one that the anchor file has`);
  }
}

interface SealedContent {
  readonly number: number;
  readonly contentHash: Buffer;
  /** An entry that does not give its own hash. */
  readonly altered: number | null;
  readonly count: number;
  readonly wanted: number;
}

/** What the entries of some seals say today. */
const contentsOf = (db: Queryable, from: number, to: number): Promise<SealedContent[]> =>
  db.query<SealedContent>(
    `select number, "contentHash", altered, count::int, wanted::int from seal,
       lateral (
         select sha256(coalesce(string_agg(fresh, '' order by id), '')) as "contentHash",
           min(id) filter (where fresh <> hash) as altered, count(*) as count
         from (
           select id, hash, ${ACT_HASH} as fresh from audit_entry
             where id between lower(entries) and upper(entries) - 1 and entries @> id
           union all
           select id, hash, ${RECORD_HASH} from record_entry
             where id between lower(entries) and upper(entries) - 1 and entries @> id
         ) sealed
       ) found,
       lateral (select sum(upper(part) - lower(part)) as wanted from unnest(entries) as part) sizes
     where number between $1 and $2 order by number`,
    [from, to],
  );

/** What an entry is about, for people. */
async function entryInWords(db: Queryable, id: number): Promise<string> {
  const [record] = await db.query<{ kind: string; recordId: number }>(
    `select kind, record_id as "recordId" from record_entry where id = $1
     union all select subject_kind, subject_id from audit_entry where id = $1`,
    [id],
  );
  return record === undefined ? `entry ${id}` : `entry ${id} (${nameOf(record.kind, record.recordId)})`;
}

const nameOf = (kind: string, id: number): string => `${kind.replaceAll('_', ' ')} ${id}`;

function checkSeal(seal: Seal, before: Buffer, keys: Trusted['keys']): void {
  const name = `seal ${seal.number}`;
  if (!seal.previousHash.equals(before)) find(`${name}: it does not follow the seal before it`);
  if (!hashOfSeal(seal).equals(seal.hash)) find(`${name}: it is altered`);
  const key = keys.get(seal.key);
  if (key === undefined) return find(`${name}: it is signed with a key that this installation does not know`);
  if (!verify(null, seal.hash, key, seal.signature)) find(`${name}: its signature is wrong`);
}

type Tell = (progress: Progress) => void;

/** Seals in their order, each with what it covers. */
async function checkSeals(db: Queryable, trusted: Trusted, since: number, tell: Tell): Promise<number> {
  const hashes = new Map<number, string>();
  const [{ last } = { last: 0 }] = await db.query<{ last: number }>(
    'select coalesce(max(number), 0) as last from seal',
  );
  let before: Buffer = createHash('sha256').digest();
  for (let number = 0; ;) {
    const seals = await sealsAfter(db, number, SEALS_AT_ONCE);
    if (seals.length === 0) break;
    for (const seal of seals) {
      if (seal.number !== number + 1) find(`seal ${number + 1}: it is missing`);
      checkSeal(seal, before, trusted.keys);
      hashes.set(seal.number, seal.hash.toString('hex'));
      number = seal.number;
      before = seal.hash;
    }
    const first = Math.max(seals[0]?.number ?? 1, since + 1);
    if (first <= number)
      for (const content of await contentsOf(db, first, number)) await checkContent(db, content, seals);
    tell({ what: 'seals', done: number, of: last });
  }
  checkAnchors(trusted.anchors, hashes);
  return hashes.size;
}

async function checkContent(db: Queryable, content: SealedContent, seals: readonly Seal[]): Promise<void> {
  if (content.altered !== null) find(`${await entryInWords(db, content.altered)}: it is altered`);
  const seal = seals.find(({ number }) => number === content.number);
  if (seal === undefined) return;
  if (content.count !== content.wanted) {
    const [missing] = await db.query<{ id: number }>(
      `select id from unnest($1::int8multirange) as part, generate_series(lower(part), upper(part) - 1) as one (id)
       where not exists (select from audit_entry where audit_entry.id = one.id)
         and not exists (select from record_entry where record_entry.id = one.id)
       order by id limit 1`,
      [seal.entries],
    );
    find(`entry ${missing?.id ?? '?'}: it is missing from seal ${seal.number}`);
  }
  if (!content.contentHash.equals(seal.contentHash))
    find(`seal ${seal.number}: one of its entries, ${seal.entries}, is not as it was sealed`);
}

/** The numbers of what waits for its seal. */
const UNSEALED = `(select generate_series(lower(r), upper(r) - 1) as entry from unsealed, unnest(entries) r) waiting`;

/** Entries that stand nowhere in a seal and do not wait for one, and entries of records that no act made. */
async function checkEntries(db: Queryable, from: number, isJustMigrated: boolean): Promise<number> {
  const [broken] = await db.query<{ id: number }>(
    `select min(place)::bigint as id from (
       select id, row_number() over (order by id) as place,
         ${ACT_HASH} = hash and previous_hash = coalesce(lag(hash) over (order by id), sha256('')) as sound
       from audit_entry where previous_hash is not null
     ) chain where id <> place or not sound`,
  );
  if (broken?.id != null) find(`entry ${broken.id}: it is missing, altered or out of its place`);
  const [loose] = await db.query<{ id: number }>(
    `select min(id) as id from (select id from audit_entry union all select id from record_entry) entry
     where id >= $1 and not exists (select from ${UNSEALED} where entry = id)
       and not exists (select from seal where entries @> id)`,
    [from],
  );
  if (loose?.id != null) find(`${await entryInWords(db, loose.id)}: no seal covers it`);
  const [stray] = await db.query<{ id: number; change: string }>(
    `select record_entry.id, change from record_entry
     where record_entry.id >= $1 and change <> 'carried' and (
       (kind = any($2) and change <> 'added')
       or not exists (select from audit_entry where audit_entry.xact = record_entry.xact))
     order by record_entry.id limit 1`,
    [from, KINDS.filter((kind) => KEPT_KINDS[kind])],
  );
  if (stray !== undefined) find(`${await entryInWords(db, stray.id)}: ${stray.change} by no act`);
  const [carried] = await db.query<{ id: number }>(
    `select record_entry.id from record_entry where record_entry.id >= $1 and change = 'carried'
       and not exists (select from seal where is_migration and entries @> record_entry.id)
       and not ($2 and exists (select from ${UNSEALED} where entry = record_entry.id))
     order by record_entry.id limit 1`,
    [from, isJustMigrated],
  );
  if (carried !== undefined) find(`${await entryInWords(db, carried.id)}: carried by no migration`);
  const [{ count } = { count: 0 }] = await db.query<{ count: number }>(
    `select (select count(*) from audit_entry where id >= $1) + (select count(*) from record_entry where id >= $1) as count`,
    [from],
  );
  return count;
}

interface Difference {
  readonly id: number;
  readonly said: Record<string, unknown> | null;
  readonly now: Record<string, unknown> | null;
}

function differenceInWords(kind: string, { id, said, now }: Difference): string {
  const name = nameOf(kind, id);
  if (said === null) return `${name}: the trail knows nothing of it`;
  if (now === null) return `${name}: it is gone, and the trail has it`;
  const fields = [...new Set([...Object.keys(said), ...Object.keys(now)])].filter(
    (field) => JSON.stringify(said[field]) !== JSON.stringify(now[field]),
  );
  const cut = (value: unknown) => (value === undefined ? 'nothing' : JSON.stringify(value)).slice(0, 80);
  return `${name}: ${fields.map((field) => `${field} is ${cut(now[field])} where the trail has ${cut(said[field])}`).join('; ')}`;
}

/** Rows of one table against the newest entry of each, both ways. */
async function checkKind(
  db: Queryable,
  kind: KeptKind,
  from: number,
  tell: (done: number) => void,
): Promise<number> {
  const record = await recordSql(db, kind);
  const key = kind === 'installation' ? '1' : 'id';
  // Tables and columns are the schema's; nothing that anybody typed is in the text.
  const touched =
    from > 0
      ? `and exists (select from record_entry since where since.kind = '${kind}'
    and since.record_id = entry.record_id and since.id >= ${from})`
      : '';
  const [{ last } = { last: 0 }] = await db.query<{ last: number }>(
    `select greatest((select coalesce(max(${key}), 0) from ${kind}),
       (select coalesce(max(record_id), 0) from record_entry where kind = '${kind}')) as last`,
  );
  let count = 0;
  for (let low = 1; low <= last; low += RECORDS_AT_ONCE) {
    const high = low + RECORDS_AT_ONCE - 1;
    const found = await db.query<Difference & { count: number }>(
      `with said as (
         select distinct on (record_id) record_id as id, after as said from record_entry entry
         where kind = '${kind}' and record_id between $1 and $2 ${touched} order by record_id, entry.id desc
       ),
       now as (
         select ${key} as id, ${record} as now from ${kind} r where ${key} between $1 and $2
           ${from > 0 ? `and ${key} in (select id from said)` : ''}
       ),
       compared as (select id, said, now from said full join now using (id))
       select (select count(*) from compared)::int as count, different.* from (select 1) one
         left join (select * from compared where said is distinct from now order by id limit 1) different on true`,
      [low, high],
    );
    const [row] = found;
    if (row?.id != null) find(differenceInWords(kind, row));
    count += row?.count ?? 0;
    tell(Math.min(high, last));
  }
  return count;
}

/** The first entry that no seal up to this one covers. */
async function firstEntryAfter(db: Queryable, since: number): Promise<number> {
  const [row] = await db.query<{ first: number }>(
    `select coalesce((select min(lower(entries)) from seal where number > $1),
       (select max(upper(entries)) from seal), 0) as first`,
    [since],
  );
  return row?.first ?? 0;
}

/**
 * Compares the whole database with its trail, the trail with its seals, and the seals with what is outside.
 * @param db one transaction that sees one moment (`repeatable read`); acts go on meanwhile
 * @param since a seal: entries up to it, and records that nobody touched after it, are taken as they were verified then
 * @param isJustMigrated whether what was carried by a migration may still wait for its seal
 */
export async function verifyTrail(
  db: Queryable,
  trusted: Trusted,
  {
    since = 0,
    isJustMigrated = false,
    tell = () => undefined,
  }: { readonly since?: number; readonly isJustMigrated?: boolean; readonly tell?: Tell } = {},
): Promise<Verified> {
  try {
    await db.query(`set local timezone = 'UTC'`);
    // It reads every record there is.
    await db.query('set local statement_timeout = 0');
    await db.query('set local search_path = pg_catalog, public');
    const seals = await checkSeals(db, trusted, since, tell);
    const from = since === 0 ? 0 : await firstEntryAfter(db, since);
    const entries = await checkEntries(db, from, isJustMigrated);
    let records = 0;
    for (const [index, kind] of KINDS.entries()) {
      records += await checkKind(db, kind, from, (done) =>
        tell({ what: `${kind.replaceAll('_', ' ')} to ${done}`, done: index, of: KINDS.length }),
      );
      tell({ what: kind.replaceAll('_', ' '), done: index + 1, of: KINDS.length });
    }
    return { isSound: true, seals, entries, records };
  } catch (error) {
    if (error instanceof Finding) return { isSound: false, where: error.message };
    throw error;
  }
}
