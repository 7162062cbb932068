/** What the drawing of a history shows: plain data in units of the limit, for screen and test alike. */
import { dateOfDay, dayNumber, lineAt, MONTH_DAYS, predictAt } from '@barys/core/drift';
import { pointDrifts, type PointDrift } from '@barys/core/interval';
import { formatFixed } from '@barys/core/text';
import { followedPoints, type AdjustmentMark, type KeptRun, type Visit } from '@barys/store/results';
import { followedVisits, type Advised } from '@barys/store/intervals';
import dayjs from 'dayjs';

export interface HistoryDot {
  readonly day: number;
  /** Error as a part of its limit. */
  readonly y: number;
  readonly isDown: boolean;
}

export interface HistoryColumn {
  readonly day: number;
  readonly date: string;
  readonly standard: string;
  readonly hysteresis: string;
  readonly version: string;
}

export interface HistoryShape {
  readonly from: number;
  readonly to: number;
  /** Every reading as found. */
  readonly found: readonly HistoryDot[];
  /** Means as left, where something was adjusted. */
  readonly left: readonly Pick<HistoryDot, 'day' | 'y'>[];
  /** Lines from as left to the next as found, each in one range: zero error, and error at full span. */
  readonly zero: readonly (readonly Pick<HistoryDot, 'day' | 'y'>[])[];
  readonly full: readonly (readonly Pick<HistoryDot, 'day' | 'y'>[])[];
  /** From what an adjustment brought the zero to what. */
  readonly adjustments: readonly {
    readonly day: number;
    readonly from: number;
    readonly to: number;
    readonly words: string;
  }[];
  readonly ranges: readonly { readonly day: number; readonly words: string }[];
  readonly columns: readonly HistoryColumn[];
  readonly adjustAbove: number;
  /** Where the point that leads out first is going, with its bounds of 95 %. */
  readonly prediction: {
    readonly at: number;
    readonly points: readonly {
      readonly day: number;
      readonly y: number;
      readonly low: number;
      readonly high: number;
    }[];
  } | null;
  /** The last day with all bounds inside. */
  readonly reach: { readonly day: number; readonly words: string } | null;
}

type Dated = Pick<HistoryDot, 'day' | 'y'>;

const ofLimit = (run: KeptRun): number[] =>
  run.error.map((error, index) => {
    const limit = run.limit[index] ?? 0;
    return limit > 0 ? error / limit : NaN;
  });

/** Zero and full-span error of a run as parts of the limits there; null where they cannot be told. */
function endsOf(run: KeptRun): { readonly zero: number; readonly full: number } | null {
  const limits = [...run.limit].filter((limit) => limit > 0);
  const limit = limits.length === 0 ? 0 : Math.min(...limits);
  if (run.zeroPercent === null || run.spanPercent === null || limit === 0) return null;
  return { zero: run.zeroPercent / limit, full: (run.zeroPercent + run.spanPercent) / limit };
}

const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length;

/** A line broken where the range changed: from each as left to the next as found. */
function linesOf(visits: readonly Visit[], end: 'zero' | 'full'): Dated[][] {
  const lines: Dated[][] = [];
  let range: string | null = null;
  for (const visit of visits) {
    const [first, last] = [visit.found ?? visit.left, visit.left ?? visit.found];
    const [came, went] = [first && endsOf(first), last && endsOf(last)];
    if (came === null || went === null) continue;
    if (visit.rangeKey !== range) lines.push([]);
    lines.at(-1)?.push({ day: visit.day, y: came[end] });
    if (visit.left !== null) lines.push([{ day: visit.day, y: went[end] }]);
    range = visit.rangeKey;
  }
  return lines.filter((line) => line.length > 1);
}

/** Whether all steps of one drawing lie in one calendar stretch that needs the day of the month. */
const dateWords = (day: number): string => dayjs(dateOfDay(day)).format('MMM YY');

const STEPS = 24;

function predictionOf(drift: PointDrift | undefined, from: number, to: number): HistoryShape['prediction'] {
  if (drift === undefined || to <= from) return null;
  const { at, line, band, limit } = drift;
  const taken = (band.low + band.high) / 2;
  const part = (error: number): number => (error - taken) / limit;
  return {
    at,
    points: Array.from({ length: STEPS + 1 }, (_, step) => {
      const day = from + ((to - from) * step) / STEPS;
      const { low, high } = predictAt(line, day);
      return { day, y: part(lineAt(line, day)), low: part(low), high: part(high) };
    }),
  };
}

