'use server';
/** Finishing, judging and throwing away a run. */
import { ACTS } from '@barys/core/adjust';
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
    // A row of the acts names what is adjusted instead of what was advised.
    const {
      act,
      decision,
      note: said,
    } = z
      .object({
        act: z.enum(ACTS).optional(),
        decision: z.enum([...DECISIONS_ON_RUN, 'reopen']).optional(),
        note,
      })
      .parse(raw);
    if (act !== undefined) return decideOnRun(tx, actor, jobId, { decision: 'adjust', note: said, act });
    const decided = z.enum([...DECISIONS_ON_RUN, 'reopen']).parse(decision);
    return decided === 'reopen'
      ? reopenAsFound(tx, actor, jobId)
      : decideOnRun(tx, actor, jobId, { decision: decided, note: said });
  });
}

export async function throwAwayAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const entry = z.object({ kind: z.enum(['as-found', 'as-left']), reason: note }).parse(raw);
    return throwRunAway(tx, actor, jobId, entry.kind, entry.reason);
  });
}
