import { describe, expect, it } from 'vitest';
import { anomaliesOf, chanceOf, Changes, type Visited } from './index';

/** Errors that a hand would write down: a small scatter that is not random, so that the tests say the same each time. */
const SCATTER = [0.004, -0.006, 0.003, 0.005, -0.004, -0.002, 0.006, -0.005, 0.002];
const LIMIT = 0.25;

function history(
  count: number,
  {
    found,
    hysteresis,
    standard,
  }: {
    found: (index: number) => number;
    hysteresis?: (index: number) => number;
    standard?: (index: number) => string;
  },
): Visited[] {
  return Array.from({ length: count }, (_, index) => {
    const error = found(index) + (SCATTER[index % SCATTER.length] ?? 0);
    return {
      day: 18_000 + 365 * index,
      found: error,
      left: error,
      hysteresis: (hysteresis?.(index) ?? 0.02) + (SCATTER[(index + 3) % SCATTER.length] ?? 0),
      standard: standard?.(index) ?? 'PC-02',
    };
  });
}

describe('what is worth a look', () => {
  it('says nothing of a steady drift, of scatter alone, or of little', () => {
    expect(anomaliesOf(history(8, { found: (i) => 0.03 * i }), LIMIT)).toEqual([]);
    expect(anomaliesOf(history(8, { found: () => 0 }), LIMIT)).toEqual([]);
    expect(anomaliesOf(history(4, { found: (i) => (i === 3 ? 0.2 : 0) }), LIMIT)).toEqual([]);
    expect(anomaliesOf(history(1, { found: () => 0 }), LIMIT)).toEqual([]);
  });

  it('a sudden step is named with its size, its day and whether the reference changed with it', () => {
    const [step, ...others] = anomaliesOf(
      history(7, { found: (i) => 0.01 * i + (i >= 5 ? 0.15 : 0) }),
      LIMIT,
    );
    expect(others).toEqual([]);
    expect(step).toMatchObject({ kind: 'step', day: 18_000 + 5 * 365, standards: null });
    expect((step as { size: number }).size).toBeCloseTo(0.15, 1);
    const [changed] = anomaliesOf(
      history(7, { found: (i) => (i >= 5 ? 0.15 : 0), standard: (i) => (i >= 5 ? 'PC-03' : 'PC-02') }),
      LIMIT,
    );
    expect(changed).toMatchObject({ kind: 'step', standards: ['PC-02', 'PC-03'] });
  });

  it('an adjustment is no step', () => {
    const adjusted = history(7, { found: (i) => 0.01 * i }).map((visit, index, all) =>
      index < 4 ? visit : { ...visit, found: visit.found - 0.2, left: (all[index] as Visited).left - 0.2 },
    );
    const [before, after] = [adjusted[3] as Visited, adjusted[4] as Visited];
    // Set back by 0.2 at the fourth visit, after it was found there.
    adjusted[3] = { ...before, left: before.left - 0.2 };
    expect(after.found).toBeLessThan(0);
    expect(anomaliesOf(adjusted, LIMIT)).toEqual([]);
  });

  it('hysteresis that grows is named with its first and last figure', () => {
    const [grown, ...others] = anomaliesOf(
      history(6, { found: () => 0, hysteresis: (i) => 0.02 + 0.02 * i }),
      LIMIT,
    );
    expect(others).toEqual([]);
    expect(grown).toMatchObject({ kind: 'hysteresis' });
    expect((grown as { perYear: number }).perYear).toBeCloseTo(0.02, 2);
  });

  it('a drift that changed with another reference is named with both rates', () => {
    const [changed] = anomaliesOf(
      history(9, {
        found: (i) => (i < 5 ? 0.005 * i : 0.02 + 0.09 * (i - 4)),
        standard: (i) => (i < 5 ? 'PC-02' : 'PC-03'),
      }),
      LIMIT,
    );
    expect(changed).toMatchObject({ kind: 'reference-rate', before: 'PC-02', after: 'PC-03' });
    const { rateBefore, rateAfter } = changed as { rateBefore: number; rateAfter: number };
    expect([rateBefore, rateAfter].map((rate) => rate.toFixed(2))).toEqual(['0.00', '0.09']);
  });

  it('finds in random histories without anything in them no more than the level says', () => {
    let seed = 1;
    const uniform = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    const histories = 2000;
    let found = 0;
    for (let i = 0; i < histories; i += 1) {
      let day = 15_000;
      let left = 0;
      const visits = Array.from({ length: 9 }, (_, index): Visited => {
        day += 300 + Math.round(100 * uniform());
        const error: number = left + 0.05 * normal();
        left = error;
        return {
          day,
          found: error,
          left: error,
          hysteresis: 0.03 + 0.02 * normal(),
          standard: index < 4 ? 'PC-02' : 'PC-03',
        };
      });
      if (anomaliesOf(visits, LIMIT).length > 0) found += 1;
    }
    // Three tests of one in a hundred each.
    expect(found / histories).toBeLessThan(0.035);
    expect(found).toBeGreaterThan(0);
  });
});

