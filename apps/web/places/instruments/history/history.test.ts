import { dayNumber } from '@barys/core/drift';
import { adviseOn } from '@barys/store/intervals';
import { familyOf } from '@barys/core/interval';
import { visitsOf, type KeptRun } from '@barys/store/results';
import { describe, expect, it } from 'vitest';
import { historyRows } from './csv';
import { historyShape } from './shape';
import { adviceWords, anomalyWords, chanceWords, differenceWords, partWords, reasonWords } from './words';

const RANGE = '0 … 6 bar → 4 … 20 mA';
let id = 0;
const run = (doneOn: string, error: number, more: Partial<KeptRun> = {}): KeptRun => ({
  id: (id += 1),
  instrumentId: 1,
  jobId: null,
  runId: null,
  doneOn,
  kind: 'as-found',
  isLeft: true,
  verdict: 'within',
  isAmended: false,
  rangeKey: RANGE,
  rangeVersion: 1,
  at: [0, 100, 0],
  isDown: [false, false, true],
  error: [error, error + 0.05, error],
  limit: [0.25, 0.25, 0.25],
  adjustAbovePercent: 70,
  worstOfLimit: (error + 0.05) / 0.25,
  zeroPercent: error,
  spanPercent: 0.05,
  hysteresisPercent: 0.004,
  standard: 'PC-02',
  meter: '',
  personId: null,
  doneBy: 'Contractor',
  record: '',
  sinceDays: null,
  ...more,
});
const inForce = { rangeKey: RANGE, day: dayNumber('2018-01-01') };
const NOISE = [0.002, -0.001, 0.003, -0.002, 0.001, 0.002];
const advisedOn = (visits: ReturnType<typeof visitsOf>) =>
  adviseOn(visits, {
    months: 12,
    cap: 60,
    target: 0.95,
    family: { name: 'Cell', family: familyOf([]) },
    rangeKey: RANGE,
  });

describe('the drawing of a history', () => {
  const visits = visitsOf([
    run('2019-05-01', NOISE[0] ?? 0),
    run('2020-05-01', 0.04 + (NOISE[1] ?? 0)),
    run('2021-05-01', 0.08 + (NOISE[2] ?? 0), { isLeft: false }),
    run('2021-05-01', 0, { kind: 'as-left' }),
    run('2022-05-01', 0.04 + (NOISE[3] ?? 0)),
    run('2023-05-01', 0.08 + (NOISE[4] ?? 0)),
    run('2024-05-01', 0.12 + (NOISE[5] ?? 0)),
  ]);
  const advised = advisedOn(visits);
  const shape = historyShape(visits, [], advised, inForce);

  it('stands in units of the limit, with a line from as left to the next as found, broken where it was adjusted', () => {
    expect(shape?.found).toHaveLength(18);
    expect(shape?.found[1]?.y).toBeCloseTo(0.052 / 0.25, 9);
    expect(shape?.zero.map((line) => line.length)).toEqual([3, 4]);
    expect(shape?.full[0]?.[0]?.y).toBeCloseTo(0.052 / 0.25, 9);
    expect(shape?.adjustments).toMatchObject([{ day: dayNumber('2021-05-01'), to: 0, words: 'adjusted' }]);
    expect(shape?.left).toHaveLength(1);
    expect(shape?.columns.map(({ date, standard, hysteresis }) => [date, standard, hysteresis])[0]).toEqual([
      'May 19',
      'PC-02',
      '0.004',
    ]);
    expect(shape?.adjustAbove).toBe(0.7);
    expect(shape?.ranges).toEqual([]);
  });

  it('goes on where the point that leads out first is going, with what was adjusted taken out', () => {
    const prediction = shape?.prediction;
    expect(prediction?.at).toBe(100);
    // As left now, and a year's drift of 0.04 % later.
    expect(prediction?.points[0]?.y).toBeCloseTo(0.17 / 0.25, 1);
    for (const { low, y, high } of prediction?.points ?? []) {
      expect(low).toBeLessThan(y);
      expect(y).toBeLessThan(high);
    }
    expect(shape?.reach?.day).toBe(dayNumber(advised.insideUntil ?? ''));
    expect(shape?.to).toBeGreaterThan(shape?.reach?.day ?? Infinity);
  });

  it('breaks where the range changed, also since the last calibration, and predicts nothing across it', () => {
    const wider = '0 … 10 bar → 4 … 20 mA';
    const later = { rangeKey: wider, day: dayNumber('2024-08-01') };
    const changed = historyShape(
      visits,
      [],
      adviseOn(visits, {
        months: 12,
        cap: 60,
        target: 0.95,
        family: { name: 'Cell', family: familyOf([]) },
        rangeKey: wider,
      }),
      later,
    );
    expect(changed).toMatchObject({
      ranges: [later.day].map((day) => ({ day, words: wider })),
      prediction: null,
    });
    expect(changed?.to).toBe(later.day);
    expect(historyShape([], [], advised, inForce)).toBeNull();
  });

  it('draws nothing where a limit is zero, which has no place in units of it', () => {
    const without = visitsOf([run('2024-05-01', 0.1, { limit: [0, 0.25, 0] })]);
    expect(
      historyShape(without, [], advisedOn(without), inForce)?.found.map(({ y }) => y.toFixed(1)),
    ).toEqual(['0.6']);
    const none = visitsOf([run('2024-05-01', 0.1, { limit: [0, 0, 0] })]);
    expect(historyShape(none, [], advisedOn(none), inForce)).toMatchObject({
      found: [],
      zero: [],
      prediction: null,
    });
  });

  it('comes out as a table, a line for each reading', () => {
    const rows = historyRows('PT-1', visits);
    expect(rows).toHaveLength(21);
    expect(rows[0]?.slice(0, 9)).toEqual([
      'PT-1',
      '2019-05-01',
      'as found',
      '',
      RANGE,
      '0',
      'rising',
      '0.002',
      '0.25',
    ]);
  });
});

