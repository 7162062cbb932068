/** How an act of a person runs and how it is answered when it cannot. */
import { CoreError } from '@barys/core/errors';
import { isDiskFull, StoreError, type Queryable } from '@barys/store/db';
import { countPasswordTry, type Actor } from '@barys/store/people';
import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { z } from 'zod';
import { DONE, type Answer } from './answer';
import { database } from './database';
import { logOf } from './log';
import { currentActor } from './person';
import { sealNow } from './sealer';

export const log = logOf('barys');

/** Runs an act in one transaction as the acting person. */
export async function act<T>(work: (tx: Queryable, actor: Actor) => Promise<T>): Promise<T> {
  const actor = await currentActor();
  return database().transaction((tx) => work(tx, actor));
}

/** The same for an act that asks for the password again: tries are counted, also those that fail; it is sealed at once. */
export async function actWithPassword<T>(work: (tx: Queryable, actor: Actor) => Promise<T>): Promise<T> {
  await countPasswordTry(database(), await currentActor());
  const done = await act(work);
  await sealNow();
  return done;
}

/** The answer to an error that the person can do something about; null for one that they cannot. */
export function answerTo(error: unknown): Answer | null {
  if (error instanceof StoreError || error instanceof CoreError) return { error: error.message };
  if (error instanceof z.ZodError) {
    const [issue] = error.issues;
    return { error: issue?.message ?? 'The entry is not complete.', field: issue?.path.join('.') };
  }
  return null;
}

/** Said where the server has no room left; it goes on by itself once there is. */
export const DISK_FULL =
  'The disk of the server is full: this is not kept yet. What you typed is still here. Tell whoever keeps the server; it goes on by itself when there is room.';

/** Runs an act for a form: errors a person can mend become an answer, others are logged and thrown. */
export async function answer(work: () => Promise<unknown>): Promise<Answer> {
  try {
    await work();
    return DONE;
  } catch (error) {
    const known = answerTo(error);
    if (known !== null) return known;
    log.error({ err: error }, 'an act failed');
    if (isDiskFull(error)) return { error: DISK_FULL };
    return {
      error: 'The server could not keep this. Nothing was changed; what you typed is still here. Try again.',
    };
  }
}

/** Runs an act for a form and, when it was kept, goes on to the page that the act names. */
export async function thenGo(work: () => Promise<string>): Promise<Answer> {
  const pages: string[] = [];
  const result = await answer(async () => pages.push(await work()));
  const [page] = pages;
  if (page === undefined) return result;
  revalidatePath('/', 'layout');
  redirect(page);
}

/** Runs an act for a form and, when it was kept, brings the pages up to date. */
export async function thenStay(work: () => Promise<unknown>): Promise<Answer> {
  const result = await answer(work);
  revalidatePath('/', 'layout');
  return result;
}
