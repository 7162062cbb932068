/** One word with a link: its values, the readings that it took, where its run stands; and what it has to do. */
import type { BeatAnswer } from '@barys/core/port';
import {
  assignmentOf,
  benchOfToken,
  benchValueSchema,
  keepState,
  keepTaken,
  keepValues,
  endsOf,
  keepAnswer,
  stateSchema,
  takenSchema,
  requestAnswerSchema,
  requestsOf,
  type Bench,
  type TakenReading,
} from '@barys/store/benches';
import { StoreError } from '@barys/store/db';
import { CoreError } from '@barys/core/errors';
import { z } from 'zod';
import { programToken } from '@/server/asked';
import { database } from '@/server/database';
import { moment } from '@/server/moment';
import { problemResponse } from '@/server/problem';

const beatSchema = z.object({
  values: z.array(benchValueSchema).max(200),
  taken: z.array(takenSchema).max(100),
  answers: z.array(requestAnswerSchema).max(20),
  state: stateSchema.nullable(),
});

/** Why a reading is never kept; null where it is. */
async function refusalOf(bench: Bench, taken: TakenReading): Promise<string | null> {
  try {
    await database().transaction((tx) => keepTaken(tx, bench, taken, moment()));
    return null;
  } catch (error) {
    // Sent again it would be refused again; what is away comes back.
    if (error instanceof StoreError || error instanceof CoreError) return error.message;
    throw error;
  }
}

export async function beatOfLink(request: Request): Promise<Response> {
  try {
    const now = new Date();
    const token = programToken({ header: (name) => request.headers.get(name) });
    const bench = token === null ? null : await benchOfToken(database(), token, now);
    if (bench === null) throw new StoreError({ code: 'unknown-person' });
    const { values, taken, answers, state } = beatSchema.parse(await request.json());
    const refused: { clientKey: string; words: string }[] = [];
    for (const one of taken) {
      const words = await refusalOf(bench, one);
      if (words !== null) refused.push({ clientKey: one.clientKey, words });
    }
    const answer = await database().transaction(async (tx): Promise<BeatAnswer> => {
      await keepValues(tx, bench, values, now);
      if (state !== null) await keepState(tx, bench, state, now);
      for (const one of answers) await keepAnswer(tx, bench, one);
      return {
        refused,
        task: await assignmentOf(tx, bench, now),
        ends: await endsOf(tx, bench),
        requests: await requestsOf(tx, bench, now),
      };
    });
    return Response.json(answer, { headers: { 'cache-control': 'no-store, no-transform' } });
  } catch (error) {
    return problemResponse(error instanceof SyntaxError ? new z.ZodError([]) : error);
  }
}
