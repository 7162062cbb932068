import fc from 'fast-check';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { describe, expect, it } from 'vitest';
import { spanTolerance } from '../run';
import { expectedOutput, type SignalRange } from '../signal';
import {
  actsOf,
  adviseOn,
  headline,
  incurableWords,
  portraitWords,
  remarkOf,
  workAdvice,
  workOutlook,
  worstOf,
  type Act,
  type Advice,
  type AdviceRequest,
  type ReadingWithDigital,
} from './index';

const range: SignalRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
const screws = { technology: 'analog', trims: ['zero screw', 'span screw'] } as const;
const smart = { technology: 'smart', trims: ['zero trim', 'sensor trim', 'output trim'] } as const;
const POINTS = [0, 25, 50, 75, 100];

/** A run up and down with errors in per cent of span, which repeat themselves. */
function run(
  error: (percent: number, direction: 'up' | 'down') => number,
  of: SignalRange = range,
): ReadingWithDigital[] {
  const at = (percent: number, direction: 'up' | 'down'): ReadingWithDigital => {
    const applied = of.lrv + ((of.urv - of.lrv) * percent) / 100;
    const span = of.outputHigh - of.outputLow;
    return {
      cycle: 1,
      direction,
      nominalPercent: percent,
      applied,
      output: Number(
        (expectedOutput(of, applied) + (error(percent, direction) / 100) * span).toPrecision(12),
      ),
    };
  };
  return [
    ...POINTS.map((percent) => at(percent, 'up')),
    ...[...POINTS].reverse().map((percent) => at(percent, 'down')),
  ];
}

/** The same with a digital value: errors of the sensor and, behind it, of the output, in per cent of span. */
const smartRun = (
  sensor: (percent: number) => number,
  output: (percent: number) => number,
): ReadingWithDigital[] =>
  run((percent) => sensor(percent) + output(percent)).map((reading) => ({
    ...reading,
    digital: Number((reading.applied + sensor(reading.nominalPercent)).toPrecision(12)),
  }));

const advise = (readings: ReadingWithDigital[], more: Partial<AdviceRequest> = {}): Advice =>
  adviseOn({ range, tolerance: spanTolerance(0.25, 70), readings, body: screws, ...more });
const outlook = (advice: Advice, act: Act) => advice.acts.find((one) => one.act === act);

