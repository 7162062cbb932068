import { describe, it } from 'vitest';
import { expectConsistent, expectEndsIn, expectWorked } from '../../test/working';
import {
  acceptanceByMethodSix,
  acceptanceForRisk,
  acceptanceForSpecificRisk,
  acceptanceWithGuardBand,
  globalRisk,
  posterior,
  priorFromReliability,
  specificRisk,
  testUncertaintyRatio,
  workAcceptanceForRisk,
  workAcceptanceForSpecificRisk,
  workGlobalRisk,
  workGuardBand,
  workMethodSix,
  workPosterior,
  workPrior,
  workSpecificRisk,
  workTestAccuracyRatio,
  workUncertaintyRatio,
  type Limits,
} from './index';

describe('the working of', () => {
  it('acceptance limits and risks', () => {
    const limits = { lower: -0.04, upper: 0.04 };
    const banded = acceptanceWithGuardBand(limits, 0.012, 0.83);
    const steps = workGuardBand(limits, 0.012, 0.83, 'mA');
    expectConsistent(steps);
    expectEndsIn(steps, 'A_L', banded.lower ?? NaN);
    expectEndsIn(steps, 'A_U', banded.upper ?? NaN);
    expectEndsIn(workUncertaintyRatio(limits, 0.012, 'mA'), 'TUR', testUncertaintyRatio(limits, 0.012));
    const six = workMethodSix(limits, 0.02, 'mA');
    expectConsistent(six);
    expectEndsIn(six, 'A_U', acceptanceByMethodSix(limits, 0.02).upper ?? NaN);
    for (const measured of [0, 0.03, 0.045]) {
      const risk = workSpecificRisk(limits, measured, 0.006, 'mA');
      expectConsistent(risk);
      expectEndsIn(risk, 'p', specificRisk(limits, measured, 0.006));
    }
  });

  it('the accuracy ratio', () => {
    expectWorked(workTestAccuracyRatio(0.25, 0.06, 'kPa'));
  });

  it('global risks, two-sided and one-sided', () => {
    const both: Limits = { lower: -1, upper: 1 };
    const cases: (readonly [Limits, Limits])[] = [
      [both, { lower: -0.8, upper: 0.8 }],
      [
        { lower: null, upper: 1 },
        { lower: null, upper: 0.9 },
      ],
      [
        { lower: -1, upper: null },
        { lower: -0.9, upper: null },
      ],
    ];
    for (const [tolerance, acceptance] of cases) {
      const prior = { mean: 0.1, sd: 0.6 };
      const risk = globalRisk(tolerance, acceptance, prior, 0.25);
      const steps = workGlobalRisk(tolerance, acceptance, prior, 0.25, 'kPa');
      expectConsistent(steps);
      expectEndsIn(steps, 'p_in', risk.inTolerance);
      expectEndsIn(steps, 'p_A', risk.accepted);
      expectEndsIn(steps, 'p_FA', risk.falseAccept);
      expectEndsIn(steps, 'p_FR', risk.falseReject);
      if (risk.falseAcceptGivenAcceptance !== null)
        expectEndsIn(steps, 'p_FA_A', risk.falseAcceptGivenAcceptance);
      expectEndsIn(steps, 'p_FR_R', risk.falseRejectGivenRejection ?? NaN);
    }
  });

  it('limits for a chosen risk, and the spread of instruments before and after a measurement', () => {
    const prior = { mean: 0, sd: 0.6 };
    for (const of of ['joint', 'given-acceptance'] as const) {
      const found = acceptanceForRisk(1, 1 / 3, prior, 0.02, of);
      const steps = workAcceptanceForRisk(1, 1 / 3, prior, 0.02, of, 'kPa');
      expectConsistent(steps);
      expectEndsIn(steps, 'A', found.solution);
      expectEndsIn(steps, 'A_U', found.applied);
      expectEndsIn(steps, 'r', found.guardBandFactor);
      expectEndsIn(steps, 'p_FA', found.risk.falseAccept);
    }
    for (const u of [0.05, 0]) {
      const steps = workAcceptanceForSpecificRisk(10, u, 0.025, 'kPa');
      expectConsistent(steps);
      expectEndsIn(steps, 'A_U', acceptanceForSpecificRisk(10, u, 0.025));
    }
    const after = posterior(prior, 0.4, 0.2);
    const steps = workPosterior(prior, 0.4, 0.2, 'kPa');
    expectConsistent(steps);
    expectEndsIn(steps, 'm_post', after.mean);
    expectEndsIn(steps, 's_post', after.sd);
    for (const basis of ['true', 'observed'] as const) {
      const spread = workPrior(1, 0.95, basis, 0.1, 'kPa');
      expectConsistent(spread);
      expectEndsIn(spread, 'sigma', priorFromReliability(1, 0.95, basis, 0.1).sd);
    }
  });
});
