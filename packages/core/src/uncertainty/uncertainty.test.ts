import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectAll, expectClose, loadCases, type Case } from '../../test/fixtures';
import {
  coverageFactor,
  monteCarlo,
  pooledStandardDeviation,
  roundResult,
  runToEnd,
  specificationHalfWidth,
  standardUncertainty,
  uncertaintyBudget,
  type BudgetModel,
  type Correlation,
  type Distribution,
  type UncertainInput,
} from './index';

interface OutsideInput {
  name: string;
  estimate?: number;
  unit: string | null;
  distribution: string;
  readings?: number[];
  pooled_sd?: number;
  n_current?: number;
  pooled_dof?: number;
  half_width?: number;
  expanded?: number;
  k?: number;
  resolution?: number;
  u?: number;
  dof?: number;
  relative_uncertainty_of_u?: number;
}
interface Given {
  model: string;
  inputs: OutsideInput[];
  correlations?: Correlation[];
  probability?: number;
  trials_for_tolerance?: number;
}
type Figure = { value: unknown; unit: string | null; tolerance_abs?: number };
type UncertaintyCase = Case<Given, Record<string, Figure>>;

function distributionOf(input: OutsideInput): Distribution {
  const { half_width: halfWidth = 0, expanded = 0 } = input;
  switch (input.distribution) {
    case 'type_a':
      return { kind: 'type-a', readings: input.readings ?? [] };
    case 'type_a_pooled':
      return {
        kind: 'pooled',
        sd: input.pooled_sd ?? 0,
        count: input.n_current ?? 0,
        degreesOfFreedom: input.pooled_dof ?? 0,
      };
    case 'rectangular':
    case 'triangular':
      return { kind: input.distribution, halfWidth };
    case 'u_shaped':
      return { kind: 'u-shaped', halfWidth };
    case 'normal':
      return { kind: 'normal', expanded, k: input.k ?? 0 };
    case 'normal_95':
      return { kind: 'normal-95', expanded };
    case 'resolution':
      return { kind: 'resolution', step: input.resolution ?? 0 };
    case 'standard':
      return { kind: 'standard', uncertainty: input.u ?? 0 };
    default:
      throw new Error(`no distribution of ours for "${input.distribution}"`);
  }
}

const inputOf = (input: OutsideInput): UncertainInput => ({
  name: input.name,
  unit: input.unit ?? '',
  estimate: input.estimate,
  distribution: distributionOf(input),
  degreesOfFreedom: input.dof,
  relativeUncertaintyOfU: input.relative_uncertainty_of_u,
});
const modelOf = ({ model, inputs, correlations }: Given): BudgetModel => ({
  model,
  unit: '',
  inputs: inputs.map(inputOf),
  correlations,
});
const cases = (kind: RegExp, id = /./) =>
  loadCases<UncertaintyCase>('uncertainty.json', kind)
    .filter((one) => id.test(one.id))
    .map((one) => [one.id, one] as const);

describe('standard uncertainties against figures computed outside Barys (each case names its source)', () => {
  it.each(cases(/^standard_uncertainty$/))('%s', (_id, one) => {
    const [input] = one.given.inputs.map(inputOf);
    if (input === undefined) throw new Error('no input');
    const got = standardUncertainty(input);
    const s = got.divisor === null ? got.u : got.u * got.divisor;
    expectAll(one.expect, { u: got.u, dof: got.degreesOfFreedom, mean: got.estimate, s });
  });
});

