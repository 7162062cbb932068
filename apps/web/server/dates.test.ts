import { expect, it } from 'vitest';
import { dueInWords, localDate, setZone, showClock, showDate, showMoment } from './dates';

it.each([
  ['2026-11-19', '4 days overdue'],
  ['2026-11-22', '1 day overdue'],
  ['2026-11-23', 'today'],
  ['2026-11-24', 'in 1 day'],
  ['2027-11-23', 'in 365 days'],
])('due on %s is said as "%s" on 23 November 2026', (dueOn, words) => {
  expect(dueInWords(dueOn, '2026-11-23')).toBe(words);
});

it('due dates count days of the calendar, also over the change of the clocks', () => {
  expect(dueInWords('2026-03-30', '2026-03-28')).toBe('in 2 days');
  expect(dueInWords('2026-10-26', '2026-10-24')).toBe('in 2 days');
});

it('dates and times are those of the site, whatever the zone of the machine', () => {
  // 23:30 of 3 November in UTC: already the 4th in Auckland (+13), still the 3rd in Lima (-5); IANA tz database.
  const at = new Date('2026-11-03T23:30:07Z');
  setZone('Pacific/Auckland');
  expect([localDate(at), showDate(at), showMoment(at), showClock(at)]).toEqual([
    '2026-11-04',
    '4 Nov 2026',
    '4 Nov 2026, 12:30',
    '12:30:07',
  ]);
  expect(showDate('2026-11-03')).toBe('3 Nov 2026');
  setZone('America/Lima');
  expect([localDate(at), showMoment(at)]).toEqual(['2026-11-03', '3 Nov 2026, 18:30']);
});

it('clocks that are set change the hour, wherever and whenever that is', () => {
  // IANA tz database: Europe/Berlin on 25 October 2026 at 01:00 UTC, Australia/Lord_Howe by half an hour on 3 October at 15:30 UTC.
  setZone('Europe/Berlin');
  const clock = (at: string) => showClock(new Date(at));
  expect(['2026-10-25T00:59:59Z', '2026-10-25T01:00:00Z', '2026-10-25T00:59:59Z'].map(clock)).toEqual([
    '02:59:59',
    '02:00:00',
    '02:59:59',
  ]);
  setZone('Australia/Lord_Howe');
  expect(['2026-10-03T15:29:59Z', '2026-10-03T15:30:00Z'].map(clock)).toEqual(['01:59:59', '02:30:00']);
  setZone('UTC');
  expect(clock('2026-10-25T00:59:59Z')).toBe('00:59:59');
});

it('dates and times are shown where the server stands until the site has a zone', () => {
  delete (globalThis as { barysZone?: string }).barysZone;
  const at = new Date(2026, 10, 3, 9, 5, 7);
  expect(localDate(at)).toBe('2026-11-03');
  expect(showDate(at)).toBe('3 Nov 2026');
  expect(showDate('2026-11-03')).toBe('3 Nov 2026');
  expect(showMoment(at)).toBe('3 Nov 2026, 09:05');
  expect(showClock(at)).toBe('09:05:07');
});
