import { isUnwritable, StoreError } from '@barys/store/db';
import { notFound } from 'next/navigation';

const NOT_HERE: readonly string[] = ['no-such', 'not-allowed'];

/** What an address names; something that is not there, not for whoever asks, or that no name can hold, is a page that is not there. */
export async function orNotFound<T>(find: () => Promise<T>): Promise<T> {
  try {
    return await find();
  } catch (error) {
    if (isUnwritable(error) || (error instanceof StoreError && NOT_HERE.includes(error.refusal.code)))
      notFound();
    throw error;
  }
}

/** The number in an address; what cannot be one leads nowhere. */
export function pageId(text: string): number {
  const id = Number(text);
  if (!Number.isSafeInteger(id) || id <= 0) notFound();
  return id;
}
