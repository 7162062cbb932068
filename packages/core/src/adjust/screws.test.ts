import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectAll, loadCases, type Case } from '../../test/fixtures';
import {
  adviseScrews,
  isDeviation,
  keptDeviation,
  movesLeft,
  outputOfDeviation,
  parseOutput,
  plainAlternation,
  turnsFor,
  type Ends,
  type ScrewMove,
  type ScrewSituation,
} from './index';

type Expect = Record<string, { value: unknown; unit: string | null; tolerance_abs: number }>;
interface PulledCase {
  c: number;
  b_initial: number;
  z_initial: number;
  target_at_0: number;
  target_at_100: number;
  tolerance: number;
}
interface TurnsCase {
  zero_effect_per_turn: number;
  span_effect_per_turn_at_0: number;
  span_effect_per_turn_at_100: number;
  error_at_0: number;
  error_at_100: number;
}

/** An instrument after the textbook: y = b (x + c) + z. */
class Screws {
  constructor(
    private b: number,
    private readonly c: number,
    private z: number,
  ) {}
  at(x: 0 | 1): number {
    return this.b * (x + this.c) + this.z;
  }
  set(screw: 'zero' | 'span', to: number): ScrewMove {
    const before = this.at(screw === 'zero' ? 0 : 1);
    if (screw === 'zero') this.z += to - before;
    else this.b += (to - before) / (1 + this.c);
    return { screw, before, after: to };
  }
}

/** Follows the advice to its end; the settings that were made. */
function followed(screws: Screws, situation: Omit<ScrewSituation, 'moves'>): readonly ScrewMove[] {
  const moves: ScrewMove[] = [];
  for (;;) {
    let now: ScrewSituation['now'];
    let { next } = adviseScrews({ ...situation, moves });
    if (next !== null) {
      // Whoever goes to an end reads it first, and the advice takes that in.
      now = { at: next.screw, reading: screws.at(next.screw === 'zero' ? 0 : 1) };
      ({ next } = adviseScrews({ ...situation, moves, now }));
    }
    if (next === null || moves.length > 20) return moves;
    moves.push(screws.set(next.screw, next.setTo));
  }
}

describe('screws that pull on each other, against cases computed outside', () => {
  it.each(
    loadCases<Case<PulledCase, Expect>>('adjustment.json', /^interacting$/).map(
      (one) => [one.id, one] as const,
    ),
  )('%s', (_id, { given, expect: wanted }) => {
    const { c, b_initial, z_initial, target_at_0: low, target_at_100: high, tolerance } = given;
    const found: Ends = [b_initial * c + z_initial, b_initial * (1 + c) + z_initial];
    const errors: Ends = [found[0] - low, found[1] - high];
    const plain = plainAlternation(errors, c, tolerance);
    // The span is off by this once zero is set; a pass leaves the ratio of it.
    const off = errors[1] - errors[0];
    const left = movesLeft([0, off], plain.ratio, 1);
    expectAll(wanted, {
      initial_error_at_0: errors[0],
      initial_error_at_100: errors[1],
      convergence_ratio: plain.ratio,
      passes_needed: plain.passes,
      zero_error_after_pass: plain.zeroAfter,
      span_coefficient_after_pass: plain.zeroAfter.map(
        (_, pass) => high - low + off * plain.ratio ** (pass + 1),
      ),
      error_at_100_after_first_zero_set: off,
      overshoot_set_100_to: high - (left?.zero ?? NaN),
      zero_reading_before_final_zero_set: low - (left?.zero ?? NaN),
    });
    // And followed step by step on the textbook's instrument: never more than three settings, where plain alternation takes
    // two a pass or never ends.
    const screws = new Screws(b_initial, c, z_initial);
    const moves = followed(screws, { targets: [low, high], found, noise: 0, tolerance });
    expect(Math.abs(screws.at(0) - low)).toBeLessThanOrEqual(tolerance);
    expect(Math.abs(screws.at(1) - high)).toBeLessThanOrEqual(tolerance);
    expect(moves.length).toBeLessThanOrEqual(3);
  });

  it.each(
    loadCases<Case<TurnsCase, Expect>>('adjustment.json', /^turns$/).map((one) => [one.id, one] as const),
  )('%s', (_id, { given, expect: wanted }) => {
    const effects = {
      zeroPerTurn: given.zero_effect_per_turn,
      spanPerTurnAtLow: given.span_effect_per_turn_at_0,
      spanPerTurnAtHigh: given.span_effect_per_turn_at_100,
    };
    const turns = turnsFor(effects, [given.error_at_0, given.error_at_100]);
    expectAll(wanted, {
      zero_turns: turns.zero,
      span_turns: turns.span,
      c: effects.spanPerTurnAtLow / (effects.spanPerTurnAtHigh - effects.spanPerTurnAtLow),
      error_at_100_after_zero_turns_only: given.error_at_100 + effects.zeroPerTurn * turns.zero,
    });
  });
});

