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
  takeRequests,
  logWrite,
  type AnswerOfLink,
  type Bench,
  type TakenReading,
} from '@barys/store/benches';
import { StoreError } from '@barys/store/db';
import { CoreError } from '@barys/core/errors';
import { z } from 'zod';
import { database } from '@/server/database';
import { moment } from '@/server/moment';

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

/** What came of a request; what was changed at an instrument goes into the log of its job. */
async function hear(bench: Bench, { id, answer }: AnswerOfLink): Promise<void> {
  const keep = (kept: AnswerOfLink['answer']) =>
    database().transaction(async (tx) => {
      const asked = await keepAnswer(tx, bench, { id, answer: kept });
      if (kept.kind !== 'write' || asked?.request.kind !== 'write' || asked.job === null) return;
      const { device, askedBy, job, request } = asked;
      await logWrite(tx, bench, { device, askedBy, job, act: request.act }, kept, moment());
    });
  try {
    await keep(answer);
  } catch (error) {
    if (!(error instanceof StoreError || error instanceof CoreError)) throw error;
    // It was done all the same: whoever asked has to know.
    await keep({
      kind: 'trouble',
      words: `It was done, and could not be logged: ${error.message} Log it by hand.`.slice(0, 400),
    });
  }
}

/**
 * @param token that it came with; null where it came with none
 * @throws what `problemOfBody` answers
 */
export async function beatOfLink(token: string | null, body: () => Promise<unknown>): Promise<BeatAnswer> {
  const now = new Date();
  const bench = token === null ? null : await benchOfToken(database(), token, now);
  if (bench === null) throw new StoreError({ code: 'unknown-person' });
  const { values, taken, answers, state } = beatSchema.parse(await body());
  const refused: { clientKey: string; words: string }[] = [];
  for (const one of taken) {
    const words = await refusalOf(bench, one);
    if (words !== null) refused.push({ clientKey: one.clientKey, words });
  }
  for (const one of answers) await hear(bench, one);
  return database().transaction(async (tx) => {
    await keepValues(tx, bench, values, now);
    if (state !== null) await keepState(tx, bench, state, now);
    return {
      refused,
      task: await assignmentOf(tx, bench, now),
      ends: await endsOf(tx, bench),
      requests: await takeRequests(tx, bench, now),
    };
  });
}
