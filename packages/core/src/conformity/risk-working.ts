/** The working of priors and of the risks of a whole process. What only an integral or a search gives is shown as such. */
import { Working, type Given, type Step } from '../working';
import type { Limits } from './ratio';
import {
  acceptanceForRisk,
  acceptanceForSpecificRisk,
  globalRisk,
  posterior,
  priorFromReliability,
  type GlobalRisk,
  type Normal,
} from './risk';

const CLAUSE_6 = 'JCGM 106:2012, clause 6, from memory';
const CLAUSE_9 = 'JCGM 106:2012, clause 9, from memory';
const plain = (value: number): Given => ({ value, unit: '' });

/**
 * The true value after a measurement; ends in m_post and s_post.
 * @throws CoreError as `posterior`
 */
export function workPosterior(
  prior: Normal,
  measured: number,
  standardUncertainty: number,
  unit: string,
): readonly Step[] {
  posterior(prior, measured, standardUncertainty);
  const work = new Working();
  const of = (value: number): Given => ({ value, unit });
  const given = { m: of(prior.mean), sigma: of(prior.sd), x: of(measured), u: of(standardUncertainty) };
  work.step({
    what: 'Mean: both weighted by the inverse of their variance',
    symbol: 'm_post',
    formula: '(m / sigma^2 + x / u^2) / (1 / sigma^2 + 1 / u^2)',
    given,
    unit,
    source: CLAUSE_6,
  });
  work.step({
    what: 'Standard deviation',
    symbol: 's_post',
    formula: '1 / sqrt(1 / sigma^2 + 1 / u^2)',
    given,
    unit,
    source: CLAUSE_6,
  });
  return work.steps;
}

/**
 * The spread of instruments of which a share is in tolerance; ends in sigma.
 * @throws CoreError as `priorFromReliability`
 */
export function workPrior(
  tolerance: number,
  inTolerance: number,
  basis: 'true' | 'observed',
  standardUncertainty: number,
  unit: string,
): readonly Step[] {
  const { sd } = priorFromReliability(tolerance, inTolerance, basis, standardUncertainty);
  const observed = basis === 'true' ? sd : Math.hypot(sd, standardUncertainty);
  const work = new Working();
  work.step({
    what: `Quantile of the normal distribution that keeps ${Number((inTolerance * 100).toPrecision(6))} % inside`,
    symbol: 'z',
    formula: 'q',
    notation: '\\Phi^{-1}\\left(\\frac{1 + p}{2}\\right)',
    given: { q: plain(tolerance / observed) },
    unit: '',
    source: 'normal distribution',
  });
  work.step({
    what: basis === 'true' ? 'Spread of the instruments' : 'Spread as observed',
    symbol: basis === 'true' ? 'sigma' : 's_obs',
    formula: 'T / z',
    given: { T: { value: tolerance, unit } },
    unit,
    source: CLAUSE_9,
  });
  if (basis === 'observed')
    work.step({
      what: 'Spread of the instruments: the measurement taken off',
      symbol: 'sigma',
      formula: 'sqrt(s_obs^2 - u^2)',
      given: { u: { value: standardUncertainty, unit } },
      unit,
      source: CLAUSE_9,
    });
  return work.steps;
}

const DENSITY = '\\frac{1}{\\sigma}\\varphi\\!\\left(\\frac{t - m}{\\sigma}\\right)';
const ACCEPTS =
  '\\left[\\Phi\\!\\left(\\frac{A_U - t}{u}\\right) - \\Phi\\!\\left(\\frac{A_L - t}{u}\\right)\\right]';

/** Probability of lying inside limits, of a normal value about m with the spread s. */
const inside = ({ lower, upper }: Limits, letter: string, spread: string): string => {
  const above = upper === null ? '' : ` - Phi((m - ${letter}_U) / ${spread})`;
  const below = lower === null ? '' : ` - Phi((${letter}_L - m) / ${spread})`;
  return `1${below}${above}`;
};

