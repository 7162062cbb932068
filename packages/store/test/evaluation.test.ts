import { describe, expect, it } from 'vitest';
import { evaluateStoredRun, limitsOf, missingPoints, type StoredRun } from '../src/runs/evaluation';
import { StoreError } from '../src/db/errors';
import { workSeen, workUncertainty } from '../src/runs/working';
import { LIMIT } from './works';

const STANDARD: StoredRun['madeWith']['pressureReference'] = {
  tag: 'PC-1',
  name: '',
  description: 'calibrator',
  serial: '1',
  unit: 'bar',
  rangeLow: -1,
  rangeHigh: 20,
  resolution: 0.0001,
  certificate: 'K-1',
  calibratedOn: '2026-01-01',
  dueOn: '2027-01-01',
  percentOfReading: 0.02,
  percentOfRange: 0.01,
  floor: 0,
  driftPercentOfReadingPerYear: 0,
  percentOfReadingPerK: 0,
  uncertaintyPercentOfRange: 0.005,
  results: [],
};

const MADE_WITH: StoredRun['madeWith'] = {
  configuration: {
    version: 1,
    inputUnit: 'bar',
    lrv: 0,
    urv: 6,
    signal: 'mA-4-20',
    outputUnit: 'mA',
    outputLow: 4,
    outputHigh: 20,
    transferFunction: { kind: 'linear' },
    dampingS: 2,
    displayUnit: 'bar',
    displayLow: 0,
    displayHigh: 6,
    scaleDivision: null,
    displayDampingS: null,
    application: null,
    startView: null,
    drivenBy: null,
    switchingPoints: [],
  },
  tolerance: LIMIT,
  decisionRule: { kind: 'simple' },
  judgesBeyondUncertainty: false,
  pressureReference: STANDARD,
  secondReference: null,
  meter: { ...STANDARD, tag: 'DM-1', unit: 'mA', rangeLow: 0, rangeHigh: 24, resolution: 0.001 },
  head: 0,
  takenOn: '2026-05-04',
  points: [
    { position: 1, cycle: 1, direction: 'up', nominalPercent: 0, nominalApplied: 0, standard: 'first' },
    { position: 2, cycle: 1, direction: 'up', nominalPercent: 100, nominalApplied: 6, standard: 'first' },
    { position: 3, cycle: 1, direction: 'down', nominalPercent: 0, nominalApplied: 0, standard: 'first' },
  ],
};

const stored = (...readings: [position: number, applied: number, output: number][]): StoredRun => ({
  madeWith: MADE_WITH,
  readings: readings.map(([position, applied, output]) => ({ position, applied, output })),
});

