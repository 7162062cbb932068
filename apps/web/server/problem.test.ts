import { StoreError } from '@barys/store/db';
import { describe, expect, it } from 'vitest';
import { answer } from './act';
import { problemResponse } from './problem';

/** As PostgreSQL says it, and as Node.js does. */
const FULL = ['53100', 'ENOSPC'].map((code) => Object.assign(new Error('No space left on device'), { code }));

describe('a full disk', () => {
  it.each(FULL)(
    'is answered to a program with 503, when to come again, and what is to be done: %#',
    async (error) => {
      const response = problemResponse(error);
      expect(response.status).toBe(503);
      expect(Number(response.headers.get('retry-after'))).toBeGreaterThan(0);
      expect(await response.text()).toContain('The disk of the server is full');
    },
  );

  it('is answered to a form in the same words', async () => {
    for (const error of FULL)
      expect((await answer(() => Promise.reject(error))).error).toContain(
        'goes on by itself when there is room',
      );
  });
});

it('a refusal keeps its words, and an error that nobody knows says nothing of the inside', async () => {
  expect(await problemResponse(new StoreError({ code: 'run-empty' })).text()).toContain(
    'No point of this run was read',
  );
  const response = problemResponse(new Error('select secret from inside'));
  expect(response.status).toBe(500);
  expect(await response.text()).not.toContain('secret');
});
