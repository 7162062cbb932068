/**
 * Uncertainty budgets by the law of propagation (JCGM 100:2008, from memory): sensitivities are the exact partial
 * derivatives of the model at the estimates (5.1.3), correlated inputs enter with their stated correlation (5.2.2),
 * effective degrees of freedom are those of Welch and Satterthwaite (G.4.1), and the coverage factor is Student's t for
 * them. Where inputs are correlated no degrees of freedom are given, and the coverage factor is the normal one.
 */
import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { CoreError, requireBetween } from '../errors';
import { gradientOf, isReservedName, parseFormula, type Formula } from '../formula';
import { correlationMatrix, type Correlation } from './correlation';
import { requireDegreesOfFreedom, wholeWithinNoise } from './degrees-of-freedom';
import { standardUncertainties, type UncertainInput } from './input';
import { roundResult, type RoundedResult } from './round';

export interface BudgetModel {
  /** The measurand as a formula of the inputs' names. */
  readonly model: string;
  readonly unit: string;
  readonly inputs: readonly UncertainInput[];
  readonly correlations?: readonly Correlation[] | undefined;
}

export interface BudgetOptions {
  /** Coverage probability; 95.45 % by default. */
  readonly probability?: number | undefined;
  /** Effective degrees of freedom cut to a whole number (default), or used as they come. */
  readonly degreesOfFreedom?: 'truncated' | 'real' | undefined;
}

export interface Component {
  readonly name: string;
  readonly unit: string;
  readonly estimate: number;
  readonly standardUncertainty: number;
  readonly divisor: number | null;
  /** Null is infinite. */
  readonly degreesOfFreedom: number | null;
  /** Units of the result in one unit of the input. */
  readonly sensitivity: number;
  /** |sensitivity| times standard uncertainty, in the unit of the result. */
  readonly contribution: number;
  /** Its square as a per cent of the sum of all squares. */
  readonly sharePercent: number;
}

export interface Budget {
  readonly value: number;
  readonly unit: string;
  readonly components: readonly Component[];
  readonly combined: number;
  /** A number, or why there is none: infinite, or not given because inputs are correlated. */
  readonly effectiveDegreesOfFreedom: number | 'infinite' | 'not given';
  /** How the effective degrees of freedom entered the coverage factor. */
  readonly degreesOfFreedomRule: 'truncated' | 'real';
  readonly probability: number;
  readonly coverageFactor: number;
  readonly expanded: number;
  /** Null where nothing in the budget is uncertain. */
  readonly rounded: RoundedResult | null;
}

const MOST_INPUTS = 100;

/** Model and inputs, checked together. */
export function checkedModel({ model, inputs }: BudgetModel): Formula {
  if (inputs.length === 0)
    throw new CoreError({ code: 'missing', name: 'An input', why: 'a budget sums up its inputs' }, 'inputs');
  if (inputs.length > MOST_INPUTS)
    throw new CoreError(
      { code: 'too-many', name: 'Inputs', count: inputs.length, most: MOST_INPUTS },
      'inputs',
    );
  const names = inputs.map(({ name }) => name);
  const twice = names.find((name, index) => names.indexOf(name) !== index);
  if (twice !== undefined)
    throw new CoreError({ code: 'same-name', name: twice }, `inputs.${names.lastIndexOf(twice)}.name`);
  names.forEach((name, place) => {
    if (isReservedName(name)) throw new CoreError({ code: 'reserved-name', name }, `inputs.${place}.name`);
  });
  const formula = parseFormula(model);
  const unknown = formula.names.find((name) => !names.includes(name));
  if (unknown !== undefined)
    throw new CoreError({ code: 'unknown-name', name: unknown, known: names }, 'model');
  return formula;
}

/** From here on Student's t differs from the normal quantile by less than a double can say. */
const AS_GOOD_AS_INFINITE = 1e15;

