/** What a run that checks a loop says of it: the verdict at each tap, of each item by itself, and who is wrong. Free of PostgreSQL. */
import { CoreError } from '@barys/core/errors';
import {
  diagnose,
  judgeTap,
  limitOfTap,
  rangeOfTap,
  rootsTo,
  segmentOf,
  trimEffectOn,
  type Diagnosis,
  type LoopItem,
  type TapReading,
  type TrimEffect,
} from '@barys/core/loop';
import { worstVerdict, type RunReading, type Verdict } from '@barys/core/run';
import { outputSpan, type SignalRange } from '@barys/core/signal';
import { canWeigh, weigh, type Suspected, type Weighed } from '@barys/core/suspects';
import { parseTyped } from '@barys/core/text';
import { itemsOf, type LoopContent } from '../registers/loop-content';
import { besideOf, judgedWhereItCan, tapOfColumn, tapVerdict } from './beside';
import { TAP_COLUMNS, type Run, type TapColumn } from './copy';
import { evaluateStoredRun, readingsOf, verdictOfStoredRun } from './evaluation';

type CheckedRun = Pick<Run, 'madeWith' | 'readings'>;

/** One reading of what lies between two taps that were read. */
export interface SegmentPoint extends RunReading {
  /** Error and limit, per cent of the span of the segment; null where it has no limit. */
  readonly errorPercent: number;
  readonly limitPercent: number | null;
  readonly verdict: Verdict;
}

/** What lies between two taps that were read: an item, with what passes the signal on before it. */
export interface Segment {
  /** The tap that it reads, and what lies in it up to its own. */
  readonly fromName: string;
  /** Place of that tap. */
  readonly from: number;
  readonly range: SignalRange;
  readonly points: readonly SegmentPoint[];
  /** Null where nothing of it can be judged. */
  readonly verdict: Verdict | null;
  /** What would make it read so; null where it has no tolerance to hold it against. */
  readonly suspected: Suspected | null;
}

export interface CheckedTap {
  /** Null of the output of the instrument itself. */
  readonly column: TapColumn | null;
  readonly place: number;
  readonly name: string;
  readonly unit: string;
  /** Against what is applied, by all that lies on the way. */
  readonly verdict: Verdict | null;
  readonly worstPercent: number | null;
  /** By itself, against what was read before it; null of the instrument, which the run itself judges. */
  readonly segment: Segment | null;
  readonly isEnd: boolean;
}

export interface LoopCheck {
  readonly content: LoopContent;
  readonly version: number;
  readonly taps: readonly CheckedTap[];
  /** The worst at any tap; null where nothing was read. */
  readonly verdict: Verdict | null;
  /** Null where a root at no flow hides what stands before it, or nothing was read. */
  readonly diagnosis: Diagnosis | null;
  /** Ends to which the root is not taken exactly once, of a flow. */
  readonly wrongRoots: readonly { readonly name: string; readonly roots: number }[];
}

/** What a reading at a tap is known to, per cent of its span: a meter of four digits (common practice). */
const KNOWN_TO_PERCENT = 0.05;
const STANDARD_OF_EXPANDED = 2;

/** What was read at each tap, in the order of the readings; the output of the instrument is that of its own place. */
function readAt({ madeWith, readings }: CheckedRun, items: readonly LoopItem[]) {
  const judged = readingsOf({ madeWith, readings });
  const head = items.findIndex(({ from }) => from === null);
  const values = new Map<number, readonly (number | null)[]>([[head, judged.map(({ output }) => output)]]);
  for (const column of TAP_COLUMNS) {
    const tap = tapOfColumn(madeWith, column);
    if (tap === null) continue;
    values.set(
      tap.place,
      readings.map(({ more }) => {
        const text = more[column];
        return text === undefined ? null : parseTyped(text).value;
      }),
    );
  }
  return { judged, head, values };
}

/** Ohms that make these volts of 4 to 20 mA; nothing of another segment. */
function resistorOf({ lrv, urv, outputLow, outputHigh }: SignalRange): Pick<Suspected, 'resistorOhm'> {
  // In the proportion of a live zero, but for the rounding of 0.004 times its ohms.
  const isShunt = lrv === 4 && urv === 20 && Math.abs(outputHigh - 5 * outputLow) < 1e-9 * outputHigh;
  return isShunt ? { resistorOhm: (outputLow / lrv) * 1000 } : {};
}

