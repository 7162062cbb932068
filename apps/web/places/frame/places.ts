/** The places that are built. Those of every day stand in the bar; the rest behind one word, and on a phone in a sheet. */
export interface Place {
  readonly name: string;
  readonly path: string;
  readonly isEveryday: boolean;
}

export const PLACES: readonly Place[] = [
  { name: 'Today', path: '/', isEveryday: true },
  { name: 'Jobs', path: '/jobs', isEveryday: true },
  { name: 'Instruments', path: '/instruments', isEveryday: true },
  { name: 'References', path: '/references', isEveryday: true },
  { name: 'Bench', path: '/bench', isEveryday: false },
  { name: 'Workshop', path: '/workshop', isEveryday: false },
  { name: 'Practice', path: '/practice', isEveryday: false },
  { name: 'Planning', path: '/planning', isEveryday: false },
  { name: 'Insight', path: '/insight', isEveryday: false },
  { name: 'Office', path: '/office', isEveryday: false },
];

/** Places that fit a wide bar beside the site's name. */
const MOST_IN_BAR = 6;

/** What stands in a wide bar, and what behind its last word: all in the bar while they fit. */
export function barOf(places: readonly Place[]): {
  readonly bar: readonly Place[];
  readonly more: readonly Place[];
} {
  if (places.length <= MOST_IN_BAR) return { bar: places, more: [] };
  const bar = places.filter(({ isEveryday }) => isEveryday);
  return { bar, more: places.filter(({ isEveryday }) => !isEveryday) };
}

export const isAt = ({ path }: Place, pathname: string): boolean =>
  path === '/' ? pathname === '/' : pathname === path || pathname.startsWith(`${path}/`);
