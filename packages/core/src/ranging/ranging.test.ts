import { describe, expect, it } from 'vitest';
import { expectAll, givenNumber, loadCases, type Case } from '../../test/fixtures';
import { expectedOutput } from '../signal';
import { judgeRange, leastSpanOfStamp, rankBodies, spanOverlap, workRange, type BodyReach } from './index';

const BODY: BodyReach = {
  lowerRangeLimit: -100,
  upperRangeLimit: 1000,
  leastSpan: 10,
  greatestSpan: null,
  spanClasses: [],
};
const limitsOf = (body: BodyReach, lrv: number, urv: number) =>
  judgeRange(body, lrv, urv).breaches.map(({ limit }) => limit);

describe('a range change, against figures computed outside Barys', () => {
  it.each(
    loadCases<Case>('ranges-and-signals.json', /^range change$/).map((one): [string, Case] => [one.id, one]),
  )('%s', (_id, { given, expect: wanted }) => {
    const of = (name: string) => givenNumber(given, name);
    const [old, next] = [
      [of('old lower range value'), of('old upper range value')] as const,
      [of('new lower range value'), of('new upper range value')] as const,
    ];
    const limit = of('upper range limit of the transmitter');
    const body = { ...BODY, upperRangeLimit: limit, greatestSpan: limit };
    const signal = ([lrv, urv]: readonly [number, number]) => ({ lrv, urv, outputLow: 4, outputHigh: 20 });
    const before = expectedOutput(signal(old), of('applied pressure'));
    expectAll(wanted, {
      'output before': before,
      'output after': expectedOutput(signal(next), of('applied pressure')),
      'new span': judgeRange(body, ...next).span,
      'turndown before (URL / span)': judgeRange(body, ...old).turndown,
      'turndown after (URL / span)': judgeRange(body, ...next).turndown,
      'new percent of span for an old output of 5.200 mA':
        ((of('applied pressure') - next[0]) / (next[1] - next[0])) * 100,
    });
  });
});

describe('what holds a range up', () => {
  it('nothing, up to the limits and on them', () => {
    expect(limitsOf(BODY, -100, 1000)).toEqual([]);
    expect(limitsOf(BODY, 0, 10)).toEqual([]);
    expect(limitsOf(BODY, 500, 100)).toEqual([]);
    expect(judgeRange(BODY, 100, 0)).toMatchObject({ span: 100, turndown: 11, zeroShiftOfSpan: 1 });
  });

  it.each<[string, number, number, string[]]>([
    ['a hair below the lower limit', -100.001, 0, ['lower range limit']],
    ['above the upper limit, reversed', 1000.1, 900, ['upper range limit']],
    ['too small a span', 0, 9.999, ['least span']],
    ['both limits', -101, 1001, ['lower range limit', 'upper range limit', 'greatest span']],
  ])('%s', (_name, lrv, urv, wanted) => {
    expect(limitsOf(BODY, lrv, urv)).toEqual(wanted);
  });

  it('a greatest span of its own, narrower than the limits', () => {
    const body = { ...BODY, lowerRangeLimit: -500, upperRangeLimit: 500, greatestSpan: 500 };
    expect(limitsOf(body, -250, 250)).toEqual([]);
    expect(judgeRange(body, -300, 300).breaches).toEqual([
      { limit: 'greatest span', allowed: 500, wanted: 600 },
    ]);
  });

  it('no rounding of a conversion', () => {
    const body = { ...BODY, lowerRangeLimit: 0, upperRangeLimit: 0.3, leastSpan: 0.1 };
    expect(limitsOf(body, 0.1, 0.1 + 0.2)).toEqual([]);
    expect(limitsOf(body, 0.2, 0.3)).toEqual([]);
  });

  it('a zero that is moved too far, up or down, and not on the limit', () => {
    const body = { ...BODY, greatestElevationPercent: 500, greatestSuppressionPercent: 400 };
    expect(limitsOf(body, -50, -40)).toEqual([]);
    expect(limitsOf(body, 40, 50)).toEqual([]);
    expect(judgeRange(body, -51, -41).breaches).toEqual([
      { limit: 'zero elevation', allowed: 500, wanted: expect.closeTo(510, 9) as number },
    ]);
    expect(judgeRange(body, 51, 41).breaches).toEqual([
      { limit: 'zero suppression', allowed: 400, wanted: expect.closeTo(410, 9) as number },
    ]);
    expect(limitsOf({ ...body, greatestElevationPercent: 0 }, -1, 99)).toEqual(['zero elevation']);
    expect(limitsOf(BODY, -90, -80)).toEqual([]);
  });

  it('no class of the linkage', () => {
    const spanClasses = [
      { name: 'low', leastSpan: 10, greatestSpan: 50 },
      { name: 'high', leastSpan: 40, greatestSpan: 200 },
    ];
    const body = { ...BODY, spanClasses };
    const names = (urv: number) => judgeRange(body, 0, urv).classes.map(({ name }) => name);
    expect([names(20), names(45), names(50), names(100), names(300)]).toEqual([
      ['low'],
      ['low', 'high'],
      ['low', 'high'],
      ['high'],
      [],
    ]);
    expect(
      rankBodies(
        [body],
        () => [0, 300],
        () => null,
      ),
    ).toEqual([]);
  });

  it('figures that make no range', () => {
    expect(() => judgeRange(BODY, 5, 5)).toThrow('no span');
    expect(() => judgeRange(BODY, NaN, 5)).toThrow('finite');
  });
});

