/** Configurations: what is set in an instrument, as versions that are never edited, only superseded. */
import { appendToTrail } from '../db/audit';
import { findBody } from './bodies';
import { rangeMisfit } from './body';
import {
  CONFIGURATION_COLUMNS,
  isSameRange,
  RANGE_QUESTIONS,
  type ConfigurationVersion,
  type NewConfiguration,
  type RangeQuestion,
} from './configuration';
import { columnsOf, jsonOf, keysOf, rowOf } from './fields';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';

/** A version as JSON of PostgreSQL, for queries that join `configuration` and `person`. */
export const CONFIGURATION_JSON = jsonOf({
  version: { column: 'version' },
  ...CONFIGURATION_COLUMNS,
  madeBy: { column: 'name_at(made_by, made_at)' },
  madeAt: { column: 'made_at' },
});

export const toVersion = (row: ConfigurationVersion): ConfigurationVersion => ({
  ...row,
  madeAt: new Date(row.madeAt),
});

/** All versions of an instrument's configuration, the newest first. */
export async function configurationsOf(db: Queryable, instrumentId: number): Promise<ConfigurationVersion[]> {
  const rows = await db.query<{ configuration: ConfigurationVersion }>(
    `select ${CONFIGURATION_JSON} as configuration from configuration
     where instrument_id = $1 order by version desc`,
    [instrumentId],
  );
  return rows.map(({ configuration }) => toVersion(configuration));
}

/** The same of several instruments, by their numbers. */
export async function configurationsOfAll(
  db: Queryable,
  instrumentIds: readonly number[],
): Promise<ReadonlyMap<number, ConfigurationVersion[]>> {
  const rows = await db.query<{ id: number; versions: ConfigurationVersion[] }>(
    `select instrument_id as id, json_agg(${CONFIGURATION_JSON} order by version desc) as versions
     from configuration where instrument_id = any($1) group by instrument_id`,
    [instrumentIds],
  );
  return new Map(rows.map(({ id, versions }) => [id, versions.map(toVersion)]));
}

/**
 * Makes an instrument due at once, where it is not yet.
 * @returns before and after, or null where it was due already
 */
async function makeDue(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
): Promise<{ readonly before: string; readonly after: string } | null> {
  const [moved] = await tx.query<{ before: string }>(
    `update instrument set due_on = $2, revision = instrument.revision + 1
     from (select id, due_on from instrument where id = $1) old
     where instrument.id = old.id and old.due_on > $2 returning old.due_on as before`,
    [instrumentId, actor.today],
  );
  return moved === undefined ? null : { before: moved.before, after: actor.today };
}

/**
 * Puts a new version of the configuration in force. Another range was never calibrated: the instrument is due at once.
 * @param given answers to what a changed range asks; null where nobody is there to be asked, as in an import
 * @throws StoreError `range-unfit`, `range-questions`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function addConfiguration(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
  { reason, ...entry }: NewConfiguration,
  given: Readonly<Partial<Record<RangeQuestion, string>>> | null = null,
): Promise<void> {
  await requireKeeper(tx, actor);
  const [instrument] = await tx.query<{ bodyId: number }>(
    // One version after the other, also where two people configure at once.
    'select body_id as "bodyId" from instrument where id = $1 for no key update',
    [instrumentId],
  );
  if (instrument === undefined)
    throw new StoreError({ code: 'no-such', what: 'instrument', name: instrumentId });
  const body = await findBody(tx, instrument.bodyId);
  const why = rangeMisfit(body, entry.inputUnit, entry.lrv, entry.urv);
  if (why !== null) throw new StoreError({ code: 'range-unfit', why });
  if (!body.outputs.includes(entry.signal))
    throw new StoreError({ code: 'range-unfit', why: `The body ${body.model} does not have this output.` });
  const [before] = await configurationsOf(tx, instrumentId);
  const isMoved = before !== undefined && !isSameRange(before, { ...before, ...entry });
  const answers = Object.fromEntries(
    (Object.keys(RANGE_QUESTIONS) as RangeQuestion[]).map((key) => [key, given?.[key]?.trim() ?? '']),
  );
  const open = Object.entries(RANGE_QUESTIONS).filter(([key]) => answers[key] === '');
  if (isMoved && given !== null && open.length > 0)
    throw new StoreError({ code: 'range-questions', open: open.map(([, text]) => text) });
  const [row] = await tx.query<{ version: number }>(
    `insert into configuration (instrument_id, version, ${columnsOf(CONFIGURATION_COLUMNS)}, made_by, made_at)
     select $1::bigint, (select coalesce(max(version), 0) + 1 from configuration where instrument_id = $1),
       ${keysOf(CONFIGURATION_COLUMNS)}, $3::bigint, $4::timestamptz
     from jsonb_to_record($2::jsonb) as entry (${rowOf(CONFIGURATION_COLUMNS)}) returning version`,
    [instrumentId, JSON.stringify({ ...entry, reason }), actor.personId, actor.at],
  );
  const due = isMoved ? await makeDue(tx, actor, instrumentId) : null;
  await appendToTrail(tx, actor, {
    act: 'configure instrument',
    subject: { kind: 'instrument', id: instrumentId },
    detail: {
      version: row?.version,
      ...entry,
      reason,
      ...(isMoved && given !== null ? { answers } : {}),
      ...(due === null ? {} : { due }),
    },
  });
}
