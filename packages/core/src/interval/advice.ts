/**
 * Which interval an instrument is advised, and why: from its own drift where it is known, else from its family, and under the cap of
 * its criticality. The rule is Barys's own: shorter where it would not be found inside with the target's probability, longer only
 * where all that is known is shown to allow it, half as long again at most; else the interval stays.
 */
import { MONTH_DAYS } from '../drift';
import { requirePositive } from '../errors';
import { intervalFor, outsidePart, reliabilityAt } from './exponential';
import {
  chanceOfShort,
  countOf,
  intervalShown,
  LEAST_OF_FAMILY,
  type Family,
  type FamilyFigures,
} from './family';
import {
  driftFigures,
  isScattered,
  LEAST_OF_DRIFT,
  pointDrifts,
  worstOutside,
  type DriftFigures,
  type FollowedPoint,
  type PointDrift,
} from './followed';
import { checkShare, type Counted } from './reliability';
import type { StaircaseResult } from './rules';
import { INTERVALS, stepRule, usualInterval } from './usual';

/** Beyond chance: one time in twenty. */
const LEVEL = 0.05;
/** An interval grows by half of itself at most; beyond it nobody has looked. */
const MOST_GROWTH = 1.5;
/** Places at which the part of the time outside is summed over an interval. */
const PLACES = 12;

export interface IntervalCase {
  /** Interval in force, months. */
  readonly months: number;
  /** The longest that its criticality allows, months. */
  readonly cap: number;
  /** Part that is to be found inside. */
  readonly target: number;
  /** In the range of today only. */
  readonly points: readonly FollowedPoint[];
  /** How it was found at each calibration, in their order. */
  readonly results: readonly StaircaseResult[];
  /** Its family, in months; its own calibrations among them. */
  readonly family: Family;
}

/** What an interval costs, and what it lets through. */
export interface IntervalCost {
  readonly months: number;
  readonly jobsPerYear: number;
  /** Probability of being found inside at its end; null where nothing says it. */
  readonly insideAtEnd: number | null;
  /** Expected part of the time out of tolerance, unseen. */
  readonly outsidePart: number | null;
}

export type AdviceKind = 'shorter' | 'longer' | 'keep' | 'look' | 'none';
export type AdviceReason =
  | { readonly code: 'cap'; readonly months: number }
  | { readonly code: 'drift-short'; readonly at: number; readonly inside: number; readonly target: number }
  | {
      readonly code: 'family-short';
      readonly observed: number;
      readonly target: number;
      readonly chance: number;
    }
  | { readonly code: 'drift-allows'; readonly months: number; readonly inside: number }
  | { readonly code: 'drift-holds'; readonly inside: number; readonly target: number }
  | { readonly code: 'family-allows'; readonly months: number }
  | { readonly code: 'family-holds'; readonly months: number }
  | { readonly code: 'own-out'; readonly out: number; readonly calibrations: number }
  | { readonly code: 'scatter' }
  | { readonly code: 'near-limit' }
  | { readonly code: 'few-calibrations'; readonly count: number; readonly least: number }
  | { readonly code: 'few-of-family'; readonly count: number; readonly least: number };

export interface IntervalAdvice {
  readonly kind: AdviceKind;
  /** Advised interval, months; that in force where it stays or nothing is advised. */
  readonly months: number;
  readonly reasons: readonly AdviceReason[];
  readonly drift: DriftFigures | null;
  readonly family: FamilyFigures | null;
  /** What a plain staircase over its results would say, months. */
  readonly stepRule: number;
  readonly now: IntervalCost;
  readonly then: IntervalCost;
}

/** What is known of one instrument, worked out once. */
class Known {
  readonly drifts: readonly PointDrift[];
  readonly family: FamilyFigures | null;
  readonly own: Counted;

  constructor(readonly given: IntervalCase) {
    this.drifts = pointDrifts(given.points);
    this.family = given.family.figures;
    this.own = {
      calibrations: given.results.length,
      out: given.results.filter((result) => result !== 'inside').length,
    };
  }

  private dayAfter(months: number): number {
    return (this.drifts[0]?.line.lastDay ?? 0) + months * MONTH_DAYS;
  }

  get figures(): DriftFigures | null {
    return driftFigures(this.drifts, this.dayAfter(this.given.months));
  }

  /** By its own drift. */
  insideAfter(months: number): number {
    return 1 - worstOutside(this.drifts, this.dayAfter(months));
  }

  cost(months: number): IntervalCost {
    const jobsPerYear = 12 / months;
    if (this.drifts.length > 0) {
      const places = Array.from({ length: PLACES }, (_, place) => ((place + 0.5) / PLACES) * months);
      const outside = places.reduce((sum, place) => sum + 1 - this.insideAfter(place), 0) / PLACES;
      return { months, jobsPerYear, insideAtEnd: this.insideAfter(months), outsidePart: outside };
    }
    if (this.family === null || !Number.isFinite(this.family.rate))
      return { months, jobsPerYear, insideAtEnd: null, outsidePart: null };
    const { rate } = this.family;
    return {
      months,
      jobsPerYear,
      insideAtEnd: reliabilityAt(rate, months),
      outsidePart: outsidePart(rate, months),
    };
  }

