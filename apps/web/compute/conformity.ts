import {
  acceptanceByMethodSix,
  acceptanceForRisk,
  acceptanceForSpecificRisk,
  acceptanceWithGuardBand,
  globalRisk,
  isInside,
  posterior,
  priorFromReliability,
  specificRisk,
  statementOf,
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
} from '@barys/core/conformity';
import { z } from 'zod';
import { calculation } from './calculation';
import { limits, maybe, normal, number, shownUnit, worked, working } from './schemas';

const risk = z.strictObject({
  falseAccept: number,
  falseReject: number,
  accepted: number,
  inTolerance: number,
  falseAcceptGivenAcceptance: maybe,
  falseRejectGivenRejection: maybe,
});
const acceptance = z.strictObject({ guardBand: number, lower: maybe, upper: maybe });
const measured = z.array(number).max(10000).default([]);
const decisions = z.array(z.enum(['accept', 'reject']));
const decide = (within: { lower: number | null; upper: number | null }, values: readonly number[]) =>
  values.map((value): 'accept' | 'reject' => (isInside(within, value) ? 'accept' : 'reject'));

export const CONFORMITY_CALCULATIONS = [
  calculation(
    'test-accuracy-ratio',
    'Tolerance over the accuracy of the standard',
    z.strictObject({ tolerance: number, standardAccuracy: number, unit: shownUnit }),
    worked,
    ({ tolerance, standardAccuracy, unit }) => workTestAccuracyRatio(tolerance, standardAccuracy, unit),
  ),
  calculation(
    'test-uncertainty-ratio',
    'Width of the tolerance over twice the expanded uncertainty',
    limits.extend({ expandedUncertainty: number, unit: shownUnit }),
    z.strictObject({ value: number, working }),
    ({ expandedUncertainty, unit, ...within }) => ({
      value: testUncertaintyRatio(within, expandedUncertainty),
      working: workUncertaintyRatio(within, expandedUncertainty, unit),
    }),
  ),
  calculation(
    'guard-band',
    'Acceptance limits with a guard band of r U, and decisions on measured values',
    limits.extend({ expandedUncertainty: number, r: number.default(1), unit: shownUnit, measured }),
    acceptance.extend({ decisions, working }),
    ({ expandedUncertainty, r, unit, measured: values, ...within }) => {
      const found = acceptanceWithGuardBand(within, expandedUncertainty, r);
      const steps = workGuardBand(within, expandedUncertainty, r, unit);
      return { ...found, decisions: decide(found, values), working: steps };
    },
  ),
  calculation(
    'method-6',
    'Acceptance limits by method 6, and decisions on measured values',
    limits.extend({ expandedUncertainty: number, unit: shownUnit, measured }),
    acceptance.extend({ multiplier: number, decisions, working }),
    ({ expandedUncertainty, unit, measured: values, ...within }) => {
      const found = acceptanceByMethodSix(within, expandedUncertainty);
      const steps = workMethodSix(within, expandedUncertainty, unit);
      return { ...found, decisions: decide(found, values), working: steps };
    },
  ),
  calculation(
    'statement',
    'Pass, conditional pass, conditional fail or fail, with a guard band of U',
    limits.extend({ expandedUncertainty: number, measured: number }),
    z.strictObject({ statement: z.enum(['pass', 'conditional pass', 'conditional fail', 'fail']) }),
    ({ expandedUncertainty, measured: value, ...within }) => ({
      statement: statementOf(within, expandedUncertainty, value),
    }),
  ),
  calculation(
    'specific-risk',
    'Probability that the true value is outside, from one measured value',
    limits.extend({ measured: number, standardUncertainty: number, unit: shownUnit }),
    z.strictObject({ value: number, working }),
    ({ measured: value, standardUncertainty, unit, ...within }) => ({
      value: specificRisk(within, value, standardUncertainty),
      working: workSpecificRisk(within, value, standardUncertainty, unit),
    }),
  ),
  calculation(
    'posterior',
    'What is known of the true value after a measurement, from a normal prior',
    z.strictObject({ prior: normal, measured: number, standardUncertainty: number, unit: shownUnit }),
    normal.extend({ working }),
    ({ prior, measured: value, standardUncertainty, unit }) => ({
      ...posterior(prior, value, standardUncertainty),
      working: workPosterior(prior, value, standardUncertainty, unit),
    }),
  ),
  calculation(
    'global-risk',
    'Consumer’s and producer’s risk of acceptance limits; joint probabilities lead',
    z.strictObject({
      tolerance: limits,
      acceptance: limits,
      prior: normal,
      standardUncertainty: number,
      unit: shownUnit,
    }),
    risk.extend({ working }),
    ({ tolerance, acceptance: accepted, prior, standardUncertainty, unit }) => ({
      ...globalRisk(tolerance, accepted, prior, standardUncertainty),
      working: workGlobalRisk(tolerance, accepted, prior, standardUncertainty, unit),
    }),
  ),
  calculation(
    'prior-from-reliability',
    'Spread of instruments of which a share is in tolerance',
    z.strictObject({
      tolerance: number,
      inTolerance: number,
      basis: z.enum(['true', 'observed']).default('true'),
      standardUncertainty: number,
      unit: shownUnit,
    }),
    normal.extend({ working }),
    ({ tolerance, inTolerance, basis, standardUncertainty, unit }) => ({
      ...priorFromReliability(tolerance, inTolerance, basis, standardUncertainty),
      working: workPrior(tolerance, inTolerance, basis, standardUncertainty, unit),
    }),
  ),
  calculation(
    'acceptance-for-risk',
    'Symmetrical acceptance limit with a chosen false accept risk',
    z.strictObject({
      tolerance: number,
      standardUncertainty: number,
      prior: normal,
      target: number.default(0.02),
      of: z.enum(['joint', 'given-acceptance']).default('joint'),
      unit: shownUnit,
    }),
    z.strictObject({
      of: z.enum(['joint', 'given-acceptance']),
      solution: number,
      applied: number,
      guardBandFactor: number,
      riskWithoutGuardBand: number,
      risk,
      working,
    }),
    ({ tolerance, standardUncertainty, prior, target, of, unit }) => ({
      ...acceptanceForRisk(tolerance, standardUncertainty, prior, target, of),
      working: workAcceptanceForRisk(tolerance, standardUncertainty, prior, target, of, unit),
    }),
  ),
  calculation(
    'acceptance-for-specific-risk',
    'Acceptance limit that leaves a chosen specific risk at a single upper limit',
    z.strictObject({ upper: number, standardUncertainty: number, risk: number, unit: shownUnit }),
    z.strictObject({ value: number, working }),
    ({ upper, standardUncertainty, risk: chosen, unit }) => ({
      value: acceptanceForSpecificRisk(upper, standardUncertainty, chosen),
      working: workAcceptanceForSpecificRisk(upper, standardUncertainty, chosen, unit),
    }),
  ),
];
