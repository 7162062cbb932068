/** What was measured, as one table at the end. */

/** Middle and 95th percentile of times, ms; one figure where it was measured a few times only. */
export interface Times {
  readonly p50: number;
  readonly p95?: number;
}

interface Line {
  readonly group: string;
  readonly name: string;
  readonly times: Times;
  readonly least: Times;
}

const lines: Line[] = [];
const remarks: string[] = [];

/** The value that a share of them stays below. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;
}

export const timesOf = (values: readonly number[]): Times => ({
  p50: quantile(values, 0.5),
  p95: quantile(values, 0.95),
});

/** The first is the least that the work can take; the others are shown as multiples of it. */
export function measured(
  group: string,
  contestants: readonly (readonly [name: string, times: Times])[],
): void {
  const [[, least] = ['', { p50: 0 }]] = contestants;
  for (const [name, times] of contestants) lines.push({ group, name, times, least });
  console.log(`measured: ${group}`);
}

/** Something that is counted and not timed. */
export function remark(words: string): void {
  remarks.push(words);
  console.log(words);
}

const shown = (ms: number): string => (ms >= 1000 ? `${(ms / 1000).toFixed(2)} s` : `${ms.toFixed(2)} ms`);

function cell(ms: number | undefined, least: number | undefined, isLeast: boolean): string {
  if (ms === undefined) return '';
  if (isLeast || least === undefined) return shown(ms);
  const times = ms / least;
  return `${shown(ms)}, ${times.toFixed(times < 100 ? 1 : 0)} times`;
}

export function printTable(): void {
  const rows = lines.map(({ group, name, times, least }, index) => [
    lines[index - 1]?.group === group ? '' : group,
    name,
    cell(times.p50, least.p50, times === least),
    cell(times.p95, least.p95, times === least),
  ]);
  const all = [['', '', 'p50', 'p95'], ...rows];
  const widths = [0, 1, 2, 3].map((column) => Math.max(...all.map((row) => row[column]?.length ?? 0)));
  const line = (row: readonly string[]) =>
    `| ${row.map((text, column) => text.padEnd(widths[column] ?? 0)).join(' | ')} |`;
  console.log(`\n${line(all[0] ?? [])}\n${line(widths.map((width) => '-'.repeat(width)))}`);
  for (const row of rows) console.log(line(row));
  for (const words of remarks) console.log(`\n${words}`);
}
