/** Instruments as the plant knows them. What is set in one is its configuration, what it is made of its body. */
import { appendAllToTrail, appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { checkInterval } from '../intervals/policy';
import { requireKeeper } from '../people/people';
import { BODY_JSON } from './bodies';
import type { NewConfiguration } from './configuration';
import { addConfiguration, CONFIGURATION_JSON, toVersion } from './configurations';
import { columnsOf, jsonOf, keysOf, rowOf, selectOf } from './fields';
import {
  ALL_INSTRUMENT_FIELDS,
  entryOf,
  flatEntry,
  INSTRUMENT_FIELDS,
  TOLERANCE_FIELDS,
  type Instrument,
  type NewInstrument,
} from './instrument';
import { PROCEDURE_JOIN, PROCEDURE_JSON } from './procedures';

/** Body and procedure are joined, so their numbers are not selected. */
const OWN = Object.keys(INSTRUMENT_FIELDS).filter((key) => key !== 'bodyId' && key !== 'procedureId');

const INSTRUMENT_SQL = `
  select instrument.id, instrument.revision, ${selectOf(INSTRUMENT_FIELDS, OWN)},
    ${jsonOf(TOLERANCE_FIELDS)} as tolerance,
    ${BODY_JSON} as body, ${CONFIGURATION_JSON} as configuration, ${PROCEDURE_JSON} as procedure
  from instrument
    join body on body.id = body_id
    ${PROCEDURE_JOIN}
    join lateral (
      select * from configuration where instrument_id = instrument.id order by version desc limit 1
    ) configuration on true`;

export const toInstrument = (row: Instrument): Instrument => ({
  ...row,
  configuration: toVersion(row.configuration),
});

/** The tag that an instrument has today which had this one before; null where none had. */
export async function tagToday(db: Queryable, formerTag: string): Promise<string | null> {
  const [row] = await db.query<{ tag: string }>(
    `select instrument.tag from instrument_former_tag former join instrument on instrument.id = instrument_id
     where former.tag = upper($1) order by until desc, former.id desc limit 1`,
    [formerTag],
  );
  return row?.tag ?? null;
}

/** @throws StoreError `no-such` */
export async function findInstrument(
  db: Queryable,
  key: { tag: string } | { id: number },
): Promise<Instrument> {
  const [column, value] = 'tag' in key ? ['tag', key.tag] : ['instrument.id', key.id];
  const [row] = await db.query<Instrument>(`${INSTRUMENT_SQL} where ${column} = $1`, [value]);
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'instrument', name: value });
  return toInstrument(row);
}

/** Instruments in service in the order they come due. */
export async function instrumentsDueNext(db: Queryable, limit: number): Promise<Instrument[]> {
  const rows = await db.query<Instrument>(
    `${INSTRUMENT_SQL} where state = 'in service' order by due_on, tag limit $1`,
    [limit],
  );
  return rows.map(toInstrument);
}

/** Several instruments, in the order of the walk. */
export async function instrumentsOf(db: Queryable, ids: readonly number[]): Promise<Instrument[]> {
  const rows = await db.query<Instrument>(
    `${INSTRUMENT_SQL} where instrument.id = any($1) order by area, walk, tag`,
    [ids],
  );
  return rows.map(toInstrument);
}

export interface DueLine {
  readonly tag: string;
  readonly service: string;
  readonly dueOn: string;
}

/** Instruments in service that are due by a date, the first first. */
export function dueBy(db: Queryable, date: string, limit: number): Promise<DueLine[]> {
  return db.query<DueLine>(
    `select tag, service, due_on as "dueOn" from instrument
     where state = 'in service' and due_on <= $1 order by due_on, tag limit $2`,
    [date, limit],
  );
}

const COLUMNS = columnsOf(ALL_INSTRUMENT_FIELDS);
const KEYS = keysOf(ALL_INSTRUMENT_FIELDS);
const ROW = rowOf(ALL_INSTRUMENT_FIELDS);