describe('budgets against figures computed outside Barys', () => {
  it.each(cases(/^(budget|correlated|published)$/, /H-P(?!11)/))('%s', (_id, one) => {
    const model = modelOf(one.given);
    const at = (probability: number, degreesOfFreedom: 'truncated' | 'real') =>
      uncertaintyBudget(model, { probability, degreesOfFreedom });
    const got = at(0.9545, 'truncated');
    const figures: Record<string, unknown> = {
      y: got.value,
      u_i: got.components.map((part) => part.standardUncertainty),
      c_i: got.components.map((part) => part.sensitivity),
      contribution_i: got.components.map((part) => part.contribution),
      u_c: got.combined,
      nu_eff: got.effectiveDegreesOfFreedom === 'infinite' ? null : got.effectiveDegreesOfFreedom,
      U_k2: 2 * got.combined,
      u_c_published: got.combined,
      nu_eff_truncated_published: Math.floor(Number(got.effectiveDegreesOfFreedom)),
      U_99_published: at(0.99, 'truncated').expanded,
    };
    for (const [name, probability] of [
      ['95', 0.95],
      ['9545', 0.9545],
      ['99', 0.99],
    ] as const)
      for (const [suffix, kind] of [
        ['truncated', 'truncated'],
        ['noninteger', 'real'],
      ] as const) {
        figures[`k_${name}_${suffix}`] = at(probability, kind).coverageFactor;
        figures[`U_${name}_${suffix}`] = at(probability, kind).expanded;
      }
    expectAll(one.expect, figures);
  });

  it('H-P11: GUM H.2, correlated readings taken together', () => {
    const [one] = loadCases<Case<Record<string, number[]>, Record<string, Figure>>>(
      'uncertainty.json',
      /^published$/,
    ).filter(({ id }) => id === 'H-P11');
    if (one === undefined) throw new Error('no case');
    const columns = {
      V: one.given['V_volt'] ?? [],
      I: one.given['I_mA'] ?? [],
      phi: one.given['phi_rad'] ?? [],
    };
    const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
    const r = (a: number[], b: number[]) => {
      const [ma, mb] = [mean(a), mean(b)];
      const sum = (x: number[], mx: number, y: number[], my: number) =>
        x.reduce((total, value, i) => total + (value - mx) * ((y[i] ?? 0) - my), 0);
      return sum(a, ma, b, mb) / Math.sqrt(sum(a, ma, a, ma) * sum(b, mb, b, mb));
    };
    const correlations = [
      { a: 'V', b: 'I', r: r(columns.V, columns.I) },
      { a: 'V', b: 'phi', r: r(columns.V, columns.phi) },
      { a: 'I', b: 'phi', r: r(columns.I, columns.phi) },
    ];
    const budget = (model: string) =>
      uncertaintyBudget({
        model,
        unit: 'ohm',
        inputs: Object.entries(columns).map(([name, readings]) => ({
          name,
          unit: '',
          distribution: { kind: 'type-a', readings },
        })),
        correlations,
      });
    const [R, X, Z] = [budget('1000*V/I*cos(phi)'), budget('1000*V/I*sin(phi)'), budget('1000*V/I')];
    expectAll(
      one.expect,
      {
        r_V_I: correlations[0]?.r,
        r_V_phi: correlations[1]?.r,
        r_I_phi: correlations[2]?.r,
        R: R.value,
        X: X.value,
        Z: Z.value,
        u_R: R.combined,
        u_X: X.combined,
        u_Z: Z.combined,
      },
      // Correlations between several results are no part of a budget of one.
      (name) => name.startsWith('r_R') || name.startsWith('r_X'),
    );
    expect(R.effectiveDegreesOfFreedom).toBe('not given');
  });
});

describe('Monte Carlo against figures from exact integration', () => {
  it.each(cases(/^monte_carlo$/))('%s', (_id, one) => {
    const trials = 200000;
    const { probability, trials_for_tolerance: of = 1e6 } = one.given;
    const got = runToEnd(monteCarlo(modelOf(one.given), { seed: 20261124, trials, probability }));
    const figures: Record<string, number> = {
      mean: got.mean,
      sd: got.sd,
      symmetric_low: got.symmetric.low,
      symmetric_high: got.symmetric.high,
      shortest_low: got.shortest.low,
      shortest_high: got.shortest.high,
    };
    for (const [name, wanted] of Object.entries(one.expect)) {
      // The tolerances are six standard deviations at a million trials.
      const scale = (of / trials) ** (name.startsWith('shortest') ? 1 / 3 : 1 / 2);
      const tolerance_abs = (wanted.tolerance_abs ?? 0) * scale;
      expectClose(figures[name] ?? null, { value: wanted.value as number, unit: null, tolerance_abs }, name);
    }
  });
});

const normal = (name: string, uncertainty: number, estimate = 0): UncertainInput => ({
  name,
  unit: '',
  estimate,
  distribution: { kind: 'standard', uncertainty },
});