  /** What there is too little of. */
  get lacks(): AdviceReason[] {
    const count = Math.max(0, ...this.given.points.map(({ history }) => history.length));
    const ofFamily = countOf(this.given.family.rows).calibrations;
    return [
      ...(count < LEAST_OF_DRIFT
        ? [{ code: 'few-calibrations' as const, count, least: LEAST_OF_DRIFT }]
        : []),
      ...(ofFamily < LEAST_OF_FAMILY
        ? [{ code: 'few-of-family' as const, count: ofFamily, least: LEAST_OF_FAMILY }]
        : []),
    ];
  }
}

interface Decision {
  readonly kind: AdviceKind;
  readonly months: number;
  readonly reasons: readonly AdviceReason[];
}

/** The instrument would not be found inside with the target's probability: by its own drift, or by its family. */
function shortened(known: Known): Decision | null {
  const { months, cap, target } = known.given;
  const { figures, family } = known;
  if (figures !== null) {
    const inside = known.insideAfter(months);
    if (inside >= target) return null;
    const reason = { code: 'drift-short' as const, at: figures.at, inside, target };
    const shorter = INTERVALS.filter((usual) => usual < months && usual <= cap).findLast(
      (usual) => known.insideAfter(usual) >= target,
    );
    if (shorter !== undefined) return { kind: 'shorter', months: shorter, reasons: [reason] };
    const cure = { code: known.drifts.some(isScattered) ? ('scatter' as const) : ('near-limit' as const) };
    return { kind: 'look', months: Math.min(months, cap), reasons: [reason, cure] };
  }
  if (family === null) return null;
  const chance = chanceOfShort(known.given.family.rows, { interval: months, target });
  if (chance >= LEVEL) return null;
  const { observed } = family.bounds;
  const reason = { code: 'family-short' as const, observed, target, chance };
  const shorter = usualInterval(Math.min(cap, intervalFor(family.rate, target)));
  return {
    kind: 'shorter',
    months: Math.min(months, shorter ?? INTERVALS[0]),
    reasons: [reason, ...known.lacks],
  };
}

/** How long all that is known is shown to allow, and by what; nothing is known where there are no reasons. */
function allowed(known: Known): { readonly longest: number; readonly reasons: readonly AdviceReason[] } {
  const { months, target, family } = known.given;
  const reasons: AdviceReason[] = [];
  let longest = months * MOST_GROWTH;
  if (known.figures !== null) {
    const most = INTERVALS.filter((usual) => usual <= longest).findLast(
      (usual) => known.insideAfter(usual) >= target,
    );
    longest = most ?? months;
    reasons.push(
      longest > months
        ? { code: 'drift-allows', months: longest, inside: known.insideAfter(longest) }
        : { code: 'drift-holds', inside: known.insideAfter(months), target },
    );
  } else if (known.own.out > 0) {
    longest = months;
    reasons.push({ code: 'own-out', ...known.own });
  }
  if (known.family !== null) {
    const chance = chanceOfShort(family.rows, { interval: months, target });
    const shown = intervalShown(known.family, target);
    if (chance < LEVEL)
      reasons.push({ code: 'family-short', observed: known.family.bounds.observed, target, chance });
    else reasons.push({ code: shown > months ? 'family-allows' : 'family-holds', months: shown });
    longest = Math.min(longest, Math.max(months, chance < LEVEL ? months : shown));
  }
  return { longest, reasons };
}

function decide(known: Known): Decision {
  const { months, cap } = known.given;
  const overCap: AdviceReason[] = months > cap ? [{ code: 'cap', months: cap }] : [];
  const short = shortened(known);
  if (short !== null) return { ...short, reasons: [...short.reasons, ...overCap] };
  if (months > cap) return { kind: 'shorter', months: cap, reasons: [...overCap, ...known.lacks] };
  const { longest, reasons } = allowed(known);
  if (known.figures === null && known.family === null) return { kind: 'none', months, reasons: known.lacks };
  const longer = usualInterval(Math.min(cap, longest));
  if (longer !== null && longer > months)
    return { kind: 'longer', months: longer, reasons: [...reasons, ...known.lacks] };
  const atCap: AdviceReason[] = longest > cap ? [{ code: 'cap', months: cap }] : [];
  return { kind: 'keep', months, reasons: [...reasons, ...atCap, ...known.lacks] };
}

/**
 * The interval that an instrument is advised, with its reasons and what it costs.
 * @throws CoreError `not-positive`, `out-of-bounds`; as `driftLine` and `mostLikelyRate`
 */
export function adviseInterval(given: IntervalCase): IntervalAdvice {
  requirePositive('Interval', given.months, 'months');
  requirePositive('Cap', given.cap, 'cap');
  checkShare('Target', given.target, 'target');
  const known = new Known(given);
  const decision = decide(known);
  const now = known.cost(given.months);
  return {
    ...decision,
    drift: known.figures,
    family: known.family,
    stepRule: stepRule(given.months, given.results),
    now,
    then: decision.months === given.months ? now : known.cost(decision.months),
  };
}
