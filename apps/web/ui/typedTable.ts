/** A table of two columns as people type it, or as a CSV has it. */
const MARKS = [/[;\t]/, /,\s+/, /\s+/, /,/];

/** The lines that hold figures; a first line of words is a heading. A bar parts lines as well, for an address. */
export function linesOfTable(text: string): string[] {
  const lines = text
    .split(/\r?\n|\|/)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  return /^[^\d-]*[a-z]/i.test(lines[0] ?? '') ? lines.slice(1) : lines;
}

/** The cells of a line, parted by ; or a tab, by blanks, or by a comma where there is no other mark. */
export const cellsOfLine = (line: string): readonly string[] =>
  MARKS.map((mark) => line.split(mark).map((cell) => cell.trim())).find((cells) => cells.length > 1) ?? [
    line,
  ];