const columnOf = (visit: Visit): HistoryColumn => {
  const run = visit.found ?? visit.left;
  return {
    day: visit.day,
    date: dateWords(visit.day),
    standard: run?.standard === '' ? '—' : (run?.standard ?? '—'),
    hysteresis: run?.hysteresisPercent == null ? '—' : formatFixed(run.hysteresisPercent, 3),
    version: String(visit.rangeVersion),
  };
};

/** Where the range changed: between two visits, and since the last one. */
function rangeChanges(
  visits: readonly Visit[],
  inForce: { readonly rangeKey: string; readonly day: number },
): HistoryShape['ranges'] {
  const changes = visits.flatMap((visit, index) => {
    const before = visits[index - 1];
    return before === undefined || before.rangeKey === visit.rangeKey
      ? []
      : [{ day: (before.day + visit.day) / 2, words: visit.rangeKey }];
  });
  const last = visits.at(-1);
  if (last === undefined || last.rangeKey === inForce.rangeKey) return changes;
  return [...changes, { day: Math.max(last.day, inForce.day), words: inForce.rangeKey }];
}

/** The words of what was adjusted in a job, each kind once. */
const kindsOf = (marks: readonly AdjustmentMark[], jobId: number | null): string =>
  [...new Set(marks.filter((mark) => mark.jobId === jobId).map(({ kind }) => kind))].join(', ') || 'adjusted';

/**
 * @param inForce the range in force, and from which day on: it may never have been calibrated yet
 * @returns null of no calibration
 */
export function historyShape(
  visits: readonly Visit[],
  marks: readonly AdjustmentMark[],
  { advice, insideUntil, since }: Pick<Advised, 'advice' | 'insideUntil' | 'since'>,
  inForce: { readonly rangeKey: string; readonly day: number },
): HistoryShape | null {
  const [first, last] = [visits[0], visits.at(-1)];
  if (first === undefined || last === undefined) return null;
  const { months } = advice.now;
  const followed = followedVisits(visits, inForce.rangeKey, since === null ? null : dayNumber(since));
  const drift = pointDrifts(followedPoints(followed)).find(({ at }) => at === advice.drift?.at);
  const reachDay = insideUntil === null ? null : dayNumber(insideUntil);
  const ahead = last.day + 2.2 * months * MONTH_DAYS;
  // A limit that is reached far ahead is said in words; the drawing keeps to what is near.
  const near = last.day + months * MONTH_DAYS;
  const to =
    drift === undefined
      ? Math.max(last.day, inForce.rangeKey === last.rangeKey ? 0 : inForce.day)
      : Math.min(ahead, Math.max(near, (reachDay ?? ahead) + 0.4 * months * MONTH_DAYS));
  return {
    from: first.day,
    to,
    found: visits.flatMap(({ day, found }) =>
      found === null
        ? []
        : ofLimit(found).flatMap((y, index) =>
            Number.isNaN(y) ? [] : [{ day, y, isDown: found.isDown[index] === true }],
          ),
    ),
    left: visits.flatMap(({ day, left }) => {
      const parts = left === null ? [] : ofLimit(left).filter((y) => !Number.isNaN(y));
      return parts.length === 0 ? [] : [{ day, y: mean(parts) }];
    }),
    zero: linesOf(visits, 'zero'),
    full: linesOf(visits, 'full'),
    adjustments: visits.flatMap((visit) => {
      const [came, went] = [visit.found && endsOf(visit.found), visit.left && endsOf(visit.left)];
      return came === null || went === null
        ? []
        : [{ day: visit.day, from: came.zero, to: went.zero, words: kindsOf(marks, visit.jobId) }];
    }),
    ranges: rangeChanges(visits, inForce),
    columns: visits.map(columnOf),
    adjustAbove: last.adjustAbovePercent / 100,
    prediction: predictionOf(drift, last.day, to),
    reach:
      reachDay === null || reachDay > to
        ? null
        : { day: reachDay, words: `may be outside after ${dayjs(insideUntil).format('D MMM YYYY')}` },
  };
}
