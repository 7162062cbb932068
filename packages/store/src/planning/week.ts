/** A plan as it stands: who is where when, what of it clashes, and what found no place. */
import { clashesOf, timed, waysOut, type Clash, type Placed, type Way } from '@barys/core/plan';
import type { Queryable } from '../db/database';
import type { Stage } from '../jobs/stages';
import type { Instrument } from '../registers/instrument';
import { instrumentsOf } from '../registers/instruments';
import {
  isRead,
  planGround,
  plannedOn,
  walked,
  type Candidate,
  type PlanGround,
  type Planned,
} from './problem';
import { planSite } from './site';

/** Why an instrument that could be planned is not. */
export type WhyNot =
  /** It stood on a day that is past. */
  | { readonly code: 'not-done'; readonly day: string }
  /** All of it is read, and nothing is left for a plan. */
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
  return (candidate) => {
    const { instrument, openJob, planned } = candidate;
    if (planned !== null) return { code: 'not-done', day: planned.day };
    if (openJob !== null && isRead(candidate))
      return { code: 'in-hand', jobId: openJob.id, stage: openJob.stage };
    const job = jobs.get(instrument.id);
    if (job === undefined || job.days.length === 0) return { code: 'no-shutdown' };
    const hasReferences = job.days.some((day) =>
      job.needs.every((serving) => serving.some((id) => (inDate.get(id) ?? -1) >= day)),
    );
    if (!hasReferences) return { code: 'no-reference' };
    return { code: instrument.dueOn > last ? 'due-later' : 'no-room' };
  };
}

/** So many that are not planned are looked at; a plan in the making looks at all. */
const MOST_LOOKED = 300;

/**
 * The plan of some days as it stands, checked anew: what was possible when it was made may not be any more.
 * @param today ISO date
 * @param also an instrument that is among those that are not placed, whenever it is due
 */
export async function loadWeek(
  db: Queryable,
  first: string,
  count: number,
  today: string,
  also: number | null = null,
): Promise<Week> {
  const ground = await planGround(db, first, count, { also, most: MOST_LOOKED });
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
  const all = await plannedOn(db, first, days.at(-1) ?? first);
  const whyOf = reasons(ground);
  const past = first < today ? first : today;
  return {
    ...ground,
    placed: placed.flatMap((one) => {
      const planned = there.get(one.job);
      return planned === undefined ? [] : [{ ...one, planned }];
    }),
    clashes: clashesOf(problem, placed),
    notPlaced: candidates
      .filter(({ planned }) => planned === null || planned.day < past)
      .map((candidate) => ({ candidate, why: whyOf(candidate) })),
    done: all.filter(({ doneByJob }) => doneByJob !== null),
  };
}

/**
 * Where an instrument can be done on the days from today on without breaking anything, the nearest to where it stands first.
 * @param week with the instrument in it or among those that are not placed
 */
export function waysOf({ problem, placed, days }: Week, instrumentId: number, today: string): Way[] {
  const from = days.findIndex((day) => day >= today);
  const jobs = problem.jobs.map((job) => ({
    ...job,
    days: from < 0 ? [] : job.days.filter((day) => day >= from),
  }));
  return waysOut(
    { ...problem, jobs },
    placed.map(({ planned: _, ...one }) => one),
    String(instrumentId),
  );
}

/** Something that is planned, with its time and what there is to know on the way to it. */
export interface OnTheWay extends Planned {
  /** Minutes after the start of work. */
  readonly start: number;
  readonly instrument: Instrument;
}

/**
 * What is planned on some days, in service and not done, day by day and person by person in the order of the walk.
 * @param whose one person's; null takes everybody's
 */
export async function plannedWalks(
  db: Queryable,
  firstDay: string,
  lastDay: string,
  whose: number | null = null,
): Promise<OnTheWay[]> {
  const standing = (await plannedOn(db, firstDay, lastDay)).filter(
    ({ doneByJob, personId }) => doneByJob === null && (whose === null || personId === whose),
  );
  const [site, all] = await Promise.all([
    planSite(db),
    instrumentsOf(
      db,
      standing.map(({ instrumentId }) => instrumentId),
    ),
  ]);
  const instruments = all.filter(({ state }) => state === 'in service');
  const days = [...new Set(standing.map(({ day }) => day))].sort();
  const known = new Map(instruments.map((instrument) => [instrument.id, instrument]));
  const byJob = new Map(standing.map((planned) => [String(planned.instrumentId), planned]));
  const jobs = instruments.map((instrument) => ({
    ...walked(instrument),
    minutes: byJob.get(String(instrument.id))?.minutes ?? 0,
  }));
  const placed = timed(
    { ...site, jobs },
    standing.map(({ instrumentId, personId, day, references }) => ({
      job: String(instrumentId),
      person: String(personId),
      day: days.indexOf(day),
      references,
    })),
  );
  return placed
    .flatMap(({ job, start }) => {
      const [planned, instrument] = [byJob.get(job), known.get(Number(job))];
      return planned === undefined || instrument === undefined ? [] : [{ ...planned, start, instrument }];
    })
    .sort((a, b) => a.day.localeCompare(b.day) || a.personId - b.personId || a.start - b.start);
}
