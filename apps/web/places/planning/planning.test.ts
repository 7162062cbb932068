/** What the pages of planning make of a plan: words, weeks, months, the board and its walks. */
import type { Clash } from '@barys/core/plan';
import type { Making, OnTheWay, Week } from '@barys/store/planning';
import { describe, expect, it } from 'vitest';
import { madeWords, spansOf, standing } from './made';
import { monthAsked, monthLater, weeksOf } from './month';
import { mondayOf, sundayOf, weekAsked, weekLater } from './query';
import { boardOf, walksOf } from './shape';
import { clashAtOther, clashInWords, clockAt, dueState, dueWords, hoursWord, type Names } from './words';

describe('words', () => {
  it('a moment of the day is a clock, and says where it is of the next day', () => {
    expect([
      clockAt('07:00', 0),
      clockAt('07:00', 95),
      clockAt('06:30', 1049),
      clockAt('06:30', 1050),
    ]).toEqual(['07:00', '08:35', '23:59', '00:00 of the next day']);
    expect([hoursWord(0), hoursWord(450), hoursWord(577)]).toEqual(['0 h', '7.5 h', '9.6 h']);
  });

  it('grace ends on its last day', () => {
    const states = ['2026-05-04', '2026-05-05', '2026-05-11', '2026-05-12'].map((day) =>
      dueState('2026-05-04', day, 7),
    );
    expect(states).toEqual(['in time', 'in grace', 'in grace', 'late']);
    expect(dueState('2026-05-04', '2026-05-05', 0)).toBe('late');
    expect(dueWords('2026-05-04', '2026-05-06', 7)).toBe('due 4 May 2026, in grace until 11 May 2026');
  });

  const names: Names = {
    days: ['2026-05-04', '2026-05-05'],
    clock: (minutes) => clockAt('07:00', minutes),
    tag: (id) => `T-${id}`,
    area: () => 'kiln',
    with: (id) => (id === '1' ? 'Technician A' : 'Technician B'),
    startOf: () => 30,
    person: () => 'Technician A',
    isAtWork: (_person, day) => day === 0,
    dayOf: (id) => (id === '1' ? 0 : 1),
    lastDay: (reference) => (reference === 'PC-9' ? -1 : 0),
  };
  it.each<[Clash, string]>([
    [
      { kind: 'in-use', job: '1', by: '2', reference: 'PC-1', until: 120 },
      'PC-1 is at T-2 with Technician B until 09:00.',
    ],
    [
      { kind: 'overtime', job: '1', person: 'x', minutes: 12 },
      'The day of Technician A ends 12 min too late with it.',
    ],
    [{ kind: 'overtime', job: '2', person: 'x', minutes: 90 }, 'Technician A is not at work on Tue 5 May.'],
    [
      { kind: 'not-then', job: '2', day: 1 },
      'It can be isolated only in a shutdown, and kiln has none on Tue 5 May.',
    ],
    [{ kind: 'out-of-date', job: '1', reference: 'PC-1' }, 'PC-1 is in date until Mon 4 May only.'],
    [{ kind: 'out-of-date', job: '1', reference: 'PC-9' }, 'PC-9 is away, held or out of date.'],
    [{ kind: 'split', job: '1', group: 'rack' }, 'It is isolated with others (rack), which stand elsewhere.'],
    [{ kind: 'unfit', job: '1', reference: 'PC-1' }, 'PC-1 does not serve here.'],
    [
      { kind: 'unknown', job: '1', what: 'person' },
      'It is given to somebody who does no jobs here any more.',
    ],
  ])('%o is said in words', (clash, words) => {
    expect(clashInWords(clash, names)).toBe(words);
  });

  it('where two want one reference, it is said at both', () => {
    expect(clashAtOther({ kind: 'in-use', job: '1', by: '2', reference: 'PC-1', until: 120 }, names)).toEqual(
      { job: '2', words: 'PC-1 is wanted at T-1 with Technician A from 07:30.' },
    );
    expect(clashAtOther({ kind: 'twice', job: '1' }, names)).toBeNull();
  });
});

