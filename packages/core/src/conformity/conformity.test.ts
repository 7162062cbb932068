import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectAll, loadCases, type Case } from '../../test/fixtures';
import {
  acceptanceByMethodSix,
  acceptanceForRisk,
  acceptanceForSpecificRisk,
  acceptanceWithGuardBand,
  globalRisk,
  isInside,
  methodSixMultiplier,
  posterior,
  priorFromReliability,
  specificRisk,
  statementOf,
  testAccuracyRatio,
  testUncertaintyRatio,
  type GlobalRisk,
  type Limits,
} from './index';

interface Given {
  TL?: number | null;
  TU?: number | null;
  AL?: number | null;
  AU?: number | null;
  U?: number;
  U95?: number;
  u?: number;
  u_m?: number;
  r?: number;
  measured?: number[];
  prior_mean?: number;
  prior_sd?: number;
  tolerance_plus_minus?: number;
  accuracy_of_standard_plus_minus?: number;
  TUR?: number;
  in_tolerance_probability?: number;
  in_tolerance_basis?: 'true' | 'observed';
  guard_band_r?: number;
  target?: number;
  target_definition?: 'joint' | 'given_acceptance';
  target_specific_risk?: number;
}
type RiskCase = Case<Given, Record<string, { value: unknown; unit: string | null }>>;

const figure = (value: number | null | undefined, name: string): number => {
  if (value === null || value === undefined) throw new Error(`the case has no ${name}`);
  return value;
};
const tolerance = ({ TL = null, TU = null }: Given): Limits => ({ lower: TL, upper: TU });
const decisions = (acceptance: Limits, measured: readonly number[]) =>
  measured.map((value) => (isInside(acceptance, value) ? 'accept' : 'reject'));
const riskFigures = (risk: GlobalRisk) => ({
  PFA: risk.falseAccept,
  PFR: risk.falseReject,
  p_accept: risk.accepted,
  p_in_tolerance: risk.inTolerance,
  conditional_false_accept: risk.falseAcceptGivenAcceptance,
  conditional_false_reject: risk.falseRejectGivenRejection,
});

function compute(kind: string, given: Given): Record<string, unknown> {
  const measured = given.measured ?? [];
  switch (kind) {
    case 'ratio':
      return given.U95 === undefined
        ? {
            TAR: testAccuracyRatio(
              figure(given.tolerance_plus_minus, 'tolerance'),
              figure(given.accuracy_of_standard_plus_minus, 'accuracy'),
            ),
          }
        : { TUR: testUncertaintyRatio(tolerance(given), given.U95) };
    case 'guard_band': {
      const got = acceptanceWithGuardBand(tolerance(given), figure(given.U, 'U'), figure(given.r, 'r'));
      return { guard_band: got.guardBand, AL: got.lower, AU: got.upper, decision: decisions(got, measured) };
    }
    case 'method6': {
      const uncertainty = figure(given.U95, 'U95');
      const got = acceptanceByMethodSix(tolerance(given), uncertainty);
      const ratio = testUncertaintyRatio(tolerance(given), uncertainty);
      return {
        TUR: ratio,
        M_applied: got.multiplier,
        AL: got.lower,
        AU: got.upper,
        decision: decisions(got, measured),
        // Before a negative value is set to zero; not a figure of ours.
        M_raw: 1.04 - Math.exp(0.38 * Math.log(ratio) - 0.54),
      };
    }
    case 'specific_risk': {
      const risks = measured.map((value) => specificRisk(tolerance(given), value, figure(given.u, 'u')));
      return { p_nonconforming: risks, p_conforming: risks.map((risk) => 1 - risk) };
    }
    case 'specific_risk_prior': {
      const prior = { mean: figure(given.prior_mean, 'prior'), sd: figure(given.prior_sd, 'prior') };
      const after = measured.map((value) => posterior(prior, value, figure(given.u_m, 'u')));
      return {
        posterior_mean: after.map(({ mean }) => mean),
        posterior_sd: after[0]?.sd,
        p_nonconforming: after.map(({ mean, sd }) => specificRisk(tolerance(given), mean, sd)),
      };
    }
    case 'nonbinary':
      return {
        statement: measured.map((value) => statementOf(tolerance(given), figure(given.U, 'U'), value)),
      };
    case 'global_risk_tur': {
      const half = figure(given.tolerance_plus_minus, 'tolerance');
      const u = half / (2 * figure(given.TUR, 'TUR'));
      const prior = priorFromReliability(
        half,
        figure(given.in_tolerance_probability, 'reliability'),
        given.in_tolerance_basis ?? 'true',
        u,
      );
      const limits = { lower: -half, upper: half };
      const acceptance = acceptanceWithGuardBand(limits, 2 * u, figure(given.guard_band_r, 'r'));
      return { u_m: u, prior_sd: prior.sd, ...riskFigures(globalRisk(limits, acceptance, prior, u)) };
    }
    case 'global_risk': {
      const prior = { mean: figure(given.prior_mean, 'prior'), sd: figure(given.prior_sd, 'prior') };
      const acceptance = { lower: given.AL ?? null, upper: given.AU ?? null };
      return riskFigures(globalRisk(tolerance(given), acceptance, prior, figure(given.u_m, 'u')));
    }
    case 'acceptance_limit': {
      const got = acceptanceForRisk(
        figure(given.tolerance_plus_minus, 'tolerance'),
        figure(given.u_m, 'u'),
        { mean: figure(given.prior_mean, 'prior'), sd: figure(given.prior_sd, 'prior') },
        figure(given.target, 'target'),
        given.target_definition === 'joint' ? 'joint' : 'given-acceptance',
      );
      return {
        risk_without_guard_band: got.riskWithoutGuardBand,
        A_solution: got.solution,
        A_applied: got.applied,
        guard_band_multiplier_r: got.guardBandFactor,
        PFA_at_applied: got.risk.falseAccept,
        PFR_at_applied: got.risk.falseReject,
      };
    }
    case 'acceptance_limit_specific': {
      const [upper, u] = [figure(given.TU, 'limit'), figure(given.u, 'u')];
      const limit = acceptanceForSpecificRisk(upper, u, figure(given.target_specific_risk, 'target'));
      return { AU: limit, r_of_U_k2: (upper - limit) / (2 * u) };
    }
    default:
      throw new Error(`no computation for "${kind}"`);
  }
}

