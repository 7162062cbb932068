import { answer } from '@/server/act';
import type { Asked } from './useRequest';

/** Runs an act that asks something of an instrument; the answer says under which number what comes is found. */
export async function thenAsked(work: () => Promise<number>): Promise<Asked> {
  const numbers: number[] = [];
  const result = await answer(async () => numbers.push(await work()));
  const [request] = numbers;
  return request === undefined ? result : { ...result, request };
}
