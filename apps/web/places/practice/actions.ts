'use server';
/** An attempt is scored from what was done, on the server, and kept. */
import { lessonOf, scoreOf, type Score } from '@barys/rig/practice';
import { keepAttempt } from '@barys/store/practice';
import type { Answer } from '@/server/answer';
import { act, thenStay } from '@/server/act';
import { currentActor } from '@/server/person';
import { attemptSchema } from './schema';

/** @returns the score, or what is wrong */
export async function finishAction(entry: unknown): Promise<Answer | { readonly score: Score }> {
  const scores: Score[] = [];
  const answered = await thenStay(async () => {
    // Nobody's attempt is worked out for who may not keep it.
    await currentActor();
    const attempt = attemptSchema.parse(entry);
    const score = scoreOf(lessonOf(attempt.lesson), attempt.seed, attempt.record);
    await act((tx, actor) =>
      keepAttempt(tx, actor, { ...attempt, points: score.points, timeS: score.timeS }),
    );
    scores.push(score);
  });
  const [score] = scores;
  return score === undefined ? answered : { score };
}
