/** Ways out: where else a job, and all that is isolated with it, can be done without breaking anything. */
import { clashesOf, type Clash } from './check';
import type { Placed, PlanProblem } from './problem';
import { timed, type Assigned } from './timeline';
import { isFor, unitsOf, type PlanUnit } from './units';

/** All jobs of a unit at one place of the plan. */
export interface Way {
  readonly person: string;
  readonly day: number;
  /** The jobs of the unit, the one that was asked for first. */
  readonly moves: readonly Placed[];
}

const concerns = (clash: Clash, ids: ReadonlySet<string>): boolean =>
  ids.has(clash.job) || ('by' in clash && ids.has(clash.by));

/** Who stands where on which day, the nearest to what is there first: the same day and person, then the day, then the person. */
function placesOf(
  { people, days }: PlanProblem,
  unit: PlanUnit,
  now: Placed | undefined,
): { readonly person: string; readonly day: number }[] {
  const from = now?.day ?? 0;
  const otherPerson = ({ person }: { person: string }): number => (person === now?.person ? 0 : 1);
  return unit.days
    .filter((day) => day < days)
    .flatMap((day) =>
      people
        .filter(({ id, minutes }) => isFor(unit, id) && (minutes[day] ?? 0) > 0)
        .map(({ id }) => ({ person: id, day })),
    )
    .sort(
      (a, b) =>
        Math.abs(a.day - from) - Math.abs(b.day - from) || a.day - b.day || otherPerson(a) - otherPerson(b),
    );
}

/** Gives each job of a unit references that are in date and in nobody else's hands meanwhile; null where there is none. */
function equip(
  problem: PlanProblem,
  plan: readonly Placed[],
  unit: PlanUnit,
  carried: ReadonlyMap<string, readonly string[]>,
): Placed[] | null {
  const lastDay = new Map(problem.references.map(({ id, lastDay: last }) => [id, last]));
  const minutes = new Map(problem.jobs.map((job) => [job.id, job.minutes]));
  const endOf = ({ job, start }: Placed): number => start + (minutes.get(job) ?? 0);
  const found: Placed[] = [];
  for (const job of unit.jobs) {
    const placed = plan.find((one) => one.job === job.id);
    if (placed === undefined) return null;
    const isHeld = (id: string): boolean =>
      plan.some(
        (one) =>
          one.day === placed.day &&
          one.person !== placed.person &&
          one.references.includes(id) &&
          one.start < endOf(placed) &&
          placed.start < endOf(one),
      );
    const own = plan.filter(({ person, day }) => person === placed.person && day === placed.day);
    const chosen: string[] = [];
    for (const [place, serving] of job.needs.entries()) {
      const free = serving.filter((id) => (lastDay.get(id) ?? -1) >= placed.day && !isHeld(id));
      // What it has already stays; of the rest, one that is carried for another job comes first.
      const kept = free.find((id) => carried.get(job.id)?.[place] === id);
      const one = kept ?? free.find((id) => own.some(({ references }) => references.includes(id))) ?? free[0];
      if (one === undefined) return null;
      chosen.push(one);
    }
    found.push({ ...placed, references: chosen });
  }
  return found;
}

/**
 * Where a job can be done so that neither it nor anything else clashes more than without it.
 * @param plan as it stands, with the job in it or not
 * @param job its id; all that is isolated with it in its area moves with it
 * @param most so many ways, the nearest to where it stands first; where it stands is one where other references are free
 */
export function waysOut(problem: PlanProblem, plan: readonly Placed[], job: string, most = 4): Way[] {
  const unit = unitsOf(problem).find(({ jobs }) => jobs.some(({ id }) => id === job));
  if (unit === undefined) return [];
  const ids = new Set(unit.jobs.map(({ id }) => id));
  const rest: readonly Assigned[] = plan.filter((one) => !ids.has(one.job));
  const now = plan.find((one) => one.job === job);
  const carried = new Map(plan.map((one) => [one.job, one.references]));
  const before = clashesOf(problem, timed(problem, rest)).length;
  const found: Way[] = [];
  for (const { person, day } of placesOf(problem, unit, now)) {
    if (found.length === most) break;
    const there = unit.jobs.map(({ id }): Assigned => ({ job: id, person, day, references: [] }));
    const moves = equip(problem, timed(problem, [...rest, ...there]), unit, carried);
    if (moves === null) continue;
    const all = timed(problem, [...rest, ...moves]);
    const clashes = clashesOf(problem, all);
    if (clashes.length > before || clashes.some((clash) => concerns(clash, ids))) continue;
    found.push({ person, day, moves: moves.sort((a, b) => Number(b.job === job) - Number(a.job === job)) });
  }
  return found;
}
