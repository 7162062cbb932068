import { expect, it } from 'vitest';
import { detailInWords } from './words';

it('a change is said with what was before, and what is empty is left out', () => {
  expect(
    detailInWords({
      owner: { before: '', after: 'Night crew' },
      remark: '',
      hazards: [],
      walk: 10,
      due: null,
    }),
  ).toBe('owner:  → Night crew; walk: 10; due: none');
});

it('what runs on for pages is cut', () => {
  expect(detailInWords({ text: 'x'.repeat(1000) })).toHaveLength(402);
});