describe('one that gives way to another', () => {
  it("Student's test as R's t.test gives it for its sleep data, paired (from memory)", () => {
    const differences = [1.2, 2.4, 1.3, 1.3, 0, 1.0, 1.8, 0.8, 4.6, 1.4];
    const mean = differences.reduce((a, b) => a + b, 0) / 10;
    const scatter = Math.sqrt(differences.reduce((sum, one) => sum + (one - mean) ** 2, 0) / 9);
    const t = mean / (scatter / Math.sqrt(10));
    expect(t).toBeCloseTo(4.0621, 4);
    expect(chanceOf(t, 9)).toBeCloseTo(0.002833, 6);
  });

  it('a reference that reads high is named, with how much; those beside it are not', () => {
    const changes = new Changes();
    for (let i = 0; i < 12; i += 1) {
      const noise = 10 * (SCATTER[i % 9] ?? 0);
      // Instruments drift upwards by a tenth of the limit meanwhile, whatever they are read with.
      changes.add('PC-01', 'PC-03', 0.1 + 0.3 + noise);
      changes.add('PC-03', 'PC-01', 0.1 - 0.3 + noise);
      changes.add('PC-01', 'PC-02', 0.1 + noise);
      changes.add('PC-02', 'PC-01', 0.1 + noise);
      changes.add('PC-02', 'PC-02', 5);
      changes.add('', 'PC-02', 5);
    }
    const found = changes.different();
    expect(found).toMatchObject([{ name: 'PC-03', count: 24, others: ['PC-01'], isEither: false }]);
    expect(found[0]?.mean).toBeCloseTo(0.3, 2);
  });

  it('is not blamed for what it was compared with most', () => {
    const changes = new Changes();
    for (let i = 0; i < 60; i += 1) {
      const noise = 10 * (SCATTER[i % 9] ?? 0);
      // The old one reads high; nearly all that is known of the new one is how it differs from it.
      changes.add(
        i % 2 === 0 ? 'old' : 'new',
        i % 2 === 0 ? 'new' : 'old',
        (i % 2 === 0 ? -0.3 : 0.3) + noise,
      );
      if (i < 10) changes.add('old', 'third', -0.3 + noise);
      if (i < 10) changes.add('new', 'third', noise);
    }
    expect(changes.different().map(({ name }) => name)).toEqual(['old']);
  });

  it('of two that were compared with no third either may be off', () => {
    const changes = new Changes();
    for (let i = 0; i < 9; i += 1) changes.add('A', 'B', 0.4 + (SCATTER[i] ?? 0));
    expect(changes.different()).toMatchObject([{ isEither: true }]);
  });

  it('says nothing of few changes, of little, or of chance', () => {
    const few = new Changes();
    for (let i = 0; i < 7; i += 1) few.add('A', 'B', 0.5 + (SCATTER[i] ?? 0));
    expect(few.different()).toEqual([]);
    const little = new Changes();
    for (let i = 0; i < 20; i += 1) little.add('A', 'B', 0.05 + (SCATTER[i % 9] ?? 0));
    expect(little.different()).toEqual([]);
    const chance = new Changes();
    for (let i = 0; i < 20; i += 1) chance.add('A', 'B', i % 2 === 0 ? 0.6 : -0.5);
    expect(chance.different()).toEqual([]);
  });
});
