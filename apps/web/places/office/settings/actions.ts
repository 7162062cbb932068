'use server';
/** What is set for the whole installation. */
import { letterheadSchema, REVIEWS, setLetterhead, setReview, setTimeZone } from '@barys/store/people';
import { z } from 'zod';
import { act, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { readZone } from '@/server/zone';

export async function setReviewAction(form: FormData): Promise<Answer> {
  return thenStay(async () => {
    const { review } = z.object({ review: z.enum(REVIEWS) }).parse(Object.fromEntries(form));
    await act((tx, actor) => setReview(tx, actor, review));
  });
}

export async function setTimeZoneAction(form: FormData): Promise<Answer> {
  return thenStay(async () => {
    const { zone } = z.object({ zone: z.string() }).parse(Object.fromEntries(form));
    await act((tx, actor) => setTimeZone(tx, actor, zone));
    await readZone();
  });
}

export async function setLetterheadAction(entry: unknown): Promise<Answer> {
  return thenStay(async () => {
    const letterhead = letterheadSchema.parse(entry);
    await act((tx, actor) => setLetterhead(tx, actor, letterhead));
  });
}
