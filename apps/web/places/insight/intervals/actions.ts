'use server';
/** The calculation of all advice: asked for, and stopped. */
import { askCalculation, stopCalculation } from '@barys/store/intervals';
import { z } from 'zod';
import { act, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { workApart } from '@/server/apart';

export async function askCalculationAction(): Promise<Answer> {
  return thenStay(async () => {
    const id = await act(askCalculation);
    workApart('calculation-worker', id);
  });
}

export async function stopCalculationAction(id: number): Promise<Answer> {
  return thenStay(() => act((tx, actor) => stopCalculation(tx, actor, z.number().int().parse(id))));
}
