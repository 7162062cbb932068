/** Checks the rows of a file against the registers, in steps, so that a server answers others meanwhile. */
import { setImmediate as others } from 'node:timers/promises';
import type { Answers } from './cells';
import { COLUMNS, type ImportKind, type Mapping } from './columns';
import type { ParsedCsv } from './csv';
import {
  readConfiguration,
  Reader,
  readInstrument,
  readReference,
  readResult,
  type ConfigurationRow,
  type InstrumentRow,
  type Lookups,
  type ReferenceRow,
  type ResultRow,
} from './rows';

export interface RowsOf {
  readonly instruments: InstrumentRow;
  readonly references: ReferenceRow;
  readonly configurations: ConfigurationRow;
  readonly results: ResultRow;
}

export interface BadRow {
  readonly line: number;
  readonly cells: readonly string[];
  readonly reason: string;
}

/** A question about the whole file. */
export type Question =
  | { readonly about: 'dateOrder'; readonly rows: number }
  | {
      readonly about: 'unit';
      readonly unit: string;
      readonly choices: readonly string[];
      readonly rows: number;
    };

export interface Checked {
  /** Lines that can be taken over. */
  readonly good: readonly number[];
  readonly bad: readonly BadRow[];
  /** Lines whose entry is in the register already; they are left alone. */
  readonly known: readonly number[];
  readonly questions: readonly Question[];
}

export interface Progress {
  readonly done: number;
  readonly of: number;
}

const STEP = 100;

/** Good rows that are handed on at once; more a statement would gain nothing and hold more memory. */
const LOT = 2500;

/** Who looks on while rows are checked. */
export interface CheckWatch<K extends ImportKind = ImportKind> {
  readonly onProgress?: (progress: Progress) => void;
  /** Stops the check, which then throws its reason. */
  readonly signal?: AbortSignal;
  /** Has the good rows as they are found, and is waited for. */
  readonly onGood?: (rows: readonly RowsOf[K][]) => Promise<void>;
}

const READ: { readonly [K in ImportKind]: (reader: Reader, lookups: Lookups) => RowsOf[K] | null } = {
  instruments: readInstrument,
  references: (reader) => readReference(reader),
  configurations: readConfiguration,
  results: readResult,
};

/** What makes two rows of one file the same thing; null where rows may repeat it. */
const KEY: { readonly [K in ImportKind]: (entry: RowsOf[K]) => string } = {
  instruments: ({ instrument }) => instrument.tag,
  references: ({ standard, module }) => `${standard.tag} ${module.name}`,
  configurations: ({ tag }) => tag,
  results: ({ tag, doneOn, kind, direction, nominalPercent }) =>
    [tag, doneOn, kind, direction, nominalPercent].join(' '),
};

/**
 * @param isKnown whether an entry is in the register already
 */
export async function checkRows<K extends ImportKind>(
  kind: K,
  csv: ParsedCsv,
  mapping: Mapping,
  answers: Answers,
  lookups: Lookups,
  isKnown: (entry: RowsOf[K], key: string) => boolean,
  { onProgress, signal, onGood }: CheckWatch<K> = {},
): Promise<Checked> {
  const good: number[] = [];
  const lot: RowsOf[K][] = [];
  const handOn = async () => {
    const rows = lot.splice(0);
    await onGood?.(rows);
  };
  const bad: BadRow[] = [];
  const known: number[] = [];
  const seen = new Map<string, number>();
  const dates = { rows: 0 };
  const units = new Map<string, { choices: readonly string[]; rows: number }>();
  const missing = COLUMNS[kind].filter(
    ({ field, isRequired }) => isRequired === true && mapping[field] == null,
  );
  const read: (reader: Reader, lookups: Lookups) => RowsOf[K] | null = READ[kind];
  const keyOf: (entry: RowsOf[K]) => string = KEY[kind];

  for (const [index, { line, cells }] of csv.rows.entries()) {
    if (index % STEP === 0) {
      signal?.throwIfAborted();
      onProgress?.({ done: index, of: csv.rows.length });
      await others();
    }
    const reader = new Reader((field) => cells[mapping[field] ?? -1] ?? '', answers);
    for (const { label } of missing) reader.refuse(`No column is chosen for ${label}.`);
    // A text column of PostgreSQL cannot hold it.
    if (cells.some((cell) => cell.includes('\0')))
      reader.refuse('The row has a character that cannot be kept.');
    const entry = missing.length > 0 ? null : read(reader, lookups);
    const key = entry === null ? '' : keyOf(entry);
    const before = seen.get(key);
    if (entry !== null && before !== undefined) reader.refuse(`The same as line ${before} of this file.`);
    if (entry === null || reader.problems.length > 0) {
      bad.push({ line, cells, reason: reader.problems.map(({ message }) => message).join(' ') });
      for (const { asks } of reader.problems) {
        if (asks === 'dateOrder') dates.rows += 1;
        else if (asks !== undefined) {
          const unit = units.get(asks.unit) ?? { choices: asks.choices, rows: 0 };
          unit.rows += 1;
          units.set(asks.unit, unit);
        }
      }
      continue;
    }
    seen.set(key, line);
    if (isKnown(entry, key)) {
      known.push(line);
      continue;
    }
    good.push(line);
    if (lot.push(entry) === LOT) await handOn();
  }
  if (lot.length > 0) await handOn();
  onProgress?.({ done: csv.rows.length, of: csv.rows.length });
  const questions: Question[] = [...units].map(([unit, { choices, rows }]) => ({
    about: 'unit',
    unit,
    choices,
    rows,
  }));
  if (dates.rows > 0) questions.push({ about: 'dateOrder', rows: dates.rows });
  return { good, bad, known, questions };
}
