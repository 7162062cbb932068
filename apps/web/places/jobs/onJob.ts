/** What the acts on a job have in common: one transaction in the store, then on to where the job stands. */
import type { Queryable } from '@barys/store/db';
import { stageOfJob, STAGES, type Standing } from '@barys/store/jobs';
import type { Actor } from '@barys/store/people';
import { z } from 'zod';
import { act, thenGo } from '@/server/act';
import type { Answer } from '@/server/answer';

export const id = z.coerce.number().int().positive();

export const isStage = (standing: Standing): boolean => (STAGES as readonly string[]).includes(standing);

/** Where a job stands, as an address; straight there, since a redirect to a redirect can leave a page empty. */
export async function pageOfJob(tx: Queryable, jobId: number): Promise<string> {
  const stage = await stageOfJob(tx, jobId);
  return `/jobs/${jobId}/${isStage(stage) ? stage : 'record'}`;
}

/** Runs an act on the job named in the form and, when it was kept, goes to where the job now stands. */
export function onJob(
  form: FormData,
  work: (tx: Queryable, actor: Actor, jobId: number, entry: Record<string, unknown>) => Promise<unknown>,
  run = act,
): Promise<Answer> {
  const entry: Record<string, unknown> = { ...Object.fromEntries(form), checks: form.getAll('checks') };
  return thenGo(async () => {
    const jobId = id.parse(entry['job']);
    return run(async (tx, actor) => {
      await work(tx, actor, jobId, entry);
      return pageOfJob(tx, jobId);
    });
  });
}

export const note = z.string().max(2000, 'At most 2000 characters, please.').default('');
export const withNote = z.object({ note });

/** Answers by the key of their question: the fields of a form that are named `answer.` and the key. */
export const answersIn = (raw: Readonly<Record<string, unknown>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(raw).flatMap(([name, value]) =>
      name.startsWith('answer.') && typeof value === 'string'
        ? [[name.slice('answer.'.length), value.slice(0, 500)]]
        : [],
    ),
  );

export const password = z.string().max(500).default('');
