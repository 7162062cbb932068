/** CSV as programs write it: any of the usual delimiters, byte-order marks, UTF-8 or Windows-1252. */
import Papa from 'papaparse';
import { StoreError } from '../db/errors';

export interface ParsedCsv {
  readonly encoding: 'UTF-8' | 'UTF-16' | 'Windows-1252';
  readonly delimiter: string;
  readonly header: readonly string[];
  /** Cells by column; `line` is where the row begins in the file, counted from 1. */
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
}

function decode(bytes: Uint8Array): { text: string; encoding: ParsedCsv['encoding'] } {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe)
    return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' };
  if (first === 0xfe && second === 0xff)
    return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    // Bytes that are no UTF-8 come from spreadsheets of the western code page.
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252' };
  }
}

/** A text that was written by `toCsv` comes back as it was. */
const unescaped = (cell: string): string => {
  const plain = cell.trim();
  return plain.startsWith("'") ? plain.replace(/^'(?=[=+\-@\t\r])/, '') : plain;
};

const lineBreaksIn = (text: string): number => (text.match(/\r\n|\n|\r/g) ?? []).length;

/**
 * Reads a file; empty lines are passed over. A file without a header has no columns.
 * @throws StoreError `file-unreadable` where a quote is opened and never closed
 */
export function parseCsv(bytes: Uint8Array): ParsedCsv {
  const { text, encoding } = decode(bytes);
  const plain = text.replace(/^\uFEFF/, '');
  const rows: { line: number; cells: string[] }[] = [];
  let delimiter = ',';
  // A cell may hold line ends, so that rows and lines of the file are not the same.
  let line = 1;
  let from = 0;
  Papa.parse<string[]>(plain, {
    skipEmptyLines: false,
    delimitersToGuess: [';', ',', '\t', '|'],
    step: ({ data, errors, meta }) => {
      ({ delimiter } = meta);
      if (errors.some(({ code }) => code === 'MissingQuotes'))
        throw new StoreError({
          code: 'file-unreadable',
          why: `a quotation mark that is opened in the row of line ${line} is never closed`,
        });
      rows.push({ line, cells: data.map(unescaped) });
      line += lineBreaksIn(plain.slice(from, meta.cursor));
      from = meta.cursor;
    },
  });
  const [header, ...rest] = rows.filter(({ cells }) => cells.some((cell) => cell !== ''));
  return { encoding, delimiter, header: header?.cells ?? [], rows: rest };
}

/** Rows as a file for a spreadsheet. A text that a spreadsheet would take for a formula is led by an apostrophe. */
export function toCsv(header: readonly string[], rows: readonly (readonly unknown[])[]): string {
  return `${Papa.unparse({ fields: [...header], data: rows.map((row) => [...row]) }, { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}
