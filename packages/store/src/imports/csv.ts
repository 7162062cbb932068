/** CSV as programs write it: any of the usual delimiters, byte-order marks, UTF-8 or Windows-1252. */
import Papa from 'papaparse';

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
const unescaped = (cell: string): string => cell.trim().replace(/^'(?=[=+\-@\t\r])/, '');

/** Reads a file; empty lines are passed over. A file without a header has no columns. */
export function parseCsv(bytes: Uint8Array): ParsedCsv {
  const { text, encoding } = decode(bytes);
  const { data, meta } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: false,
    delimitersToGuess: [';', ',', '\t', '|'],
  });
  const rows = data
    .map((cells, index) => ({ line: index + 1, cells: cells.map(unescaped) }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''));
  const [header, ...rest] = rows;
  return { encoding, delimiter: meta.delimiter, header: header?.cells ?? [], rows: rest };
}

/** Rows as a file for a spreadsheet. A text that a spreadsheet would take for a formula is led by an apostrophe. */
export function toCsv(header: readonly string[], rows: readonly (readonly unknown[])[]): string {
  return `${Papa.unparse({ fields: [...header], data: rows.map((row) => [...row]) }, { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}
