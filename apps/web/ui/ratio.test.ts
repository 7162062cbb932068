import { expect, it } from 'vitest';
import { ratioInWords } from './ratio';

it('an accuracy ratio is never rounded up to one that it does not reach', () => {
  expect([0.99, 1, 3.999, 4, 9.99, 14.9].map(ratioInWords)).toEqual([
    'below 1 : 1',
    '1.0 : 1',
    '3.9 : 1',
    '4.0 : 1',
    '9.9 : 1',
    '14 : 1',
  ]);
});
