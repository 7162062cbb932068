/**
 * Inputs of an uncertainty budget: an estimate and what is known of its spread, turned into a standard uncertainty with
 * degrees of freedom (JCGM 100:2008, clause 4, from memory). Infinite degrees of freedom are written null.
 */
import {
  CoreError,
  requireFinite,
  requireNotNegative,
  requirePositive,
  requireWhole,
  within,
} from '../errors';
import { requireDegreesOfFreedom, wholeWithinNoise } from './degrees-of-freedom';
import { specificationHalfWidth, type Specification } from './specification';

export type Distribution =
  /** Readings taken now: s / √n with n - 1 degrees of freedom (4.2). */
  | { readonly kind: 'type-a'; readonly readings: readonly number[] }
  /** A standard deviation pooled from earlier runs, for the mean of `count` present readings. */
  | {
      readonly kind: 'pooled';
      readonly sd: number;
      readonly count: number;
      readonly degreesOfFreedom: number;
    }
  /** a / √3 (4.3.7) */
  | { readonly kind: 'rectangular'; readonly halfWidth: number }
  /** a / √6 (4.3.9) */
  | { readonly kind: 'triangular'; readonly halfWidth: number }
  /** a / √2: swings between two ends, such as a room temperature */
  | { readonly kind: 'u-shaped'; readonly halfWidth: number }
  /** Half a digit either way: d / (2 √3) (F.2.2.1) */
  | { readonly kind: 'resolution'; readonly step: number }
  /** A certificate with its coverage factor: U / k (4.3.3) */
  | { readonly kind: 'normal'; readonly expanded: number; readonly k: number }
  /** A certificate that says 95 % and no k: U / 1.959964 (4.3.4) */
  | { readonly kind: 'normal-95'; readonly expanded: number }
  | { readonly kind: 'standard'; readonly uncertainty: number }
  /** A maker's specification, taken as rectangular. */
  | { readonly kind: 'specification'; readonly specification: Specification };

export interface UncertainInput {
  readonly name: string;
  /** Left out with `type-a`, whose mean it is. */
  readonly estimate?: number | undefined;
  readonly unit: string;
  readonly distribution: Distribution;
  /** Where a certificate or a study states them; null for infinite. */
  readonly degreesOfFreedom?: number | null | undefined;
  /** How far the standard uncertainty itself is trusted, as a part of it: nu = 1 / (2 r²) (G.4.2). */
  readonly relativeUncertaintyOfU?: number | undefined;
}

export interface StandardUncertainty {
  readonly estimate: number;
  readonly u: number;
  readonly degreesOfFreedom: number | null;
  /** What the stated figure is divided by; null where it is already a standard uncertainty. */
  readonly divisor: number | null;
}

/** Two-sided 95 % of the standard normal, to the digits that certificates justify. */
export const NORMAL_95 = 1.959963984540054;

const MOST_READINGS = 10000;

export const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/** Experimental standard deviation (JCGM 100, equation 4). */
export const standardDeviation = (values: readonly number[]): number => {
  const middle = mean(values);
  return Math.sqrt(values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (values.length - 1));
};

function spread(input: UncertainInput): {
  u: number;
  degreesOfFreedom: number | null;
  divisor: number | null;
} {
  const { distribution } = input;
  const what = `The uncertainty of ${input.name}`;
  const divided = (figure: number, divisor: number, field: string) => {
    requireNotNegative(what, figure, `distribution.${field}`);
    return { u: figure / divisor, degreesOfFreedom: null, divisor };
  };
  switch (distribution.kind) {
    case 'type-a': {
      const { readings } = distribution;
      if (readings.length < 2)
        throw new CoreError(
          { code: 'missing', name: `A second reading of ${input.name}`, why: 'one reading shows no spread' },
          'distribution.readings',
        );
      if (readings.length > MOST_READINGS)
        throw new CoreError(
          {
            code: 'too-many',
            name: `Readings of ${input.name}`,
            count: readings.length,
            most: MOST_READINGS,
          },
          'distribution.readings',
        );
      readings.forEach((reading) =>
        requireFinite(`A reading of ${input.name}`, reading, 'distribution.readings'),
      );
      const divisor = Math.sqrt(readings.length);
      return { u: standardDeviation(readings) / divisor, degreesOfFreedom: readings.length - 1, divisor };
    }
    case 'pooled':
      requireWhole(`The present readings of ${input.name}`, distribution.count, 1, 'distribution.count');
      requireDegreesOfFreedom(input.name, distribution.degreesOfFreedom, 'distribution.degreesOfFreedom');
      return {
        ...divided(distribution.sd, Math.sqrt(distribution.count), 'sd'),
        degreesOfFreedom: distribution.degreesOfFreedom,
      };
    case 'rectangular':
      return divided(distribution.halfWidth, Math.sqrt(3), 'halfWidth');
    case 'triangular':
      return divided(distribution.halfWidth, Math.sqrt(6), 'halfWidth');
    case 'u-shaped':
      return divided(distribution.halfWidth, Math.SQRT2, 'halfWidth');
    case 'resolution':
      return divided(distribution.step, 2 * Math.sqrt(3), 'step');
    case 'normal':
      requirePositive(`The coverage factor of ${input.name}`, distribution.k, 'distribution.k');
      return divided(distribution.expanded, distribution.k, 'expanded');
    case 'normal-95':
      return divided(distribution.expanded, NORMAL_95, 'expanded');
    case 'standard':
      return { ...divided(distribution.uncertainty, 1, 'uncertainty'), divisor: null };
    case 'specification':
      return divided(
        within('distribution.specification', () => specificationHalfWidth(distribution.specification)),
        Math.sqrt(3),
        'specification',
      );
  }
}

