import type { Body } from '@barys/store/registers';
import { TORQUE_UNITS } from '@barys/store/shapes';
import { describe, expect, it } from 'vitest';
import { accuracyWords, breachWords, computeChange, type RangeChange } from './compute';
import { RANGE_CHANGE_FIELDS, type RangeChangeFields } from './fields';

const BODY: Body = {
  id: 1,
  revision: 1,
  model: 'Cell 400',
  kind: 'gauge',
  technology: 'smart',
  unit: 'kPa',
  lowerRangeLimit: -10,
  upperRangeLimit: 40,
  leastSpan: 4,
  greatestSpan: 40,
  greatestElevationPercent: null,
  greatestSuppressionPercent: null,
  stampedTurndown: null,
  outputs: ['mA-4-20'],
  trims: [],
  spanClasses: [],
  accuracy: '0.05 + 0.005 * URL / span',
  swapChecklist: [],
};
const LINKED: Body = {
  ...BODY,
  id: 2,
  model: 'Force balance',
  technology: 'pneumatic',
  accuracy: '',
  spanClasses: [
    { name: 'low', leastSpan: 4, greatestSpan: 12 },
    { name: 'high', leastSpan: 10, greatestSpan: 40 },
  ],
};
const SMALL: Body = {
  ...BODY,
  id: 3,
  model: 'Cell 100',
  upperRangeLimit: 10,
  greatestSpan: 10,
  leastSpan: 1,
};
const BODIES = [BODY, LINKED, SMALL];

const change = (patch: Partial<RangeChangeFields>) =>
  computeChange({ ...RANGE_CHANGE_FIELDS, body: '1', ...patch }, BODIES);
const good = (patch: Partial<RangeChangeFields>): RangeChange => {
  const got = change(patch);
  if ('message' in got) throw new Error(got.message);
  return got;
};

describe('a change of range', () => {
  it('is judged in the unit of the body, and worked in that of the ranges', () => {
    const fits = good({ newHigh: '40' });
    expect(fits.where).toBe('field');
    expect(fits.judged?.after.span).toBe(4);
    expect(accuracyWords(fits.accuracy.after)).toBe('±0.1 % of span');
    const small = good({ newHigh: '39' });
    expect(small.where).toBe('nowhere');
    expect(small.judged?.after.breaches.map((one) => breachWords(one, BODY, 'mbar'))).toEqual([
      'The range has a span of 39 mbar, less than the least span of 40 mbar.',
    ]);
    const [above] = good({ newHigh: '401' }).judged?.after.breaches ?? [];
    expect(above && breachWords(above, BODY, 'mbar')).toBe(
      'The range reaches 401 mbar, above the upper range limit of 400 mbar.',
    );
  });

  it('needs the shop where the linkage is set for another class, and no body at all has some spans', () => {
    const linked = (newHigh: string) => good({ body: '2', oldHigh: '50', newHigh }).where;
    expect([linked('110'), linked('300'), linked('30')]).toEqual(['field', 'shop', 'nowhere']);
    expect(good({ newLow: '-900', newHigh: '900' }).candidates).toEqual([]);
  });

  it('ranks the bodies of the same kind that would do', () => {
    expect(good({ newHigh: '80' }).candidates.map(({ body }) => body.model)).toEqual([
      'Cell 100',
      'Cell 400',
    ]);
    expect(good({ body: '2', newHigh: '300' }).candidates.map(({ body }) => body.model)).toEqual([
      'Force balance',
    ]);
    expect(good({ body: '', newHigh: '200' }).candidates).toHaveLength(2);
  });

  it.each<[Partial<RangeChangeFields>, string]>([
    [{ newHigh: '' }, 'newHigh'],
    [{ oldLow: 'x' }, 'oldLow'],
    [{ newHigh: '0' }, 'newHigh'],
    [{ oldHigh: '0' }, 'oldHigh'],
  ])('%o is told at %s', (patch, field) => {
    expect(change(patch)).toMatchObject({ field });
  });

  it('says torques as the plant has them', () => {
    expect(34 * TORQUE_UNITS['lbf·ft']).toBeCloseTo(25.077, 3);
    expect(34 * TORQUE_UNITS['lbf·in']).toBeCloseTo(300.93, 2);
  });
});