describe('a stored run', () => {
  it('is evaluated with the points that it was made with', () => {
    const figures = evaluateStoredRun(stored([1, 0, 4.016], [2, 6, 20.032], [3, 0, 4.032]));
    expect(figures.zeroErrorPercentSpan).toBeCloseTo(0.15, 12);
    expect(figures.spanErrorPercentSpan).toBeCloseTo(0.05, 12);
    expect(figures.hysteresisPercentSpan).toBeCloseTo(0.1, 12);
    expect(figures.readings.map(({ direction }) => direction)).toEqual(['up', 'up', 'down']);
    expect(figures.verdict).toBe('within-adjust');
  });

  it('keeps its figures in the order of its readings', () => {
    const figures = evaluateStoredRun(stored([3, 0, 4.001], [1, 0, 4.002]));
    expect(figures.readings.map(({ direction, output }) => [direction, output])).toEqual([
      ['down', 4.001],
      ['up', 4.002],
    ]);
  });

  it('judges exactly on the limit as the core does', () => {
    expect(evaluateStoredRun(stored([1, 0, 4.04])).verdict).toBe('within-adjust');
    expect(evaluateStoredRun(stored([1, 0, 4.0401])).verdict).toBe('outside');
  });

  it('knows how many points it lacks', () => {
    expect(missingPoints(stored())).toBe(3);
    expect(missingPoints(stored([1, 0, 4], [2, 6, 20], [3, 0, 4]))).toBe(0);
  });

  it('refuses a reading at a point that it does not have', () => {
    expect(() => evaluateStoredRun(stored([4, 0, 4]))).toThrow(StoreError);
    expect(() => evaluateStoredRun(stored([4, 0, 4]))).toThrow('The run has no point 4.');
  });

  it('judges at the instrument, where a column of liquid stands between it and the standard', () => {
    const headed = { ...stored([1, 0.03, 4.04]), madeWith: { ...MADE_WITH, head: -0.03 } };
    const [reading] = evaluateStoredRun(headed).readings;
    expect(reading).toMatchObject({ applied: 0, verdict: 'within-adjust' });
  });

  it('has each error with its uncertainty: standard, meter and their last digits (worked by hand)', () => {
    const [low, high] = evaluateStoredRun(stored([1, 0, 4], [2, 6, 20])).readings;
    // Specification at 0: 0.0021 bar as a rectangle; certificate 0.00105 bar with k = 2; digit 0.0001 bar; of 16 mA a 6 bar.
    const standardAtZero = Math.hypot(0.0021 / Math.sqrt(3), 0.000525, 0.0001 / Math.sqrt(12));
    // Meter at 4 mA: 0.0032 mA as a rectangle; certificate 0.0012 mA with k = 2; digit 0.001 mA.
    const meterAtFour = Math.hypot(0.0032 / Math.sqrt(3), 0.0006, 0.001 / Math.sqrt(12));
    expect(low?.uncertainty).toBeCloseTo(2 * Math.hypot((standardAtZero * 16) / 6, meterAtFour), 9);
    expect(high?.uncertainty).toBeGreaterThan(low?.uncertainty ?? Infinity);
  });

  it('leaves undecided what its uncertainty reaches over, where the rule says so', () => {
    const rule = { kind: 'guard-band', r: 1, isUndecidedAllowed: true } as const;
    const guarded = (output: number) =>
      evaluateStoredRun({ ...stored([1, 0, output]), madeWith: { ...MADE_WITH, decisionRule: rule } })
        .verdict;
    expect([4.01, 4.04, 4.06].map(guarded)).toEqual(['within', 'undecided', 'outside']);
  });

  it('has none in a run of before there was one', () => {
    const [reading] = evaluateStoredRun({
      ...stored([1, 0, 4]),
      madeWith: { ...MADE_WITH, takenOn: '' },
    }).readings;
    expect(reading).toMatchObject({ verdict: 'within' });
    expect(reading?.uncertainty).toBeUndefined();
  });

  it('takes the specification where the certificate does not say its uncertainty', () => {
    const silent = { ...MADE_WITH, pressureReference: { ...STANDARD, uncertaintyPercentOfRange: null } };
    const [reading] = evaluateStoredRun({ ...stored([1, 0, 4]), madeWith: silent }).readings;
    expect(reading?.uncertainty).toBeGreaterThan(0);
  });

  it('measures each point with its own of two standards', () => {
    const coarse = { ...STANDARD, tag: 'PC-COARSE', percentOfRange: 1 };
    const points = MADE_WITH.points.map((point) =>
      point.position === 2 ? { ...point, standard: 'second' as const } : point,
    );
    const [first, second] = evaluateStoredRun({
      ...stored([1, 0, 4], [2, 6, 20]),
      madeWith: { ...MADE_WITH, points, secondReference: coarse },
    }).readings;
    expect((second?.uncertainty ?? 0) / (first?.uncertainty ?? 1)).toBeGreaterThan(20);
  });

  it('is read by eye to half a division where no meter reads it', () => {
    const byEye = {
      ...MADE_WITH,
      configuration: {
        ...MADE_WITH.configuration,
        outputUnit: 'bar',
        outputLow: 0,
        outputHigh: 6,
        scaleDivision: 0.1,
      },
      meter: null,
    };
    const [reading] = evaluateStoredRun({ ...stored([1, 0, 0]), madeWith: byEye }).readings;
    const standard = Math.hypot(0.0021 / Math.sqrt(3), 0.000525, 0.0001 / Math.sqrt(12));
    expect(reading?.uncertainty).toBeCloseTo(2 * Math.hypot(standard, 0.05 / Math.sqrt(12)), 9);
  });

  it('is complete with a word on why a point was not read', () => {
    const marks = [
      { position: 2, kind: 'no reading' as const },
      { position: 3, kind: 'note' as const },
    ];
    expect(missingPoints({ ...stored([1, 0, 4]), marks })).toBe(1);
  });
});

