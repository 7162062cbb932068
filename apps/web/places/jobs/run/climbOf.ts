import type { JudgedReading } from '@barys/core/run';
import type { ClimbPoint } from './Climb';
import type { Entry, ShownMark, ShownReading, ShownRun } from './types';

/** What is known at the points of a run. */
export interface Known {
  readonly entries: ReadonlyMap<number, Entry>;
  readonly marks: readonly ShownMark[];
  readonly drafts: Readonly<Record<number, { readonly output: string }>>;
  readonly judgedAt: (position: number) => JudgedReading | undefined;
  /** Readings of the run before; none where there is none to stand beside. */
  readonly earlier: readonly ShownReading[];
}

/** One climb of a run as its treads: a second cycle has the treads of the first. */
export function climbOf(
  points: ShownRun['madeWith']['points'],
  cycle: number,
  { entries, marks, drafts, judgedAt, earlier }: Known,
): ClimbPoint[] {
  return points
    .filter((point) => point.cycle === cycle)
    .map((point) => {
      const here = marks.filter(({ position }) => position === point.position);
      return {
        point,
        entry: entries.get(point.position),
        judged: judgedAt(point.position),
        earlierText: earlier.find(({ position }) => position === point.position)?.outputText,
        overshotCount: here.filter(({ kind }) => kind === 'overshot').length,
        words: here.filter(({ kind }) => kind !== 'overshot').map(({ kind, remark }) => `${kind}: ${remark}`),
        hasDraft: (drafts[point.position]?.output ?? '') !== '',
      };
    });
}