describe('words', () => {
  it('a part is never shown as all or nothing where it is not', () => {
    expect(
      [1, 0.9999, 0.95, 0.5, 0.004, 0.0004, 0].map((part) => partWords(part).replace('\u00a0', ' ')),
    ).toEqual(['100.0 %', 'over 99.9 %', '95.0 %', '50 %', '0.4 %', 'under 0.1 %', '0.0 %']);
  });

  it('a chance has the digits that tell it from none', () => {
    expect([0.2, 0.0123, 0.00042, 1e-9, 0].map(chanceWords)).toEqual([
      '20 %',
      '1.2 %',
      '1 in 2,000',
      'less than one in a million',
      'less than one in a million',
    ]);
  });

  it('say what is advised and why, for each kind and reason', () => {
    const now = { months: 12, jobsPerYear: 1, insideAtEnd: null, outsidePart: null };
    expect(
      (['shorter', 'longer', 'keep', 'look', 'none'] as const).map((kind) =>
        adviceWords({ kind, months: 8, now }),
      ),
    ).toEqual([
      '12 months, advised 8',
      '12 months, advised 8',
      '12 months, to be kept',
      '12 months: look at the instrument first',
      '12 months: too little is known to advise',
    ]);
    expect(reasonWords({ code: 'few-calibrations', count: 1, least: 5 })).toMatch(
      /1 calibration in this range/,
    );
    expect(reasonWords({ code: 'own-out', out: 1, calibrations: 4 })).toBe(
      'It was itself found outside once in 4 calibrations.',
    );
    expect(reasonWords({ code: 'family-holds', months: 0.4 })).toMatch(/too few calibrations to show more/);
    expect(reasonWords({ code: 'cap', months: 1 })).toBe('Its criticality allows at most 1 month.');
  });

  it('name what is worth a look with its size, its day and the chance of it', () => {
    expect(
      anomalyWords({
        kind: 'step',
        day: dayNumber('2024-03-02'),
        size: 0.154,
        probability: 0.0004,
        standards: ['PC-1', 'PC-2'],
      }),
    ).toBe(
      'A step of +0.15 % of span beyond its own drift, found 2 Mar 2024, when PC-2 took over from PC-1: the step may be that of the reference. By chance: 1 in 3,000.',
    );
    expect(
      differenceWords({
        of: 'person',
        name: 'A',
        others: ['B'],
        count: 9,
        mean: -0.31,
        probability: 1e-9,
        isEither: true,
      }),
    ).toMatch(
      /^Where A reads, errors come out 31 % of the limit lower than with B, seen in 9 changes.*cannot be told/,
    );
  });
});
