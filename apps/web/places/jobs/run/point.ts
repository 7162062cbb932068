/** One point of a run at the desk: what the standard has to show there, and what is typed at it. */
import { isDeviation } from '@barys/core/adjust';
import { atInstrument } from '@barys/core/corrections';
import type { ExtraColumn } from '@barys/store/runs';
import type { Figures } from '@/ui/figures';
import { textOfColumn } from './columns';
import type { Draft } from './keep';
import { slipQuestion } from './slips';
import { numberOr } from './typed';
import type { Entry, More, ShownRun } from './types';

export type Point = ShownRun['madeWith']['points'][number];

/** What the standard has to show for a point: less than the nominal where the instrument sees more. */
export const atStandard = (madeWith: ShownRun['madeWith'], { nominalApplied }: Point): number =>
  atInstrument(nominalApplied, -madeWith.head);

/** What stands at a point as a draft of it. */
export function draftOfEntry(
  madeWith: ShownRun['madeWith'],
  point: Point,
  entry: Entry | undefined,
  figures: Figures,
): Draft {
  const wanted = atStandard(madeWith, point);
  const rounded = numberOr(figures.input(wanted), wanted);
  return {
    output: entry?.outputText ?? '',
    applied: entry !== undefined && entry.applied !== rounded ? entry.appliedText : null,
    more: entry?.more ?? {},
  };
}

/** All that was typed, so that the same entered again is known. */
export const textOfDraft = ({ output, applied, more }: Draft): string =>
  JSON.stringify([output, applied, more]);

const isSame = (a: More, b: More): boolean => JSON.stringify(a) === JSON.stringify(b);

/** A draft as a reading, or null where it says what stands there already. */
export function readingOfDraft(
  madeWith: ShownRun['madeWith'],
  point: Point,
  typed: Draft,
  before: Entry | undefined,
  figures: Figures,
) {
  const appliedText = typed.applied?.trim() ?? figures.input(atStandard(madeWith, point));
  const outputText = typed.output.trim();
  const more = typed.more ?? {};
  const isUnchanged =
    before?.outputText === outputText && before.appliedText === appliedText && isSame(before.more, more);
  if (isUnchanged) return null;
  const appliedAs = typed.applied === null ? ('set' as const) : ('read' as const);
  return { position: point.position, appliedText, appliedAs, outputText, more };
}

/** The first column of a draft that looks like a slip, with the question to ask; null where none does. */
export function slipOfDraft(
  madeWith: ShownRun['madeWith'],
  point: Point,
  typed: Draft,
  entries: ReadonlyMap<number, Entry>,
  figures: Figures,
): { readonly column: ExtraColumn | 'output'; readonly words: string } | null {
  const applied = numberOr(typed.applied, atStandard(madeWith, point));
  for (const column of ['output', ...madeWith.columns] as const) {
    const read = textOfColumn(typed, column);
    const value = numberOr(read, NaN);
    if (Number.isNaN(value)) continue;
    // The few digits of a deviation are those of its meter, not of the output.
    const text = isDeviation(read) ? figures.output(value) : read;
    const words = slipQuestion(madeWith, point, { column, applied, value, text }, entries, figures);
    if (words !== null) return { column, words };
  }
  return null;
}