describe('a certificate with results at its points', () => {
  // By hand: at 3 bar of a table 0 / +0.0002, 2 / +0.001, 4 / +0.003 the correction is 0.002, and U is 0.0015.
  const RESULTS = [
    { at: 0, correction: 0.0002, uncertainty: 0.001 },
    { at: 2, correction: 0.001, uncertainty: 0.001 },
    { at: 4, correction: 0.003, uncertainty: 0.002 },
  ];
  const half = {
    position: 4,
    cycle: 1,
    direction: 'up' as const,
    standard: 'first' as const,
    nominalPercent: 50,
    nominalApplied: 3,
  };
  const judgedAt = (applied: number, output: number, madeWith: Partial<StoredRun['madeWith']>) => {
    const run = {
      madeWith: { ...MADE_WITH, points: [half], ...madeWith },
      readings: [{ position: 4, applied, output }],
    };
    const [judged] = evaluateStoredRun(run).readings;
    if (judged === undefined) throw new Error('There is a reading.');
    return { judged, run };
  };
  const corrected = { pressureReference: { ...STANDARD, results: RESULTS } };

  it('corrects what the standard read before the error is taken, and gives it its uncertainty', () => {
    const { judged } = judgedAt(3, 12, { ...corrected, meter: null });
    expect(judged.applied).toBe(3.002);
    expect(judged.errorPercentSpan).toBeCloseTo((-0.002 / 6) * 100, 12);
    // At 3.002 bar: 0.02 % of it and 0.01 % of 21 bar, rectangular; U of the certificate 0.001501, k = 2; resolution.
    const standard = Math.hypot((0.0006004 + 0.0021) / Math.sqrt(3), 0.001501 / 2, 0.0001 / Math.sqrt(12));
    expect(judged.uncertainty).toBeCloseTo((2 * standard * 16) / 6, 12);
  });

  it('keeps the correction of the nearest point beyond its ends, and decimals exact on the limit', () => {
    expect(judgedAt(6, 20, corrected).judged.applied).toBe(6.003);
    expect(judgedAt(-0.5, 4, corrected).judged.applied).toBe(-0.4998);
    // 3.003 bar asks for 12.008 mA, and the limit is 0.040 mA.
    const results = [{ at: 0, correction: 0.003, uncertainty: 1e-6 }];
    const exact = { pressureReference: { ...STANDARD, results } };
    expect(judgedAt(3, 12.048, exact).judged.verdict).toBe('within-adjust');
    expect(judgedAt(3, 12.0480000001, exact).judged.verdict).toBe('outside');
  });

  it('corrects a meter likewise, in the unit of the output', () => {
    const meter = {
      ...STANDARD,
      tag: 'DM-1',
      unit: 'V',
      rangeHigh: 5,
      results: [{ at: 0, correction: -0.001, uncertainty: 0.0001 }],
    };
    const volts = { ...MADE_WITH.configuration, outputUnit: 'mV', outputLow: 1000, outputHigh: 5000 };
    expect(judgedAt(3, 3000, { meter, configuration: volts }).judged.output).toBe(2999);
  });

  it('works both out from what was read, with the head', () => {
    const { judged, run } = judgedAt(3, 12, { ...corrected, head: 0.01 });
    const steps = workSeen(
      run.madeWith,
      { position: 4, applied: 3, output: 12 },
      { input: 'bar', output: 'mA' },
    );
    expect(steps.map(({ symbol, value }) => [symbol, Number(value.toPrecision(12))])).toEqual([
      ['c_cert', 0.002],
      ['x', judged.applied],
    ]);
    expect(judged.applied).toBe(3.012);
    const plain = judgedAt(3, 12, {});
    expect(
      workSeen(plain.run.madeWith, { position: 4, applied: 3, output: 12 }, { input: 'bar', output: 'mA' }),
    ).toEqual([]);
  });

  it('has a working of the uncertainty that ends in the one judged with, on a point and between two', () => {
    for (const applied of [1.999, 3, 7]) {
      const { judged, run } = judgedAt(applied, 12, corrected);
      const steps = workUncertainty(run.madeWith, judged, { input: 'bar', output: 'mA' });
      expect(
        (steps.findLast(({ symbol }) => symbol === 'U')?.value ?? NaN) / (judged.uncertainty ?? NaN),
      ).toBeCloseTo(1, 11);
      expect(steps.filter(({ symbol }) => symbol === 'U_cert')[0]?.source).toBe(
        'the certificate of the reference',
      );
    }
  });
});