describe('Monte Carlo', () => {
  const linear: BudgetModel = {
    model: 'a + 2 * b - c',
    unit: '',
    inputs: [normal('a', 3), normal('b', 2), normal('c', 1)],
  };
  const run = (model: BudgetModel, options: object = {}) =>
    runToEnd(monteCarlo(model, { seed: 7, trials: 100000, ...options }));

  it('agrees with the law of propagation where the model is linear', () => {
    const weight = fc.integer({ min: -5, max: 5 });
    const spread = fc.integer({ min: 1, max: 9 });
    fc.assert(
      fc.property(
        fc.tuple(weight, weight),
        fc.tuple(spread, spread, spread),
        fc.nat(1e6),
        ([p, q], [a, b, c], seed) => {
          const model = {
            model: `${p} * a + ${q} * b - c`,
            unit: '',
            inputs: [normal('a', a), normal('b', b), normal('c', c)],
          };
          const budget = uncertaintyBudget(model, { probability: 0.95 });
          const got = run(model, { seed });
          // Six standard deviations of the figure at 100 000 trials: sd 1/√(2 M), 97.5 % quantile 2.7/√M of its sd.
          expect(Math.abs(got.sd / budget.combined - 1)).toBeLessThan(0.0135);
          expect(Math.abs(got.symmetric.high / budget.expanded - 1)).toBeLessThan(0.027);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('agrees with it for correlated inputs too, full correlation included', () => {
    for (const r of [-0.9, 0.5, 1]) {
      const model = { ...linear, correlations: [{ a: 'a', b: 'b', r }] };
      expect(run(model).sd / uncertaintyBudget(model).combined).toBeCloseTo(1, 2);
    }
    const mixed: BudgetModel = {
      ...linear,
      inputs: [
        ...linear.inputs.slice(1),
        { ...normal('a', 3), distribution: { kind: 'rectangular', halfWidth: 1 } },
      ],
      correlations: [{ a: 'a', b: 'b', r: 0.5 }],
    };
    expect(() => run(mixed)).toThrow('a is rectangular');
  });

  it('gives the same result for the same seed and another for another', () => {
    expect(run(linear)).toEqual(run(linear));
    expect(run(linear).mean).not.toBe(run(linear, { seed: 8 }).mean);
  });

  it('stops by itself when the figures are stable, and says so when they are not', () => {
    const got = run(linear, { trials: 'adaptive' });
    expect(got.isStable).toBe(true);
    expect(got.trials).toBeLessThan(1000000);
    expect(got.sd).toBeCloseTo(Math.sqrt(26), 1);
    expect(run(linear, { trials: 'adaptive', mostTrials: 10000 }).isStable).toBe(false);
  });

  it('reports its progress and can be left at any block', () => {
    const steps = monteCarlo(linear, { seed: 1, trials: 50000 });
    expect(steps.next().value).toEqual({ done: 10000, of: 50000 });
    expect(steps.next().value).toEqual({ done: 20000, of: 50000 });
  });

  it('counts its results for a picture', () => {
    const { histogram, trials } = run(linear);
    const counted = histogram.reduce((sum, count) => sum + count, 0);
    expect(counted).toBeGreaterThan(0.999 * trials);
    expect(histogram[0]).toBeLessThan(histogram[30] ?? 0);
  });

  it('refuses a model that leaves the reals instead of giving NaN', () => {
    const root: BudgetModel = { model: 'sqrt(a)', unit: '', inputs: [normal('a', 1, 0.1)] };
    expect(() => run(root)).toThrow('max(x, 0) keeps them out');
    expect(run({ ...root, model: 'sqrt(max(a, 0))' }).mean).toBeGreaterThan(0);
    expect(() => run(linear, { trials: 10 })).toThrow('whole number of at least 10000');
    expect(() => run(linear, { trials: 1e9 })).toThrow('at most 10000000');
  });
});

describe('a budget', () => {
  const of = (inputs: UncertainInput[], model = 'a', correlations: Correlation[] = []) =>
    uncertaintyBudget({ model, unit: 'kPa', inputs, correlations });

  it('shows the share of each component', () => {
    const got = of([normal('a', 3), normal('b', 4)], 'a + b');
    expect(got.combined).toBeCloseTo(5, 12);
    expect(got.components.map(({ sharePercent }) => sharePercent)).toEqual([36, 64]);
    expect(got.effectiveDegreesOfFreedom).toBe('infinite');
  });

  it('has sensitivities that agree with small steps of the model', () => {
    const model = 'sqrt(max(a, 0) / b) * exp(-c) + abs(c) / (1 + sin(a)^2) + min(a, b, c) + ln(b) * a^2';
    const values = { a: 0.7, b: 1.9, c: -0.4 };
    const at = (shift: Partial<typeof values>) =>
      of(
        Object.entries({ ...values, ...shift }).map(([name, value]) => normal(name, 0.1, value)),
        model,
      );
    at({}).components.forEach(({ name, sensitivity }) => {
      const key = name as keyof typeof values;
      const step = 1e-5;
      const slope =
        (at({ [key]: values[key] + step }).value - at({ [key]: values[key] - step }).value) / (2 * step);
      expect(sensitivity).toBeCloseTo(slope, 8);
    });
  });

  it('of two fully opposed inputs has no uncertainty, and nothing to round', () => {
    const got = of([normal('a', 2), normal('b', 2)], 'a + b', [{ a: 'a', b: 'b', r: -1 }]);
    expect(got.combined).toBe(0);
    expect(got.rounded).toBeNull();
  });

  it.each([
    ['an empty list', [], 'a', [], 'An input is needed'],
    ['two inputs of one name', [normal('a', 1), normal('a', 2)], 'a', [], 'both called "a"'],
    ['a name that is no input', [normal('a', 1)], 'a + q', [], 'uses "q", which is none of its inputs (a)'],
    ['an empty model', [normal('a', 1)], ' ', [], 'nothing is written'],
    ['code', [normal('a', 1)], 'import("fs")', [], 'not a formula that can be computed'],
    ['an assignment', [normal('a', 1)], 'a = 3', [], 'not a formula'],
    ['a broken bracket', [normal('a', 1)], 'a * (3', [], 'not a formula'],
    ['text', [normal('a', 1)], '"a"', [], 'not a formula'],
    ['a property', [normal('a', 1)], 'a.constructor', [], 'not a formula'],
    ['division by zero', [normal('a', 1)], '1 / a', [], 'divides by zero'],
    ['a root at zero', [normal('a', 1)], 'sqrt(a)', [], 'slope has no bound'],
    ['a negative uncertainty', [normal('a', -1)], 'a', [], 'must not be negative'],
    ['an estimate that is not a number', [normal('a', 1, Number.NaN)], 'a', [], 'finite'],
    [
      'a correlation above one',
      [normal('a', 1), normal('b', 1)],
      'a+b',
      [{ a: 'a', b: 'b', r: 1.2 }],
      'from -1 to 1',
    ],
    ['a stranger in a correlation', [normal('a', 1)], 'a', [{ a: 'a', b: 'z', r: 0 }], '"z"'],
    [
      'an input correlated with itself',
      [normal('a', 1)],
      'a',
      [{ a: 'a', b: 'a', r: 0.5 }],
      'always correlated with itself',
    ],
    [
      'a pair stated twice',
      [normal('a', 1), normal('b', 1)],
      'a+b',
      [
        { a: 'a', b: 'b', r: 0.2 },
        { a: 'b', b: 'a', r: 0.3 },
      ],
      'stated twice',
    ],
    [
      'correlations that contradict each other',
      [normal('a', 1), normal('b', 1), normal('c', 1)],
      'a+b+c',
      [
        { a: 'a', b: 'b', r: 0.9 },
        { a: 'b', b: 'c', r: 0.9 },
        { a: 'a', b: 'c', r: -0.9 },
      ],
      'cannot all hold',
    ],
  ] as const)('refuses %s', (_what, inputs, model, correlations, message) => {
    expect(() => of([...inputs], model, [...correlations])).toThrow(message);
  });

  it('refuses one reading as a type A, and a million of them', () => {
    const typeA = (readings: number[]): UncertainInput => ({
      name: 'a',
      unit: '',
      distribution: { kind: 'type-a', readings },
    });
    expect(() => of([typeA([1])])).toThrow('A second reading of a is needed');
    expect(() => of([typeA(new Array<number>(1000000).fill(1))])).toThrow('at most 10000');
    expect(() => of([{ name: 'a', unit: '', distribution: { kind: 'rectangular', halfWidth: 1 } }])).toThrow(
      'The estimate of a is needed',
    );
  });
});

describe('beside a budget', () => {
  it('the coverage factor comes from Student’s t', () => {
    // JCGM 100 table G.2, from memory: t at 95 % for 4 and 20 degrees of freedom.
    expect(coverageFactor(0.95, 4)).toBeCloseTo(2.776, 3);
    expect(coverageFactor(0.95, 20)).toBeCloseTo(2.086, 3);
    expect(() => coverageFactor(1, 4)).toThrow('coverage probability');
  });

  it('counts degrees of freedom that rounding moved as the whole number that is meant', () => {
    const standard = (name: string, more: Partial<UncertainInput>) => ({ ...normal(name, 1), ...more });
    const nuOf = (inputs: UncertainInput[]) =>
      uncertaintyBudget({ model: inputs.map(({ name }) => name).join(' + '), unit: '', inputs });
    // Two equal inputs of 3 each: u⁴ / (2 (u/√2)⁴ / 3) = 6.
    const two = nuOf([standard('a', { degreesOfFreedom: 3 }), standard('b', { degreesOfFreedom: 3 })]);
    expect(two.effectiveDegreesOfFreedom).toBe(6);
    expect(two.coverageFactor).toBe(coverageFactor(0.9545, 6));
    // 1 / (2 0.1²) = 50.
    expect(nuOf([standard('a', { relativeUncertaintyOfU: 0.1 })]).coverageFactor).toBe(
      coverageFactor(0.9545, 50),
    );
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 30 }), fc.integer({ min: 1, max: 40 }), (count, nu) => {
        const equal = Array.from({ length: count }, (_, i) => standard(`a${i}`, { degreesOfFreedom: nu }));
        expect(nuOf(equal).effectiveDegreesOfFreedom).toBe(count * nu);
      }),
    );
  });

  it('refuses less than one degree of freedom, and takes as many as there may be', () => {
    for (const nu of [1e-300, 0.5, 0.999]) expect(() => coverageFactor(0.95, nu)).toThrow('at least 1');
    const half = { ...normal('a', 1), degreesOfFreedom: 0.5 };
    expect(() => uncertaintyBudget({ model: 'a', unit: '', inputs: [half] })).toThrow('at least 1');
    for (const nu of [1e15, 1e17, 1e300])
      expect(coverageFactor(0.95, nu)).toBeCloseTo(coverageFactor(0.95, null), 12);
  });

  it('a specification is the sum of its terms', () => {
    const reading = 50;
    expect(
      specificationHalfWidth({ reading, percentOfReading: 0.02, percentOfRange: 0.01, range: 200 }),
    ).toBeCloseTo(0.03, 12);
    expect(specificationHalfWidth({ reading, floor: 0.004 })).toBe(0.004);
    expect(specificationHalfWidth({ reading, driftPercentOfReadingPerYear: 0.01, years: 2 })).toBeCloseTo(
      0.01,
      12,
    );
    expect(
      specificationHalfWidth({ reading, percentOfReadingPerK: 0.002, temperatureDifferenceK: -8 }),
    ).toBeCloseTo(0.008, 12);
    expect(() => specificationHalfWidth({ reading, floor: -1 })).toThrow('negative');
  });

  it('cycles are pooled by their degrees of freedom', () => {
    const pooled = pooledStandardDeviation([[1, 3], [2, 2, 5], [9]]);
    expect(pooled.degreesOfFreedom).toBe(3);
    expect(pooled.sd).toBeCloseTo(Math.sqrt((2 + 6) / 3), 12);
    expect(() => pooledStandardDeviation([[1], [2]])).toThrow('single readings show no spread');
  });

  it.each([
    [12.34567, 0.0995, '12.35', '0.10', 2],
    [12.34567, 0.0994, '12.346', '0.099', 3],
    [12.345, 0.00999, '12.345', '0.010', 3],
    [-0.0004, 0.5, '0.00', '0.50', 2],
    [123456, 1234, '123500', '1200', -2],
    [-123456, 995, '\u2212123500', '1000', -2],
    [3.2e-7, 4.56e-9, '0.0000003200', '0.0000000046', 10],
    [50.0384, 0.0375, '50.038', '0.038', 3],
    [1.23456e-17, 2.5e-19, '0.00000000000000001235', '0.00000000000000000025', 20],
  ])('%d with %d reads %s and %s', (value, expanded, shown, uncertainty, decimals) => {
    expect(roundResult(value, expanded)).toEqual({ value: shown, uncertainty, decimals });
  });
});