describe('the next setting', () => {
  const base: ScrewSituation = {
    targets: [3, 15],
    found: [3, 15.6],
    moves: [],
    noise: 0.005,
    tolerance: 0.02,
  };

  it('is past its target by what the other screw takes back', () => {
    // r = 0.2 seen in a first pass: c = 0.25, and 0.3 of span left at 15 psi are 0.375 to turn and 0.075 that zero takes back.
    const { next, pivot, settingsLeft } = adviseScrews({
      ...base,
      found: [3, 16],
      noise: 0,
      moves: [
        { screw: 'span', before: 16, after: 15 },
        { screw: 'zero', before: 2.8, after: 3 },
        { screw: 'span', before: 15.2, after: 15.3 },
      ],
      now: { at: 'zero', reading: 3.02 },
    });
    expect(pivot).toBeCloseTo(0.25, 9);
    expect(next?.screw).toBe('zero');
    // Zero is 0.02 high and full scale 0.3: D = (0.02 - 0.3) / 0.8 = -0.35, which takes 0.07 from zero.
    expect(next?.setTo).toBeCloseTo(3.07, 9);
    expect(next?.willStandAt).toBe(3);
    expect(settingsLeft).toBe(2);
  });

  it('is one screw alone where the other stands', () => {
    const { next, settingsLeft } = adviseScrews({ ...base, found: [3.1, 15.1] });
    expect(next).toEqual({ screw: 'zero', setTo: 3, willStandAt: 3 });
    expect(settingsLeft).toBe(1);
  });

  it('ends when both ends stand, on the tolerance too, or when only scatter is left', () => {
    expect(adviseScrews({ ...base, found: [3.02, 14.98] }).state).toBe('done');
    const restless = adviseScrews({
      ...base,
      noise: 0.05,
      tolerance: 0.02,
      moves: [
        { screw: 'span', before: 15.6, after: 15.05 },
        { screw: 'zero', before: 2.95, after: 2.99 },
      ],
    });
    expect(restless.state).toBe('useless');
    expect(restless.next).toBeNull();
  });

  it('learns little from a move that is no larger than the scatter', () => {
    const small = adviseScrews({
      ...base,
      moves: [{ screw: 'span', before: 15.6, after: 15.59 }],
      now: { at: 'zero', reading: 3.02 },
    });
    const large = adviseScrews({
      ...base,
      moves: [{ screw: 'span', before: 15.6, after: 15.0 }],
      now: { at: 'zero', reading: 2.82 },
    });
    expect(small.spanOnZero.uncertainty).toBeGreaterThan(0.14);
    expect(large.spanOnZero.uncertainty).toBeLessThan(0.02);
    expect(large.spanOnZero.value).toBeCloseTo(0.3, 2);
  });

  it('is a number after any log, however odd', () => {
    const number = fc.double({ min: -1000, max: 1000, noNaN: true });
    const move = fc.record({
      screw: fc.constantFrom('zero' as const, 'span' as const),
      before: number,
      after: number,
    });
    fc.assert(
      fc.property(
        fc.array(move, { maxLength: 8 }),
        number,
        number,
        fc.constantFrom(0, 0.001, 1),
        (moves, low, high, noise) => {
          const { next, spanOnZero, zeroOnSpan, off } = adviseScrews({
            ...base,
            found: [low, high],
            moves,
            noise,
          });
          for (const value of [
            next?.setTo ?? 0,
            spanOnZero.value,
            spanOnZero.uncertainty,
            zeroOnSpan.value,
            ...off,
          ])
            expect(Number.isFinite(value)).toBe(true);
        },
      ),
      { numRuns: 500, seed: 3 },
    );
  });

  it('says that a span that moves both ends alike cannot be set', () => {
    expect(movesLeft([0.1, 0.2], 1, 1)).toBeNull();
    expect(() =>
      turnsFor({ zeroPerTurn: 0.4, spanPerTurnAtLow: 0.1, spanPerTurnAtHigh: 0.1 }, [0.1, 0]),
    ).toThrow('The number of turns');
  });

  it('refuses what is no situation', () => {
    expect(() => adviseScrews({ ...base, targets: [3, 3] })).toThrow('no span');
    expect(() => adviseScrews({ ...base, tolerance: 0 })).toThrow('greater than zero');
    expect(() => adviseScrews({ ...base, noise: -1 })).toThrow('not be negative');
    expect(() => adviseScrews({ ...base, moves: [{ screw: 'zero', before: NaN, after: 3 }] })).toThrow(
      'finite',
    );
  });
});

