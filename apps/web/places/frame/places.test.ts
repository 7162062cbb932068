import { expect, it } from 'vitest';
import { barOf, isAt, PLACES, type Place } from './places';

const place = (name: string, isEveryday: boolean): Place => ({ name, path: `/${name}`, isEveryday });

it('all places stand in the bar while they fit', () => {
  const six = PLACES.slice(0, 6);
  expect(barOf(six)).toEqual({ bar: six, more: [] });
});

it('of ten places those of every day stand in the bar, the rest behind one word, none twice and none lost', () => {
  const ten = Array.from({ length: 10 }, (_, index) => place(`p${index}`, index < 4));
  const { bar, more } = barOf(ten);
  expect(bar.map(({ name }) => name)).toEqual(['p0', 'p1', 'p2', 'p3']);
  expect([...bar, ...more]).toHaveLength(10);
});

it('a phone has room for four places and the word for all', () => {
  expect(PLACES.filter(({ isEveryday }) => isEveryday).length).toBeLessThanOrEqual(4);
});

it('a place is where its pages are, and not where another begins alike', () => {
  const jobs = PLACES.find(({ name }) => name === 'Jobs') ?? place('none', true);
  const today = PLACES.find(({ name }) => name === 'Today') ?? place('none', true);
  expect([isAt(jobs, '/jobs'), isAt(jobs, '/jobs/7/brief'), isAt(jobs, '/jobsheet')]).toEqual([
    true,
    true,
    false,
  ]);
  expect([isAt(today, '/'), isAt(today, '/jobs')]).toEqual([true, false]);
});