describe('the least act that suffices', () => {
  it('is nothing where all lies inside the adjust limit, and on it', () => {
    // 70 % of 0.25 % is 0.175 %, and on the limit is inside.
    expect(advise(run(() => 0.175)).lead).toBe('none');
    expect(advise(run(() => 0.1751)).lead).toBe('zero');
  });

  it('is the zero alone for an offset', () => {
    const advice = advise(run(() => 0.65));
    expect(advice.lead).toBe('zero');
    expect(outlook(advice, 'zero')?.suffices).toBe('surely');
    expect(headline(advice)).toBe(
      'Everywhere by nearly the same amount: the whole line stands 0.65 % of span high.',
    );
    expect(remarkOf(outlook(advice, 'zero and span') as never, advice)).toBe('gains nothing more');
  });

  it('is zero and span for a gain, and what a zero would leave is said', () => {
    const advice = advise(run((percent) => (-0.4 * percent) / 100));
    expect(advice.lead).toBe('zero and span');
    expect(worstOf(outlook(advice, 'zero') as never)).toBeCloseTo(0.4, 9);
    expect(remarkOf(outlook(advice, 'zero') as never, advice)).toBe('not enough');
    expect(headline(advice)).toBe('Right at the low end and 0.40 % of span low at the top: the gain is off.');
  });

  it('is repair where hysteresis alone keeps it outside, with the reason', () => {
    const advice = advise(
      run((percent, direction) => (direction === 'up' ? 0 : (0.6 * 4 * percent * (100 - percent)) / 10000)),
    );
    expect(advice.lead).toBe('repair');
    const [first] = advice.incurable;
    expect(first?.what).toBe('hysteresis');
    expect(first?.isDecisive).toBe(true);
    expect(incurableWords(first as never)).toContain('Hysteresis of 0.60 % is over half the limit (0.13 %)');
    // Half of it stays on either side whatever is turned.
    expect(advice.bestByZero).toBeCloseTo(0.3, 9);
  });

  it('says hysteresis over half the limit also where the instrument can be brought inside', () => {
    const advice = advise(
      run(
        (percent, direction) =>
          0.4 + (direction === 'up' ? 0 : (0.15 * 4 * percent * (100 - percent)) / 10000),
      ),
    );
    expect(advice.lead).toBe('zero');
    expect(advice.incurable.map(({ what, isDecisive }) => [what, isDecisive])).toEqual([
      ['hysteresis', false],
    ]);
  });

  it('is the linkage or the mid-scale point for a bow, on a body that has one', () => {
    const bowed = run((percent) => (0.6 * 4 * percent * (100 - percent)) / 10000);
    expect(advise(bowed).lead).toBe('repair');
    expect(
      advise(bowed, { body: { technology: 'pneumatic', trims: ['zero screw', 'range wheel', 'linkage'] } })
        .lead,
    ).toBe('linkage');
    const digital = advise(bowed, {
      body: { technology: 'digital gauge', trims: ['zero trim', 'full scale', 'mid-scale'] },
    });
    expect(digital.lead).toBe('mid-scale');
    // A parabola through three points is straight lines between them: a quarter of the bow stays at the quarters, and the
    // second half of the line is a little steeper, by 1 / 0.988.
    expect(outlook(digital, 'mid-scale')?.points?.[3]?.errorPercentSpan).toBeCloseTo(0.15 / 0.988, 6);
    expect(digital.incurable.map(({ what }) => what)).toContain('bow');
    expect(headline(digital)).toBe('The curve bows between its ends.');
  });

  it('is none that the body does not have', () => {
    expect(actsOf({ technology: 'dial gauge', trims: ['linkage'] })).toEqual(['none', 'linkage', 'repair']);
    expect(
      advise(
        run(() => 0.65),
        { body: { technology: 'dial gauge', trims: ['linkage'] } },
      ).acts.map(({ act }) => act),
    ).not.toContain('zero');
    // Nothing entered: what is usual of its kind.
    expect(actsOf({ technology: 'analog', trims: [] })).toEqual(['none', 'zero', 'zero and span', 'repair']);
  });

  it('is not told where the readings cannot be judged', () => {
    const blind = run(() => 0.1).map((reading) => ({ ...reading, uncertainty: 0.2 }));
    expect(advise(blind).lead).toBeNull();
    expect(advise([]).lead).toBeNull();
  });

  it('is repair where a tap frees more than the class allows', () => {
    expect(
      advise(
        run(() => 0.65),
        { hasFriction: true },
      ).lead,
    ).toBe('repair');
  });

  it('is the right range where another one is set, before any trim', () => {
    const advice = advise(
      run((percent) => (-4 * percent) / 104),
      { body: smart, isRangeWrong: true },
    );
    expect(advice.lead).toBe('re-range');
    expect(advice.behavesLike?.[0]).toBeCloseTo(0, 9);
    // What reads 100 - 4 / 1.04 % at 100 kPa reads 100 % at 104 kPa.
    expect(advice.behavesLike?.[1]).toBeCloseTo(104, 6);
  });
});

describe('always to the nearest', () => {
  const school = 'always to the nearest' as const;
  it('adjusts what lies inside, where that gains more than is uncertain of it', () => {
    expect(advise(run(() => 0.1)).lead).toBe('none');
    expect(
      advise(
        run(() => 0.1),
        { school },
      ).lead,
    ).toBe('zero');
    expect(
      advise(
        run((percent) => percent / 1000),
        { school },
      ).lead,
    ).toBe('zero and span');
    expect(
      advise(
        run(() => 0),
        { school },
      ).lead,
    ).toBe('none');
  });
  it('trims no output before the sensor where the digital value was not read', () => {
    const gained = run((percent) => percent / 1000);
    expect(advise(gained, { school, body: smart }).lead).toBe('sensor trim');
  });
  it('is repair all the same where nothing brings it inside', () => {
    const stuck = run((percent, direction) => (direction === 'up' ? 0 : 0.6));
    expect(advise(stuck, { school }).lead).toBe('repair');
  });
});

