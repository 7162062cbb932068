/**
 * Risks of a wrong decision for a normal measurement error (JCGM 106:2012, from memory; clause numbers likewise).
 *
 * Specific risk is that of one measured value (clause 7). Global risks are those of the whole process (clause 9): the
 * true value is normal around `priorMean`, the measured one normal around the true value, and a false accept is the
 * joint event of a true value outside and a measured one inside its limits. The integral over the true value is taken
 * by Gauss-Legendre on panels that end at the limits, where the integrand has its only corners.
 */
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { CoreError, requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';
import { checkLimits, type Limits } from './ratio';

/**
 * Probability that a normal value lies outside limits; each tail is taken by itself, so that small ones keep their digits.
 */
function outside({ lower, upper }: Limits, mean: number, sd: number): number {
  const below = lower === null ? 0 : normalCdf((lower - mean) / sd, 0, 1);
  const above = upper === null ? 0 : normalCdf((mean - upper) / sd, 0, 1);
  return below + above;
}

/**
 * Probability that the true value is outside the tolerance, given one measured value and no prior knowledge:
 * Phi((lower - x)/u) + 1 - Phi((upper - x)/u).
 * @throws CoreError `missing`, `reversed-limits`, `not-positive`, `not-finite`
 * @example specificRisk({ lower: null, upper: -5.4 }, -5.47, 0.05) // 0.0808 (JCGM 106, 7.3: conformance probability 0.92)
 */
export function specificRisk(limits: Limits, measured: number, standardUncertainty: number): number {
  checkLimits(limits);
  requireFinite('The measured value', measured, 'measured');
  requirePositive('The standard uncertainty', standardUncertainty, 'standardUncertainty');
  return outside(limits, measured, standardUncertainty);
}

export interface Normal {
  readonly mean: number;
  readonly sd: number;
}

/**
 * What is known of the true value after a measurement, from a normal prior: the mean weighted by the inverse
 * variances (JCGM 106:2012, clause 6).
 * @throws CoreError `not-positive`, `not-finite`
 */
export function posterior(prior: Normal, measured: number, standardUncertainty: number): Normal {
  checkPrior(prior);
  requireFinite('The measured value', measured, 'measured');
  requirePositive('The standard uncertainty', standardUncertainty, 'standardUncertainty');
  const [weightPrior, weightMeasured] = [1 / prior.sd ** 2, 1 / standardUncertainty ** 2];
  const variance = 1 / (weightPrior + weightMeasured);
  return { mean: variance * (prior.mean * weightPrior + measured * weightMeasured), sd: Math.sqrt(variance) };
}

function checkPrior(prior: Normal): void {
  requireFinite('The mean of the instruments', prior.mean, 'prior.mean');
  requirePositive('The spread of the instruments', prior.sd, 'prior.sd');
}

/** Half-width rule of 20 points on -1..1 (Abramowitz and Stegun, table 25.4; the points are found by Newton's method). */
const GAUSS = gaussLegendre(20);

function gaussLegendre(order: number): readonly (readonly [node: number, weight: number])[] {
  return Array.from({ length: order }, (_, index) => {
    let x = Math.cos((Math.PI * (index + 0.75)) / (order + 0.5));
    let derivative = 1;
    for (let pass = 0; pass < 100; pass += 1) {
      let [p0, p1] = [1, x];
      for (let n = 2; n <= order; n += 1) [p0, p1] = [p1, ((2 * n - 1) * x * p1 - (n - 1) * p0) / n];
      derivative = (order * (x * p1 - p0)) / (x * x - 1);
      const step = p1 / derivative;
      x -= step;
      if (Math.abs(step) < 1e-15) break;
    }
    return [x, 2 / ((1 - x * x) * derivative * derivative)] as const;
  });
}

/** Beyond nine standard deviations less than 1e-18 of the normal density is left. */
const REACH = 9;
const PANELS = 24;

function integrate(f: (x: number) => number, from: number, to: number): number {
  if (to <= from) return 0;
  const half = (to - from) / PANELS / 2;
  let sum = 0;
  for (let panel = 0; panel < PANELS; panel += 1) {
    const middle = from + (2 * panel + 1) * half;
    for (const [node, weight] of GAUSS) sum += weight * f(middle + half * node);
  }
  return sum * half;
}

export interface GlobalRisk {
  /** Probability that the true value is outside and the measured one accepted (consumer's risk, joint). */
  readonly falseAccept: number;
  /** Probability that the true value is inside and the measured one rejected (producer's risk, joint). */
  readonly falseReject: number;
  readonly accepted: number;
  readonly inTolerance: number;
  /** The two risks given the decision; null where that decision never comes. */
  readonly falseAcceptGivenAcceptance: number | null;
  readonly falseRejectGivenRejection: number | null;
}

/**
 * Consumer's and producer's risk of accepting inside `acceptance` what has to be inside `tolerance`.
 * @param prior distribution of the true values before measurement
 * @throws CoreError `missing`, `reversed-limits` for the tolerance or the acceptance limits, `not-positive`, `not-finite`
 */
export function globalRisk(
  tolerance: Limits,
  acceptance: Limits,
  prior: Normal,
  standardUncertainty: number,
): GlobalRisk {
  checkLimits(tolerance);
  checkPrior(prior);
  requirePositive('The standard uncertainty', standardUncertainty, 'standardUncertainty');
  if (acceptance.lower !== null && acceptance.upper !== null && acceptance.lower > acceptance.upper)
    throw new CoreError(
      {
        code: 'reversed-limits',
        name: 'The acceptance limits, inside which nothing could be accepted',
        lower: acceptance.lower,
        upper: acceptance.upper,
      },
      'acceptance.upper',
    );
  const { mean, sd } = prior;
  const density = (x: number) => Math.exp(-0.5 * ((x - mean) / sd) ** 2) / (sd * Math.sqrt(2 * Math.PI));
  const rejects = (x: number) => outside(acceptance, x, standardUncertainty);
  const accepts = (x: number) => {
    const { lower, upper } = acceptance;
    // The difference of the two tails nearest to the limits keeps the digits of a small probability.
    const a = lower === null ? -Infinity : (lower - x) / standardUncertainty;
    const b = upper === null ? Infinity : (upper - x) / standardUncertainty;
    return a > 0 ? normalCdf(-a, 0, 1) - normalCdf(-b, 0, 1) : normalCdf(b, 0, 1) - normalCdf(a, 0, 1);
  };
  const [left, right] = [mean - REACH * sd, mean + REACH * sd];
  const low = Math.max(left, tolerance.lower ?? left);
  const high = Math.min(right, tolerance.upper ?? right);
  // Acceptance changes within a few u of its limits; panels end there as well.
  const corners = [acceptance.lower, acceptance.upper, tolerance.lower, tolerance.upper]
    .filter((limit) => limit !== null)
    .flatMap((limit) => [limit - 8 * standardUncertainty, limit, limit + 8 * standardUncertainty]);
  const over = (f: (x: number) => number, from: number, to: number) => {
    const ends = [from, ...corners.filter((x) => x > from && x < to).sort((a, b) => a - b), to];
    return ends.slice(1).reduce((sum, end, index) => sum + integrate(f, ends[index] ?? from, end), 0);
  };
  const joint = (x: number) => density(x) * accepts(x);
  const falseAccept =
    (tolerance.lower === null ? 0 : over(joint, left, low)) +
    (tolerance.upper === null ? 0 : over(joint, high, right));
  const falseReject = over((x) => density(x) * rejects(x), low, high);
  const spread = Math.hypot(sd, standardUncertainty);
  const rejected = outside(acceptance, mean, spread);
  const accepted = 1 - rejected;
  return {
    falseAccept,
    falseReject,
    accepted,
    inTolerance: 1 - outside(tolerance, mean, sd),
    falseAcceptGivenAcceptance: accepted > 0 ? falseAccept / accepted : null,
    falseRejectGivenRejection: rejected > 0 ? falseReject / rejected : null,
  };
}

/**
 * The spread of instruments of which a share is in a symmetrical tolerance: T / z, with z the normal quantile of
 * (1 + p) / 2. An observed share includes the measurement error, which is taken off.
 * @param tolerance half width T
 * @throws CoreError `not-positive`, `out-of-bounds`, `undefined-result` where the measurement alone spreads wider
 */
export function priorFromReliability(
  tolerance: number,
  inTolerance: number,
  basis: 'true' | 'observed',
  standardUncertainty: number,
): Normal {
  requirePositive('The tolerance', tolerance, 'tolerance');
  requirePositive('The standard uncertainty', standardUncertainty, 'standardUncertainty');
  requireBetween('The share in tolerance', inTolerance, [0.001, 0.999999, '(a probability)'], 'inTolerance');
  const total = tolerance / normalQuantile((1 + inTolerance) / 2, 0, 1);
  const variance = basis === 'true' ? total ** 2 : total ** 2 - standardUncertainty ** 2;
  if (!(variance > 0))
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The spread of the instruments',
        why: 'the measurement alone spreads wider than was observed',
      },
      'inTolerance',
    );
  return { mean: 0, sd: Math.sqrt(variance) };
}

