/** How an act of a person runs and how it is answered when it cannot. */
import { isDiskFull, type Queryable } from '@barys/store/db';
import { countPasswordTry, type Actor } from '@barys/store/people';
import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { DONE, type Answer } from './answer';
import { answerTo, DISK_FULL, log } from './answerTo';
import { database } from './database';
import { currentActor } from './person';
import { sealNow } from './sealer';

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
