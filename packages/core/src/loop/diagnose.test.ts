import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { describe, expect, it } from 'vitest';
import { diagnose, resistorItem, tapsOf, type LoopItem, type TapReading } from './index';

/** A flow loop as a stave of one: transmitter with the root, barrier, resistor, card; a panel meter and a recorder on the current. */
const LOOP: readonly LoopItem[] = [
  {
    name: 'FT',
    kind: 'transmitter',
    from: null,
    input: { low: 0, high: 250 },
    output: { low: 4, high: 20 },
    transfer: { kind: 'square-root' },
    tolerancePercent: 0.25,
  },
  {
    name: 'IS',
    kind: 'barrier',
    from: 0,
    input: { low: 4, high: 20 },
    output: { low: 4, high: 20 },
    transfer: { kind: 'linear' },
    tolerancePercent: 0.1,
  },
  resistorItem('R', 1, 250, 0.1),
  {
    name: 'AI',
    kind: 'input card',
    from: 2,
    input: { low: 1, high: 5 },
    output: { low: 0, high: 100 },
    transfer: { kind: 'linear' },
    tolerancePercent: 0.1,
  },
  {
    name: 'FI',
    kind: 'indicator',
    from: 1,
    input: { low: 4, high: 20 },
    output: { low: 0, high: 320 },
    transfer: { kind: 'linear' },
    tolerancePercent: 2,
  },
  {
    name: 'FR',
    kind: 'recorder',
    from: 2,
    input: { low: 1, high: 5 },
    output: { low: 0, high: 100 },
    transfer: { kind: 'linear' },
    tolerancePercent: 2,
  },
];
const U: readonly number[] = [0.002, 0.002, 0.0005, 0.02, 0.5, 0.2];

const at = (item: number, applied: number, offPercent = 0): TapReading => {
  const { output } = LOOP[item] as LoopItem;
  const value = (tapsOf(LOOP, applied)[item] ?? 0) + (offPercent / 100) * (output.high - output.low);
  return { item, applied, value, uncertainty: U[item] ?? 1 };
};
const first = (readings: readonly TapReading[]) => diagnose(LOOP, readings).suspicions[0];

describe('which item of a loop is wrong', () => {
  it('is the panel meter, where all before it and beside it is right', () => {
    const found = diagnose(LOOP, [at(0, 62.5, 0.02), at(3, 62.5, 0.05), at(4, 62.5, 6)]);
    expect(found.suspicions[0]?.item).toBe(4);
    expect(found.suspicions[0]?.probability).toBeGreaterThan(0.9);
    expect(found.suspicions[0]?.offPercent).toBeCloseTo(6, 0);
    expect(found.errors[2]).toBeCloseTo(6, 9);
    // The probabilities are all there is.
    expect(found.suspicions.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 12);
  });

  it('is the transmitter, where every tap is off alike', () => {
    const found = first([at(0, 62.5, 2), at(3, 62.5, 2), at(4, 62.5, 2)]);
    expect(found?.item).toBe(0);
    expect(found?.probability).toBeGreaterThan(0.95);
    expect(found?.offPercent).toBeCloseTo(2, 1);
  });

  it('is none, where every tap is inside its tolerance', () => {
    const found = diagnose(LOOP, [
      at(0, 62.5, 0.05),
      at(3, 62.5, -0.03),
      at(4, 62.5, 0.8),
      at(5, 62.5, -0.5),
    ]);
    expect(found.suspicions[0]?.item).toBeNull();
  });

  it('cannot be told apart by one tap at the end of a chain, and the tap that parts them comes first', () => {
    const found = diagnose(LOOP, [at(3, 62.5, 3)]);
    // Transmitter, barrier, resistor and card are all on the way.
    expect(found.suspicions[0]?.probability ?? 1).toBeLessThan(0.5);
    expect(found.doubt).toBeGreaterThan(1.5);
    const [next] = found.next;
    // The middle of the chain halves them: the current behind the barrier.
    expect([1, 2]).toContain(next?.item);
    expect(found.next.map(({ item }) => item)).not.toContain(3);
    for (const { bits } of found.next) expect(bits).toBeLessThanOrEqual(found.doubt + 1e-9);
    const after = diagnose(LOOP, [at(3, 62.5, 3), at(1, 62.5, 0.01)]);
    expect(after.doubt).toBeLessThan(found.doubt);
    // What is right before it leaves what stands behind it.
    expect([2, 3]).toContain(after.suspicions[0]?.item);
    const told = diagnose(LOOP, [at(3, 62.5, 3), at(1, 62.5, 0.01), at(2, 62.5, 0.01)]);
    expect(told.suspicions[0]?.item).toBe(3);
    expect(told.suspicions[0]?.probability).toBeGreaterThan(0.95);
  });

  it('says what to measure first where nothing is known, and nothing where nothing is applied', () => {
    const blank = diagnose(LOOP, [], 62.5);
    expect(blank.next).toHaveLength(6);
    expect(blank.suspicions[0]?.item).toBeNull();
    expect(diagnose(LOOP, []).next).toEqual([]);
  });

  it('sees a gain that is wrong at several points', () => {
    const readings = [10, 62.5, 250].flatMap((applied) => {
      const share = Math.sqrt(applied / 250);
      // The current behind the barrier is right, or the barrier would be as good a guess.
      return [at(1, applied), at(4, applied, 8 * (share - 0.5))];
    });
    expect(first(readings)?.item).toBe(4);
  });

  it('refuses in words', () => {
    expect(() => diagnose(LOOP, [{ ...at(0, 62.5), item: 9 }])).toThrow('The tap');
    expect(() => diagnose(LOOP, [{ ...at(0, 62.5), uncertainty: 0 }])).toThrow(
      'The uncertainty of a reading',
    );
    const behind = LOOP.map((item, i) => ({
      ...item,
      transfer: i === 3 ? ({ kind: 'square-root' } as const) : ({ kind: 'linear' } as const),
    }));
    expect(() => diagnose(behind, [{ item: 3, applied: 0, value: 0, uncertainty: 1 }])).toThrow('zero flow');
  });
});

