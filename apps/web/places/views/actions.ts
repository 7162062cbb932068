'use server';
/** Views of lists that a person keeps. */
import { dropView, keepView, VIEW_PLACES } from '@barys/store/people';
import { z } from 'zod';
import { act, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';

const id = z.number().int().positive();

export async function keepViewAction(entry: { place: string; name: string; query: string }): Promise<Answer> {
  return thenStay(async () => {
    const { place, ...view } = z
      .object({
        place: z.enum(VIEW_PLACES),
        name: z.string().trim().min(1, 'Give the view a name.').max(60, 'At most 60 characters, please.'),
        query: z.string().max(2000),
      })
      .parse(entry);
    await act((tx, actor) => keepView(tx, actor, place, view));
  });
}

export async function dropViewAction(viewId: number): Promise<Answer> {
  return thenStay(() => act((tx, actor) => dropView(tx, actor, id.parse(viewId))));
}
