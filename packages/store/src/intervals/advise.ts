/** The advice on one instrument, from its history, its family and the policy of the site. Free of PostgreSQL. */
import { anomaliesOf, dateOfDay, type Anomaly } from '@barys/core/drift';
import { adviseInterval, type IntervalAdvice } from '@barys/core/interval';
import { followedPoints, followedZero, presentVisits, resultsOf, type Visit } from '../results/visits';
import type { NamedFamily } from './families';

export interface Advised {
  readonly advice: IntervalAdvice;
  readonly family: string;
  /** What its advice was worked out for. */
  readonly cap: number;
  readonly target: number;
  readonly anomalies: readonly Anomaly[];
  /** ISO date; null where nothing says it. */
  readonly insideUntil: string | null;
  /** ISO date from which its drift is followed, where a step or a change of its drift was found before; null where all is. */
  readonly since: string | null;
}

/** The least limit that its zero is seen in. */
const limitOf = (visits: readonly Visit[]): number => {
  const limits = followedPoints(visits).map(({ limit }) => limit);
  return limits.length === 0 ? 0 : Math.min(...limits);
};

/** What is worth a look in the calibrations of an instrument since its range was last changed. */
export function anomaliesIn(visits: readonly Visit[], rangeKey: string): Anomaly[] {
  const present = presentVisits(visits, rangeKey);
  const limit = limitOf(present);
  return limit === 0 ? [] : anomaliesOf(followedZero(present), limit);
}

/** The day from which a line through the calibrations means something: of the last step or change of drift; null of none. */
function lastBreak(anomalies: readonly Anomaly[]): number | null {
  const days = anomalies.flatMap((anomaly) => (anomaly.kind === 'hysteresis' ? [] : [anomaly.day]));
  return days.length === 0 ? null : Math.max(...days);
}

/** The visits that a drift is followed over: in the range of today, and since it last jumped or began to drift otherwise. */
export const followedVisits = (visits: readonly Visit[], rangeKey: string, since: number | null): Visit[] =>
  presentVisits(visits, rangeKey).filter(({ day }) => since === null || day >= since);

export function adviseOn(
  visits: readonly Visit[],
  {
    months,
    cap,
    target,
    family,
    rangeKey,
  }: {
    readonly months: number;
    readonly cap: number;
    readonly target: number;
    readonly family: NamedFamily;
    /** Of the configuration in force. */
    readonly rangeKey: string;
  },
): Advised {
  const anomalies = anomaliesIn(visits, rangeKey);
  const since = lastBreak(anomalies);
  const advice = adviseInterval({
    months,
    cap,
    target,
    points: followedPoints(followedVisits(visits, rangeKey, since)),
    results: resultsOf(visits),
    family: family.family,
  });
  return {
    advice,
    family: family.name,
    cap,
    target,
    anomalies,
    since: since === null ? null : dateOfDay(since),
    insideUntil: advice.drift?.lastDayInside == null ? null : dateOfDay(advice.drift.lastDayInside),
  };
}
