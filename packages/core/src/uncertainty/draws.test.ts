/** The parts of a Monte Carlo run, each against a second route to the same figure. */
import fc from 'fast-check';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { describe, expect, it } from 'vitest';
import { correlationMatrix } from './correlation';
import { drawOf } from './draw';
import { standardUncertainty, type Distribution, type UncertainInput } from './input';
import { coverageIntervals } from './interval';

describe('draws', () => {
  const COUNT = 200000;
  const column = new Float64Array(COUNT);
  const drawn = (
    distribution: Distribution,
    more: Partial<UncertainInput> = {},
  ): { mean: number; sd: number } => {
    const input: UncertainInput = { name: 'a', unit: '', estimate: 3, distribution, ...more };
    drawOf(xoroshiro128plus(11), input, standardUncertainty(input))(column, COUNT);
    const mean = column.reduce((sum, value) => sum + value, 0) / COUNT;
    return { mean, sd: Math.sqrt(column.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (COUNT - 1)) };
  };

  it.each<[string, Distribution, Partial<UncertainInput>]>([
    ['rectangular', { kind: 'rectangular', halfWidth: 2 }, {}],
    ['triangular', { kind: 'triangular', halfWidth: 2 }, {}],
    ['U-shaped', { kind: 'u-shaped', halfWidth: 2 }, {}],
    ['resolution', { kind: 'resolution', step: 2 }, {}],
    ['certificate', { kind: 'normal', expanded: 2, k: 2 }, {}],
    ['certificate of 95 %', { kind: 'normal-95', expanded: 2 }, {}],
    ['standard', { kind: 'standard', uncertainty: 2 }, {}],
    ['specification', { kind: 'specification', specification: { reading: 3, floor: 2 } }, {}],
    [
      'certificate with many degrees of freedom',
      { kind: 'standard', uncertainty: 2 },
      { degreesOfFreedom: 500 },
    ],
  ])('of a %s input have its mean and its standard uncertainty', (_word, distribution, more) => {
    const input: UncertainInput = { name: 'a', unit: '', estimate: 3, distribution, ...more };
    const { u } = standardUncertainty(input);
    const { mean, sd } = drawn(distribution, more);
    // Six standard deviations of a mean and, for these shapes at most 1/√2 of it, of a standard deviation.
    expect(Math.abs(mean - 3)).toBeLessThan((6 * u) / Math.sqrt(COUNT));
    expect(Math.abs(sd / u - 1)).toBeLessThan(6 / Math.sqrt(2 * COUNT));
  });

  it('of a few readings spread as a t does: √(nu / (nu - 2)) times as wide', () => {
    const { sd } = drawn({ kind: 'pooled', sd: 2, count: 4, degreesOfFreedom: 12 });
    expect(sd).toBeCloseTo(Math.sqrt(12 / 10), 1);
  });

  it('stay inside the ends of a bounded distribution and reach both', () => {
    drawn({ kind: 'rectangular', halfWidth: 2 });
    const [low, high] = [Math.min(...column.subarray(0, 50000)), Math.max(...column.subarray(0, 50000))];
    expect(low).toBeGreaterThanOrEqual(1);
    expect(high).toBeLessThanOrEqual(5);
    expect(high - low).toBeGreaterThan(3.99);
  });

  it('of an input without uncertainty are its estimate', () => {
    expect(drawn({ kind: 'standard', uncertainty: 0 })).toEqual({ mean: 3, sd: 0 });
  });
});

describe('coverage intervals', () => {
  /** Everything sorted, every interval tried. */
  function bySorting(values: Float64Array, probability: number) {
    const sorted = values.slice().sort();
    const held = Math.round(probability * values.length);
    const outside = values.length - held;
    const at = (r: number) => ({ low: sorted[r] as number, high: sorted[r + held] as number });
    let best = at(0);
    for (let r = 1; r < outside; r += 1) if (at(r).high - at(r).low < best.high - best.low) best = at(r);
    return { symmetric: at(Math.max(0, Math.round(outside / 2) - 1)), shortest: best };
  }

  it('are those of sorting everything, for any values', () => {
    const values = fc.array(fc.double({ min: -10, max: 10, noNaN: true }), {
      minLength: 100,
      maxLength: 400,
    });
    fc.assert(
      fc.property(values, fc.constantFrom(0.5, 0.9, 0.95), (list, probability) => {
        const array = Float64Array.from(list);
        expect(coverageIntervals(array, probability)).toEqual(bySorting(array, probability));
      }),
    );
  });

  it.each([
    ['even', (i: number) => (i * 0.6180339887498949) % 1],
    ['skewed', (i: number) => -Math.log(1 - ((i * 0.6180339887498949) % 1))],
    ['with a third of them equal', (i: number) => Math.max(0, ((i * 0.6180339887498949) % 1) - 0.34)],
    ['in rising order, which misleads no sample', (i: number) => i / 400000],
    ['all equal', () => 7],
    ['in two heaps far apart', (i: number) => (i % 2 === 0 ? -1e6 : 1e6) + (i % 1000)],
  ])('of very many values take the short way to the same: %s', (_word, of) => {
    const values = Float64Array.from({ length: 400000 }, (_, i) => of(i));
    for (const probability of [0.9, 0.95, 0.9973])
      expect(coverageIntervals(values, probability)).toEqual(bySorting(values, probability));
  });

  it('leave the values as they were', () => {
    const values = Float64Array.from({ length: 1000 }, (_, i) => (i * 7919) % 1000);
    const before = values.slice();
    coverageIntervals(values, 0.95);
    expect(values).toEqual(before);
  });
});

describe('a correlation matrix', () => {
  it('is given back by its factor', () => {
    // Rows of unit length make a matrix that can be one: r_ij is the product of rows i and j.
    const rows = fc.array(fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: -9, max: 9 }))), {
      minLength: 2,
      maxLength: 4,
    });
    fc.assert(
      fc.property(rows, (raw) => {
        const unit = raw.map((row) => {
          const length = Math.hypot(...row);
          return length === 0 ? [1, 0, 0] : row.map((part) => part / length);
        });
        const names = unit.map((_, i) => `x${i}`);
        const product = (i: number, j: number) =>
          (unit[i] ?? []).reduce((sum, part, k) => sum + part * (unit[j]?.[k] ?? 0), 0);
        const correlations = names.flatMap((a, i) =>
          names.slice(i + 1).map((b, k) => ({ a, b, r: Math.min(1, Math.max(-1, product(i, i + 1 + k))) })),
        );
        const { matrix, factor } = correlationMatrix(names, correlations);
        names.forEach((_, i) =>
          names.forEach((__, j) => {
            const back = names.reduce(
              (sum, ___, k) => sum + (factor[i]?.[k] ?? 0) * (factor[j]?.[k] ?? 0),
              0,
            );
            expect(Math.abs(back - (matrix[i]?.[j] ?? NaN))).toBeLessThan(1e-4);
          }),
        );
      }),
    );
  });

  it('of full correlation between many is one, and one step beyond is none', () => {
    const names = ['a', 'b', 'c', 'd'];
    const all = (r: number) => names.flatMap((a, i) => names.slice(i + 1).map((b) => ({ a, b, r })));
    expect(correlationMatrix(names, all(1)).factor[3]).toEqual([1, 0, 0, 0]);
    // Four things cannot all oppose each other by more than a third.
    expect(() => correlationMatrix(names, all(-0.33))).not.toThrow();
    expect(() => correlationMatrix(names, all(-0.34))).toThrow('cannot all hold');
  });
});
