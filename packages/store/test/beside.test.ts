import { describe, expect, it } from 'vitest';
import { besideOf, besideVerdicts, type RunBeside } from '../src/runs/beside';
import { LIMIT, RANGE } from './works';

const configuration = { ...RANGE, version: 1 };
const standard = {
  tag: 'PC-1',
  name: '',
  description: 'calibrator',
  serial: '1',
  unit: 'bar',
  rangeLow: 0,
  rangeHigh: 6,
  resolution: 0,
  certificate: 'K-1',
  calibratedOn: '2026-01-01',
  dueOn: '2027-01-01',
  percentOfReading: 0,
  percentOfRange: 0.01,
  floor: 0,
  driftPercentOfReadingPerYear: 0,
  percentOfReadingPerK: 0,
  uncertaintyPercentOfRange: null,
  results: [],
};
const runOf = (
  more: Partial<RunBeside['madeWith']>,
  readings: readonly [output: number, more: RunBeside['readings'][number]['more']][],
): RunBeside => ({
  madeWith: {
    configuration,
    tolerance: LIMIT,
    decisionRule: { kind: 'simple' },
    judgesBeyondUncertainty: false,
    points: readings.map((_, index) => ({
      position: index + 1,
      cycle: 1,
      direction: 'up' as const,
      nominalPercent: 50,
      nominalApplied: 3,
      standard: 'first' as const,
    })),
    pressureReference: standard,
    secondReference: null,
    meter: null,
    head: 0,
    takenOn: '2026-05-04',
    columns: [],
    secondIndication: '',
    secondScale: null,
    ...more,
  },
  readings: readings.map(([output, typed], index) => ({
    position: index + 1,
    applied: 3,
    output,
    more: typed,
  })),
});

describe('the stages of a smart transmitter', () => {
  it('are told apart by the digital value: sensor against applied, output against digital', () => {
    // The sensor reads 0.03 bar high, 0.5 % of 6 bar; the output follows it exactly: 4 + 16 * 3.03 / 6 = 12.08 mA.
    const [found] = besideOf(runOf({}, [[12.08, { digital: '3.030' }]]));
    expect(found?.sensor?.percentOfSpan).toBeCloseTo(0.5, 9);
    expect(found?.sensor?.verdict).toBe('outside');
    expect(found?.sensor?.limitPercentOfSpan).toBeCloseTo(0.25, 12);
    expect(found?.output?.percentOfSpan).toBeCloseTo(0, 9);
    expect(found?.output?.verdict).toBe('within');
  });

  it('show an output trim that hides a sensor which is wrong', () => {
    const verdicts = besideVerdicts(besideOf(runOf({}, [[12.0, { digital: '2,970' }]])));
    expect(verdicts).toEqual({ sensor: 'outside', output: 'outside' });
  });
});

describe('a second indication', () => {
  it('is judged by its own scale and tolerance', () => {
    const secondScale = { unit: 'm', low: 0, high: 5, percentOfSpan: 1 };
    const run = runOf({ secondScale }, [
      [12, { second: '2.55' }],
      [12, { second: '2.5501' }],
    ]);
    // 1 % of 5 m is 0.05 m, which is on the limit and inside.
    expect(besideOf(run).map((one) => one.second?.verdict)).toEqual(['within', 'outside']);
    expect(besideVerdicts(besideOf(run))).toEqual({ second: 'outside' });
  });

  it('of the own display has the scale of the configuration; of a panel meter without one it is noted only', () => {
    const typed: Parameters<typeof runOf>[1] = [[12, { second: '3.02' }]];
    expect(besideOf(runOf({ secondIndication: 'own display' }, typed))[0]?.second?.verdict).toBe('outside');
    expect(besideOf(runOf({ secondIndication: 'panel meter' }, typed))[0]).toEqual({});
  });
});

it('friction is what a tap frees, against the limit of the class; with zones that of the middle one', () => {
  const gauge = { ...configuration, outputUnit: 'bar', outputLow: 0, outputHigh: 6 };
  // Grade B of ASME B40.100, 3-2-3 %: 2 % of 6 bar are 0.12 bar.
  const tolerance = { ...LIMIT, percentOfSpan: 3, middlePercentOfSpan: 2 };
  const run = runOf({ configuration: gauge, tolerance }, [
    [3.1, { 'before-tap': '2.98' }],
    [3.1, { 'before-tap': '2.97' }],
  ]);
  const [on, over] = besideOf(run);
  expect(on?.friction?.verdict).toBe('within');
  expect(on?.friction?.value).toBeCloseTo(0.12, 12);
  expect(over?.friction?.verdict).toBe('outside');
});
