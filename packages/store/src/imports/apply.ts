/** Writes checked rows, many at a time, all in the caller's transaction. */
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import type { Actor } from '../people/actor';
import { CONFIGURATION_COLUMNS, RANGE_PARTS, SETTING_KEYS } from '../registers/configuration';
import { columnsOf, keysOf, rowOf } from '../registers/fields';
import { insertInstruments } from '../registers/instruments';
import { addCertificate } from '../registers/certificates';
import { addStandard, findStandard, keepModule } from '../registers/references';
import { StoreError } from '../db/errors';
import { keepPastResults } from '../results/past';
import type { Checked, RowsOf } from './check';
import type { ImportKind } from './columns';

/** Rows a statement; larger ones gain nothing and hold more memory. */
const BATCH = 5000;

function* batches<T>(rows: readonly T[]): Generator<readonly T[]> {
  for (let from = 0; from < rows.length; from += BATCH) yield rows.slice(from, from + BATCH);
}

const RANGE_ROW = rowOf(CONFIGURATION_COLUMNS);
const RANGE_COLUMNS = columnsOf(CONFIGURATION_COLUMNS);
const RANGE_VALUES = keysOf(CONFIGURATION_COLUMNS);

async function addInstruments(
  tx: Queryable,
  actor: Actor,
  rows: readonly RowsOf['instruments'][],
): Promise<void> {
  for (const batch of batches(rows)) {
    await insertInstruments(
      tx,
      batch.map(({ instrument }) => instrument),
    );
    await tx.query(
      `insert into configuration (instrument_id, version, ${RANGE_COLUMNS}, made_by, made_at)
       select instrument.id, 1, ${RANGE_VALUES}, $2, $3
       from jsonb_to_recordset($1::jsonb) as entry (tag text, ${RANGE_ROW}) join instrument using (tag)`,
      [
        JSON.stringify(batch.map(({ instrument: { tag }, configuration }) => ({ tag, ...configuration }))),
        actor.personId,
        actor.at,
      ],
    );
  }
}

/** A range from a file, with the settings of the version before where the file leaves them as they are. */
const RANGE_WITH_SETTINGS = Object.entries(CONFIGURATION_COLUMNS)
  .map(([key, { column }]) =>
    (SETTING_KEYS as readonly string[]).includes(key)
      ? `case when entry.kept ? '${key}' then before.${column} else entry."${key}" end`
      : `entry."${key}"`,
  )
  .join(', ');

const RANGE_OF = (version: string): string =>
  `(${RANGE_PARTS.map((part) => `${version}.${CONFIGURATION_COLUMNS[part].column}`).join(', ')})`;

/** @returns the tags of those that are due at once, since they were never calibrated in their new range */
async function insertConfigurations(
  tx: Queryable,
  actor: Actor,
  rows: readonly RowsOf['configurations'][],
): Promise<string[]> {
  const due: string[] = [];
  for (const batch of batches(rows)) {
    await tx.query(
      `insert into configuration (instrument_id, version, ${RANGE_COLUMNS}, made_by, made_at)
       select entry."instrumentId", before.version + 1, ${RANGE_WITH_SETTINGS}, $2, $3
       from jsonb_to_recordset($1::jsonb) as entry ("instrumentId" bigint, kept jsonb, ${RANGE_ROW})
         join lateral (
           select * from configuration where instrument_id = entry."instrumentId" order by version desc limit 1
         ) before on true`,
      [
        JSON.stringify(
          batch.map(({ instrumentId, configuration, kept }) => ({ instrumentId, kept, ...configuration })),
        ),
        actor.personId,
        actor.at,
      ],
    );
    const moved = await tx.query<{ tag: string }>(
      `update instrument set due_on = $2, revision = revision + 1
       from configuration newest
         join configuration before on before.instrument_id = newest.instrument_id
           and before.version = newest.version - 1
       where instrument.id = any ($1) and due_on > $2 and newest.instrument_id = instrument.id
         and newest.version = (select max(version) from configuration where instrument_id = instrument.id)
         and ${RANGE_OF('newest')} is distinct from ${RANGE_OF('before')}
       returning tag`,
      [batch.map(({ instrumentId }) => instrumentId), actor.today],
    );
    due.push(...moved.map(({ tag }) => tag));
  }
  return due;
}

async function insertResults(
  tx: Queryable,
  importId: number,
  rows: readonly RowsOf['results'][],
): Promise<void> {
  for (const batch of batches(rows))
    await tx.query(
      `insert into past_result (instrument_id, done_on, kind, direction, nominal_percent, applied, output, done_by,
         certificate, standard, import_id)
       select "instrumentId", "doneOn", kind, direction, "nominalPercent", applied, output, "doneBy", certificate,
         standard, $2
       from jsonb_to_recordset($1::jsonb) as entry ("instrumentId" bigint, "doneOn" date, kind text, direction text,
         "nominalPercent" numeric, applied numeric, output numeric, "doneBy" text, certificate text, standard text)
       on conflict do nothing`,
      [JSON.stringify(batch), importId],
    );
}

/** References are few, so each goes the way that a person's entry goes. */
async function insertReferences(
  tx: Queryable,
  actor: Actor,
  rows: readonly RowsOf['references'][],
): Promise<void> {
  for (const { standard, module, certificate } of rows) {
    const there = await findStandard(tx, standard.tag).catch((error: unknown) => {
      if (error instanceof StoreError) return null;
      throw error;
    });
    const id = there?.id ?? (await addStandard(tx, actor, standard));
    await keepModule(tx, actor, id, null, module);
    const isNew =
      certificate !== null && !there?.certificates.some(({ number }) => number === certificate.number);
    if (isNew) await addCertificate(tx, actor, id, certificate, null);
  }
}

/** Writes the good rows and one entry of the trail for the whole import. */
export async function applyRows(
  tx: Queryable,
  actor: Actor,
  { id, kind, name, sha256 }: { id: number; kind: ImportKind; name: string; sha256: string },
  checked: Checked,
): Promise<void> {
  const rows = checked.good.map(({ entry }) => entry);
  let due: string[] = [];
  switch (kind) {
    case 'instruments':
      await addInstruments(tx, actor, rows as RowsOf['instruments'][]);
      break;
    case 'configurations':
      due = await insertConfigurations(tx, actor, rows as RowsOf['configurations'][]);
      break;
    case 'results':
      await insertResults(tx, id, rows as RowsOf['results'][]);
      await keepPastResults(tx, [
        ...new Set((rows as RowsOf['results'][]).map(({ instrumentId }) => instrumentId)),
      ]);
      break;
    case 'references':
      await insertReferences(tx, actor, rows as RowsOf['references'][]);
      break;
  }
  await tx.query('update import_file set imported_at = $2 where id = $1', [id, actor.at]);
  await appendToTrail(tx, actor, {
    act: 'import file',
    subject: { kind: 'import', id },
    detail: {
      kind,
      name,
      sha256,
      rows: rows.length,
      leftOut: checked.bad.length,
      knownBefore: checked.known.length,
      ...(due.length === 0 ? {} : { due: { on: actor.today, tags: due.sort() } }),
    },
  });
}
