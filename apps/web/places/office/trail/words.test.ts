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

it('answers, lists and parts are said in words, without brackets and codes', () => {
  expect(
    detailInWords({
      answers: [{ question: 'Permit: its number', answer: 'W-2041' }],
      isSkip: false,
      referenceReason: 'none better',
      ambient: { temperatureC: 21, barometerHpa: 1010 },
      errors: [
        { at: 4, error: 0.004 },
        { at: 20, error: 0.021 },
      ],
    }),
  ).toBe(
    'answers: Permit: its number W-2041; is skip: no; reference reason: none better; ' +
      'ambient: temperature c 21, barometer hpa 1010; errors: at 4, error 0.004; at 20, error 0.021',
  );
});

it('what runs on for pages is cut', () => {
  expect(detailInWords({ text: 'x'.repeat(1000) })).toHaveLength(402);
});