describe('weeks and months', () => {
  it('a week is from Monday to Sunday; who looks at the weekend sees the week to come', () => {
    // 30 November 2026 is a Monday.
    const days = ['2026-11-29', '2026-11-30', '2026-12-04', '2026-12-05', '2026-12-06', '2026-12-07'];
    const [before, monday, next] = ['2026-11-23', '2026-11-30', '2026-12-07'];
    expect(days.map(mondayOf)).toEqual([before, monday, monday, monday, monday, next]);
    expect(days.map((day) => weekAsked(day, '2026-11-30'))).toEqual(days.map(mondayOf));
    expect(days.map((today) => weekAsked(undefined, today))).toEqual([
      monday,
      monday,
      monday,
      next,
      next,
      next,
    ]);
    expect([weekLater('2026-12-28', 1), weekLater('2026-03-30', -1)]).toEqual(['2027-01-04', '2026-03-23']);
    expect(sundayOf(monday)).toBe('2026-12-06');
  });

  it('an address that says nothing of use shows this week and month', () => {
    for (const asked of [undefined, '', '2026-13-01', '0001-01-01', '9999-12-31', ['2026-05-04'], 'x'])
      expect(weekAsked(asked, '2026-11-30')).toBe('2026-11-30');
    expect(weekAsked('2026-05-06', '2026-11-30')).toBe('2026-05-04');
    for (const asked of [undefined, '2026-13', '1999-12', 'x'])
      expect(monthAsked(asked, '2026-11-30')).toBe('2026-11');
    expect([monthAsked('2027-02', '2026-11-30'), monthLater('2026-12', 1)]).toEqual(['2027-02', '2027-01']);
  });

  it('a month is whole weeks: four at least, six at most', () => {
    const rows = (month: string) => weeksOf(month);
    expect([rows('2027-02').length, rows('2026-11').length, rows('2026-12').length]).toEqual([4, 6, 5]);
    expect(rows('2026-11')[0]?.[0]).toBe('2026-10-26');
    expect(rows('2026-11').at(-1)?.[6]).toBe('2026-12-06');
  });
});

type Instrument = Week['candidates'][number]['instrument'];
const instrument = (id: number, area: string): Instrument =>
  ({ id, tag: `T-${id}`, service: 's', area, dueOn: '2026-05-04', isolatedWith: '', hazards: [] }) as never;
const planned = (instrumentId: number, personId: number, day: string) => ({
  id: instrumentId,
  revision: 3,
  instrumentId,
  personId,
  day,
  minutes: 60,
  isFixed: false,
  references: ['PC-1'],
  doneByJob: null,
});

describe('the board', () => {
  const one = planned(1, 7, '2026-05-04');
  const two = planned(2, 8, '2026-05-04');
  const week: Week = {
    days: ['2026-05-04', '2026-05-05', '2026-05-06'],
    site: { walkMinutes: 5, permitMinutes: 15, dayBegins: '07:00', graceDays: 0 },
    workers: [{ id: 7, name: 'A', week: [], minutes: [450, 0, 450] }],
    shutdowns: [],
    left: 0,
    references: [{ tag: 'PC-1', dueOn: '2026-12-24' }] as never,
    candidates: [1, 2, 3, 4].map((id) => ({
      instrument: instrument(id, 'kiln'),
      openJob: null,
      planned: id === 1 ? one : id === 2 ? two : null,
    })),
    problem: {
      days: 3,
      jobs: [1, 2, 3, 4].map((id) => ({
        id: String(id),
        minutes: 60,
        area: 'kiln',
        walk: 1,
        group: null,
        days: [0, 1, 2],
        weight: 1,
        lateFrom: 1,
        needs: [['PC-1', 'PC-2']],
        fixedTo: null,
      })),
      people: [],
      references: [{ id: 'PC-1', lastDay: 9 }],
      walkMinutes: 5,
      permitMinutes: 15,
    },
    placed: [
      { job: '1', person: '7', day: 0, start: 20, references: ['PC-1'], planned: one },
      { job: '2', person: '8', day: 0, start: 20, references: ['PC-1'], planned: two },
    ],
    clashes: [{ kind: 'in-use', job: '1', by: '2', reference: 'PC-1', until: 80 }],
    notPlaced: [
      {
        candidate: { instrument: instrument(3, 'kiln'), openJob: null, planned: null },
        why: { code: 'due-later' },
      },
      {
        candidate: { instrument: instrument(4, 'kiln'), openJob: null, planned: null },
        why: { code: 'no-room' },
      },
    ],
    done: [{ ...planned(5, 7, '2026-05-06'), doneByJob: 2100 }],
  };
  const board = boardOf(week, new Map([[5, instrument(5, 'kiln')]]), '2026-05-05');

  it('leaves out days on which nobody works, and keeps who has left and has something', () => {
    expect(board.days).toEqual([
      { day: '2026-05-04', isPast: true, isToday: false },
      { day: '2026-05-06', isPast: false, isToday: false },
    ]);
    expect(board.people.map(({ name, minutes, used }) => [name, minutes, used])).toEqual([
      ['A', [450, 450], [85, 0]],
      ['No longer here', [0, 0], [85, 0]],
    ]);
  });

  it('has a card for each, with what it breaks at both, and what was done', () => {
    expect(
      board.cards.map(({ tag, clock, clashes, isDone, jobId }) => [
        tag,
        clock,
        clashes.length,
        isDone,
        jobId,
      ]),
    ).toEqual([
      ['T-1', '07:20', 1, false, null],
      ['T-2', '07:20', 1, false, null],
      ['T-5', null, 0, true, 2100],
    ]);
    expect(board.bars).toEqual([
      {
        reference: 'PC-1',
        until: '2026-12-24',
        uses: ['T-1', 'T-2'].map((tag) => ({ tag, day: '2026-05-04', from: 20, to: 80, isClash: true })),
      },
    ]);
  });

  it('names first what wants a place, and before it what was asked for', () => {
    expect(board.notPlaced.map(({ tag, whyNot, references }) => [tag, whyNot, references])).toEqual([
      ['T-4', 'has no place yet', ['PC-1']],
      ['T-3', 'is due later', ['PC-1']],
    ]);
    expect(boardOf(week, new Map(), '2026-05-05', 3).notPlaced[0]?.tag).toBe('T-3');
    const many = {
      ...week,
      notPlaced: Array.from({ length: 61 }, () => week.notPlaced)
        .flat()
        .slice(0, 61),
    };
    expect([
      boardOf(many, new Map(), '2026-05-05').notPlaced.length,
      boardOf(many, new Map(), '2026-05-05').unnamed,
    ]).toEqual([60, 1]);
  });
});

