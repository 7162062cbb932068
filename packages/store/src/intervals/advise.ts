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
}

/** The least limit that its zero is seen in. */
const limitOf = (visits: readonly Visit[]): number => {
  const limits = followedPoints(visits).map(({ limit }) => limit);
  return limits.length === 0 ? 0 : Math.min(...limits);
};

/** What is worth a look in the calibrations of an instrument since its range was last changed. */
export function anomaliesIn(visits: readonly Visit[]): Anomaly[] {
  const present = presentVisits(visits);
  const limit = limitOf(present);
  return limit === 0 ? [] : anomaliesOf(followedZero(present), limit);
}

export function adviseOn(
  visits: readonly Visit[],
  {
    months,
    cap,
    target,
    family,
  }: { readonly months: number; readonly cap: number; readonly target: number; readonly family: NamedFamily },
): Advised {
  const advice = adviseInterval({
    months,
    cap,
    target,
    points: followedPoints(presentVisits(visits)),
    results: resultsOf(visits),
    family: family.family,
  });
  return {
    advice,
    family: family.name,
    cap,
    target,
    anomalies: anomaliesIn(visits),
    insideUntil: advice.drift?.lastDayInside == null ? null : dateOfDay(advice.drift.lastDayInside),
  };
}
