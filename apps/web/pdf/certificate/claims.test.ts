import { expect, it } from 'vitest';
import { ruleInWords, whyNotTraceable } from './claims';

const GOOD = {
  tag: 'PC-1',
  name: '',
  description: 'calibrator',
  serial: '1',
  unit: 'bar',
  rangeLow: 0,
  rangeHigh: 20,
  resolution: 0.001,
  certificate: 'K-1',
  calibratedOn: '2026-01-01',
  dueOn: '2027-01-01',
  percentOfReading: 0,
  percentOfRange: 0.02,
  floor: 0,
  driftPercentOfReadingPerYear: 0,
  percentOfReadingPerK: 0,
  uncertaintyPercentOfRange: 0.01,
  results: [],
};

it('traceability is claimed where every standard was in date and its certificate states its uncertainty', () => {
  expect(whyNotTraceable([GOOD, { ...GOOD, tag: 'DM-1' }], '2027-01-01')).toBeNull();
});

it.each([
  [{ certificate: '', dueOn: null }, 'PC-1 has no certificate'],
  [{ dueOn: '2026-05-03' }, 'the certificate of PC-1 had run out'],
  [{ uncertaintyPercentOfRange: null }, 'the certificate of PC-1 states no uncertainty'],
])('it is not claimed with %j', (change, words) => {
  expect(whyNotTraceable([{ ...GOOD, ...change }], '2026-05-04')).toBe(words);
});

it('each decision rule has its sentence', () => {
  expect(ruleInWords({ kind: 'simple' })).toContain('on the limit is inside');
  const guard = { kind: 'guard-band', r: 0.83, isUndecidedAllowed: true } as const;
  expect(ruleInWords(guard)).toContain('0.83 times the expanded uncertainty');
  expect(ruleInWords(guard)).toContain('undecided');
  expect(ruleInWords({ ...guard, isUndecidedAllowed: false })).not.toContain('undecided');
  expect(ruleInWords({ kind: 'method-6' })).toContain('2 %');
});
