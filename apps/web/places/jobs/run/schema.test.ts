import { expect, it } from 'vitest';
import { readingSchema } from './schema';

const GOOD = {
  position: 1,
  clientKey: '7b1f1c2e-6a52-4a83-9a4e-0d5b3f6f2a11',
  appliedText: '0,000',
  appliedAs: 'read',
  outputText: '4.010',
  supersedes: null,
};

it('a reading passes as it was typed', () => {
  expect(readingSchema.parse(GOOD)).toEqual({ ...GOOD, more: {}, takenAt: null, desk: null });
});

it.each([
  [{ outputText: '' }, 'outputText', 'Type a number.'],
  [{ outputText: '4.0x' }, 'outputText', 'is not a number'],
  [{ appliedText: '1.000,5' }, 'appliedText', 'more than one decimal sign'],
  [{ outputText: '1234567890.1234567' }, 'outputText', 'more than 15 significant digits'],
  [{ position: 0 }, 'position', 'Too small'],
  [{ position: 1.5 }, 'position', ''],
  [{ clientKey: 'x' }, 'clientKey', ''],
  [{ appliedAs: 'guessed' }, 'appliedAs', ''],
  [{ supersedes: -1 }, 'supersedes', ''],
  [{ outputText: 4.01 }, 'outputText', ''],
])('%j is refused at its field', (change, field, words) => {
  const { error } = readingSchema.safeParse({ ...GOOD, ...change });
  expect(error?.issues.map(({ path }) => path.join('.'))).toEqual([field]);
  expect(error?.issues[0]?.message).toContain(words);
});
