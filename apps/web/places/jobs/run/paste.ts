/** A column copied from a spreadsheet: one reading a line, or applied and reading. */
import { CoreError } from '@barys/core/errors';
import { parseTyped } from '@barys/core/text';

export interface PastedLine {
  readonly applied: string | null;
  readonly output: string;
}

/**
 * @returns the lines, or in words which line is wrong; nothing is taken then
 */
export function parseColumn(text: string, room: number): readonly PastedLine[] | string {
  const lines = text.trim().split(/\r?\n/);
  if (lines.length > room)
    return `${lines.length} lines were pasted, but only ${room} points follow from here. Nothing was entered.`;
  const parsed: PastedLine[] = [];
  for (const [index, line] of lines.entries()) {
    const cells = line.split('\t').map((cell) => cell.trim());
    const [first = '', second] = cells;
    try {
      if (cells.length > 2) throw new CoreError({ code: 'not-a-number', text: line });
      for (const cell of cells) parseTyped(cell);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      return `Line ${index + 1}: ${error.message} Nothing was entered.`;
    }
    parsed.push(second === undefined ? { applied: null, output: first } : { applied: first, output: second });
  }
  return parsed;
}
