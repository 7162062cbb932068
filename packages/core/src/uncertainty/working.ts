/** The working of a budget: standard uncertainties, sensitivities by the rules of derivation, and how they combine. */
import { derivativeText } from '../formula';
import { Working, type Given, type Step, type Worked } from '../working';
import { checkedModel, type Budget, type BudgetModel } from './budget';
import {
  mean,
  NORMAL_95,
  pooledStandardDeviation,
  standardDeviation,
  standardUncertainty,
  type Distribution,
  type UncertainInput,
} from './input';
import { specificationHalfWidth, type Specification } from './specification';

const GUM = 'JCGM 100:2008, from memory';

/** How a stated spread becomes a standard uncertainty. */
function spreadStep(
  distribution: Distribution,
  unit: string,
): { formula: string; given: Record<string, Given>; source: string } {
  const of = (value: number): Given => ({ value, unit });
  const plain = (value: number): Given => ({ value, unit: '' });
  const divided = (halfWidth: number, divisor: string, clause: string) => ({
    formula: `a / ${divisor}`,
    given: { a: of(halfWidth) },
    source: `${clause}, ${GUM}`,
  });
  switch (distribution.kind) {
    case 'type-a':
      return {
        formula: 's / sqrt(n)',
        given: { s: of(standardDeviation(distribution.readings)), n: plain(distribution.readings.length) },
        source: `type A, 4.2, ${GUM}`,
      };
    case 'pooled':
      return {
        formula: 's / sqrt(n)',
        given: { s: of(distribution.sd), n: plain(distribution.count) },
        source: `pooled type A, 4.2.4, ${GUM}`,
      };
    case 'rectangular':
      return divided(distribution.halfWidth, 'sqrt(3)', 'rectangular, 4.3.7');
    case 'triangular':
      return divided(distribution.halfWidth, 'sqrt(6)', 'triangular, 4.3.9');
    case 'u-shaped':
      return divided(distribution.halfWidth, 'sqrt(2)', 'U-shaped, common practice');
    case 'resolution':
      return divided(distribution.step, '(2 * sqrt(3))', 'resolution, F.2.2.1');
    case 'normal':
      return {
        formula: 'U / k',
        given: { U: of(distribution.expanded), k: plain(distribution.k) },
        source: `certificate, 4.3.3, ${GUM}`,
      };
    case 'normal-95':
      return {
        formula: 'U / z_95',
        given: { U: of(distribution.expanded), z_95: plain(NORMAL_95) },
        source: `certificate of 95 % without k, 4.3.4, ${GUM}`,
      };
    case 'standard':
      return { formula: String(distribution.uncertainty), given: {}, source: 'stated' };
    case 'specification':
      return divided(
        specificationHalfWidth(distribution.specification),
        'sqrt(3)',
        'specification, rectangular, 4.3.7',
      );
  }
}

interface Sensitivity {
  readonly name: string;
  readonly symbol: string;
  readonly value: number;
  readonly given: Readonly<Record<string, Given>>;
  readonly unit: string;
}

/** A sensitivity by its derivative in symbols, where there is one that has the value; else as the tape gave it. */
function sensitivityStep(work: Working, derivative: string | null, of: Sensitivity): void {
  const { name, symbol, value, given, unit } = of;
  const source = `5.1.3, ${GUM}`;
  const what = `Sensitivity to ${name}: partial derivative of the model`;
  if (derivative !== null && work.tryStep({ what, symbol, formula: derivative, given, unit, source })) return;
  const taken = `Sensitivity to ${name}, by differentiating the model step by step`;
  work.step({ what: taken, symbol, formula: String(value), unit, source });
}

const estimateOf = (input: UncertainInput): number =>
  input.distribution.kind === 'type-a' ? mean(input.distribution.readings) : (input.estimate ?? 0);

/**
 * The steps of a budget. `budget` is the result that they have to end in: Y its value, u_c, k and U.
 * @throws CoreError as `uncertaintyBudget`
 */
export function workBudget(stated: BudgetModel, budget: Budget): readonly Step[] {
  const model = checkedModel(stated);
  const work = new Working();
  const estimates = Object.fromEntries(
    stated.inputs.map((input): [string, Given] => [
      input.name,
      { value: estimateOf(input), unit: input.unit },
    ]),
  );
  work.step({
    what: 'Result at the estimates',
    symbol: 'Y',
    formula: stated.model,
    given: estimates,
    unit: stated.unit,
    source: `the model; 4.1, ${GUM}`,
  });
  stated.inputs.forEach((input, index) => {
    const component = budget.components[index];
    if (component === undefined) return;
    const number = index + 1;
    work.step({
      what: `Standard uncertainty of ${input.name}`,
      symbol: `u_${number}`,
      unit: input.unit,
      ...spreadStep(input.distribution, input.unit),
    });
    sensitivityStep(work, derivativeText(model, input.name), {
      name: input.name,
      symbol: `c_${number}`,
      value: component.sensitivity,
      given: estimates,
      unit: `${stated.unit} per ${input.unit === '' ? '1' : input.unit}`,
    });
  });
  combineSteps(work, stated, budget);
  return work.steps;
}

