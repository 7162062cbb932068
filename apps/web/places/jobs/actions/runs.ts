'use server';
/** Finishing, judging and throwing away a run. */
import { decideOnRun, DECISIONS_ON_RUN, finishRun, reopenAsFound, throwRunAway } from '@barys/store/jobs';
import { z } from 'zod';
import type { Answer } from '@/server/answer';
import { note, onJob } from '@/places/jobs/onJob';

export async function finishRunAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { kind } = z.object({ kind: z.enum(['as-found', 'as-left']) }).parse(raw);
    return finishRun(tx, actor, jobId, kind);
  });
}

export async function decideAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const entry = z.object({ decision: z.enum([...DECISIONS_ON_RUN, 'reopen']), note }).parse(raw);
    const { decision } = entry;
    return decision === 'reopen'
      ? reopenAsFound(tx, actor, jobId)
      : decideOnRun(tx, actor, jobId, { decision, note: entry.note });
  });
}

export async function throwAwayAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const entry = z.object({ kind: z.enum(['as-found', 'as-left']), reason: note }).parse(raw);
    return throwRunAway(tx, actor, jobId, entry.kind, entry.reason);
  });
}
