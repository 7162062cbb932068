/** A loop check as a page shows it: plain data, so that a server can hand it to a browser. */
import { formatFixed, formatSigned } from '@barys/core/text';
import type { Verdict } from '@barys/core/run';
import { checkLoop, weighSegment, type CheckedTap, type LoopCheck, type Run } from '@barys/store/runs';
import { corridorOfPoints, type CorridorShape } from '@/ui/corridor-shape';
import { shownOf, type ShownSuspects } from '../suspects/shown';

export interface ShownSegment {
  /** `R 250 Ω by itself, from what FT-1305 put out`. */
  readonly title: string;
  readonly shape: CorridorShape;
  readonly suspects: ShownSuspects | null;
}

export interface ShownTap {
  readonly place: number;
  readonly name: string;
  readonly unit: string;
  readonly verdict: Verdict | null;
  readonly worst: string;
  /** By itself; null of the instrument. */
  readonly own: Verdict | null;
  readonly segment: ShownSegment | null;
}

export interface ShownLoop {
  readonly verdict: Verdict | null;
  readonly headline: string;
  /** Place of the item that is likely wrong; null where none is, or it cannot be told. */
  readonly suspect: number | null;
  readonly version: number;
  readonly judgedBy: string;
  readonly taps: readonly ShownTap[];
  readonly warnings: readonly string[];
}

/** From here on one item is called the likely one. */
const LIKELY = 0.6;

function shownSegment({ name, segment, unit }: CheckedTap, taps: readonly CheckedTap[]): ShownSegment | null {
  if (segment === null) return null;
  const { lrv, urv } = segment.range;
  const { shape, fitted } = corridorOfPoints(
    segment.points.map(({ applied, direction, errorPercent, limitPercent }) => ({
      xPercent: ((applied - lrv) / (urv - lrv)) * 100,
      direction,
      errorPercent,
      limitPercent,
    })),
  );
  const weighed = weighSegment(segment);
  return {
    title: `${name} by itself, from what ${segment.fromName} showed`,
    shape,
    suspects:
      weighed === null || segment.suspected === null
        ? null
        : shownOf(
            { suspected: segment.suspected, weighed },
            { input: taps.find(({ place }) => place === segment.from)?.unit ?? '', output: unit },
            fitted,
          ),
  };
}

function headlineOf({ diagnosis, content }: LoopCheck): { headline: string; suspect: number | null } {
  const [best, next] = diagnosis?.suspicions ?? [];
  const name = (place: number | null) => (place === null ? 'nothing' : (content.items[place]?.name ?? ''));
  if (best === undefined)
    return { headline: 'Nothing was read that would say which item is wrong.', suspect: null };
  const sure = `${formatFixed(Math.min(best.probability, 0.99) * 100, 0)} %`;
  if (best.probability < LIKELY)
    return { headline: `Cannot tell yet: ${name(best.item)} or ${name(next?.item ?? null)}.`, suspect: null };
  if (best.item === null)
    return { headline: `No item is out of its own tolerance, ${sure} sure.`, suspect: null };
  const off =
    best.offPercent === null ? '' : `, by ${formatSigned(best.offPercent, 2)} % of its span in the middle`;
  return { headline: `${name(best.item)} is likely wrong${off}; ${sure} sure.`, suspect: best.item };
}

/**
 * What a run says of its loop; null of one that checks none.
 * @param hasSegments whether what is behind each item is weighed as well, which takes its time
 */
export function shownLoop(run: Run, hasSegments: boolean): ShownLoop | null {
  const check = checkLoop(run);
  if (check === null) return null;
  return {
    verdict: check.verdict,
    ...headlineOf(check),
    version: check.version,
    judgedBy: check.content.judgedBy,
    taps: check.taps.map((tap) => ({
      place: tap.place,
      name: tap.name,
      unit: tap.unit,
      verdict: tap.verdict,
      worst: tap.worstPercent === null ? '–' : formatSigned(tap.worstPercent, 2),
      own: tap.column === null ? null : (tap.segment?.verdict ?? null),
      segment: hasSegments ? shownSegment(tap, check.taps) : null,
    })),
    warnings: check.wrongRoots.map(
      ({ name, roots }) =>
        `On the way to ${name} the root is taken ${roots === 0 ? 'nowhere' : `${roots} times`}: for a flow it is taken exactly once.`,
    ),
  };
}
