import { describe, expect, it } from 'vitest';
import { guardsOf, sequenceOf, type Circumstances, type GuardedAct } from './index';

const sound: Circumstances = {
  kind: 'gauge',
  body: { technology: 'smart', trims: ['zero trim', 'sensor trim', 'output trim'] },
  unit: 'bar',
  applied: 0,
  offset: 0.01,
  adjustLimit: 0.02,
  lowerRangeLimit: -1,
  upperRangeLimit: 16,
  barometer: 1.013,
  isLeaking: false,
  isMoving: false,
  isLoopFollowed: false,
  isRangeWrong: false,
  errorPercentSpan: 0.3,
  isFaultBeforeOutput: false,
  isSensorError: false,
};
const said = (act: GuardedAct, more: Partial<Circumstances> = {}) =>
  guardsOf(act, { ...sound, ...more }).map(({ code, level }) => `${level} ${code}`);

describe('what speaks against an adjustment', () => {
  it('is nothing in good order', () => {
    for (const act of ['zero', 'span', 'sensor trim', 'output trim', 're-range'] as const)
      expect(said(act)).toEqual([]);
  });

  it.each<[string, GuardedAct, Partial<Circumstances>, string[]]>([
    ['a zero trim away from true zero', 'zero', { applied: 0.03 }, ['refused not-true-zero']],
    ['and below it', 'zero', { applied: -0.03 }, ['refused not-true-zero']],
    ['but not within the adjust limit, nor on it', 'zero', { applied: 0.02 }, []],
    [
      'nor where a zero screw is set at the low end',
      'zero',
      { applied: 3, body: { technology: 'analog', trims: ['zero screw'] } },
      [],
    ],
    ['a large zero', 'zero', { offset: -0.481 }, ['warned large-zero']],
    ['but not at three per cent of the upper range limit', 'zero', { offset: 0.48 }, []],
    [
      'the zero of an absolute body at atmosphere',
      'zero',
      { kind: 'absolute', applied: 1.0 },
      ['refused at-atmosphere'],
    ],
    ['but not pumped down', 'zero', { kind: 'absolute', applied: 0.001 }, []],
    [
      'the span of a vacuum gauge at atmosphere',
      'span',
      { kind: 'vacuum', applied: 1.0 },
      ['refused at-atmosphere'],
    ],
    ['a trim while it moves', 'sensor trim', { isMoving: true }, ['refused moving']],
    [
      'a trim while it leaks, under pressure',
      'sensor trim',
      { isLeaking: true, applied: 6 },
      ['refused leaking'],
    ],
    ['but not vented, where nothing can leak', 'zero', { isLeaking: true }, []],
    ['nor of the output, which needs no pressure', 'output trim', { isLeaking: true, applied: 6 }, []],
    [
      'a trim on a line that nobody checked',
      'span',
      { isLeaking: null, applied: 6 },
      ['warned leak-unknown'],
    ],
    ['but not vented', 'zero', { isLeaking: null }, []],
    ['a trim above the body’s limit', 'sensor trim', { applied: 16.1 }, ['refused over-ranged']],
    ['and below it', 'span', { applied: -1.01 }, ['refused over-ranged']],
    ['but not on it', 'span', { applied: 16 }, []],
    [
      'an output trim that a controller would follow',
      'output trim',
      { isLoopFollowed: true },
      ['refused loop-followed'],
    ],
    [
      'and one that hides the sensor’s fault',
      'output trim',
      { isFaultBeforeOutput: true },
      ['warned wrong-stage'],
    ],
    ['a trim that hides a wrong range', 'sensor trim', { isRangeWrong: true }, ['refused trim-for-range']],
    [
      'one that is further than drift goes',
      'span',
      { errorPercentSpan: -2.1 },
      ['warned further-than-drift'],
    ],
    [
      'another range where a trim was meant',
      're-range',
      { isSensorError: true },
      ['warned re-range-cures-nothing'],
    ],
    ['but not where the range is wrong', 're-range', { isSensorError: true, isRangeWrong: true }, []],
  ])('%s', (_what, act, more, wanted) => expect(said(act, more)).toEqual(wanted));

  it('is said with the refusals first, in words with the figures', () => {
    const [first, second] = guardsOf('zero', { ...sound, applied: 0.5, offset: 0.6 });
    expect(first?.why).toContain('0.5 bar would become an error of its own');
    expect(second?.level).toBe('warned');
    expect(second?.why).toContain('0.6 bar is more than 3 % of the upper range limit');
  });
});

describe('the order of a gauge', () => {
  it('is zero, full scale, mid-scale and near vacuum for a compound one, each after a wait', () => {
    const body = {
      technology: 'digital gauge',
      trims: ['zero trim', 'full scale', 'mid-scale', 'near vacuum'],
    } as const;
    const steps = sequenceOf('compound', body);
    expect(steps?.map(({ what }) => what)).toEqual(['Zero', 'Full scale', 'Mid-scale', 'Near vacuum']);
    expect(steps?.every(({ how }) => how.includes('Wait 30 s'))).toBe(true);
    expect(sequenceOf('gauge', body)?.map(({ what }) => what)).toEqual(['Zero', 'Full scale', 'Mid-scale']);
  });
  it('goes in passes for a vacuum gauge, and never sets its span at atmosphere', () => {
    const steps = sequenceOf('vacuum', { technology: 'analog', trims: [] });
    expect(steps?.map(({ what }) => what)).toEqual([
      'Set-up value',
      'Zero',
      'Span',
      'Readings up',
      'Readings down',
      'Correct again',
    ]);
    expect(steps?.[2]?.how).toContain('Never at atmosphere');
  });
  it('is none of its own for a transmitter', () => {
    expect(sequenceOf('gauge', sound.body)).toBeNull();
  });
});
