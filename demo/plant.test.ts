import { afterAll, beforeAll, expect, it } from 'vitest';
import { closedJobs, jobsToReview, loadJob, openJobs } from '@barys/store/jobs';
import { instrumentsDueNext } from '@barys/store/registers';
import { soundness, throwaway, type Throwaway } from '@barys/store/testing';
import dayjs from 'dayjs';
import { loadWeek } from '@barys/store/planning';
import { plantDemo } from './plant';
import { spansOf } from './planning';

const NOW = new Date('2026-05-04T12:00:00Z');
let base: Throwaway;

beforeAll(async () => {
  base = await throwaway();
  await plantDemo(base.ownerUrl, NOW);
});
afterAll(() => base.drop());

it('the demo is planted once', async () => {
  expect(await plantDemo(base.ownerUrl, NOW)).toBe(false);
});

it('the demo has instruments due, jobs in hand at several stages, and two years of signed jobs', async () => {
  const instruments = await instrumentsDueNext(base.app, 100);
  expect(instruments.length).toBeGreaterThanOrEqual(50);
  expect(instruments.filter(({ dueOn }) => dueOn <= '2026-05-10').length).toBeGreaterThanOrEqual(4);
  const open = await openJobs(base.app, 100);
  expect(open.map(({ stage }) => stage).sort()).toEqual([
    'adjust',
    'as-found',
    'authorise',
    'authorise',
    'brief',
    'connect',
    'isolate',
    'judge',
    'return',
    'sign',
  ]);
  expect((await jobsToReview(base.app, 10)).map(({ tag }) => tag)).toEqual(['PT-5108']);
  const closed = await closedJobs(base.app, 200);
  expect(closed.length).toBeGreaterThan(20);
  const [checked, ...others] = [
    closed.filter(({ reason }) => reason === 'hot check'),
    ...closed.filter(({ reason }) => reason !== 'hot check'),
  ];
  // A hot check has no run, and so no verdict.
  expect(checked.map(({ asFoundVerdict }) => asFoundVerdict)).toEqual([null]);
  const verdicts = new Set(others.map(({ asFoundVerdict }) => asFoundVerdict));
  expect(verdicts).toEqual(new Set(['within', 'within-adjust', 'outside']));
  expect(others.every(({ asLeftVerdict }) => asLeftVerdict === 'within')).toBe(true);
});

it('no demo job lies in the future, and each signed run is whole', async () => {
  for (const { id } of await closedJobs(base.app, 200)) {
    const job = await loadJob(base.app, id);
    expect(job.signedAt?.valueOf()).toBeLessThan(NOW.valueOf());
    for (const run of job.runs) expect(run.readings).toHaveLength(run.madeWith.points.length);
  }
  for (const { id } of await openJobs(base.app, 100))
    for (const { readings } of (await loadJob(base.app, id)).runs)
      for (const { readAt } of readings) expect(readAt.valueOf()).toBeLessThan(NOW.valueOf());
});

it('every run was made under a certificate that was in force on its day', async () => {
  const jobs = [...(await closedJobs(base.app, 200)), ...(await openJobs(base.app, 100))];
  const runs = (await Promise.all(jobs.map(({ id }) => loadJob(base.app, id)))).flatMap(
    ({ runs: all }) => all,
  );
  expect(runs.length).toBeGreaterThan(30);
  for (const { madeWith } of runs)
    for (const standard of [madeWith.pressureReference, madeWith.meter])
      if (standard !== null) {
        expect(standard.calibratedOn).not.toBeNull();
        expect((standard.calibratedOn ?? '') <= madeWith.takenOn, `${standard.tag} ${madeWith.takenOn}`).toBe(
          true,
        );
        expect((standard.dueOn ?? '') >= madeWith.takenOn, `${standard.tag} ${madeWith.takenOn}`).toBe(true);
      }
});

it('the trail of the demo is sound', async () => {
  expect(await soundness(base.app)).toBe('sound');
});

it('the demo has a plan of the week that can be done, with somebody away and an area shut down', async () => {
  const { placed, clashes, shutdowns, workers } = await loadWeek(base.app, '2026-05-04', 7, '2026-05-04');
  expect(placed.length).toBeGreaterThan(5);
  expect(clashes).toEqual([]);
  expect(shutdowns.map(({ firstDay, lastDay }) => [firstDay, lastDay])).toEqual([
    ['2026-05-05', '2026-05-06'],
  ]);
  expect(workers.map(({ minutes }) => minutes[3])).toEqual([450, 0]);
});

it.each([
  ['2026-05-04', [['2026-05-04', 7]]],
  ['2026-05-06', [['2026-05-06', 5]]],
  [
    '2026-05-07',
    [
      ['2026-05-07', 4],
      ['2026-05-11', 7],
    ],
  ],
  [
    '2026-05-08',
    [
      ['2026-05-08', 3],
      ['2026-05-11', 7],
    ],
  ],
  ['2026-05-09', [['2026-05-11', 7]]],
  ['2026-05-10', [['2026-05-11', 7]]],
])('the demo of %s has a plan of days that are to come', (day, spans) => {
  expect(spansOf(dayjs(day)).map(({ firstDay, days }) => [firstDay, days])).toEqual(spans);
});
