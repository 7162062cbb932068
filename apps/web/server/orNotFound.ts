import { isNeverKept, StoreError } from '@barys/store/db';
import { notFound } from 'next/navigation';

/** What an address names; something that is not there, or that no record can hold, is a page that is not there. */
export async function orNotFound<T>(find: () => Promise<T>): Promise<T> {
  try {
    return await find();
  } catch (error) {
    if (isNeverKept(error) || (error instanceof StoreError && error.refusal.code === 'no-such')) notFound();
    throw error;
  }
}

/** The number in an address; what cannot be one leads nowhere. */
export function pageId(text: string): number {
  const id = Number(text);
  if (!Number.isSafeInteger(id) || id <= 0) notFound();
  return id;
}
