import { loadJob, StoreError, type JobFile } from '@barys/store';
import { notFound } from 'next/navigation';
import { database } from '@/server/database';

/** The job of an address, or the page that says there is none. */
export async function loadJobOr404(text: string): Promise<JobFile> {
  const id = Number(text);
  if (!Number.isSafeInteger(id) || id <= 0) notFound();
  try {
    return await loadJob(database(), id);
  } catch (error) {
    if (error instanceof StoreError && error.refusal.code === 'no-such') notFound();
    throw error;
  }
}
