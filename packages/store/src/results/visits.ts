/** Results joined to visits, and visits to what is followed over the years. Free of PostgreSQL. */
import { dayNumber, type Calibration, type Visited } from '@barys/core/drift';
import { staircaseResult, type FollowedPoint, type StaircaseResult } from '@barys/core/interval';
import type { Verdict } from '@barys/core/run';
import type { KeptFigures } from './figures';
import { groupedBy } from './grouped';

/** One run of a visit, as it was kept. */
export interface KeptRun extends Omit<KeptFigures, 'atPercent' | 'errorPercent' | 'limitPercent'> {
  readonly id: number;
  /** Nominal input, per cent of span, reading by reading. */
  readonly at: readonly number[];
  /** Error and limit, per cent of output span. */
  readonly error: readonly number[];
  readonly limit: readonly number[];
  readonly sinceDays: number | null;
}

/** One visit: how the instrument was found, and how it was left where something was adjusted. */
export interface Visit {
  readonly doneOn: string;
  /** Number of the day. */
  readonly day: number;
  readonly jobId: number | null;
  readonly rangeKey: string;
  readonly rangeVersion: number;
  readonly adjustAbovePercent: number;
  /** Null where only the end was kept, as in some files. */
  readonly found: KeptRun | null;
  readonly left: KeptRun | null;
}

/** The as-left run of a job may be read days after the as-found one. */
const visitKey = ({ doneOn, jobId }: KeptRun): string => (jobId === null ? doneOn : `job ${jobId}`);

/** The visits of one instrument, from its runs in their order. */
export function visitsOf(runs: readonly KeptRun[]): Visit[] {
  return [...groupedBy(runs, visitKey).values()].map((own) => {
    const last = own.at(-1) as KeptRun;
    return {
      doneOn: last.doneOn,
      day: dayNumber(last.doneOn),
      jobId: last.jobId,
      rangeKey: last.rangeKey,
      rangeVersion: last.rangeVersion,
      adjustAbovePercent: last.adjustAbovePercent,
      found: own.find(({ kind }) => kind === 'as-found') ?? null,
      left: own.find(({ kind }) => kind === 'as-left') ?? null,
    };
  });
}

/** The mean error of a run at a point; null where it was not read there. */
function meanAt({ at, error }: KeptRun, point: number): number | null {
  const there = error.filter((_, index) => at[index] === point);
  return there.length === 0 ? null : there.reduce((sum, one) => sum + one, 0) / there.length;
}

/**
 * The visits that hang together up to today: in the range in force, each found as the one before had left it. Two on one day are one:
 * found as the first, left as the last.
 * @param rangeKey of the configuration in force: none hang together with it where it was never calibrated
 */
export function presentVisits(visits: readonly Visit[], rangeKey: string): Visit[] {
  const together: Visit[] = [];
  for (let place = visits.length - 1; place >= 0; place -= 1) {
    const visit = visits[place] as Visit;
    if (visit.rangeKey !== rangeKey || (visit.found ?? visit.left)?.rangeKey !== rangeKey) break;
    const later = together[0];
    if (later?.day === visit.day)
      together[0] = {
        ...later,
        found: visit.found ?? visit.left ?? later.found,
        left: later.left ?? later.found,
      };
    else together.unshift(visit);
    // What was done to it before this visit nobody knows.
    if (visit.found === null) break;
  }
  return together;
}

/** The run that a visit began with, and the one that it ended with. */
const ends = ({ found, left }: Visit): readonly [first: KeptRun | null, last: KeptRun | null] => [
  found ?? left,
  left ?? found,
];

/** Follows one figure of the runs over visits; those that do not have it are left out, which breaks no chain of steps. */
function follow<T extends Calibration>(
  visits: readonly Visit[],
  figure: (run: KeptRun) => number | null,
  more: (visit: Visit, first: KeptRun) => Omit<T, keyof Calibration>,
): T[] {
  return visits.flatMap((visit) => {
    const [first, last] = ends(visit);
    if (first === null || last === null) return [];
    const [found, left] = [figure(first), figure(last)];
    return found === null || left === null
      ? []
      : [{ ...more(visit, first), day: visit.day, found, left } as T];
  });
}

/** Each point of the last visit over the visits in its range; points without a limit are not followed. */
export function followedPoints(visits: readonly Visit[]): FollowedPoint[] {
  const last = visits.at(-1)?.left ?? visits.at(-1)?.found;
  if (last === undefined || last === null) return [];
  return [...new Set(last.at)].flatMap((at) => {
    const limit = last.limit[last.at.indexOf(at)] ?? 0;
    if (limit <= 0) return [];
    return [
      {
        at,
        limit,
        adjustLimit: (limit * last.adjustAbovePercent) / 100,
        history: follow<Calibration>(
          visits,
          (run) => meanAt(run, at),
          () => ({}),
        ),
      },
    ];
  });
}

/** Zero and span over the visits, with what anomalies are looked for in. */
export const followedZero = (visits: readonly Visit[]): Visited[] =>
  follow<Visited>(
    visits,
    ({ zeroPercent }) => zeroPercent,
    (_visit, first) => ({ hysteresis: first.hysteresisPercent, standard: first.standard }),
  );
export const followedSpan = (visits: readonly Visit[]): Calibration[] =>
  follow<Calibration>(
    visits,
    ({ spanPercent }) => spanPercent,
    () => ({}),
  );

/** Verdicts that say whether an instrument was inside or outside; the others say neither. */
const IS_OUT: Readonly<Partial<Record<Verdict, boolean>>> = {
  within: false,
  'within-adjust': false,
  outside: true,
};

/** Whether a run was found outside its limit; null where that is undecided or was not judged. */
export const isOut = (verdict: Verdict | null): boolean | null =>
  verdict === null ? null : (IS_OUT[verdict] ?? null);

/** How each visit was found, for rules that follow results. */
export const resultsOf = (visits: readonly Visit[]): StaircaseResult[] =>
  visits.flatMap(({ found }) => {
    const out = found === null ? null : isOut(found.verdict);
    if (found === null || out === null) return [];
    // How far outside is a matter of figures; inside or not was decided exactly, by the verdict.
    return [
      out
        ? staircaseResult(found.worstOfLimit ?? 1, 1) === 'far outside'
          ? 'far outside'
          : 'outside'
        : 'inside',
    ];
  });