/**
 * Estimate, standard uncertainty and degrees of freedom of an input.
 * @throws CoreError `missing`, `negative`, `not-positive`, `not-finite`, `not-whole`, `too-many`
 */
export function standardUncertainty(input: UncertainInput): StandardUncertainty {
  const { distribution, relativeUncertaintyOfU, degreesOfFreedom } = input;
  const found = spread(input);
  const estimate = distribution.kind === 'type-a' ? mean(distribution.readings) : input.estimate;
  if (estimate === undefined)
    throw new CoreError(
      { code: 'missing', name: `The estimate of ${input.name}`, why: 'the model is computed with it' },
      'estimate',
    );
  requireFinite(`The estimate of ${input.name}`, estimate, 'estimate');
  if (relativeUncertaintyOfU !== undefined) {
    requirePositive(
      `The relative uncertainty of ${input.name}`,
      relativeUncertaintyOfU,
      'relativeUncertaintyOfU',
    );
    const nu = wholeWithinNoise(1 / (2 * relativeUncertaintyOfU ** 2));
    requireDegreesOfFreedom(input.name, nu, 'relativeUncertaintyOfU');
    return { ...found, estimate, degreesOfFreedom: nu };
  }
  if (degreesOfFreedom !== undefined && degreesOfFreedom !== null)
    requireDegreesOfFreedom(input.name, degreesOfFreedom, 'degreesOfFreedom');
  return {
    ...found,
    estimate,
    degreesOfFreedom: degreesOfFreedom === undefined ? found.degreesOfFreedom : degreesOfFreedom,
  };
}

/**
 * The inputs of a budget, each with its standard uncertainty.
 * @throws CoreError as `standardUncertainty`, whose field names the input by its place: `inputs.2.estimate`
 */
export const standardUncertainties = (
  inputs: readonly UncertainInput[],
): (UncertainInput & StandardUncertainty)[] =>
  inputs.map((input, place) => ({
    ...input,
    ...within(`inputs.${place}`, () => standardUncertainty(input)),
  }));

export interface Pooled {
  readonly sd: number;
  readonly degreesOfFreedom: number;
}

/**
 * Pools the spread of groups: s² = sum (n - 1) s_i² / sum (n - 1) (JCGM 100, H.3.6 and common practice).
 * @param groups readings of the same thing; groups of one are passed over
 * @throws CoreError `missing` where no group has two readings
 */
export function pooledStandardDeviation(groups: readonly (readonly number[])[]): Pooled {
  const repeated = groups.filter((group) => group.length > 1);
  const degreesOfFreedom = repeated.reduce((sum, group) => sum + group.length - 1, 0);
  if (degreesOfFreedom === 0)
    throw new CoreError(
      { code: 'missing', name: 'A repeated reading', why: 'single readings show no spread' },
      'groups',
    );
  repeated.flat().forEach((reading) => requireFinite('A reading', reading, 'groups'));
  const sum = repeated.reduce(
    (total, group) => total + (group.length - 1) * standardDeviation(group) ** 2,
    0,
  );
  return { sd: Math.sqrt(sum / degreesOfFreedom), degreesOfFreedom };
}
