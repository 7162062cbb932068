/** Writes checked rows, many at a time, all in the caller's transaction. */
import { appendToTrail } from '../db/audit';
import type { Bulk, Queryable } from '../db/database';
import type { Actor } from '../people/actor';
import { CONFIGURATION_COLUMNS, RANGE_PARTS, SETTING_KEYS } from '../registers/configuration';
import { columnsOf, copyOf, rowOf } from '../registers/fields';
import { INSTRUMENT_FIELDS, TOLERANCE_FIELDS } from '../registers/instrument';
import { addCertificate } from '../registers/certificates';
import { addStandard, findStandard, keepModule } from '../registers/references';
import { StoreError } from '../db/errors';
import { keepPastResults } from '../results/past';
import type { Checked, RowsOf } from './check';
import type { ImportKind } from './columns';

const RANGE_ROW = rowOf(CONFIGURATION_COLUMNS);
const RANGE_COLUMNS = columnsOf(CONFIGURATION_COLUMNS);

const INSTRUMENT_COPY = `copy instrument (id, ${columnsOf(INSTRUMENT_FIELDS)}, ${columnsOf(TOLERANCE_FIELDS)}) from stdin`;
const RANGE_COPY = `copy configuration (instrument_id, version, ${RANGE_COLUMNS}, made_by, made_at) from stdin`;
const instrumentLine = copyOf(INSTRUMENT_FIELDS);
const toleranceLine = copyOf(TOLERANCE_FIELDS);
const rangeLine = copyOf(CONFIGURATION_COLUMNS);

/** Lines that are made at once: some on their way while the next ones are made. */
const LINES = 500;

function* linesOf<R>(rows: readonly R[], line: (row: R, index: number) => string): Iterable<string> {
  let lines = '';
  for (const [index, row] of rows.entries()) {
    lines += `${line(row, index)}\n`;
    if ((index + 1) % LINES > 0 && index + 1 < rows.length) continue;
    yield lines;
    lines = '';
  }
}

/** @param ids a number for each row */
async function insertInstruments(
  tx: Bulk,
  actor: Actor,
  ids: readonly string[],
  rows: readonly RowsOf['instruments'][],
): Promise<void> {
  await tx.copy(
    INSTRUMENT_COPY,
    linesOf(
      rows,
      ({ instrument }, index) =>
        `${ids[index]}\t${instrumentLine(instrument)}\t${toleranceLine(instrument.tolerance)}`,
    ),
  );
  const made = `${actor.personId}\t${actor.at.toISOString()}`;
  await tx.copy(
    RANGE_COPY,
    linesOf(rows, ({ configuration }, index) => `${ids[index]}\t1\t${rangeLine(configuration)}\t${made}`),
  );
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
  await tx.query(
    `insert into configuration (instrument_id, version, ${RANGE_COLUMNS}, made_by, made_at)
     select entry."instrumentId", before.version + 1, ${RANGE_WITH_SETTINGS}, $2, $3
     from jsonb_to_recordset($1::jsonb) as entry ("instrumentId" bigint, kept jsonb, ${RANGE_ROW})
       join lateral (
         select * from configuration where instrument_id = entry."instrumentId" order by version desc limit 1
       ) before on true`,
    [
      JSON.stringify(
        rows.map(({ instrumentId, configuration, kept }) => ({ instrumentId, kept, ...configuration })),
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
    [rows.map(({ instrumentId }) => instrumentId), actor.today],
  );
  return moved.map(({ tag }) => tag);
}

async function insertResults(
  tx: Queryable,
  importId: number,
  rows: readonly RowsOf['results'][],
): Promise<void> {
  await tx.query(
    `insert into past_result (instrument_id, done_on, kind, direction, nominal_percent, applied, output, done_by,
       certificate, standard, import_id)
     select "instrumentId", "doneOn", kind, direction, "nominalPercent", applied, output, "doneBy", certificate,
       standard, $2
     from jsonb_to_recordset($1::jsonb) as entry ("instrumentId" bigint, "doneOn" date, kind text, direction text,
       "nominalPercent" numeric, applied numeric, output numeric, "doneBy" text, certificate text, standard text)
     on conflict do nothing`,
    [JSON.stringify(rows), importId],
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

interface Imported {
  readonly id: number;
  readonly kind: ImportKind;
  readonly name: string;
  readonly sha256: string;
}

/** Takes good rows over as they are found, all in the caller's transaction: one core checks while another writes. */
export class Taking {
  private readonly due: string[] = [];
  private readonly touched = new Set<number>();
  private writing: Promise<void> = Promise.resolve();
  private ids: string[] | null = null;

  /** @param most how many rows there can be */
  constructor(
    private readonly tx: Bulk,
    private readonly actor: Actor,
    private readonly file: Imported,
    private readonly most: number,
  ) {}

  /**
   * Begins to write rows; first it waits for those of before, so that memory holds no more than two lots of them.
   * @throws whatever the rows of before could not be written for
   */
  async take(rows: readonly RowsOf[ImportKind][]): Promise<void> {
    await this.writing;
    this.writing = this.write(rows);
    // Heard by whoever waits next; until then nobody does.
    this.writing.catch(() => undefined);
  }

  private async write(rows: readonly RowsOf[ImportKind][]): Promise<void> {
    const { tx, actor, file } = this;
    switch (file.kind) {
      case 'instruments':
        this.ids ??= await this.takeIds();
        return insertInstruments(tx, actor, this.ids.splice(0, rows.length), rows as RowsOf['instruments'][]);
      case 'configurations':
        this.due.push(...(await insertConfigurations(tx, actor, rows as RowsOf['configurations'][])));
        return;
      case 'results':
        for (const { instrumentId } of rows as RowsOf['results'][]) this.touched.add(instrumentId);
        return insertResults(tx, file.id, rows as RowsOf['results'][]);
      case 'references':
        return insertReferences(tx, actor, rows as RowsOf['references'][]);
    }
  }

  /** Numbers for as many instruments as there can be, at once: each question would wait for rows that are being checked. */
  private async takeIds(): Promise<string[]> {
    const [row] = await this.tx.query<{ ids: string }>(
      `select string_agg(nextval('instrument_id_seq')::text, ' ') as ids from generate_series(1, $1)`,
      [this.most],
    );
    return row?.ids.split(' ') ?? [];
  }

  /**
   * Waits until nothing is under way, whatever came of it: what a lot has still to write would else come after the end of
   * its transaction, and stay.
   */
  async settled(): Promise<void> {
    await this.writing.catch(() => undefined);
  }

  /** Waits for all rows, and writes one entry of the trail for the whole import. */
  async end(checked: Checked): Promise<void> {
    await this.writing;
    const { tx, actor, file, due } = this;
    if (this.touched.size > 0) await keepPastResults(tx, [...this.touched]);
    await tx.query('update import_file set imported_at = $2 where id = $1', [file.id, actor.at]);
    await appendToTrail(tx, actor, {
      act: 'import file',
      subject: { kind: 'import', id: file.id },
      detail: {
        kind: file.kind,
        name: file.name,
        sha256: file.sha256,
        rows: checked.good.length,
        leftOut: checked.bad.length,
        knownBefore: checked.known.length,
        ...(due.length === 0 ? {} : { due: { on: actor.today, tags: due.sort() } }),
      },
    });
  }
}
