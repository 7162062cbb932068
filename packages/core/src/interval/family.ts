/** What the calibrations of a family say of an interval: enough of them, how well they meet a target, and beyond chance or not. */
import binomialCdf from '@stdlib/stats-base-dists-binomial-cdf';
import { intervalFor, mostLikelyRate, reliabilityAt, type AtInterval } from './exponential';
import { checkShare, reliabilityBounds, type Counted, type ReliabilityBounds } from './reliability';

/** Fewer say nothing: with none found out of twenty, 86 in a hundred may still be all that is inside. */
export const LEAST_OF_FAMILY = 20;
const CONFIDENCE = 0.95;
const HALVINGS = 100;

export interface FamilyFigures extends Counted {
  readonly bounds: ReliabilityBounds;
  /** Most likely rate of going outside, per unit of the intervals. */
  readonly rate: number;
  /** The rate that would show so few found out only one time in twenty: the bound from above. */
  readonly rateBound: number;
}

/** How likely so few or fewer are found out at a rate; each counted with the mean probability of all (wider than exact, so on the safe side). */
function probabilityOfSoFew(
  rows: readonly AtInterval[],
  { calibrations, out }: Counted,
  rate: number,
): number {
  return binomialCdf(out, calibrations, meanOutside(rows, calibrations, rate));
}

const meanOutside = (rows: readonly AtInterval[], calibrations: number, rate: number): number =>
  rows.reduce((sum, row) => sum + row.calibrations * (1 - reliabilityAt(rate, row.interval)), 0) /
  calibrations;

export const countOf = (rows: readonly AtInterval[]): Counted =>
  rows.reduce(
    (sum, { calibrations, out }) => ({ calibrations: sum.calibrations + calibrations, out: sum.out + out }),
    { calibrations: 0, out: 0 },
  );

/** The bound of the rate: by halving, since the probability of so few falls steadily with it. */
function rateBoundOf(rows: readonly AtInterval[], counted: Counted): number {
  if (counted.out === counted.calibrations) return Infinity;
  const longest = Math.max(...rows.map(({ interval }) => interval));
  let [low, high] = [
    Math.log(1e-12 / longest),
    Math.log(1e6 / Math.min(...rows.map(({ interval }) => interval))),
  ];
  for (let i = 0; i < HALVINGS; i += 1) {
    const middle = (low + high) / 2;
    if (probabilityOfSoFew(rows, counted, Math.exp(middle)) > 1 - CONFIDENCE) low = middle;
    else high = middle;
  }
  return Math.exp((low + high) / 2);
}

/** Calibrations of a family by the time since the one before, with what they say. */
export interface Family {
  readonly rows: readonly AtInterval[];
  /** Null where there are fewer calibrations than say anything. */
  readonly figures: FamilyFigures | null;
}

/**
 * A family with its figures, worked out once for all of its instruments.
 * @throws CoreError as `mostLikelyRate`
 */
export function familyOf(rows: readonly AtInterval[]): Family {
  const counted = countOf(rows);
  if (counted.calibrations < LEAST_OF_FAMILY) return { rows, figures: null };
  return {
    rows,
    figures: {
      ...counted,
      bounds: reliabilityBounds(counted, CONFIDENCE),
      rate: mostLikelyRate(rows),
      rateBound: rateBoundOf(rows, counted),
    },
  };
}

/**
 * How probable so many or more are found out by chance, were the target met at an interval.
 * @throws CoreError `out-of-bounds`
 */
export function chanceOfShort(
  rows: readonly AtInterval[],
  { interval, target }: { readonly interval: number; readonly target: number },
): number {
  checkShare('Target', target, 'target');
  const { calibrations, out } = countOf(rows);
  if (out === 0) return 1;
  const rate = -Math.log(target) / interval;
  return 1 - binomialCdf(out - 1, calibrations, meanOutside(rows, calibrations, rate));
}

/** The interval up to which a family is shown to meet a target, with 95 % confidence. */
export const intervalShown = ({ rateBound }: FamilyFigures, target: number): number =>
  intervalFor(rateBound, target);
