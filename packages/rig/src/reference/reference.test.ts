import { describe, expect, it } from 'vitest';
import { makeChance } from '../chance';
import { drawReference, shownBy, shownFor, TRUE_REFERENCE, type Specification } from './index';

const SPECIFICATION: Specification = {
  percentOfReading: 0.02,
  percentOfRange: 0.01,
  floor: 0.005,
  range: 700,
  resolution: 0.01,
};

describe('a reference', () => {
  it('is never wrong by more than its specification, and is not always nearly right', () => {
    const chance = makeChance(3);
    const errors = Array.from({ length: 2000 }, () => {
      const exact = { ...drawReference(SPECIFICATION, chance), resolution: 0 };
      return shownBy(exact, 500) - 500;
    });
    const most = 0.0002 * 500 + 0.0001 * 700 + 0.005;
    const largest = Math.max(...errors.map(Math.abs));
    expect(largest).toBeLessThanOrEqual(most);
    expect(largest).toBeGreaterThan(0.8 * most);
    expect(Math.min(...errors)).toBeLessThan(0);
  });

  it('shows to its resolution, and is undone by who knows it', () => {
    const reference = drawReference(SPECIFICATION, makeChance(3));
    expect(shownBy(reference, 123.456789) * 100).toBeCloseTo(
      Math.round(shownBy(reference, 123.456789) * 100),
      9,
    );
    const exact = { ...reference, resolution: 0 };
    expect(shownBy(exact, shownFor(exact, 123))).toBeCloseTo(123, 12);
    expect(shownBy(TRUE_REFERENCE, 5)).toBe(5);
  });
});