function combineSteps(work: Working, stated: BudgetModel, budget: Budget): void {
  const squares = stated.inputs.map((_, index) => `(c_${index + 1} * u_${index + 1})^2`);
  const given: Record<string, Given> = {};
  const place = (name: string) => stated.inputs.findIndex((input) => input.name === name) + 1;
  const mixed = (stated.correlations ?? [])
    .filter(({ r }) => r !== 0)
    .map(({ a, b, r }) => {
      const [i, j] = [place(a), place(b)];
      given[`r_${i}_${j}`] = { value: r, unit: '' };
      return `2 * c_${i} * u_${i} * c_${j} * u_${j} * r_${i}_${j}`;
    });
  const sum = [...squares, ...mixed].join(' + ');
  work.step({
    what: 'Combined standard uncertainty',
    symbol: 'u_c',
    // Full correlation may leave a rounding remainder below zero.
    formula: mixed.length === 0 ? `sqrt(${sum})` : `sqrt(max(0, ${sum}))`,
    given,
    unit: stated.unit,
    source: `${mixed.length === 0 ? '5.1.2, equation 10' : '5.2.2, equation 16'}, ${GUM}`,
  });
  const finite = budget.components.flatMap(({ degreesOfFreedom, contribution }, index) =>
    degreesOfFreedom === null || contribution === 0 ? [] : [{ index: index + 1, degreesOfFreedom }],
  );
  if (typeof budget.effectiveDegreesOfFreedom === 'number')
    work.step({
      what: 'Effective degrees of freedom (Welch and Satterthwaite)',
      symbol: 'nu_eff',
      formula: `u_c^4 / (${finite.map(({ index }) => `(c_${index} * u_${index})^4 / nu_${index}`).join(' + ')})`,
      given: Object.fromEntries(
        finite.map(({ index, degreesOfFreedom }) => [`nu_${index}`, { value: degreesOfFreedom, unit: '' }]),
      ),
      unit: '',
      source: `G.4.1, equation G.2b, ${GUM}`,
    });
  const percent = Number((budget.probability * 100).toPrecision(6));
  work.step({
    what:
      typeof budget.effectiveDegreesOfFreedom === 'number'
        ? `Coverage factor: Student's t, two-sided ${percent} %`
        : `Coverage factor: normal, two-sided ${percent} %`,
    symbol: 'k',
    formula: String(budget.coverageFactor),
    unit: '',
    source: `G.3 and table G.2, ${GUM}`,
  });
  work.step({
    what: 'Expanded uncertainty',
    symbol: 'U',
    formula: 'k * u_c',
    unit: stated.unit,
    source: `6.2.1, ${GUM}`,
  });
}

/**
 * One input's standard uncertainty; ends in u.
 * @throws CoreError as `standardUncertainty`
 */
export function workStandardUncertainty(input: UncertainInput): readonly Step[] {
  standardUncertainty(input);
  const work = new Working();
  work.step({
    what: `Standard uncertainty of ${input.name}`,
    symbol: 'u',
    unit: input.unit,
    ...spreadStep(input.distribution, input.unit),
  });
  return work.steps;
}

/**
 * The half width of a specification as the sum of the terms that it has; ends in a.
 * @param unit of the reading
 * @throws CoreError as `specificationHalfWidth`
 */
export function workSpecification(specification: Specification, unit: string): Worked {
  const value = specificationHalfWidth(specification);
  const { reading, range, floor, years, temperatureDifferenceK } = specification;
  const work = new Working();
  const terms: string[] = [];
  const term = (what: string, percent: number | undefined, formula: string, given: Record<string, Given>) => {
    if (percent === undefined) return;
    const symbol = `a_${terms.length + 1}`;
    terms.push(symbol);
    const p: Given = { value: percent, unit: '%' };
    work.step({
      what,
      symbol,
      formula,
      given: { ...given, p },
      unit,
      source: 'the maker\u2019s specification',
    });
  };
  const x: Given = { value: reading, unit };
  term('Per cent of reading', specification.percentOfReading, 'p / 100 * abs(x)', { x });
  term('Per cent of range', specification.percentOfRange, 'p / 100 * R', { R: { value: range ?? 0, unit } });
  if (floor !== undefined) term('Floor', 0, 'f', { f: { value: floor, unit } });
  term(
    'Drift, per cent of reading a year',
    specification.driftPercentOfReadingPerYear,
    'p / 100 * abs(x) * t',
    {
      x,
      t: { value: years ?? 0, unit: 'a' },
    },
  );
  term(
    'Temperature, per cent of reading a kelvin',
    specification.percentOfReadingPerK,
    'p / 100 * abs(x) * abs(dT)',
    {
      x,
      dT: { value: temperatureDifferenceK ?? 0, unit: 'K' },
    },
  );
  work.step({
    what: 'Half width: the plain sum of the terms',
    symbol: 'a',
    formula: terms.length === 0 ? '0' : terms.join(' + '),
    unit,
    source: 'common practice; makers who mean a root sum of squares say so',
  });
  return { value, working: work.steps };
}

/**
 * The pooled spread of groups; ends in nu and s_p.
 * @throws CoreError as `pooledStandardDeviation`
 */
export function workPooled(groups: readonly (readonly number[])[], unit: string): readonly Step[] {
  const { degreesOfFreedom } = pooledStandardDeviation(groups);
  const work = new Working();
  const repeated = groups.filter((group) => group.length > 1);
  const squares = repeated.reduce(
    (sum, group) => sum + (group.length - 1) * standardDeviation(group) ** 2,
    0,
  );
  const source = `H.3.6, ${GUM}, and common practice`;
  work.step({
    what: `Degrees of freedom: readings less groups, of ${repeated.length} with more than one reading`,
    symbol: 'nu',
    formula: 'n - g',
    given: {
      n: { value: degreesOfFreedom + repeated.length, unit: '' },
      g: { value: repeated.length, unit: '' },
    },
    unit: '',
    source,
  });
  work.step({
    what: 'Squared deviations of all readings from the mean of their group',
    symbol: 'S',
    formula: 'q',
    notation: '\\sum_i (n_i - 1) s_i^2',
    given: { q: { value: squares, unit: `${unit}²` } },
    unit: `${unit}²`,
    source,
  });
  work.step({ what: 'Pooled spread', symbol: 's_p', formula: 'sqrt(S / nu)', unit, source });
  return work.steps;
}