function segmentAt(
  items: readonly LoopItem[],
  place: number,
  { judged, values }: ReturnType<typeof readAt>,
): Segment | null {
  let from = items[place]?.from ?? null;
  while (from !== null && !values.has(from)) from = items[from]?.from ?? null;
  if (from === null) return null;
  const part = segmentOf(items, from, place);
  const last = part.length - 1;
  let range: SignalRange;
  try {
    range = rangeOfTap(part, last);
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
  const span = outputSpan(range);
  const points = judged.flatMap((reading, i): SegmentPoint[] => {
    const [applied, output] = [values.get(from)?.[i], values.get(place)?.[i]];
    if (applied == null || output == null) return [];
    const { cycle, direction, nominalPercent } = reading;
    const own = { cycle, direction, nominalPercent, applied, output };
    const one = judgeTap(part, last, own);
    return [
      {
        ...own,
        errorPercent: one?.errorPercentSpan ?? 0,
        limitPercent: one === null ? null : (one.limit / span) * 100,
        verdict: one?.verdict ?? 'not-judged',
      },
    ];
  });
  const limitPercent = limitOfTap(part, last, (range.lrv + range.urv) / 2) ?? 0;
  return {
    fromName: items[from]?.name ?? '',
    from,
    range,
    points,
    verdict: judgedWhereItCan(points.map((one) => (one.limitPercent === null ? null : one.verdict))),
    suspected:
      limitPercent > 0 && points.length > 0
        ? {
            range,
            readings: points.map(({ applied, output, direction }) => ({ applied, output, direction })),
            limitPercent,
            inputUnit: null,
            pressureKind: null,
            ...resistorOf(range),
          }
        : null,
  };
}

function diagnosisOf(
  items: readonly LoopItem[],
  { judged, values }: ReturnType<typeof readAt>,
): Diagnosis | null {
  const readings = [...values].flatMap(([item, read]) =>
    judged.flatMap(({ applied }, i): TapReading[] => {
      const value = read[i];
      const { output } = items[item] as LoopItem;
      const uncertainty =
        ((KNOWN_TO_PERCENT / 100) * Math.abs(output.high - output.low)) / STANDARD_OF_EXPANDED;
      return value == null ? [] : [{ item, applied, value, uncertainty }];
    }),
  );
  // A root at no flow has no slope that would say what stands before it.
  const seen = readings.filter(({ item, applied }) => limitOfTap(items, item, applied) !== null);
  if (seen.length === 0) return null;
  try {
    return diagnose(items, seen, null);
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

/** What a run says of the loop that it checks; null of one that checks none. */
export function checkLoop(run: CheckedRun): LoopCheck | null {
  const { loop } = run.madeWith;
  if (loop === null) return null;
  const items = itemsOf(loop.content);
  const read = readAt(run, items);
  const own = evaluateStoredRun(run);
  const beside = besideOf(run);
  const isEnd = (place: number): boolean => !items.some(({ from }) => from === place);
  const head = items[read.head] as LoopItem;
  const taps: CheckedTap[] = [
    {
      column: null,
      place: read.head,
      name: head.name,
      unit: run.madeWith.configuration.outputUnit,
      verdict: own.verdict,
      worstPercent: own.worst?.errorPercentSpan ?? null,
      segment: null,
      isEnd: isEnd(read.head),
    },
    ...TAP_COLUMNS.flatMap((column): CheckedTap[] => {
      const tap = tapOfColumn(run.madeWith, column);
      if (tap === null) return [];
      const figures = beside.flatMap((one) => one[column] ?? []);
      const [worst] = [...figures].sort((a, b) => Math.abs(b.percentOfSpan) - Math.abs(a.percentOfSpan));
      return [
        {
          column,
          place: tap.place,
          name: tap.item.name,
          unit: tap.item.outputUnit,
          verdict: tapVerdict(figures),
          worstPercent: worst?.percentOfSpan ?? null,
          segment: segmentAt(items, tap.place, read),
          isEnd: isEnd(tap.place),
        },
      ];
    }),
  ];
  return {
    content: loop.content,
    version: loop.version,
    taps,
    verdict: worstVerdict(taps.flatMap(({ verdict }) => verdict ?? [])),
    diagnosis: diagnosisOf(items, read),
    wrongRoots: loop.content.isFlow
      ? items.flatMap(({ name }, place) => {
          const roots = rootsTo(items, place);
          return isEnd(place) && roots !== 1 ? [{ name, roots }] : [];
        })
      : [],
  };
}

/** The verdict on a run, and where it checks a loop on that: the worst at any tap. */
export const verdictOfCheck = (run: CheckedRun): Verdict | null =>
  checkLoop(run)?.verdict ?? verdictOfStoredRun(run);

/** What is behind the readings of a segment; null where it has no tolerance, or nothing was read, or too much. */
export const weighSegment = ({ suspected }: Segment): Weighed | null =>
  suspected === null || !canWeigh(suspected) ? null : weigh(suspected);

/** What a trim to a receiver would do, at the reading where that is off by most; null where it is not to be asked for. */
export interface ReceiverTrim extends TrimEffect {
  readonly receiver: string;
  /** What it is off by there, per cent of its span. */
  readonly offPercent: number;
  /** Whether it was proven by itself: all its own readings inside its own tolerance. */
  readonly isProven: boolean;
  readonly others: readonly { readonly place: number; readonly percent: number; readonly name: string }[];
}

/** Receivers at the ends of a loop, with what a trim of the instrument to each would do. */
export function receiverTrims(run: CheckedRun): readonly ReceiverTrim[] {
  const check = checkLoop(run);
  if (check === null) return [];
  const items = itemsOf(check.content);
  const applied = readingsOf(run).map((reading) => reading.applied);
  const beside = besideOf(run);
  return check.taps.flatMap(({ column, place, name, isEnd, segment }): ReceiverTrim[] => {
    if (column === null || !isEnd) return [];
    let at = -1;
    let offPercent = 0;
    beside.forEach((one, i) => {
      const off = one[column]?.percentOfSpan;
      if (off === undefined || one[column]?.limitPercentOfSpan === null) return;
      if (at === -1 || Math.abs(off) > Math.abs(offPercent)) [at, offPercent] = [i, off];
    });
    const effect = at === -1 ? null : trimEffectOn(items, place, offPercent, applied[at] ?? 0);
    if (effect === null) return [];
    return [
      {
        ...effect,
        receiver: name,
        offPercent,
        isProven: segment !== null && segment.points.length > 0 && segment.verdict === 'within',
        others: effect.others.map((one) => ({ ...one, name: items[one.place]?.name ?? '' })),
      },
    ];
  });
}