describe('stages of a smart transmitter', () => {
  it('are told apart: which trim cures which, and which hides the fault', () => {
    const sensor = advise(
      smartRun(
        (percent) => 0.1 + (0.4 * percent) / 100,
        () => 0,
      ),
      { body: smart },
    );
    expect(sensor.lead).toBe('sensor trim');
    expect(headline(sensor)).toBe(
      'The digital value is past the adjust limit and the output follows it: the sensor is off.',
    );
    const hiding = outlook(sensor, 'output trim');
    expect(hiding?.hides).toBe(false);
    const output = advise(
      smartRun(
        () => 0,
        (percent) => 0.2 + (0.2 * percent) / 100,
      ),
      { body: smart },
    );
    expect(output.lead).toBe('output trim');
    expect(output.stages?.isSensorOutside).toBe(false);
    expect(headline(output)).toBe(
      'The digital value is right and the current is not: the output stage is off.',
    );
  });

  it('that cancel each other in the current are both trimmed', () => {
    const advice = advise(
      smartRun(
        () => 0.4,
        () => -0.4,
      ),
      { body: smart },
    );
    expect(advice.found.verdict).toBe('within');
    expect(advice.lead).toBe('zero and output trim');
    expect(outlook(advice, 'none')?.suffices).toBe('no');
    expect(outlook(advice, 'none')?.hides).toBe(false);
    expect(headline(advice)).toBe('Sensor and output stage are both past the adjust limit, each by itself.');
  });

  it('are known to be hidden by a trim of the output, and by another range', () => {
    const advice = advise(
      smartRun(
        (percent) => 0.3 + (0.4 * percent) / 100,
        () => 0.02,
      ),
      { body: smart },
    );
    const ranged = outlook(advice, 're-range');
    expect(ranged?.hides).toBe(true);
    expect(ranged?.sensorErrorsPercentSpan?.at(4)).toBeCloseTo(0.7, 9);
    expect(remarkOf(ranged as never, advice)).toBe(
      'the current comes right and the digital value stays wrong: it would hide the fault',
    );
  });

  it('without the digital value are not trimmed at the output before all else was', () => {
    const offset = run(() => 0.5);
    expect(
      advise(offset, { body: { technology: 'smart', trims: ['sensor trim', 'output trim'] } }).lead,
    ).toBe('sensor trim');
    expect(advise(offset, { body: { technology: 'smart', trims: ['output trim'] } }).lead).toBe(
      'output trim',
    );
  });

  it('are not told apart without the digital value, and it is said', () => {
    const advice = advise(
      run((percent) => 0.1 + (0.4 * percent) / 100),
      { body: smart },
    );
    expect(advice.stages).toBeNull();
    expect(advice.acts.map(({ act }) => act)).not.toContain('sensor and output trim');
    expect(remarkOf(outlook(advice, 'output trim') as never, advice)).toContain(
      'the digital value was not read',
    );
  });
});

describe('a zero trim', () => {
  it('is made at true zero, also where the range does not begin there', () => {
    const elevated: SignalRange = { ...range, lrv: -20, urv: 80 };
    // A gain of +0.5 % about -20: at true zero, a fifth up the range, the error is 0.1 %, and that is what the trim takes away.
    const advice = advise(
      run((percent) => (0.5 * percent) / 100, elevated),
      { range: elevated, body: smart },
    );
    expect(outlook(advice, 'zero')?.points?.[0]?.errorPercentSpan).toBeCloseTo(-0.1, 9);
    expect(outlook(advice, 'zero')?.points?.[4]?.errorPercentSpan).toBeCloseTo(0.4, 9);
  });

  it('is predicted through a root, whose zero reading says nothing', () => {
    const flow: SignalRange = {
      ...range,
      transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 10 },
    };
    // The sensor reads 0.3 of 100 too much; the output is the root of that, by hand sqrt(25.3 / 100) at a quarter.
    const readings = run(() => 0, flow).map((reading) => ({
      ...reading,
      output: expectedOutput(flow, reading.applied + 0.3),
    }));
    expect(readings[1]?.output).toBeCloseTo(4 + 16 * Math.sqrt(0.253), 12);
    const advice = advise(readings, { range: flow, body: smart, tolerance: spanTolerance(0.2, 70) });
    expect(advice.lead).toBe('zero');
    for (const { errorPercentSpan } of outlook(advice, 'zero')?.points ?? [])
      expect(Math.abs(errorPercentSpan)).toBeLessThan(1e-6);
  });
});

