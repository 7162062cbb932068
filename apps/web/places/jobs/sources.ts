/** Where the readings of a run come from, in words for its record. */
import type { Reading, Run } from '@barys/store/runs';

const list = (positions: readonly number[]): string =>
  `${positions.length === 1 ? 'point' : 'points'} ${positions.join(', ')}`;

/** One line for each link with what it read by; none of a run that was typed. */
export function linkWords({ readings }: Pick<Run, 'readings'>): string[] {
  const byLink = new Map<string, number[]>();
  for (const { position, source } of readings) {
    if (source === null) continue;
    const devices = [source.reference, source.output, source.digital].filter((one) => one !== null);
    const key = `${source.link} (${devices.join(', ')})`;
    byLink.set(key, [...(byLink.get(key) ?? []), position]);
  }
  const typed = readings.filter(({ source }) => source === null).map(({ position }) => position);
  const lines = [...byLink].map(([link, positions]) => `Read over a link, ${link}: ${list(positions)}.`);
  return lines.length === 0 || typed.length === 0 ? lines : [...lines, `Typed: ${list(typed)}.`];
}

/** What came over the wire for one reading; empty of one that was typed. */
export const rawWords = ({ source }: Pick<Reading, 'source'>): string =>
  source === null
    ? ''
    : [source.raw.applied, source.raw.output, source.raw.digital].filter(Boolean).join(', ');