/** The steps of both risks for a result that has been computed; ends in p_FA and p_FR and what is conditional on them. */
function riskSteps(
  work: Working,
  tolerance: Limits,
  acceptance: Limits,
  prior: Normal,
  standardUncertainty: number,
  unit: string,
  risk: GlobalRisk,
): void {
  const of = (value: number): Given => ({ value, unit });
  const given: Record<string, Given> = {
    m: of(prior.mean),
    sigma: of(prior.sd),
    u: of(standardUncertainty),
    ...(tolerance.lower === null ? {} : { T_L: of(tolerance.lower) }),
    ...(tolerance.upper === null ? {} : { T_U: of(tolerance.upper) }),
    ...(acceptance.lower === null ? {} : { A_L: of(acceptance.lower) }),
    ...(acceptance.upper === null ? {} : { A_U: of(acceptance.upper) }),
  };
  work.step({
    what: 'Instruments in tolerance before the measurement',
    symbol: 'p_in',
    formula: inside(tolerance, 'T', 'sigma'),
    given,
    unit: '',
    source: CLAUSE_9,
  });
  work.step({
    what: 'Spread of the measured values',
    symbol: 's_m',
    formula: 'sqrt(sigma^2 + u^2)',
    given,
    unit,
    source: CLAUSE_9,
  });
  work.step({
    what: 'Accepted',
    symbol: 'p_A',
    formula: inside(acceptance, 'A', 's_m'),
    given,
    unit: '',
    source: CLAUSE_9,
  });
  work.step({
    what: 'Consumer’s risk: true value outside its limits, measured value inside its own; integrated numerically over the true value',
    symbol: 'p_FA',
    formula: 'F',
    notation: `\\int_{t \\notin [T_L, T_U]} ${DENSITY}\\,${ACCEPTS}\\,dt`,
    given: { F: plain(risk.falseAccept) },
    unit: '',
    source: `${CLAUSE_9}; Gauss-Legendre quadrature`,
  });
  work.step({
    what: 'Producer’s risk: true value inside its limits, measured value outside its own; likewise',
    symbol: 'p_FR',
    formula: 'F',
    notation: `\\int_{T_L}^{T_U} ${DENSITY}\\left(1 - ${ACCEPTS}\\right)dt`,
    given: { F: plain(risk.falseReject) },
    unit: '',
    source: `${CLAUSE_9}; Gauss-Legendre quadrature`,
  });
  if (risk.falseAcceptGivenAcceptance !== null)
    work.step({
      what: 'Outside, of those accepted',
      symbol: 'p_FA_A',
      formula: 'p_FA / p_A',
      unit: '',
      source: CLAUSE_9,
    });
  if (risk.falseRejectGivenRejection !== null)
    work.step({
      what: 'Inside, of those rejected',
      symbol: 'p_FR_R',
      formula: 'p_FR / (1 - p_A)',
      unit: '',
      source: CLAUSE_9,
    });
}

/**
 * Consumer's and producer's risk; ends in p_FA, p_FR, p_FA_A and p_FR_R.
 * @throws CoreError as `globalRisk`
 */
export function workGlobalRisk(
  tolerance: Limits,
  acceptance: Limits,
  prior: Normal,
  standardUncertainty: number,
  unit: string,
): readonly Step[] {
  const risk = globalRisk(tolerance, acceptance, prior, standardUncertainty);
  const work = new Working();
  riskSteps(work, tolerance, acceptance, prior, standardUncertainty, unit, risk);
  return work.steps;
}

/**
 * The acceptance limit for a chosen risk; ends in A, in the limit to use A_U, and its risks.
 * @throws CoreError as `acceptanceForRisk`
 */
export function workAcceptanceForRisk(
  tolerance: number,
  standardUncertainty: number,
  prior: Normal,
  target: number,
  of: 'joint' | 'given-acceptance',
  unit: string,
): readonly Step[] {
  const { solution, applied, risk } = acceptanceForRisk(tolerance, standardUncertainty, prior, target, of);
  const work = new Working();
  const T: Given = { value: tolerance, unit };
  work.step({
    what: `Acceptance limit at which the risk is ${target}, found by bisection`,
    symbol: 'A',
    formula: 'a',
    notation: `\\left\\{a : p_{\\mathrm{FA}${of === 'joint' ? '' : '\\mid A'}}(a) = ${target}\\right\\}`,
    given: { a: { value: solution, unit } },
    unit,
    source: CLAUSE_9,
  });
  work.step({
    what: 'Guard band as a part of twice the standard uncertainty',
    symbol: 'r',
    formula: '(T - A) / (2 * u)',
    given: { T, u: { value: standardUncertainty, unit } },
    unit: '',
    source: CLAUSE_9,
  });
  work.step({
    what: 'Limit to use: never wider than the tolerance',
    symbol: 'A_U',
    formula: 'min(A, T)',
    given: { T },
    unit,
    source: 'common practice',
  });
  const within = (half: number): Limits => ({ lower: -half, upper: half });
  riskSteps(work, within(tolerance), within(applied), prior, standardUncertainty, unit, risk);
  return work.steps;
}

/**
 * The acceptance limit for a chosen specific risk; ends in A_U.
 * @throws CoreError as `acceptanceForSpecificRisk`
 */
export function workAcceptanceForSpecificRisk(
  upper: number,
  standardUncertainty: number,
  risk: number,
  unit: string,
): readonly Step[] {
  const limit = acceptanceForSpecificRisk(upper, standardUncertainty, risk);
  const work = new Working();
  work.step({
    what: 'Quantile of the normal distribution',
    symbol: 'z',
    formula: 'q',
    notation: `\\Phi^{-1}\\left(1 - ${risk}\\right)`,
    given: { q: plain(standardUncertainty === 0 ? 0 : (upper - limit) / standardUncertainty) },
    unit: '',
    source: 'normal distribution',
  });
  work.step({
    what: 'Acceptance limit',
    symbol: 'A_U',
    formula: 'T_U - z * u',
    given: { T_U: { value: upper, unit }, u: { value: standardUncertainty, unit } },
    unit,
    source: 'JCGM 106:2012, clause 8, from memory',
  });
  return work.steps;
}
