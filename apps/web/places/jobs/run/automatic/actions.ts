'use server';
/** What people tell a run that goes by itself. */
import { ORDERS, type Order } from '@barys/core/automatic';
import {
  automaticSchema,
  endAutomatic,
  orderAutomatic,
  startAutomatic,
  type Automatic,
} from '@barys/store/benches';
import { z } from 'zod';
import { act, answer } from '@/server/act';
import type { Answer } from '@/server/answer';

const runNumber = z.number().int().positive();

export async function startAutomaticAction(entry: { readonly run: number } & Automatic): Promise<Answer> {
  return answer(async () => {
    const run = runNumber.parse(entry.run);
    const wanted = automaticSchema.parse(entry);
    await act((tx, actor) => startAutomatic(tx, actor, run, wanted));
  });
}

export async function orderAutomaticAction(entry: {
  readonly run: number;
  readonly order: Order;
}): Promise<Answer> {
  return answer(async () => {
    const { run, order } = z.object({ run: runNumber, order: z.enum(ORDERS) }).parse(entry);
    await act((tx, actor) => orderAutomatic(tx, actor, run, order));
  });
}

export async function endAutomaticAction(entry: { readonly run: number }): Promise<Answer> {
  return answer(async () => {
    const run = runNumber.parse(entry.run);
    await act((tx, actor) => endAutomatic(tx, actor, run));
  });
}
