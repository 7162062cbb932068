'use server';
/** Ticking the lines of a job's lists. */
import { tickLine } from '@barys/store/jobs';
import { z } from 'zod';
import { act, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';

const whole = z.number().int().positive();
const tickSchema = z.object({ job: whole, line: whole, isDone: z.boolean() });

export async function tickLineAction(entry: z.input<typeof tickSchema>): Promise<Answer> {
  return thenStay(async () => {
    const { job, line, isDone } = tickSchema.parse(entry);
    await act((tx, actor) => tickLine(tx, actor, job, { lineId: line, isDone }));
  });
}
