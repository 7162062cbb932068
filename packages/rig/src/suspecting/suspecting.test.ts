import { SUSPICIONS, TELLS_FROM, weigh } from '@barys/core/suspects';
import { describe, expect, it } from 'vitest';
import { drawCase } from './index';

const EACH = 8;
/** Apart from the seeds that the suspects were built with, which were below 40 million. */
const FIRST_SEED = 60_000_000;

describe('suspects against simulated instruments', () => {
  it('draws the same case of the same seed, and a fault outside the limit', () => {
    expect(drawCase('head', 5)).toEqual(drawCase('head', 5));
    expect(drawCase('head', 5)).not.toEqual(drawCase('head', 6));
    const { suspected } = drawCase('stuck', 7);
    expect(new Set(suspected.readings.map(({ output }) => output)).size).toBe(1);
    expect(suspected.readings.length).toBeLessThanOrEqual(9);
  });

  it('names what was planted, and says when it cannot', () => {
    const judged = SUSPICIONS.flatMap((truth, kind) =>
      Array.from({ length: EACH }, (_one, i) => {
        const { suspects, likely, told } = weigh(drawCase(truth, FIRST_SEED + kind * EACH + i).suspected);
        return { truth, told, first: suspects[0], isLikely: likely.includes(truth) };
      }),
    );
    const called = judged.filter(({ told }) => told !== null);
    const right = called.filter(({ truth, told }) => truth === told).length / called.length;
    // The figures themselves are those of the bench, over 5,400 instruments; this is a twenty-fifth of it.
    expect(called.length / judged.length).toBeGreaterThan(0.88);
    expect(right).toBeGreaterThan(0.94);
    expect(judged.filter(({ isLikely }) => isLikely).length / judged.length).toBeGreaterThan(0.95);
    for (const { told, first } of judged) expect(told !== null).toBe((first?.probability ?? 0) >= TELLS_FROM);
  }, 300_000);
});
