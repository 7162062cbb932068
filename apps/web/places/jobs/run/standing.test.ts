import { expect, it } from 'vitest';
import type { WaitingReading } from './keep';
import { entriesOf, heard, marksOf, problemOf, standingOf, type Standing } from './standing';
import type { ShownRun } from './types';

const RUN = {
  id: 5,
  kind: 'as-found',
  madeWith: { points: [{ position: 2, cycle: 1, direction: 'up', nominalPercent: 50, nominalApplied: 3 }] },
  readings: [
    {
      id: 11,
      position: 1,
      appliedText: '0.000',
      applied: 0,
      outputText: '4.001',
      output: 4.001,
      more: {},
      savedClock: '13:59:00',
    },
  ],
  marks: [],
} as unknown as ShownRun;

const WAITING: WaitingReading = {
  kind: 'reading',
  position: 2,
  clientKey: 'k',
  appliedText: '3.000',
  appliedAs: 'set',
  outputText: '12,019',
  more: {},
  takenAt: '2026-05-04T08:00:00.000Z',
};

const begun: Standing = standingOf(RUN);

it('begins with what the server has; what is on its way is shown and not called saved', () => {
  expect(begun.savedClock).toBe('13:59:00');
  const entries = entriesOf(begun, [WAITING]);
  expect(entries.get(1)).toMatchObject({ output: 4.001, isSaved: true });
  expect(entries.get(2)).toMatchObject({ output: 12.019, isSaved: false });
  expect(marksOf(begun, [{ ...WAITING, kind: 'mark', mark: 'note', remark: 'wet' }])).toHaveLength(1);
});

it('says at which point the server refused a reading, until one is kept there', () => {
  const refused = heard(begun, { kind: 'refused', sent: WAITING, why: 'somebody else has entered it.' });
  expect(problemOf(RUN, refused)).toBe('Not kept at 50 % rising: somebody else has entered it.');
  const saved = heard(refused, { kind: 'saved', sent: WAITING, id: 12, savedClock: '14:00:00' });
  expect(problemOf(RUN, saved)).toBeNull();
  expect(saved.savedClock).toBe('14:00:00');
  expect(entriesOf(saved, []).get(2)).toMatchObject({ isSaved: true, id: 12 });
});

it('says why readings wait, and stops saying it once the server has answered', () => {
  const away = heard(begun, { kind: 'later', why: 'The server does not answer.' });
  expect(problemOf(RUN, away)).toBe('The server does not answer.');
  const back = heard(away, { kind: 'saved', sent: WAITING, id: 12, savedClock: '14:00:00' });
  expect(problemOf(RUN, back)).toBeNull();
});

it('takes in what a link keeps meanwhile, and lets nothing older stand over what is newer', () => {
  const [first] = RUN.readings;
  if (first === undefined) throw new Error('no reading');
  const other = { ...first, id: 14, position: 2, outputText: '12.001', savedClock: '14:02:00' };
  const heardOf = heard(begun, { kind: 'others', readings: [other] });
  expect(entriesOf(heardOf, []).get(2)).toMatchObject({ outputText: '12.001', isSaved: true });
  expect(heardOf.savedClock).toBe('14:02:00');
  // Corrected here since: the same answer of the server, heard once more, changes nothing.
  const corrected = heard(heardOf, { kind: 'saved', sent: WAITING, id: 15, savedClock: '14:03:00' });
  expect(heard(corrected, { kind: 'others', readings: [other] })).toBe(corrected);
});
