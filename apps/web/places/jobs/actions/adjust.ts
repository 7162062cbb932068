'use server';
/** Adjusting. */
import { NULL_UNITS } from '@barys/core/adjust';
import { adjustAgain, ADJUSTMENT_KINDS, backToJudge, beginAsLeft, logAdjustment } from '@barys/store/jobs';
import { z } from 'zod';
import type { Answer } from '@/server/answer';
import { note, onJob } from '@/places/jobs/onJob';

const adjustmentSchema = z.object({
  kind: z.enum(ADJUSTMENT_KINDS),
  description: note,
  atAppliedText: z.string(),
  beforeText: z.string(),
  afterText: z.string(),
  nullAt: z
    .enum(['0', '100'])
    .transform((at) => (at === '0' ? 0 : 100))
    .optional(),
  nullUnit: z.enum(NULL_UNITS).optional(),
  toReceiver: z.string().max(60).default(''),
});

export async function logAdjustmentAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => logAdjustment(tx, actor, jobId, adjustmentSchema.parse(raw)));
}

export async function leaveAdjustAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const { to } = z.object({ to: z.enum(['as-left', 'judge']) }).parse(raw);
    return to === 'as-left' ? beginAsLeft(tx, actor, jobId) : backToJudge(tx, actor, jobId);
  });
}

export async function adjustAgainAction(form: FormData): Promise<Answer> {
  return onJob(form, adjustAgain);
}