describe('deviations at a null meter', () => {
  const range = { lrv: 0, urv: 6, outputLow: 4, outputHigh: 20 };
  it('stand for outputs, to the last decimal', () => {
    expect(outputOfDeviation(range, 0, 'output unit', 0.04)).toBe(4.04);
    expect(outputOfDeviation(range, 100, '% of span', -0.15)).toBe(19.976);
    // By hand: a tenth of a per cent of 12 psi below 15.
    expect(outputOfDeviation({ ...range, outputLow: 3, outputHigh: 15 }, 100, '% of span', -0.1)).toBe(
      14.988,
    );
    // A reversed output: 100 % is its low end.
    expect(outputOfDeviation({ ...range, outputLow: 20, outputHigh: 4 }, 100, 'output unit', 0.01)).toBe(
      4.01,
    );
  });
  it('are kept with the end that they are from, so that the text says the output by itself', () => {
    expect(keptDeviation(range, 0, '0.02 null')).toBe('4 + 0.02');
    expect(keptDeviation(range, 100, '\u22120,15 % NULL')).toBe('20 - 0,15 % of 16');
    expect(keptDeviation(range, 100, '20 - 0,15 % of 16')).toBe('20 - 0,15 % of 16');
    expect(parseOutput('4 + 0.02').value).toBe(4.02);
    expect(parseOutput('20 - 0,15 % of 16').value).toBe(19.976);
    expect(parseOutput('0.2 - 0.001').value).toBe(0.199);
    expect(parseOutput(' 12,04 ')).toEqual({ text: '12,04', value: 12.04 });
    expect(['0.02null', '+.5 %null', '4 + 0.02'].every(isDeviation)).toBe(true);
    expect(['4.02', 'null', '0.02 mA', '4 + 0.02 + 1', '0..2 + x'].some(isDeviation)).toBe(false);
  });
  it('are refused where no null meter stands at nothing, from another range, and where they are no numbers', () => {
    expect(() => keptDeviation(range, 50, '0.02 null')).toThrow('type the output itself here');
    expect(() => keptDeviation(range, NaN, '4 + 0.02')).toThrow('type the output itself here');
    expect(() => keptDeviation(range, 100, '4 + 0.02')).toThrow('another range');
    expect(() => keptDeviation(range, 100, '20 - 0.15 % of 40')).toThrow('another range');
    expect(() => keptDeviation(range, 0, '0.0.2 null')).toThrow('decimal');
    expect(() => parseOutput('4 + 1.2.3')).toThrow('decimal');
    expect(() => parseOutput('null')).toThrow('not a number');
  });
  it('are numbers', () => {
    expect(() => outputOfDeviation(range, 0, '% of span', Infinity)).toThrow('finite');
  });
});
