import { expect, it } from 'vitest';
import { climbOf, type Known } from './climbOf';

const at = (position: number, cycle: number) => ({
  position,
  cycle,
  nominalPercent: 50,
  nominalApplied: 3,
  direction: 'up' as const,
  standard: 'first' as const,
});
const POINTS = [at(1, 1), at(2, 1), at(3, 2)];
const mark = (position: number, kind: 'overshot' | 'note' | 'no reading', remark = '') => ({
  position,
  kind,
  appliedText: '',
  outputText: '',
  remark,
});
const NOTHING: Known = { entries: new Map(), marks: [], drafts: {}, judgedAt: () => undefined, earlier: [] };

it('a climb has the treads of one cycle', () => {
  expect(climbOf(POINTS, 1, NOTHING).map(({ point }) => point.position)).toEqual([1, 2]);
  expect(climbOf(POINTS, 2, NOTHING).map(({ point }) => point.position)).toEqual([3]);
});

it('a tread has what is known at its own point', () => {
  const read = { appliedText: '3', applied: 3, outputText: '12.0', output: 12, more: {} };
  const entry = { position: 1, ...read, isSaved: true };
  const [first, second] = climbOf(POINTS, 1, {
    entries: new Map([[1, entry]]),
    marks: [
      mark(1, 'overshot'),
      mark(1, 'overshot'),
      mark(1, 'note', 'pump hunts'),
      mark(2, 'no reading', 'stuck'),
    ],
    drafts: { 2: { output: '12' } },
    judgedAt: () => undefined,
    earlier: [{ id: 9, position: 2, ...read, outputText: '12.1', savedClock: '' }],
  });
  expect(first).toMatchObject({ entry, overshotCount: 2, words: ['note: pump hunts'], hasDraft: false });
  expect(first?.earlierText).toBeUndefined();
  expect(second).toMatchObject({
    entry: undefined,
    overshotCount: 0,
    words: ['no reading: stuck'],
    hasDraft: true,
    earlierText: '12.1',
  });
});