it('a walk stops where the area changes, and takes each reference once', () => {
  const on = (id: number, area: string, personId = 7): OnTheWay => ({
    ...planned(id, personId, '2026-05-04'),
    start: id * 100,
    instrument: instrument(id, area),
  });
  const walks = walksOf([on(1, 'kiln'), on(2, 'kiln'), on(3, 'boiler'), on(4, 'kiln', 8)], 6);
  expect(
    walks.map(({ personId, stops, references, walkMinutes }) => [
      personId,
      stops.map(({ area, jobs }) => `${area} ${jobs.length}`),
      references,
      walkMinutes,
    ]),
  ).toEqual([
    [7, ['kiln 2', 'boiler 1'], ['PC-1'], 18],
    [8, ['kiln 1'], ['PC-1'], 12],
  ]);
});

describe('what is said of a plan', () => {
  const board = (clashing: number) =>
    ({
      days: ['2026-11-30', '2026-12-01', '2026-12-02'].map((day) => ({ day })),
      cards: Array.from({ length: 3 }, (_, index) => ({ clashes: index < clashing ? ['so'] : [] })),
    }) as never;

  it('days that are past are not planned; a week that is over not at all', () => {
    const of = (today: string) => spansOf({ board: board(0), from: '2026-11-30', today });
    expect(of('2026-11-28')).toEqual([
      { words: 'the whole week', firstDay: '2026-11-30', days: 7 },
      { words: 'Mon 30 Nov', firstDay: '2026-11-30', days: 1 },
      { words: 'Tue 1 Dec', firstDay: '2026-12-01', days: 1 },
      { words: 'Wed 2 Dec', firstDay: '2026-12-02', days: 1 },
    ]);
    expect(of('2026-12-02')).toEqual([
      { words: 'rest of the week', firstDay: '2026-12-02', days: 5 },
      { words: 'Wed 2 Dec', firstDay: '2026-12-02', days: 1 },
    ]);
    expect(of('2026-12-03')).toEqual([]);
  });

  it('says how many that are due have a place, and how many clash', () => {
    expect(standing({ board: board(0), due: 8, duePlaced: 6 })).toBe(
      '6 of the 8 due by Sunday are placed · checked: nothing clashes',
    );
    expect(standing({ board: board(2), due: 0, duePlaced: 0 })).toMatch(/checked: 2 clash, as marked$/);
  });

  const made = (more: Partial<Making>): string =>
    madeWords({
      id: 1,
      firstDay: '2026-11-30',
      days: 7,
      part: 1,
      askedBy: 'Planner',
      askedAt: new Date(2026, 10, 30, 6, 47),
      endedAt: new Date(2026, 10, 30, 6, 48),
      state: 'done',
      placed: 8,
      worth: 20,
      bound: 20.1,
      asItComes: 16,
      ...more,
    });

  it.each<[Partial<Making>, RegExp]>([
    [
      {},
      /: 8 placed\. The plan was worth 25 % more than one taken as it comes; none can be worth over 0\.5 % more\.$/,
    ],
    [{ asItComes: 20 }, /worth as much as one taken as it comes; none can be worth over 0\.5 % more\.$/],
    [{ asItComes: 20.001 }, /worth as much as one taken as it comes/],
    [{ bound: 20 }, /none can be worth over 0 % more\.$/],
    [{ bound: 19.999999 }, /none can be worth over 0 % more\.$/],
    [
      { placed: 0, worth: 0, bound: 0, asItComes: 0 },
      /: 0 placed\. The plan was worth as much as one taken as it comes\.$/,
    ],
    [{ state: 'cancelled', worth: null }, /^The last plan was stopped .*; this one stayed as it was\.$/],
    [{ state: 'cut off', worth: null }, /^The last plan was not finished .* Ask again\.$/],
    [{ state: 'failed', worth: null }, /^The last plan was not finished .* Ask again\.$/],
    [{ state: 'runs', worth: null }, /^$/],
  ])('a plan with %o is told', (more, words) => {
    expect(made(more)).toMatch(words);
    expect(made(more)).not.toMatch(/NaN|Infinity|-0/);
  });
});
