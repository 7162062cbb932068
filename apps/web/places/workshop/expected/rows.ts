/** The rows of the table of expected values, as they are shown and as they leave for a spreadsheet. */
import {
  displayedValue,
  expectedTable,
  inputSpan,
  outputSpan,
  type DisplayScale,
  type SignalRange,
} from '@barys/core/signal';
import { decimalsForResolution, formatFixed, resolutionForSpan } from '@barys/core/text';
import Papa from 'papaparse';

export interface ShownRow {
  readonly inputPercent: string;
  readonly applied: string;
  readonly output: string;
  readonly outputPercent: string;
  readonly display: string;
}

const decimals = (span: number): number => decimalsForResolution(resolutionForSpan(span));

/** How finely a range's input, output and display are shown. */
export function finenessOf(range: SignalRange, display: DisplayScale) {
  const displaySpan = Math.abs(display.high - display.low);
  return {
    input: (value: number) => formatFixed(value, decimals(inputSpan(range))),
    output: (value: number) => formatFixed(value, decimals(outputSpan(range)) + 1),
    display: (value: number) => formatFixed(value, displaySpan === 0 ? 0 : decimals(displaySpan)),
  };
}

/** @throws CoreError as `expectedTable` and `displayedValue` */
export function shownRows(
  range: SignalRange,
  display: DisplayScale,
  stepPercent: number,
  evenIn: 'input' | 'output',
): ShownRow[] {
  const show = finenessOf(range, display);
  return expectedTable(range, stepPercent, evenIn).map((row) => ({
    inputPercent: formatFixed(row.inputPercent, 2),
    applied: show.input(row.applied),
    output: show.output(row.output),
    outputPercent: formatFixed(row.outputPercent, 2),
    display: show.display(displayedValue(range, display, row.output)),
  }));
}

/** A CSV with units in its head line; the minus is the one that spreadsheets read. */
export function csvOf(
  rows: readonly ShownRow[],
  units: { input: string; output: string; display: string },
): string {
  const plain = (text: string) => text.replace('\u2212', '-');
  return Papa.unparse({
    fields: [
      'Input, % of span',
      `Applied, ${units.input}`,
      `Output, ${units.output}`,
      'Output, % of span',
      `Display, ${units.display}`,
    ],
    data: rows.map((row) =>
      [row.inputPercent, row.applied, row.output, row.outputPercent, row.display].map(plain),
    ),
  });
}
