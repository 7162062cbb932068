import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { describe, expect, it } from 'vitest';
import { PRESSURE_KINDS, PRESSURE_UNITS, type PressureUnit } from '../units';
import { suspectWords, weigh, type Suspected, type SuspectReading } from './index';

/** Whatever is typed: a hundred and twenty cases of ranges, outputs and readings that hang together by nothing, from one seed. */
describe('anything', () => {
  const random = xoroshiro128plus(20_261_130);
  const one = (): number => uniformFloat64(random);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(one() * from.length)] as T;
  const sometimes = <T extends object>(share: number, more: T): Partial<T> => (one() < share ? more : {});
  const units = Object.keys(PRESSURE_UNITS) as PressureUnit[];

  function strange(): Suspected {
    const lrv = pick([0, 0, -50, 100, 250, -1000, 0.001]);
    const urv = lrv + pick([1, 100, -100, 1e-3, 1e5, 250]);
    const [outputLow, outputHigh] = pick([
      [4, 20],
      [20, 4],
      [1, 5],
      [0, 100],
      [3, 15],
    ] as const);
    const transferFunction = pick([
      { kind: 'linear' },
      { kind: 'square-root' },
      { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 },
      {
        kind: 'table',
        points: [
          { inputPercent: 0, outputPercent: 0 },
          { inputPercent: 50, outputPercent: 40 },
          { inputPercent: 100, outputPercent: 100 },
        ],
      },
    ] as const);
    const count = 1 + Math.floor(one() * 11);
    const how = pick(['line', 'random', 'nothing'] as const);
    const readings = Array.from({ length: count }, (_one, k): SuspectReading => {
      const share = count === 1 ? 0.5 : k / (count - 1);
      const output = {
        line: outputLow + (outputHigh - outputLow) * share,
        random: one() * 100 - 20,
        nothing: 0,
      }[how];
      return {
        applied: lrv + (urv - lrv) * share,
        output,
        direction: pick(['up', 'down'] as const),
        ...sometimes(0.3, { digital: one() * 100 }),
        ...sometimes(0.3, { at: k * pick([0, 30]) }),
        ...sometimes(0.2, { untapped: one() * 20 }),
        ...sometimes(0.2, { shown: one() * 100 }),
      };
    });
    return {
      range: { lrv, urv, outputLow, outputHigh, transferFunction },
      readings,
      limitPercent: pick([1e-6, 0.05, 0.5, 5, 100]),
      inputUnit: pick([null, ...units]),
      pressureKind: pick([null, ...PRESSURE_KINDS]),
      ...sometimes(0.3, { resistorOhm: 250 }),
      ...sometimes(0.3, { vented: one() * 10 }),
      ...sometimes(0.3, { display: { low: 0, high: 100 } }),
      ...sometimes(0.3, { barometer: 1e5 }),
      ...sometimes(0.3, { others: [{ name: 'PT-1', gainPercent: one(), usualPercent: 0.1 }] }),
    };
  }

  it('is weighed without a figure that is none', () => {
    for (let turn = 0; turn < 120; turn += 1) {
      const suspected = strange();
      const { suspects } = weigh(suspected);
      expect(suspects.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 6);
      for (const suspect of suspects) {
        const { figure } = suspectWords(suspect, suspected, { input: 'kPa', output: 'mA' });
        const figures = [suspect.residualPercent, suspect.logEvidence, ...suspect.errorsPercentSpan];
        expect([figure, figures.every(Number.isFinite)]).toEqual([
          expect.not.stringMatching(/NaN|Infinity|undefined/),
          true,
        ]);
      }
    }
  }, 300_000);
});