describe('common practice', () => {
  it('a 4:1 body stamped 200 has a least span of 50', () => {
    expect(leastSpanOfStamp(200, 4)).toBe(50);
    expect(() => leastSpanOfStamp(200, 0.5)).toThrow('at least 1');
    expect(() => leastSpanOfStamp(0, 4)).toThrow('greater than zero');
  });

  it('capsules of 20 to 205 and 200 to 850 overlap at 200 to 205', () => {
    const [small, large] = [
      { leastSpan: 20, greatestSpan: 205 },
      { leastSpan: 200, greatestSpan: 850 },
    ];
    expect(spanOverlap(small, large)).toEqual([200, 205]);
    expect(spanOverlap(large, small)).toEqual([200, 205]);
    expect(spanOverlap(small, { leastSpan: 205.1, greatestSpan: 850 })).toBeNull();
    expect(spanOverlap(small, { leastSpan: 205, greatestSpan: 850 })).toEqual([205, 205]);
  });

  it('0 to 150 into 10 to 50 mA gives 20 at 37.5 and 30 at 75', () => {
    const range = { lrv: 0, urv: 150, outputLow: 10, outputHigh: 50 };
    expect([37.5, 75].map((applied) => expectedOutput(range, applied))).toEqual([20, 30]);
  });
});

it('shows the working of a range, with the accuracy where the body has a formula', () => {
  const range = { lrv: -25, urv: 75, unit: 'mbar' };
  const { value, working } = workRange(BODY, { ...range, accuracy: '0.05 + 0.005 * URL / span' });
  expect(working.map((step) => step.value)).toEqual([100, 11, -25, 0.1]);
  expect(value).toBe(0.1);
  expect(workRange(BODY, { ...range, accuracy: '' }).value).toBe(11);
});

it('ranks bodies by their accuracy at the span, and those without a formula by turndown', () => {
  const bodies = [
    { ...BODY, name: 'wide', upperRangeLimit: 4000, accuracy: 0.2 },
    { ...BODY, name: 'unknown and wide', upperRangeLimit: 9000, accuracy: null },
    { ...BODY, name: 'unknown and near', upperRangeLimit: 200, accuracy: null },
    { ...BODY, name: 'near', upperRangeLimit: 250, accuracy: 0.05 },
    { ...BODY, name: 'too small', upperRangeLimit: 50, accuracy: 0.01 },
  ];
  const ranked = rankBodies(
    bodies,
    () => [0, 100],
    ({ accuracy }) => accuracy,
  );
  expect(ranked.map(({ body }) => body.name)).toEqual([
    'near',
    'wide',
    'unknown and near',
    'unknown and wide',
  ]);
});
