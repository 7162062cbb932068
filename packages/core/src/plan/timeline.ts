/** When each job of a person's day begins: walked area by area, with one permit for each. */
import type { Placed, PlanJob, PlanProblem } from './problem';

/** What the order of a walk and its times follow from. */
type Walked = Pick<PlanJob, 'id' | 'area' | 'walk' | 'group' | 'minutes'>;
type Ways = Pick<PlanProblem, 'walkMinutes' | 'permitMinutes'>;

/** A job in somebody's day, without its time. */
export type Assigned = Omit<Placed, 'start'>;

/** In the order of the walk: what is isolated together stays together, at the place of its first. */
export function walkOrder<Job extends Walked>(jobs: readonly Job[]): Job[] {
  const placeOf = new Map<string, number>();
  for (const { group, walk } of jobs)
    if (group !== null) placeOf.set(group, Math.min(placeOf.get(group) ?? Infinity, walk));
  const place = ({ group, walk }: Walked): number => (group === null ? walk : (placeOf.get(group) ?? walk));
  return [...jobs].sort(
    (a, b) =>
      a.area.localeCompare(b.area) ||
      place(a) - place(b) ||
      (a.group ?? '').localeCompare(b.group ?? '') ||
      a.walk - b.walk ||
      a.id.localeCompare(b.id),
  );
}

/** Minutes of a day that go into walks and permits, for so many areas. */
export const wayMinutes = ({ walkMinutes, permitMinutes }: Ways, areas: number): number =>
  areas === 0 ? 0 : areas * (walkMinutes + permitMinutes) + walkMinutes;

/** The starts of the jobs of one day, in the order that is given. */
export function startsOf(
  { walkMinutes, permitMinutes }: Ways,
  jobs: readonly Walked[],
): { readonly starts: readonly number[]; readonly end: number } {
  let at = 0;
  let area: string | null = null;
  const permits = new Set<string>();
  const starts = jobs.map((job) => {
    if (job.area !== area) at += walkMinutes;
    if (!permits.has(job.area)) at += permitMinutes;
    permits.add(job.area);
    area = job.area;
    const start = at;
    at += job.minutes;
    return start;
  });
  return { starts, end: jobs.length === 0 ? 0 : at + walkMinutes };
}

/** Puts times to assignments: each person's day in the order of the walk. */
export function timed(
  problem: Ways & { readonly jobs: readonly Walked[] },
  assigned: readonly Assigned[],
): Placed[] {
  const jobs = new Map(problem.jobs.map((job) => [job.id, job]));
  const days = new Map<string, Assigned[]>();
  for (const one of assigned) {
    const key = `${one.day} ${one.person}`;
    days.set(key, [...(days.get(key) ?? []), one]);
  }
  return [...days.values()].flatMap((day) => {
    const byJob = new Map(day.map((one) => [one.job, one]));
    const ordered = walkOrder(day.flatMap(({ job }) => jobs.get(job) ?? []));
    const { starts } = startsOf(problem, ordered);
    return ordered.map((job, index) => ({ ...(byJob.get(job.id) as Assigned), start: starts[index] ?? 0 }));
  });
}