/**
 * The coverage factor for a probability: Student's t, or the normal quantile for infinite degrees of freedom.
 * @throws CoreError `out-of-bounds`, `too-small` below one degree of freedom
 * @example coverageFactor(0.95, 16) // 2.1199
 */
export function coverageFactor(probability: number, degreesOfFreedom: number | null): number {
  requireBetween('The coverage probability', probability, [0.5, 0.9999, ''], 'probability');
  const quantile = (1 + probability) / 2;
  if (degreesOfFreedom !== null) requireDegreesOfFreedom('the result', degreesOfFreedom, 'degreesOfFreedom');
  return degreesOfFreedom === null || degreesOfFreedom > AS_GOOD_AS_INFINITE
    ? normalQuantile(quantile, 0, 1)
    : tQuantile(quantile, degreesOfFreedom);
}

/**
 * Makes up a budget.
 * @throws CoreError `not-a-model`, `unknown-name`, `same-name`, `missing`, `undefined-result`, `no-correlation-matrix`,
 *   and as `standardUncertainty`
 */
export function uncertaintyBudget(
  stated: BudgetModel,
  { probability = 0.9545, degreesOfFreedom = 'truncated' }: BudgetOptions = {},
): Budget {
  const formula = checkedModel(stated);
  const inputs = standardUncertainties(stated.inputs);
  const { value, partials } = gradientOf(
    formula,
    Object.fromEntries(inputs.map(({ name, estimate }) => [name, estimate])),
  );
  const parts = inputs.map(({ name, u }) => (partials[name] ?? 0) * u);
  const sumOfSquares = parts.reduce((sum, part) => sum + part ** 2, 0);
  const correlations = (stated.correlations ?? []).filter(({ r }) => r !== 0);
  const names = inputs.map(({ name }) => name);
  const { matrix } = correlationMatrix(names, stated.correlations ?? []);
  let variance = 0;
  parts.forEach((part, i) => {
    parts.forEach((other, j) => (variance += part * other * (matrix[i]?.[j] ?? 0)));
  });
  // Full negative correlation may leave a rounding remainder below zero.
  const combined = Math.sqrt(Math.max(0, variance));
  const effective =
    correlations.length > 0
      ? 'not given'
      : welchSatterthwaite(
          combined,
          parts,
          inputs.map((input) => input.degreesOfFreedom),
        );
  const used =
    typeof effective === 'string'
      ? null
      : degreesOfFreedom === 'truncated'
        ? Math.floor(effective)
        : effective;
  const k = coverageFactor(probability, used);
  const expanded = k * combined;
  return {
    value,
    unit: stated.unit,
    components: inputs.map((input, index) => ({
      name: input.name,
      unit: input.unit,
      estimate: input.estimate,
      standardUncertainty: input.u,
      divisor: input.divisor,
      degreesOfFreedom: input.degreesOfFreedom,
      sensitivity: partials[input.name] ?? 0,
      contribution: Math.abs(parts[index] ?? 0),
      sharePercent: sumOfSquares === 0 ? 0 : ((parts[index] ?? 0) ** 2 / sumOfSquares) * 100,
    })),
    combined,
    effectiveDegreesOfFreedom: effective,
    degreesOfFreedomRule: degreesOfFreedom,
    probability,
    coverageFactor: k,
    expanded,
    rounded: expanded > 0 ? roundResult(value, expanded) : null,
  };
}

/** u⁴ / sum (c u)⁴ / nu (JCGM 100, G.2b). */
function welchSatterthwaite(
  combined: number,
  parts: readonly number[],
  degreesOfFreedom: readonly (number | null)[],
): number | 'infinite' {
  const sum = parts.reduce((total, part, index) => {
    const nu = degreesOfFreedom[index] ?? null;
    return nu === null ? total : total + (part / combined) ** 4 / nu;
  }, 0);
  // A part so small that its fourth power is lost changes nothing either.
  return combined === 0 || sum === 0 ? 'infinite' : wholeWithinNoise(1 / sum);
}