describe('what is uncertain', () => {
  /** Standard normal by Box and Muller, of a seed. */
  function chance(seed: number): () => number {
    const random = xoroshiro128plus(seed);
    return () =>
      Math.sqrt(-2 * Math.log(1 - uniformFloat64(random))) * Math.cos(2 * Math.PI * uniformFloat64(random));
  }

  it('of zero, gain and what is predicted covers the truth about 95 times of 100, by Monte Carlo', () => {
    const normal = chance(1);
    const SIGMA = 0.02;
    const truth = (percent: number) =>
      0.3 - (0.5 * percent) / 100 + (0.05 * 4 * percent * (100 - percent)) / 10000;
    const covered = { zero: 0, gain: 0, bow: 0, left: 0 };
    const RUNS = 2000;
    for (let count = 0; count < RUNS; count += 1) {
      const advice = advise(run((percent) => truth(percent) + SIGMA * normal()));
      const { zero, gain, bow } = advice.portrait;
      // Least squares of the bow itself over the ten readings: by hand 0.05 times the mean of 4 s (1 - s) less its line, 0.5.
      covered.zero += Number(Math.abs((zero?.value ?? NaN) - 0.325) <= (zero?.uncertainty ?? NaN));
      covered.gain += Number(Math.abs((gain?.value ?? NaN) + 0.5) <= (gain?.uncertainty ?? NaN));
      covered.bow += Number(Math.abs((bow?.value ?? NaN) - 0.05) <= (bow?.uncertainty ?? NaN));
      // As left, the trims have used readings with a scatter of their own, and the middle is read with another.
      const middle = outlook(advice, 'zero and span')?.points?.[2];
      const left = 0.05 + SIGMA * normal() - (SIGMA * (normal() + normal())) / 2;
      covered.left += Number(
        Math.abs((middle?.errorPercentSpan ?? NaN) - left) <= (middle?.uncertaintyPercentSpan ?? NaN),
      );
    }
    for (const [what, count] of Object.entries(covered)) {
      expect(count / RUNS, what).toBeGreaterThan(0.93);
      expect(count / RUNS, what).toBeLessThan(0.98);
    }
  });

  it('of the standard shifts all readings of a point together', () => {
    // No scatter, and 0.02 mA (k = 2) of the standard at each point: 0.125 % at zero's end of the line, by the formula of the
    // line through five points: sum of (0.6, 0.4, 0.2, 0, -0.2) squared is 0.6.
    const readings = run(() => 0.4).map((reading) => ({ ...reading, uncertainty: 0.02 }));
    const { zero, gain } = advise(readings).portrait;
    expect(zero?.uncertainty).toBeCloseTo(0.125 * Math.sqrt(0.6), 4);
    // And of the gain (-0.8, -0.4, 0, 0.4, 0.8): 1.6.
    expect(gain?.uncertainty).toBeCloseTo(0.125 * Math.sqrt(1.6), 4);
  });

  it('is not known of three readings, and nothing is surely enough then', () => {
    const three = run(() => 0.4).filter(
      ({ direction, nominalPercent }) => direction === 'up' && nominalPercent % 50 === 0,
    );
    const advice = advise(three);
    expect(advice.portrait.scatter).toBeNull();
    expect(outlook(advice, 'zero')?.suffices).toBe('likely');
    expect(advice.lead).toBe('zero');
    expect(portraitWords(advice.portrait)[0]).toBe('Zero +0.400 %');
  });
});