describe('conformity against figures computed outside Barys (each case names its source)', () => {
  it.each(loadCases<RiskCase>('conformity.json').map((one) => [`${one.id} ${one.kind}`, one] as const))(
    '%s',
    (_id, one) => expectAll(one.expect, compute(one.kind, one.given)),
  );
});

describe('risks', () => {
  const limits = { lower: -1, upper: 1 };
  it('share out everything: accepted and rejected, in and out', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.5, noNaN: true }),
        fc.double({ min: 0.2, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (u, sd, r) => {
          const acceptance = acceptanceWithGuardBand(limits, 2 * u, Math.min(r, 0.4 / u));
          const risk = globalRisk(limits, acceptance, { mean: 0.1, sd }, u);
          // in and accepted = in - falsely rejected = accepted - falsely accepted
          expect(risk.inTolerance - risk.falseReject).toBeCloseTo(risk.accepted - risk.falseAccept, 10);
        },
      ),
    );
  });

  it('fall for the consumer and rise for the producer as the guard band widens', () => {
    const at = (r: number) =>
      globalRisk(limits, acceptanceWithGuardBand(limits, 0.4, r), { mean: 0, sd: 0.5 }, 0.2);
    const [none, half, full] = [at(0), at(0.5), at(1)];
    expect(none.falseAccept).toBeGreaterThan(half.falseAccept);
    expect(half.falseAccept).toBeGreaterThan(full.falseAccept);
    expect(none.falseReject).toBeLessThan(half.falseReject);
    expect(half.falseReject).toBeLessThan(full.falseReject);
  });

  it('are refused where the acceptance limits cross, since nothing could be accepted', () => {
    const crossed = acceptanceWithGuardBand(limits, 3, 1);
    expect(() => globalRisk(limits, crossed, { mean: 0, sd: 0.5 }, 1.5)).toThrow('nothing could be accepted');
  });

  it('agree with counting simulated instruments', () => {
    // A golden-ratio lattice in two dimensions: 200 000 even points stand for true value and measurement error.
    const [u, sd] = [0.25, 0.6];
    const risk = globalRisk(limits, limits, { mean: 0, sd }, u);
    const count = 200000;
    let falseAccepts = 0;
    const normal = (p: number, q: number) => Math.sqrt(-2 * Math.log(p)) * Math.cos(2 * Math.PI * q);
    for (let i = 0; i < count; i += 1) {
      const [p, q] = [(i + 0.5) / count, (i * 0.6180339887498949) % 1];
      const truth = sd * normal(p, q);
      const error = u * Math.sqrt(-2 * Math.log(p)) * Math.sin(2 * Math.PI * q);
      if (Math.abs(truth) > 1 && Math.abs(truth + error) <= 1) falseAccepts += 1;
    }
    expect(falseAccepts / count).toBeCloseTo(risk.falseAccept, 3);
  });
});

describe('bad questions', () => {
  it('are answered with what is wrong', () => {
    expect(() => testUncertaintyRatio({ lower: 1, upper: -1 }, 0.1)).toThrow(
      'the lower limit 1 must be below',
    );
    expect(() => testUncertaintyRatio({ lower: null, upper: 1 }, 0.1)).toThrow('The other limit is needed');
    expect(() => specificRisk({ lower: null, upper: null }, 0, 1)).toThrow('A limit is needed');
    expect(() => specificRisk({ lower: -1, upper: 1 }, 0, -0.1)).toThrow('greater than zero');
    expect(() => specificRisk({ lower: -1, upper: 1 }, Number.NaN, 0.1)).toThrow('finite');
    expect(() => acceptanceWithGuardBand({ lower: -1, upper: 1 }, 0.1, -1)).toThrow('must not be negative');
    expect(() => priorFromReliability(1, 1.2, 'true', 0.1)).toThrow('must be from 0.001');
    expect(() => priorFromReliability(1, 0.9, 'observed', 5)).toThrow('the measurement alone spreads wider');
    expect(() => acceptanceForRisk(1, 0.1, { mean: 0, sd: 0.1 }, 0.02, 'joint')).toThrow('stays below 0.02');
    expect(() => methodSixMultiplier(-1)).toThrow('negative');
  });
});
