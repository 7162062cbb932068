'use server';
/** What is behind the readings of a run, taken into the record. */
import { SUSPICIONS } from '@barys/core/suspects';
import { chooseCause, takeBackCause } from '@barys/store/jobs';
import { z } from 'zod';
import { onJob } from '@/places/jobs/onJob';
import type { Answer } from '@/server/answer';

const entrySchema = z.object({
  act: z.enum(['keep', 'take back']).default('keep'),
  suspicion: z.enum(SUSPICIONS, { error: 'Choose one of the suspicions.' }),
  vented: z.string().max(20).default(''),
  remark: z.string().max(1000, 'At most 1000 characters, please.').default(''),
});

export async function keepFindingAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { act, ...entry } = entrySchema.parse(raw);
    return act === 'keep' ? chooseCause(tx, actor, jobId, entry) : takeBackCause(tx, actor, jobId, entry);
  });
}