export interface AcceptanceForRisk {
  /** Which probability was held to the target. */
  readonly of: 'joint' | 'given-acceptance';
  /** Half width at which the risk is the target; may lie outside the tolerance. */
  readonly solution: number;
  /** What to use: never wider than the tolerance. */
  readonly applied: number;
  /** (T - solution) / (2 u); negative where the solution is wider than the tolerance. */
  readonly guardBandFactor: number;
  readonly riskWithoutGuardBand: number;
  readonly risk: GlobalRisk;
}

/**
 * The symmetrical acceptance limit with a chosen false accept risk, by bisection: the risk rises with the limit.
 * @param tolerance half width T
 * @param target joint probability of false accept, or that given acceptance
 * @throws CoreError `out-of-bounds`, `not-positive`, `undefined-result` where no limit has that risk
 */
export function acceptanceForRisk(
  tolerance: number,
  standardUncertainty: number,
  prior: Normal,
  target: number,
  of: 'joint' | 'given-acceptance',
): AcceptanceForRisk {
  requirePositive('The tolerance', tolerance, 'tolerance');
  requireBetween('The target risk', target, [1e-6, 0.5, '(a probability)'], 'target');
  const within = (half: number): Limits => ({ lower: -half, upper: half });
  const riskAt = (half: number) => globalRisk(within(tolerance), within(half), prior, standardUncertainty);
  const figure = (risk: GlobalRisk) =>
    of === 'joint' ? risk.falseAccept : (risk.falseAcceptGivenAcceptance ?? 0);
  let [low, high] = [tolerance * 1e-6, tolerance + 10 * standardUncertainty];
  if (figure(riskAt(low)) > target || figure(riskAt(high)) < target)
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The acceptance limit',
        why:
          figure(riskAt(high)) < target
            ? `whatever is accepted, the risk stays below ${target}`
            : `even the narrowest limit has a risk above ${target}`,
      },
      'target',
    );
  for (let pass = 0; pass < 60; pass += 1) {
    const middle = (low + high) / 2;
    if (figure(riskAt(middle)) > target) high = middle;
    else low = middle;
  }
  const solution = (low + high) / 2;
  const applied = Math.min(solution, tolerance);
  return {
    of,
    solution,
    applied,
    guardBandFactor: (tolerance - solution) / (2 * standardUncertainty),
    riskWithoutGuardBand: figure(riskAt(tolerance)),
    risk: riskAt(applied),
  };
}

/**
 * The acceptance limit that leaves at most a chosen specific risk at a single upper limit: upper - z u, z = Phi^-1(1 - risk).
 * @throws CoreError `out-of-bounds`, `not-positive`, `not-finite`
 */
export function acceptanceForSpecificRisk(upper: number, standardUncertainty: number, risk: number): number {
  requireFinite('The upper limit', upper, 'upper');
  requireNotNegative('The standard uncertainty', standardUncertainty, 'standardUncertainty');
  requireBetween('The risk', risk, [1e-9, 0.5, '(a probability)'], 'risk');
  return upper - normalQuantile(1 - risk, 0, 1) * standardUncertainty;
}
