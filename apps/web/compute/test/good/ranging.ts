import type { Good } from '../parts';

export const RANGING: Good = {
  'judge-range': [
    { body: { lowerRangeLimit: -10, upperRangeLimit: 40, leastSpan: 4 }, lrv: 0, urv: 50 },
    'breaches.0.limit',
    'upper range limit',
  ],
  'span-overlap': [
    { one: { leastSpan: 20, greatestSpan: 205 }, other: { leastSpan: 200, greatestSpan: 850 } },
    'overlap',
    [200, 205],
  ],
  'least-span-of-stamp': [{ largestSpan: 200, turndown: 4 }, 'leastSpan', 50],
};
