/** A plan as it stands: who is where when, what of it clashes, and what found no place. */
import { clashesOf, timed, type Clash, type Placed } from '@barys/core/plan';
import type { Queryable } from '../db/database';
import type { Stage } from '../jobs/stages';
import { planGround, plannedOn, type Candidate, type PlanGround, type Planned } from './problem';

/** Why an instrument that could be planned is not. */
export type WhyNot =
  | { readonly code: 'in-hand'; readonly jobId: number; readonly stage: Stage | 'review' }
  | { readonly code: 'no-shutdown' }
  | { readonly code: 'no-reference' }
  | { readonly code: 'due-later' }
  | { readonly code: 'no-room' };

export interface NotPlaced {
  readonly candidate: Candidate;
  readonly why: WhyNot;
}

export interface Week extends PlanGround {
  /** With the times that follow from the walk. */
  readonly placed: readonly (Placed & { readonly planned: Planned })[];
  readonly clashes: readonly Clash[];
  readonly notPlaced: readonly NotPlaced[];
  readonly done: readonly Planned[];
}

/** What says of each candidate that is not planned why. */
function reasons({ days, problem }: PlanGround): (candidate: Candidate) => WhyNot {
  const jobs = new Map(problem.jobs.map((job) => [Number(job.id), job]));
  const inDate = new Map(problem.references.map(({ id, lastDay }) => [id, lastDay]));
  const last = days.at(-1) ?? '';
  return ({ instrument, openJob }) => {
    if (openJob !== null) return { code: 'in-hand', jobId: openJob.id, stage: openJob.stage };
    const job = jobs.get(instrument.id);
    if (job === undefined || job.days.length === 0) return { code: 'no-shutdown' };
    const hasReferences = job.days.some((day) =>
      job.needs.every((serving) => serving.some((id) => (inDate.get(id) ?? -1) >= day)),
    );
    if (!hasReferences) return { code: 'no-reference' };
    return { code: instrument.dueOn > last ? 'due-later' : 'no-room' };
  };
}

/** The plan of some days as it stands, checked anew: what was possible when it was made may not be any more. */
export async function loadWeek(db: Queryable, first: string, count: number): Promise<Week> {
  const ground = await planGround(db, first, count);
  const { days, candidates, problem } = ground;
  const there = new Map(
    candidates.flatMap(({ planned }) =>
      planned !== null && days.includes(planned.day)
        ? [[String(planned.instrumentId), planned] as const]
        : [],
    ),
  );
  const placed = timed(
    problem,
    [...there].map(([job, { personId, day, references }]) => ({
      job,
      person: String(personId),
      day: days.indexOf(day),
      references,
    })),
  );
  const whyOf = reasons(ground);
  const all = await plannedOn(db, first, days.at(-1) ?? first);
  return {
    ...ground,
    placed: placed.flatMap((one) => {
      const planned = there.get(one.job);
      return planned === undefined ? [] : [{ ...one, planned }];
    }),
    clashes: clashesOf(problem, placed),
    notPlaced: candidates
      .filter(({ planned }) => planned === null)
      .map((candidate) => ({ candidate, why: whyOf(candidate) })),
    done: all.filter(({ doneByJob }) => doneByJob !== null),
  };
}
