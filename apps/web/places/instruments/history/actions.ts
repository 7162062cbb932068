'use server';
/** What a planner decides on an instrument's history. */
import { changeIntervalOf, intervalChangeSchema } from '@barys/store/intervals';
import { z } from 'zod';
import { act, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';

const id = z.number().int().positive();

export async function changeIntervalAction(entry: {
  instrumentId: number;
  tag: string;
  before: number;
  months: string;
  reason: string;
}): Promise<Answer> {
  if (entry.months === '') return { error: 'Choose the new interval.', field: 'months' };
  return thenStay(async () => {
    const change = intervalChangeSchema.parse({
      beforeMonths: entry.before,
      months: Number(entry.months),
      reason: entry.reason,
    });
    await act((tx, actor) => changeIntervalOf(tx, actor, id.parse(entry.instrumentId), change));
  });
}
