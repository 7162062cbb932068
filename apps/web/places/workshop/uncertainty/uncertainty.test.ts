import { uncertaintyBudget } from '@barys/core/uncertainty';
import { describe, expect, it } from 'vitest';
import { EXAMPLES } from './examples';
import { limitsOf, modelOf, probabilityOf, type BudgetFields } from './fields';
import { normalDensity, riskAreas } from './pictures';

const [linear] = EXAMPLES;
if (linear === undefined) throw new Error('no example');
const withInput = (place: number, patch: object): BudgetFields => ({
  ...linear,
  inputs: linear.inputs.map((input, i) => (i === place ? { ...input, ...patch } : input)),
});
const fieldOf = (fields: BudgetFields): unknown => {
  try {
    modelOf(fields);
    return null;
  } catch (error) {
    return (error as { field?: string }).field;
  }
};

describe('a budget as it is typed', () => {
  it.each(EXAMPLES.map((one) => [one.title, one] as const))('"%s" computes', (_title, fields) => {
    const budget = uncertaintyBudget(modelOf(fields), { probability: probabilityOf(fields) });
    expect(budget.expanded).toBeGreaterThan(0);
    expect(limitsOf(fields)).toHaveProperty('lower');
  });

  it('gives what the same budget gives without the fields', () => {
    // The core's outside case H-P14 of this budget has three readings, half widths of 0.010 and 0.0049 kPa and u_c = 0.018666.
    const inputs = withInput(5, { figures: ['0.0049'] }).inputs.map((input, place) =>
      place === 0 ? { ...input, figures: ['12.012 12.014 12.011'] } : input,
    );
    const budget = uncertaintyBudget(modelOf({ ...linear, inputs }), { probability: 0.9545 });
    expect(budget.combined).toBeCloseTo(0.01866577936879, 12);
  });

  it('reads a decimal comma, blanks between readings, and stated degrees of freedom', () => {
    const model = modelOf(withInput(0, { figures: ['12,012;12.014  12.011'] }));
    expect(model.inputs[0]?.distribution).toEqual({ kind: 'type-a', readings: [12.012, 12.014, 12.011] });
    expect(modelOf(withInput(3, { degreesOfFreedom: '50' })).inputs[3]?.degreesOfFreedom).toBe(50);
  });

  it('says at which input something is missing or wrong', () => {
    expect(fieldOf(withInput(1, { figures: [''] }))).toBe('inputs.1');
    expect(fieldOf(withInput(2, { estimate: '1.2.3' }))).toBe('inputs.2');
    expect(fieldOf({ ...linear, correlations: [{ a: 'I', b: 'p', r: 'much' }] })).toBe('correlations');
    expect(fieldOf({ ...linear, correlations: [{ a: 'I', b: '', r: '0.5' }] })).toBe('correlations');
    expect(modelOf({ ...linear, correlations: [{ a: '', b: '', r: '' }] }).correlations).toEqual([]);
    expect(() => probabilityOf({ ...linear, probability: '' })).toThrow('The coverage probability is needed');
    expect(fieldOf(linear)).toBeNull();
  });
});

describe('the pictures', () => {
  it('draw a normal density whose area is one', () => {
    const points = normalDensity(3, 0.5, 400);
    const width = (points[1]?.x ?? 0) - (points[0]?.x ?? 0);
    expect(points.reduce((sum, { y }) => sum + y * width, 0)).toBeCloseTo(1, 3);
  });

  it('shade only what lies outside the tolerance', () => {
    const areas = riskAreas(normalDensity(0, 1, 200), { lower: null, upper: 1 });
    expect(areas.filter(({ x, y }) => y !== null && x < 1)).toEqual([]);
    expect(areas.filter(({ y }) => y !== null).length).toBeGreaterThan(10);
  });
});
