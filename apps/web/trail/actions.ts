'use server';
import { firstBrokenEntry, StoreError } from '@barys/store';
import { answer } from '@/server/act';
import type { Answer } from '@/server/answer';
import { database } from '@/server/database';
import { actingPerson } from '@/server/person';

/** Checks the chain of the trail; `broken` is the first entry that is missing or altered. */
export async function verifyTrailAction(): Promise<Answer & { broken?: number | null }> {
  const found: (number | null)[] = [];
  const result = await answer(async () => {
    if ((await actingPerson()) === null) throw new StoreError({ code: 'unknown-person' });
    found.push(await firstBrokenEntry(database()));
  });
  const [broken] = found;
  return broken === undefined ? result : { ...result, broken };
}
