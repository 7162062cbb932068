/** The working of ratio, acceptance limits and specific risk. */
import { Working, type Given, type Step, type Worked } from '../working';
import { acceptanceByMethodSix, acceptanceWithGuardBand } from './guard';
import { testAccuracyRatio, testUncertaintyRatio, type Limits } from './ratio';
import { specificRisk } from './risk';

const limitsGiven = ({ lower, upper }: Limits, unit: string): Record<string, Given> => ({
  ...(lower === null ? {} : { T_L: { value: lower, unit } }),
  ...(upper === null ? {} : { T_U: { value: upper, unit } }),
});

function limitSteps(work: Working, limits: Limits, unit: string, source: string): void {
  if (limits.lower !== null)
    work.step({
      what: 'Lower acceptance limit',
      symbol: 'A_L',
      formula: 'T_L + w',
      given: limitsGiven(limits, unit),
      unit,
      source,
    });
  if (limits.upper !== null)
    work.step({
      what: 'Upper acceptance limit',
      symbol: 'A_U',
      formula: 'T_U - w',
      given: limitsGiven(limits, unit),
      unit,
      source,
    });
}

/**
 * Acceptance limits for a guard band r U; ends in A_L and A_U.
 * @throws CoreError as `acceptanceWithGuardBand`
 */
export function workGuardBand(
  limits: Limits,
  expandedUncertainty: number,
  r: number,
  unit: string,
): readonly Step[] {
  acceptanceWithGuardBand(limits, expandedUncertainty, r);
  const work = new Working();
  const source = 'ILAC-G8:09/2019, from memory';
  work.step({
    what: 'Guard band',
    symbol: 'w',
    formula: 'r * U',
    given: { r: { value: r, unit: '' }, U: { value: expandedUncertainty, unit } },
    unit,
    source,
  });
  limitSteps(work, limits, unit, source);
  return work.steps;
}

/**
 * Tolerance over the accuracy of the standard.
 * @throws CoreError as `testAccuracyRatio`
 */
export function workTestAccuracyRatio(tolerance: number, standardAccuracy: number, unit: string): Worked {
  const value = testAccuracyRatio(tolerance, standardAccuracy);
  const work = new Working();
  work.step({
    what: 'Test accuracy ratio: at least 4 is common practice',
    symbol: 'TAR',
    formula: 'T / a',
    given: { T: { value: tolerance, unit }, a: { value: standardAccuracy, unit } },
    unit: '',
    source: 'common practice',
  });
  return { value, working: work.steps };
}

/** The ratio of a two-sided tolerance to the uncertainty; ends in TUR. */
export function workUncertaintyRatio(
  limits: Limits,
  expandedUncertainty: number,
  unit: string,
): readonly Step[] {
  testUncertaintyRatio(limits, expandedUncertainty);
  const work = new Working();
  ratioStep(work, limits, expandedUncertainty, unit);
  return work.steps;
}

const ratioStep = (work: Working, limits: Limits, expandedUncertainty: number, unit: string): number =>
  work.step({
    what: 'Test uncertainty ratio',
    symbol: 'TUR',
    formula: '(T_U - T_L) / (2 * U)',
    given: { ...limitsGiven(limits, unit), U: { value: expandedUncertainty, unit } },
    unit: '',
    source: 'ANSI/NCSL Z540.3, from memory',
  });

/** Acceptance limits by method 6; ends in A_L and A_U. */
export function workMethodSix(limits: Limits, expandedUncertainty: number, unit: string): readonly Step[] {
  acceptanceByMethodSix(limits, expandedUncertainty);
  const work = new Working();
  const source = 'method 6 of the handbook to ANSI/NCSL Z540.3, from memory';
  ratioStep(work, limits, expandedUncertainty, unit);
  work.step({
    what: 'Multiplier; none where it would be negative',
    symbol: 'M',
    formula: 'max(0, 1.04 - exp(0.38 * ln(TUR) - 0.54))',
    unit: '',
    source,
  });
  work.step({
    what: 'Guard band',
    symbol: 'w',
    formula: 'M * U',
    given: { U: { value: expandedUncertainty, unit } },
    unit,
    source,
  });
  limitSteps(work, limits, unit, source);
  return work.steps;
}

/** Probability of lying outside, from one measured value; ends in p. */
export function workSpecificRisk(
  limits: Limits,
  measured: number,
  standardUncertainty: number,
  unit: string,
): readonly Step[] {
  specificRisk(limits, measured, standardUncertainty);
  const work = new Working();
  const below = limits.lower === null ? [] : ['Phi((T_L - x) / u)'];
  const above = limits.upper === null ? [] : ['Phi((x - T_U) / u)'];
  work.step({
    what: 'Probability that the true value is outside',
    symbol: 'p',
    formula: [...below, ...above].join(' + '),
    given: {
      ...limitsGiven(limits, unit),
      x: { value: measured, unit },
      u: { value: standardUncertainty, unit },
    },
    unit: '',
    source: 'JCGM 106:2012, clause 7, from memory',
  });
  return work.steps;
}
