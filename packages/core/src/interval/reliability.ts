/** How many of some calibrations were found inside their limits, and what that says of all: exact binomial bounds. */
import betaQuantile from '@stdlib/stats-base-dists-beta-quantile';
import binomialCdf from '@stdlib/stats-base-dists-binomial-cdf';
import { CoreError } from '../errors';

export interface Counted {
  readonly calibrations: number;
  /** Of them, found out of tolerance. */
  readonly out: number;
}

export interface ReliabilityBounds {
  readonly observed: number;
  readonly twoSided: { readonly low: number; readonly high: number };
  readonly oneSided: { readonly low: number; readonly high: number };
}

/** @throws CoreError `not-whole`, `out-of-bounds` */
export function checkCounted({ calibrations, out }: Counted): void {
  if (!Number.isInteger(calibrations) || calibrations < 1)
    throw new CoreError(
      { code: 'not-whole', name: 'Calibrations', value: calibrations, least: 1 },
      'calibrations',
    );
  if (!Number.isInteger(out) || out < 0 || out > calibrations)
    throw new CoreError(
      { code: 'out-of-bounds', name: 'Found out', value: out, lowest: 0, highest: calibrations, unit: '' },
      'out',
    );
}

/** @throws CoreError `out-of-bounds` */
export function checkShare(name: string, value: number, field: string): void {
  if (!(value > 0 && value < 1))
    throw new CoreError({ code: 'out-of-bounds', name, value, lowest: 0, highest: 1, unit: '' }, field);
}

/**
 * Clopper and Pearson's bounds of the part found inside (Biometrika 26, 1934, from memory): quantiles of beta distributions.
 * @param confidence of each of the two kinds of bound, from 0 to 1
 * @throws CoreError `not-whole`, `out-of-bounds`
 * @example reliabilityBounds({ calibrations: 20, out: 1 }).twoSided.low // 0.7513
 */
export function reliabilityBounds(counted: Counted, confidence = 0.95): ReliabilityBounds {
  checkCounted(counted);
  checkShare('Confidence', confidence, 'confidence');
  const { calibrations, out } = counted;
  const inside = calibrations - out;
  const low = (tail: number) => (inside === 0 ? 0 : betaQuantile(tail, inside, out + 1));
  const high = (tail: number) => (out === 0 ? 1 : betaQuantile(1 - tail, inside + 1, out));
  const each = (1 - confidence) / 2;
  return {
    observed: inside / calibrations,
    twoSided: { low: low(each), high: high(each) },
    oneSided: { low: low(1 - confidence), high: high(1 - confidence) },
  };
}

/**
 * How probable so many or more are found out, where each is inside with the target's probability: small where the target is not met.
 * @throws CoreError `not-whole`, `out-of-bounds`
 * @example probabilityOfSoMany({ calibrations: 20, out: 1 }, 0.95) // 0.6415
 */
export function probabilityOfSoMany(counted: Counted, target: number): number {
  checkCounted(counted);
  checkShare('Target', target, 'target');
  return counted.out === 0 ? 1 : 1 - binomialCdf(counted.out - 1, counted.calibrations, 1 - target);
}
