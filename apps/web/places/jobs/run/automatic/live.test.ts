import type { MadeWith } from '@barys/store/runs';
import type { ShownBench } from '@barys/store/benches';
import { describe, expect, it } from 'vitest';
import { TEST_CONFIGURATION, TEST_STANDARD, TEST_TOLERANCE } from '../../../../test/configuration';
import { errorNow, liveAt } from './live';

const POINT = { position: 1, standard: 'first' } as MadeWith['points'][number];
const MADE_WITH = {
  configuration: {
    ...TEST_CONFIGURATION,
    inputUnit: 'kPa',
    lrv: 0,
    urv: 100,
    outputLow: 4,
    outputHigh: 20,
    outputUnit: 'mA',
    transferFunction: { kind: 'linear' },
  },
  tolerance: { ...TEST_TOLERANCE, percentOfSpan: 0.25, middlePercentOfSpan: null, percentOfReading: 0 },
  pressureReference: { ...TEST_STANDARD, results: [] },
  secondReference: null,
  meter: { ...TEST_STANDARD, results: [] },
  head: 0,
} as unknown as MadeWith;
const AUTOMATIC = { bench: { id: 3, name: 'A' }, reference: 'PC-1', output: 'DM-1', digital: 'HI-1' };
const bench = (...values: [device: string, channel: string, value: number | null, unit: string][]) =>
  [
    {
      id: 3,
      values: values.map(([device, channel, value, unit]) => ({ device, channel, value, unit })),
    },
  ] as unknown as ShownBench[];

describe('what is said at a bench, in the terms of a run', () => {
  it('is in the units of the run, from the instruments of the run', () => {
    const benches = bench(
      ['PC-1', 'pressure', 0.5, 'bar'],
      ['PC-2', 'pressure', 9, 'bar'],
      ['DM-1', 'current', 0.012, 'A'],
      ['HI-1', 'digital value', 50.1, 'kPa'],
    );
    const live = liveAt(MADE_WITH, AUTOMATIC, benches);
    expect(live.reference).toBeCloseTo(50, 9);
    expect(live.output).toBeCloseTo(12, 9);
    expect(live.digital).toBe(50.1);
  });

  it('is nothing where nothing is said, in another quantity, or of another bench', () => {
    const none = { reference: null, output: null, digital: null };
    expect(liveAt(MADE_WITH, AUTOMATIC, [])).toEqual(none);
    expect(
      liveAt(MADE_WITH, AUTOMATIC, bench(['PC-1', 'pressure', null, 'bar'], ['DM-1', 'current', 12, 'V'])),
    ).toEqual(none);
    expect(
      liveAt(MADE_WITH, { ...AUTOMATIC, bench: { id: 4, name: 'B' } }, bench(['PC-1', 'pressure', 1, 'bar'])),
    ).toEqual(none);
  });

  it('has an error, and a judgement on the limit itself', () => {
    const at = (reference: number | null, output: number | null, more = {}) =>
      errorNow({ ...MADE_WITH, ...more }, POINT, { reference, output, digital: null });
    // 0.25 % of 16 mA are 0.04 mA.
    expect(at(50, 12.02)).toMatchObject({ percent: expect.closeTo(0.125, 9) as number, isAccepted: true });
    expect(at(50, 12.04)?.isAccepted).toBe(true);
    expect(at(50, 12.0401)?.isAccepted).toBe(false);
    expect(at(50, 11.9599)?.isAccepted).toBe(false);
    // What the instrument sees more than the standard belongs to what is applied.
    expect(at(50, 12.16, { head: 1 })?.percent).toBeCloseTo(0, 9);
    expect(at(null, 12)).toBeNull();
    expect(at(50, null)).toBeNull();
  });
});