describe('any run', () => {
  /** Where there is a number that is none; null where all are. */
  const wrongIn = (value: unknown, path = ''): string | null => {
    if (typeof value === 'number') return Number.isFinite(value) ? null : path;
    if (typeof value !== 'object' || value === null) return null;
    for (const [key, one] of Object.entries(value)) {
      const found = wrongIn(one, `${path}.${key}`);
      if (found !== null) return found;
    }
    return null;
  };

  it('gets advice that is made of numbers, whatever its points, transfer function, signal and body', () => {
    const transfers = [
      { kind: 'linear' },
      { kind: 'square-root' },
      { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 },
      { kind: 'square-root-linear-start', linearToPercentOfFlow: 10 },
    ] as const;
    fc.assert(
      fc.property(
        fc.constantFrom(...transfers),
        fc.constantFrom([0, 50], [50, 0], [-20, 80], [20, 60]),
        fc.constantFrom([4, 20], [20, 4], [3, 15]),
        fc.array(fc.constantFrom(0, 2, 25, 50, 75, 100), { maxLength: 6 }),
        fc.constantFrom('analog', 'smart', 'pneumatic', 'dial gauge', 'digital gauge'),
        fc.integer({ min: -300, max: 300 }),
        fc.integer({ min: -300, max: 300 }),
        fc.boolean(),
        (
          transferFunction,
          [lrv = 0, urv = 1],
          [outputLow = 0, outputHigh = 1],
          points,
          technology,
          zero,
          gain,
          isDigital,
        ) => {
          const of: SignalRange = { lrv, urv, outputLow, outputHigh, transferFunction };
          const readings = points.flatMap((percent) =>
            (['up', 'down'] as const).map((direction, i) => {
              const applied = lrv + ((urv - lrv) * percent) / 100;
              const output = expectedOutput(of, applied) + (zero + (gain * percent) / 100 + i) / 1000;
              return {
                cycle: 1,
                direction,
                nominalPercent: percent,
                applied,
                output,
                digital: isDigital ? applied : undefined,
              };
            }),
          );
          const advice = advise(readings, {
            range: of,
            body: { technology, trims: [] },
            tolerance: spanTolerance(0.5, 70),
          });
          expect(wrongIn({ ...advice, found: null })).toBeNull();
          if (readings.length > 0) expect(advice.lead).not.toBeNull();
          expect(headline(advice)).not.toContain('NaN');
          expect(wrongIn(workAdvice(of, advice))).toBeNull();
        },
      ),
      { numRuns: 300, seed: 7 },
    );
  });
});

describe('the working of advice', () => {
  it('ends at the figures that are shown', () => {
    const advice = advise(run((percent) => 0.3 + (0.2 * percent) / 100));
    const steps = workAdvice(range, advice);
    const value = (symbol: string) => steps.find((step) => step.symbol === symbol)?.value;
    expect(value('z')).toBe(advice.portrait.zero?.value);
    expect(value('b')).toBe(advice.portrait.gain?.value);
    expect(value('E_zero')).toBeCloseTo(advice.bestByZero, 12);
    expect(value('E_both')).toBeCloseTo(advice.bestByZeroAndSpan, 12);
    const lead = outlook(advice, advice.lead as Act);
    expect(Math.abs(value('e_left') ?? NaN)).toBeCloseTo(worstOf(lead as never) ?? NaN, 9);
  });

  it('is there for each act, its uncertainty too, and for none that cannot be told', () => {
    const noisy = [0.02, -0.03, 0.01, 0.02, -0.02, 0.03, -0.01, 0.01, 0];
    let at = -1;
    const advice = advise(run((percent) => 0.3 + (0.2 * percent) / 100 + (noisy[(at += 1)] ?? 0)));
    for (const { act, points, worst } of advice.acts) {
      const steps = workOutlook(range, advice, act);
      const value = (symbol: string) => steps.find((step) => step.symbol === symbol)?.value;
      const point = points?.[worst ?? -1];
      if (point === undefined) {
        expect(steps, act).toEqual([]);
        continue;
      }
      expect(value('e_left'), act).toBeCloseTo(point.errorPercentSpan, 9);
      if (act === 'none') expect(value('U_left')).toBeUndefined();
      else expect(value('U_left'), act).toBeCloseTo(point.uncertaintyPercentSpan ?? NaN, 9);
    }
  });
});
