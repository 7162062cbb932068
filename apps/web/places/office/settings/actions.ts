'use server';
/** What is set for the whole installation. */
import { within } from '@barys/core/errors';
import { parseTyped } from '@barys/core/text';
import { intervalPolicySchema, setPolicy } from '@barys/store/intervals';
import { letterheadSchema, REVIEWS, setLetterhead, setReview, setTimeZone } from '@barys/store/people';
import { CRITICALITIES } from '@barys/store/registers';
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

export async function setPolicyAction(entry: {
  criticality: string;
  target: string;
  longestMonths: string;
}): Promise<Answer> {
  return thenStay(async () => {
    const criticality = z.enum(CRITICALITIES).parse(entry.criticality);
    const policy = intervalPolicySchema.parse({
      // A typed 99.99 % stands for 0.9999 and not for its binary neighbour.
      target: Number((within('target', () => parseTyped(entry.target).value) / 100).toFixed(4)),
      longestMonths: within('longestMonths', () => parseTyped(entry.longestMonths).value),
    });
    await act((tx, actor) => setPolicy(tx, actor, criticality, policy));
  });
}