/** Writes an entry that was checked, and gives its number. */
async function insertInstrument(tx: Queryable, entry: NewInstrument): Promise<number> {
  const [written] = await tx.query<{ id: number }>(
    `insert into instrument (${COLUMNS}) select ${KEYS} from json_to_record($1) as entry (${ROW}) returning id`,
    [JSON.stringify(flatEntry(entry))],
  );
  return written?.id ?? 0;
}

async function requireParts(tx: Queryable, { bodyId, procedureId }: NewInstrument): Promise<void> {
  const [body] = await tx.query('select from body where id = $1', [bodyId]);
  if (body === undefined) throw new StoreError({ code: 'no-such', what: 'body', name: bodyId });
  const [procedure] = await tx.query('select from procedure where id = $1', [procedureId]);
  if (procedure === undefined)
    throw new StoreError({ code: 'no-such', what: 'procedure', name: procedureId });
}

/**
 * Enters an instrument with its first configuration.
 * @throws StoreError `taken`, `no-such` body, `over-cap`, `range-unfit`, `unknown-person`, `not-allowed`
 */
export async function addInstrument(
  tx: Queryable,
  actor: Actor,
  entry: NewInstrument,
  configuration: NewConfiguration,
): Promise<number> {
  await requireKeeper(tx, actor);
  await requireParts(tx, entry);
  await checkInterval(tx, actor, null, entry);
  const id = await refuseTaken({ what: 'instrument', name: entry.tag }, () => insertInstrument(tx, entry));
  await appendToTrail(tx, actor, {
    act: 'add instrument',
    subject: { kind: 'instrument', id },
    detail: { ...entry },
  });
  await addConfiguration(tx, actor, id, configuration);
  return id;
}

/**
 * Changes the register entry of an instrument; its configuration is changed by a new version only.
 * @param revision the one that was being edited
 * @throws StoreError `changed-meanwhile`, `taken`, `no-such`, `over-cap`, `not-entrusted`, `unknown-person`, `not-allowed`
 */
export async function changeInstrument(
  tx: Queryable,
  actor: Actor,
  id: number,
  revision: number,
  entry: NewInstrument,
): Promise<void> {
  await requireKeeper(tx, actor);
  await requireParts(tx, entry);
  const before = await findInstrument(tx, { id });
  await checkInterval(tx, actor, before, entry);
  const changed = await refuseTaken({ what: 'instrument', name: entry.tag }, () =>
    tx.query(
      `update instrument set (${COLUMNS}, revision) =
         (select ${KEYS}, $2::integer + 1 from jsonb_to_record($3::jsonb) as entry (${ROW}))
       where id = $1 and revision = $2 returning id`,
      [id, revision, JSON.stringify(flatEntry(entry))],
    ),
  );
  if (changed.length === 0) throw new StoreError({ code: 'changed-meanwhile', what: before.tag });
  if (before.tag !== entry.tag)
    await tx.query('insert into instrument_former_tag (instrument_id, tag, until) values ($1, $2, $3)', [
      id,
      before.tag,
      actor.at,
    ]);
  const old = entryOf(before);
  const differing = (Object.keys(entry) as (keyof NewInstrument)[]).filter(
    (name) => JSON.stringify(old[name]) !== JSON.stringify(entry[name]),
  );
  await appendToTrail(tx, actor, {
    act: 'change instrument',
    subject: { kind: 'instrument', id },
    detail: Object.fromEntries(differing.map((name) => [name, { before: old[name], after: entry[name] }])),
  });
}

/**
 * Gives several instruments one owner.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function assignOwner(
  tx: Queryable,
  actor: Actor,
  ids: readonly number[],
  owner: string,
): Promise<void> {
  await requireKeeper(tx, actor);
  const changed = await tx.query<{ id: number; before: string }>(
    `update instrument set owner = $2, revision = instrument.revision + 1
     from (select id, owner from instrument where id = any($1) order by id for no key update) old
     where instrument.id = old.id and old.owner <> $2 returning instrument.id, old.owner as before`,
    [ids, owner],
  );
  await appendAllToTrail(
    tx,
    actor,
    changed.map(({ id, before }) => ({
      act: 'change instrument',
      subject: { kind: 'instrument', id },
      detail: { owner: { before, after: owner } },
    })),
  );
}
