/** Suspicions as the page of a job shows them: plain data, so that a server can hand them to a browser. */
import {
  leftWords,
  suspectWords,
  workWeighing,
  type SuspectUnits,
  type Suspicion,
} from '@barys/core/suspects';
import { formatFixed } from '@barys/core/text';
import type { Step } from '@barys/core/working';
import { suspectUnitsOf, type Run, type weighRun } from '@barys/store/runs';
import { fittedOf, type CorridorPoint } from '@/ui/corridor-shape';

export interface ShownSuspect {
  readonly suspicion: Suspicion;
  readonly title: string;
  readonly figure: string;
  readonly test: string;
  readonly probability: number;
  readonly left: string;
  readonly fitted: readonly CorridorPoint[];
}

export interface ShownSuspects {
  readonly headline: string;
  readonly isTold: boolean;
  readonly suspects: readonly ShownSuspect[];
  /** How many more were weighed and explain next to nothing. */
  readonly others: number;
  readonly working: readonly Step[];
}

/** A probability that nobody should take for certain. */
export const likelihoodWords = (probability: number): string =>
  probability > 0.995
    ? 'over 99 %'
    : probability < 0.005
      ? 'under 1 %'
      : `${formatFixed(probability * 100, 0)} %`;

/** Below this a suspicion is only counted. */
const WORTH_SHOWING = 0.005;
const MOST_SHOWN = 6;

const list = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} or ${names.at(-1) ?? ''}`;
const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

export const shownSuspects = (run: Run, found: NonNullable<ReturnType<typeof weighRun>>): ShownSuspects =>
  shownOf(found, suspectUnitsOf(run), (errors) => fittedOf(run, errors));

/** @param fitted what errors of a suspicion, per cent of span in the order of the readings, are on the drawing */
export function shownOf(
  { suspected, weighed }: NonNullable<ReturnType<typeof weighRun>>,
  units: SuspectUnits,
  fitted: (errorsPercentSpan: readonly number[]) => readonly CorridorPoint[],
): ShownSuspects {
  const shown = weighed.suspects
    .filter(({ probability }, i) => i < 2 || (i < MOST_SHOWN && probability >= WORTH_SHOWING))
    .map((suspect) => ({
      suspicion: suspect.suspicion,
      ...suspectWords(suspect, suspected, units),
      probability: suspect.probability,
      left: leftWords(suspect),
      fitted: fitted(suspect.errorsPercentSpan),
    }));
  const [first] = shown;
  const rivals = shown
    .filter(({ suspicion }) => weighed.likely.includes(suspicion))
    .slice(0, 3)
    .map(({ title }) => lower(title));
  return {
    headline:
      weighed.told !== null && first !== undefined
        ? 'The readings can tell.'
        : `The readings cannot tell: ${list(rivals)}.`,
    isTold: weighed.told !== null,
    suspects: shown,
    others: weighed.suspects.length - shown.length,
    working: workWeighing(weighed),
  };
}
