/** What stands at the points of a run, as the server said and as it is on its way. */
import { parseOutput } from '@barys/core/adjust';
import { parseTyped } from '@barys/core/text';
import { pointWords } from '@/ui/figures';
import type { Waiting, WaitingMark, WaitingReading } from './keep';
import type { SenderEvent } from './sender';
import type { Entry, ShownMark, ShownReading, ShownRun } from './types';

interface Saved extends Entry {
  readonly id: number;
}

const toEntry = ({ position, appliedText, outputText, more }: WaitingReading): Entry => ({
  position,
  appliedText,
  outputText,
  more,
  applied: parseTyped(appliedText).value,
  output: parseOutput(outputText).value,
  isSaved: false,
});

const toMark = ({ position, mark, appliedText, outputText, remark }: WaitingMark): ShownMark => ({
  position,
  kind: mark,
  appliedText,
  outputText,
  remark,
});

function lastClock({ readings }: ShownRun): string | null {
  return [...readings].sort((a, b) => a.id - b.id).at(-1)?.savedClock ?? null;
}

/** What was not kept, and at which points; null where all is. */
function refusalInWords({ madeWith }: ShownRun, refused: ReadonlyMap<number, string>): string | null {
  const said = [...refused].map(([position, why]) => {
    const point = madeWith.points.find((one) => one.position === position);
    return `Not kept at ${point === undefined ? `point ${position}` : pointWords(point)}: ${why}`;
  });
  return said.length === 0 ? null : said.join(' ');
}

/** What the server has, and what it last said. */
export interface Standing {
  readonly saved: ReadonlyMap<number, Saved>;
  readonly marks: readonly ShownMark[];
  /** When the last reading was saved, by the server's clock. */
  readonly savedClock: string | null;
  /** Why readings wait. */
  readonly problem: string | null;
  /** What the server will never have stands aside, named by its point, while the others go on. */
  readonly refused: ReadonlyMap<number, string>;
}

export const standingOf = (run: ShownRun): Standing => ({
  saved: new Map(run.readings.map((reading) => [reading.position, { ...reading, isSaved: true }])),
  marks: run.marks,
  savedClock: lastClock(run),
  problem: null,
  refused: new Map(),
});

/** Readings that somebody else keeps meanwhile: a link. */
export interface Others {
  readonly kind: 'others';
  readonly readings: readonly ShownReading[];
}

/** What stands once readings of others are known; what is known already, or newer, stays. */
function withOthers(standing: Standing, { readings }: Others): Standing {
  const news = readings.filter(({ position, id }) => id > (standing.saved.get(position)?.id ?? 0));
  const last = news.reduce<ShownReading | null>((a, b) => (a === null || b.id > a.id ? b : a), null);
  if (last === null) return standing;
  return {
    ...standing,
    saved: new Map([
      ...standing.saved,
      ...news.map((reading) => [reading.position, { ...reading, isSaved: true }] as const),
    ]),
    savedClock: last.savedClock,
  };
}

/** What stands after the server has said something. */
export function heard(standing: Standing, event: SenderEvent | Others): Standing {
  if (event.kind === 'others') return withOthers(standing, event);
  if (event.kind === 'later') return { ...standing, problem: event.why };
  const { sent } = event;
  if (event.kind === 'refused')
    return { ...standing, problem: null, refused: new Map(standing.refused).set(sent.position, event.why) };
  return {
    saved:
      sent.kind === 'mark'
        ? standing.saved
        : new Map(standing.saved).set(sent.position, { ...toEntry(sent), isSaved: true, id: event.id }),
    marks: sent.kind === 'mark' ? [...standing.marks, toMark(sent)] : standing.marks,
    savedClock: event.savedClock,
    problem: null,
    refused: new Map([...standing.refused].filter(([position]) => position !== sent.position)),
  };
}

/** What stands at each point, saved or on its way, by position. */
export function entriesOf({ saved }: Standing, waiting: readonly Waiting[]): ReadonlyMap<number, Entry> {
  const all = new Map<number, Entry>(saved);
  for (const one of waiting) if (one.kind === 'reading') all.set(one.position, toEntry(one));
  return all;
}

export const marksOf = ({ marks }: Standing, waiting: readonly Waiting[]): readonly ShownMark[] => [
  ...marks,
  ...waiting.flatMap((one) => (one.kind === 'mark' ? [toMark(one)] : [])),
];

/** Why readings wait, or which were refused, in words. */
export const problemOf = (run: ShownRun, { problem, refused }: Standing): string | null =>
  problem ?? refusalInWords(run, refused);