describe('a limit', () => {
  it('may be of span, of zones of the scale, and of the reading', () => {
    expect(limitsOf(LIMIT).terms).toEqual([{ kind: 'percent-of-span', percent: 0.25 }]);
    expect(
      limitsOf({ ...LIMIT, percentOfSpan: 3, middlePercentOfSpan: 2, percentOfReading: 10 }).terms,
    ).toEqual([
      { kind: 'percent-of-span-in-zones', middlePercent: 2, outerPercent: 3 },
      { kind: 'percent-of-reading', percent: 10, of: 'applied' },
    ]);
  });
});

describe('the working of an uncertainty', () => {
  const UNITS = { input: 'bar', output: 'mA' };
  const works = (madeWith: Partial<StoredRun['madeWith']>) => {
    const run = { ...stored([2, 6, 20.01]), madeWith: { ...MADE_WITH, ...madeWith } };
    const [judged] = evaluateStoredRun(run).readings;
    if (judged === undefined) throw new Error('There is a reading.');
    return { judged, steps: workUncertainty(run.madeWith, judged, UNITS) };
  };
  const found = (steps: ReturnType<typeof works>['steps'], symbol: string) =>
    steps.findLast((step) => step.symbol === symbol);

  it.each<[string, Partial<StoredRun['madeWith']>]>([
    ['certificates and specifications', {}],
    ['a standard in another unit', { pressureReference: { ...STANDARD, unit: 'psi', rangeHigh: 300 } }],
    [
      'a specification only, drifted',
      {
        pressureReference: {
          ...STANDARD,
          uncertaintyPercentOfRange: null,
          driftPercentOfReadingPerYear: 0.1,
        },
      },
    ],
    ['no meter', { meter: null }],
    [
      'a square root',
      { configuration: { ...MADE_WITH.configuration, transferFunction: { kind: 'square-root' } } },
    ],
  ])('ends in the one that the reading was judged with: %s', (_, madeWith) => {
    const { judged, steps } = works(madeWith);
    expect((found(steps, 'U')?.value ?? NaN) / (judged.uncertainty ?? NaN)).toBeCloseTo(1, 11);
    expect(steps.some(({ what }) => what.startsWith('PC-1: '))).toBe(true);
  });

  it('goes on to the guard band of the rule', () => {
    const banded = works({ decisionRule: { kind: 'guard-band', r: 0.83, isUndecidedAllowed: true } });
    expect(found(banded.steps, 'w')?.value).toBeCloseTo(0.83 * (banded.judged.uncertainty ?? NaN), 12);
    expect(found(banded.steps, 'A_U')?.value).toBeCloseTo(
      banded.judged.limit - 0.83 * (banded.judged.uncertainty ?? NaN),
      12,
    );
    expect(found(works({ decisionRule: { kind: 'method-6' } }).steps, 'M')).toBeDefined();
    expect(found(works({}).steps, 'w')).toBeUndefined();
  });

  it('is not there in a run of before there was one', () => {
    expect(works({ takenOn: '' }).steps).toEqual([]);
  });
});