describe('over random loops with one wrong item', () => {
  const LOOPS = 2000;
  const random = xoroshiro128plus(20_261_129);
  for (let draw = 0; draw < 50; draw += 1) uniformFloat64(random);
  const uniform = (low: number, high: number) => low + (high - low) * uniformFloat64(random);
  const normal = () =>
    Math.sqrt(-2 * Math.log(1 - uniformFloat64(random))) * Math.cos(2 * Math.PI * uniformFloat64(random));

  /** A loop whose items are off within their tolerances, one of them by a fault; all taps are read at one value. */
  const draw = () => {
    const wrong = Math.floor(uniform(0, LOOP.length));
    const fault = normal() * 4;
    const off = LOOP.map(
      ({ tolerancePercent }, i) => (normal() * tolerancePercent) / 2 + (i === wrong ? fault : 0),
    );
    const applied = uniform(10, 250);
    const shares: number[] = [];
    const readings = LOOP.map((item, place): TapReading => {
      const before = item.from === null ? applied / 250 : (shares[item.from] ?? 0);
      shares.push((item.from === null ? Math.sqrt(before) : before) + (off[place] ?? 0) / 100);
      const span = item.output.high - item.output.low;
      const uncertainty = U[place] ?? 1;
      return {
        item: place,
        applied,
        value: item.output.low + (shares[place] ?? 0) * span + normal() * uncertainty,
        uncertainty,
      };
    });
    return { wrong, fault, readings };
  };

  it('the likeliest is the wrong one wherever it is well past its tolerance, and its probability is honest', () => {
    let [told, right, sure, sureAndRight] = [0, 0, 0, 0];
    for (let count = 0; count < LOOPS; count += 1) {
      const { wrong, fault, readings } = draw();
      const [best] = diagnose(LOOP, readings, null).suspicions;
      if (Math.abs(fault) > 2 * (LOOP[wrong]?.tolerancePercent ?? 0)) {
        told += 1;
        if (best?.item === wrong) right += 1;
      }
      if ((best?.probability ?? 0) >= 0.9) {
        sure += 1;
        if (best?.item === wrong) sureAndRight += 1;
      }
    }
    expect(right / told).toBeGreaterThanOrEqual(0.97);
    expect(sure).toBeGreaterThan(LOOPS / 3);
    // Of those that it calls nine in ten or surer.
    expect(sureAndRight / sure).toBeGreaterThanOrEqual(0.95);
  });
});
